"use client";
// The bench's state with its effects: changes go to the server in order, can be undone, and reach every view and every tab.
import { useQueryClient } from "@tanstack/react-query";
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
import { keptIdOf } from "@/core/brief/keptId";
import { ask, faultOf, readAgain } from "../parts/client";
import { writeFault } from "../messages";
import { useBriefSaves } from "./useBriefSaves";
import { benchReducer, openBench, type BenchAction, type BenchState, type Notices, type Now } from "./state";

/** Where a face stands on its axes, and its features: as it was seen. */
type SeenAt = { location?: Record<string, number>; features?: Record<string, number> };

type Bench = BenchState &
  Notices & {
    dispatch: Dispatch<BenchAction>;
    changeBrief: (patch: BriefPatch) => void;
    /** A change that is told, and is a step of its own. */
    changeInStep: (patch: BriefPatch, says: string) => void;
    keep: (styleId: StyleId, name: string, put?: KeptPut, at?: SeenAt) => void;
    changeKept: (keptId: KeptId, name: string, put: KeptPut) => void;
    letGo: (keptId: KeptId, name: string) => void;
    toggleKept: (styleId: StyleId, name: string, at?: SeenAt) => void;
    setAside: (styleId: StyleId, name: string, aside: boolean) => void;
    undo: () => void;
    redo: () => void;
    retrySaves: () => void;
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
  const keeping = useKeeping(brief.briefId, now, dispatch, saves.add);
  const steps = useSteps(brief.briefId, now, dispatch, saves, notices);
  const bench = useMemo(
    () => ({
      ...state,
      dispatch,
      ...notices,
      ...saves,
      // Made on the brief as this render shows it: what has come since is not taken back.
      changeBrief: (patch: BriefPatch) => saves.changeBrief(patch, state.brief),
      changeInStep: (patch: BriefPatch, says: string) => {
        saves.flush();
        saves.changeBrief(patch, state.brief);
        saves.flush(true);
        dispatch({ type: "stepped", says });
      },
      ...keeping,
      ...steps,
    }),
    [state, dispatch, notices, saves, keeping, steps],
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
    const say = (says: string, isFault = false) =>
      dispatch({ type: "said", notice: { id: ++counter.current, says, canUndo: false, isFault } });
    return {
      say,
      sayFault: (error) => {
        const { what, now: next } = writeFault(faultOf(error));
        say(`${what} ${next}`.trim(), true);
      },
      offerUndo: (says, undo) => dispatch({ type: "done", undoable: { id: ++counter.current, says, undo } }),
    };
  }, [dispatch]);
}

type Keeping = Pick<Bench, "keep" | "changeKept" | "letGo" | "toggleKept" | "setAside">;

/** What is kept and set aside: shown at once, saved in order; undo is the server's. */
function useKeeping(
  briefId: string,
  now: Now,
  dispatch: Dispatch<BenchAction>,
  add: ReturnType<typeof useBriefSaves>["add"],
): Keeping {
  return useMemo(() => {
    const path = `/briefs/${briefId}`;
    const put = (entry: Kept, change: KeptPut, says: string, isNew: boolean) => {
      const { keptId, styleId, location, features } = entry;
      dispatch({ type: "kept", entry: { ...entry, ...change } });
      dispatch({ type: "stepped", says });
      if (isNew)
        add({
          name: `keep ${keptId}`,
          path: `${path}/kept`,
          method: "POST",
          json: { styleId, location, features, ...change },
        });
      else add({ name: `kept ${keptId}`, path: `${path}/kept/${keptId}`, method: "PATCH", json: change });
    };
    const keep: Keeping["keep"] = (styleId, name, change = {}, { location = {}, features = {} } = {}) => {
      const keptId = keptIdOf(styleId, location, features) as KeptId;
      const known = now.current.brief.kept.find((k) => k.keptId === keptId);
      const place = now.current.brief.kept.length;
      const fresh = { keptId, styleId, location, features, role: "", note: "", favourite: false, place };
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
      dispatch({ type: "stepped", says: `${name} removed` });
      add({ name: `let go ${keptId}`, path: `${path}/kept/${keptId}`, method: "DELETE" });
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
      dispatch({ type: "stepped", says: aside ? `${name} set aside` : `${name} brought back` });
      add({ name: `aside ${styleId}`, path: `${path}/aside/${styleId}`, method: aside ? "PUT" : "DELETE" });
    };
    return { keep, changeKept, letGo, toggleKept, setAside };
  }, [briefId, now, dispatch, add]);
}

/** Undo and redo: first what this page alone can take back, else the brief's steps, which the server keeps. */
function useSteps(
  briefId: string,
  now: Now,
  dispatch: Dispatch<BenchAction>,
  saves: ReturnType<typeof useBriefSaves>,
  { say, sayFault }: Notices,
): Pick<Bench, "undo" | "redo"> {
  const queries = useQueryClient();
  const { settled, who, arrive } = saves;
  const step = useCallback(
    async (which: "undo" | "redo") => {
      await settled();
      const back = await ask(which, { params: { id: briefId } }, { headers: { "x-who": who() } });
      arrive(back.brief);
      void readAgain(queries, "kept", "styles");
      const done = which === "undo" ? "Undone" : "Done again";
      say(back.summary ? `${done}: ${back.summary}` : `There is nothing to ${which}.`);
    },
    [briefId, settled, who, arrive, queries, say],
  );
  return useMemo(
    () => ({
      undo: () => {
        const last = now.current.undoable[now.current.undoable.length - 1];
        if (!last?.undo) {
          if (last) dispatch({ type: "undone", id: last.id });
          return void step("undo").catch(sayFault);
        }
        last.undo();
        dispatch({ type: "undone", id: last.id });
      },
      redo: () => void step("redo").catch(sayFault),
    }),
    [now, dispatch, step, sayFault],
  );
}
