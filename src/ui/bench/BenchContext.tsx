"use client";
// The bench's state with its effects: changes go to the server in order, can be undone, and reach every view and every tab.
import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import {
  createContext,
  useCallback,
  useContext,
  useMemo,
  useRef,
  useState,
  type Dispatch,
  type ReactNode,
} from "react";
import type { Brief, BriefPatch, Kept, KeptPut } from "@/contracts/brief";
import type { KeptId, StyleId } from "@/contracts/ids";
import type { Operation } from "@/contracts/operations/operation";
import { OPERATIONS } from "@/contracts/operations/table";
import { keptIdOf } from "@/core/brief/keptId";
import { ask, faultOf, readAgain } from "../parts/client";
import { writeFault } from "../messages";
import type { Call, Command } from "./commands";
import type { Save } from "./saves";
import { useCommandStack } from "./useCommands";
import { useBriefSaves } from "./useBriefSaves";
import { benchReducer, openBench, type BenchAction, type BenchState, type Notices, type Now } from "./state";

/** Where a face stands on its axes, and its features: as it was seen. */
type SeenAt = { location?: Record<string, number>; features?: Record<string, number> };

type Bench = BenchState &
  Notices & {
    dispatch: Dispatch<BenchAction>;
    changeBrief: (patch: BriefPatch) => void;
    /** A change that is told, and is a step of its own. */
    changeInStep: (patch: BriefPatch, message: string) => void;
    /** A change outside the brief that can be taken back: both ways are operations, so that undo and redo outlive a reload. */
    perform: (summary: string, forward: Call, backward: Call) => void;
    /** The same of a change that was made already. @param opens - the page that shows it once it is undone. */
    recordDone: (summary: string, forward: Call, backward: Call, opens?: string) => void;
    keep: (styleId: StyleId, name: string, put?: KeptPut, at?: SeenAt) => void;
    changeKept: (keptId: KeptId, name: string, put: KeptPut) => void;
    letGo: (keptId: KeptId, name: string) => void;
    toggleKept: (styleId: StyleId, name: string, at?: SeenAt) => void;
    setAside: (styleId: StyleId, name: string, aside: boolean) => void;
    undo: () => void;
    redo: () => void;
    /** Sends a change after those before it; it waits while the server is away, and outlives a reload. */
    addSave: (save: Save) => void;
    retrySaves: () => void;
    /** Shows the brief as the server answered with it. */
    arrive: (brief: Brief) => void;
    /** Who this tab is to the server: what it changed is its own to undo. */
    who: () => string;
  };

const Context = createContext<Bench | null>(null);

export function useBench(): Bench {
  const bench = useContext(Context);
  if (!bench) throw new Error("useBench outside of a bench");
  return bench;
}

export function BenchProvider({ brief, children }: { brief: Brief; children: ReactNode }) {
  const [state, dispatch, now] = useNow(brief);
  const notices = useNotices(dispatch);
  const saves = useBriefSaves(brief, now, dispatch, notices);
  const commands = useBenchCommands(brief.briefId, saves, notices);
  const { stepped } = commands;
  const keeping = useKeeping(brief.briefId, now, dispatch, saves.addSave, stepped);
  const bench = useMemo(
    () => ({
      ...state,
      dispatch,
      ...notices,
      ...saves,
      // Made on the brief as this render shows it: what has come since is not taken back.
      changeBrief: (patch: BriefPatch) => {
        saves.changeBrief(patch, state.brief);
        stepped();
      },
      changeInStep: (patch: BriefPatch, message: string) => {
        saves.flush();
        saves.changeBrief(patch, state.brief);
        saves.flush(true);
        stepped(message);
      },
      ...keeping,
      ...commands,
    }),
    [state, dispatch, notices, saves, keeping, commands, stepped],
  );
  return <Context value={bench}>{children}</Context>;
}

/** State that can be read at once after it was changed, not a render later. */
function useNow(brief: Brief): [BenchState, Dispatch<BenchAction>, Now] {
  const [state, setState] = useState(() => openBench(brief));
  const now = useRef(state);
  const dispatch = useCallback((action: BenchAction) => {
    now.current = benchReducer(now.current, action);
    setState(now.current);
  }, []);
  return [state, dispatch, now];
}

function useNotices(dispatch: Dispatch<BenchAction>): Notices {
  const counter = useRef(0);
  return useMemo(() => {
    const tell = (message: string, canUndo: boolean, isFault: boolean) =>
      dispatch({ type: "said", notice: { id: ++counter.current, message, canUndo, isFault } });
    const say = (message: string, isFault = false) => tell(message, false, isFault);
    return {
      say,
      sayFault: (error) => {
        const { what, now: next } = writeFault(faultOf(error));
        say(`${what} ${next}`.trim(), true);
      },
      sayDone: (message) => tell(message, true, false),
    };
  }, [dispatch]);
}

type Keeping = Pick<Bench, "keep" | "changeKept" | "letGo" | "toggleKept" | "setAside">;

/** What is kept and set aside: shown at once, saved in order; undo is the server's. */
function useKeeping(
  briefId: string,
  now: Now,
  dispatch: Dispatch<BenchAction>,
  addSave: (save: Save) => void,
  stepped: (message: string) => void,
): Keeping {
  return useMemo(() => {
    const path = `/briefs/${briefId}`;
    const put = (entry: Kept, change: KeptPut, message: string, isNew: boolean) => {
      const { keptId, styleId, location, features } = entry;
      dispatch({ type: "kept", entry: { ...entry, ...change } });
      stepped(message);
      if (isNew)
        addSave({
          name: `keep ${keptId}`,
          path: `${path}/kept`,
          method: "POST",
          json: { styleId, location, features, ...change },
        });
      else addSave({ name: `kept ${keptId}`, path: `${path}/kept/${keptId}`, method: "PATCH", json: change });
    };
    const keep: Keeping["keep"] = (styleId, name, change = {}, { location = {}, features = {} } = {}) => {
      const keptId = keptIdOf(styleId, location, features) as KeptId;
      const known = now.current.brief.kept.find((k) => k.keptId === keptId);
      const place = now.current.brief.kept.length;
      const fresh = { keptId, styleId, location, features, role: "", group: "", note: "", favourite: false, place };
      put(
        known ?? { ...fresh, keptAt: new Date().toISOString() },
        change,
        `${name} ${known ? "changed" : "kept"}`,
        !known,
      );
    };
    const changeKept: Keeping["changeKept"] = (keptId, name, change) => {
      const known = now.current.brief.kept.find((k) => k.keptId === keptId);
      if (known) put(known, change, `${name} changed`, false);
    };
    const letGo: Keeping["letGo"] = (keptId, name) => {
      dispatch({ type: "let go", keptId });
      stepped(`${name} removed`);
      addSave({ name: `let go ${keptId}`, path: `${path}/kept/${keptId}`, method: "DELETE" });
    };
    const toggleKept: Keeping["toggleKept"] = (styleId, name, at = {}) => {
      const { kept } = now.current.brief;
      const exact = keptIdOf(styleId, at.location, at.features);
      const known = kept.find((k) => k.keptId === exact) ?? kept.find((k) => k.styleId === styleId);
      if (known) letGo(known.keptId, name);
      else keep(styleId, name, {}, at);
    };
    const setAside: Keeping["setAside"] = (styleId, name, aside) => {
      dispatch({ type: "set aside", styleId, aside });
      stepped(aside ? `${name} set aside` : `${name} brought back`);
      addSave({ name: `aside ${styleId}`, path: `${path}/aside/${styleId}`, method: aside ? "PUT" : "DELETE" });
    };
    return { keep, changeKept, letGo, toggleKept, setAside };
  }, [briefId, now, dispatch, addSave, stepped]);
}

type BenchCommands = Pick<Bench, "perform" | "recordDone" | "undo" | "redo"> & {
  /** The brief was changed: what was undone cannot be done again. @param message - tells it, with a way back. */
  stepped: (message?: string) => void;
};

/** Undo and redo: the brief's own steps, which the server keeps, and what else was done in this tab, in the order in which it was done. */
function useBenchCommands(
  briefId: string,
  { settled, who, arrive }: ReturnType<typeof useBriefSaves>,
  { say, sayFault, sayDone }: Notices,
): BenchCommands {
  const queries = useQueryClient();
  const router = useRouter();
  const stack = useCommandStack<Call>(briefId);
  /** What was asked for is done one after another. */
  const line = useRef<Promise<void>>(Promise.resolve());
  const inOrder = useCallback(
    (work: () => Promise<void>) => {
      line.current = line.current.then(work).catch(sayFault);
    },
    [sayFault],
  );
  const apply = useCallback(
    async ({ name, sent }: Call) => {
      await ask(name, sent as never);
      const changes = (OPERATIONS[name] as Operation).changes ?? [];
      void readAgain(queries, ...changes);
      // Pages of a style are made by the server.
      if (changes.includes("styles")) router.refresh();
    },
    [queries, router],
  );
  const step = useCallback(
    async (which: "undo" | "redo") => {
      await settled();
      const command = which === "undo" ? stack.last : stack.next;
      // Steps of the brief that stand between what was done last in this tab and what would be done again.
      const query = { after: stack.last?.version, ...(which === "redo" && { upTo: stack.next?.version }) };
      const back = await ask(which, { params: { id: briefId }, query }, { headers: { "x-who": who() } });
      arrive(back.brief);
      const done = which === "undo" ? "Undone" : "Done again";
      if (back.summary) {
        void readAgain(queries, "kept", "styles");
        return say(`${done}: ${back.summary}`);
      }
      if (!command) return say(`There is nothing to ${which}.`);
      await apply(which === "undo" ? command.backward : command.forward);
      if (which === "undo") stack.takeBack();
      else stack.takeAgain();
      say(`${done}: ${command.summary}`);
      if (which === "undo" && command.opens) router.push(command.opens);
    },
    [briefId, settled, who, arrive, queries, say, stack, apply, router],
  );
  return useMemo(() => {
    const record = async (command: Command<Call>) => {
      // Where it stands among the brief's steps: after all that was saved by now.
      await settled();
      const { version } = await ask("getBrief", { params: { id: briefId } });
      stack.push({ ...command, version });
      sayDone(command.summary);
    };
    return {
      stepped: (message) => {
        stack.forgetUndone();
        if (message) sayDone(message);
      },
      recordDone: (summary, forward, backward, opens) =>
        inOrder(() => record({ summary, forward, backward, ...(opens && { opens }) })),
      perform: (summary, forward, backward) =>
        inOrder(async () => {
          await apply(forward);
          await record({ summary, forward, backward });
        }),
      undo: () => inOrder(() => step("undo")),
      redo: () => inOrder(() => step("redo")),
    };
  }, [briefId, stack, settled, sayDone, inOrder, apply, step]);
}
