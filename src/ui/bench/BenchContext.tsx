"use client";
// The bench's state with its effects: changes go to the server, can be undone, and reach every view.
import { useQueryClient } from "@tanstack/react-query";
import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useReducer,
  useRef,
  type Dispatch,
  type ReactNode,
} from "react";
import type { Brief, BriefPatch, Kept, KeptPut } from "@/contracts/brief";
import type { StyleId } from "@/contracts/ids";
import { callApi, faultOf } from "../parts/api";
import { writeFault } from "../messages";
import { benchReducer, type BenchAction, type BenchState } from "./state";

type Bench = BenchState & {
  dispatch: Dispatch<BenchAction>;
  changeBrief: (patch: BriefPatch) => void;
  keep: (styleId: StyleId, name: string, put?: KeptPut) => void;
  letGo: (styleId: StyleId, name: string) => void;
  toggleKept: (styleId: StyleId, name: string) => void;
  setAside: (styleId: StyleId, name: string, aside: boolean) => void;
  undo: () => void;
  say: (says: string, isFault?: boolean) => void;
  sayFault: (error: unknown) => void;
  offerUndo: (says: string, undo: () => void) => void;
};

const Context = createContext<Bench | null>(null);
const SAVE_AFTER_MS = 300;
const pendingKey = (briefId: string) => `pending ${briefId}`;

export function useBench(): Bench {
  const bench = useContext(Context);
  if (!bench) throw new Error("useBench outside of a bench");
  return bench;
}

export function BenchProvider({ brief, children }: { brief: Brief; children: ReactNode }) {
  const [state, dispatch] = useReducer(benchReducer, {
    brief,
    undoable: [],
    notice: null,
    trayOpen: true,
    facts: [],
    keys: [],
  });
  const queries = useQueryClient();
  const counter = useRef(0);
  const now = useRef(state);
  useEffect(() => {
    now.current = state;
  });
  const briefId = brief.briefId;

  const say = useCallback(
    (says: string, isFault = false) =>
      dispatch({ type: "said", notice: { id: ++counter.current, says, canUndo: false, isFault } }),
    [],
  );
  const sayFault = useCallback(
    (error: unknown) => {
      const { what, now: next } = writeFault(faultOf(error));
      say(`${what} ${next}`.trim(), true);
    },
    [say],
  );
  const offerUndo = useCallback(
    (says: string, undo: () => void) => dispatch({ type: "done", undoable: { id: ++counter.current, says, undo } }),
    [],
  );
  const refreshKept = useCallback(
    () => void queries.invalidateQueries({ queryKey: ["kept", briefId] }),
    [queries, briefId],
  );
  const refresh = useCallback(() => {
    refreshKept();
    void queries.invalidateQueries({ queryKey: ["styles"] });
  }, [queries, refreshKept]);

  const waiting = useRef<BriefPatch>({});
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const flush = useCallback(() => {
    clearTimeout(timer.current);
    const patch = waiting.current;
    if (!Object.keys(patch).length) return;
    waiting.current = {};
    callApi<Brief>(`/briefs/${briefId}`, { method: "PATCH", json: patch, keepalive: true })
      .then(refresh)
      .catch(sayFault);
  }, [briefId, refresh, sayFault]);
  useEffect(() => {
    // The new page may be drawn before a change on its way arrives: it finds the change here and does it again.
    const onHide = () => {
      if (Object.keys(waiting.current).length)
        sessionStorage.setItem(pendingKey(briefId), JSON.stringify(waiting.current));
      flush();
    };
    window.addEventListener("pagehide", onHide);
    return () => {
      window.removeEventListener("pagehide", onHide);
      flush();
    };
  }, [flush, briefId]);
  const changeBrief = useCallback(
    (patch: BriefPatch) => {
      dispatch({ type: "brief changed here", patch });
      waiting.current = { ...waiting.current, ...patch };
      clearTimeout(timer.current);
      // A name may be empty while it is typed, but is not saved so.
      if (patch.name?.trim() === "") delete waiting.current.name;
      timer.current = setTimeout(flush, SAVE_AFTER_MS);
    },
    [flush],
  );

  useEffect(() => {
    const pending = sessionStorage.getItem(pendingKey(briefId));
    if (!pending) return;
    sessionStorage.removeItem(pendingKey(briefId));
    changeBrief(JSON.parse(pending) as BriefPatch);
  }, [briefId, changeBrief]);

  const putKept = useCallback(
    (styleId: StyleId, put: KeptPut) => {
      const known = now.current.brief.kept.find((k) => k.styleId === styleId);
      const base: Kept = known ?? {
        styleId,
        role: "",
        note: "",
        favourite: false,
        place: now.current.brief.kept.length,
        keptAt: new Date().toISOString(),
      };
      dispatch({ type: "kept", entry: { ...base, ...put } });
      callApi(`/briefs/${briefId}/kept/${styleId}`, { method: "PUT", json: put }).then(refreshKept).catch(sayFault);
    },
    [briefId, refreshKept, sayFault],
  );
  const removeKept = useCallback(
    (styleId: StyleId) => {
      dispatch({ type: "let go", styleId });
      callApi(`/briefs/${briefId}/kept/${styleId}`, { method: "DELETE" }).then(refreshKept).catch(sayFault);
    },
    [briefId, refreshKept, sayFault],
  );
  const keep = useCallback(
    (styleId: StyleId, name: string, put: KeptPut = {}) => {
      const before = now.current.brief.kept.find((k) => k.styleId === styleId);
      putKept(styleId, put);
      if (before)
        offerUndo(`${name} changed`, () =>
          putKept(styleId, { role: before.role, note: before.note, favourite: before.favourite, place: before.place }),
        );
      else offerUndo(`${name} kept`, () => removeKept(styleId));
    },
    [putKept, removeKept, offerUndo],
  );
  const letGo = useCallback(
    (styleId: StyleId, name: string) => {
      const before = now.current.brief.kept.find((k) => k.styleId === styleId);
      if (!before) return;
      removeKept(styleId);
      offerUndo(`${name} let go`, () =>
        putKept(styleId, { role: before.role, note: before.note, favourite: before.favourite, place: before.place }),
      );
    },
    [putKept, removeKept, offerUndo],
  );
  const toggleKept = useCallback(
    (styleId: StyleId, name: string) =>
      (now.current.brief.kept.some((k) => k.styleId === styleId) ? letGo : keep)(styleId, name),
    [keep, letGo],
  );
  const setAside = useCallback(
    (styleId: StyleId, name: string, aside: boolean) => {
      const put = (value: boolean) => {
        dispatch({ type: "set aside", styleId, aside: value });
        callApi(`/briefs/${briefId}/aside/${styleId}`, { method: value ? "PUT" : "DELETE" })
          .then(refresh)
          .catch(sayFault);
      };
      put(aside);
      offerUndo(aside ? `${name} set aside` : `${name} brought back`, () => put(!aside));
    },
    [briefId, refresh, sayFault, offerUndo],
  );
  const undo = useCallback(() => {
    const last = now.current.undoable[now.current.undoable.length - 1];
    if (!last) return say("There is nothing to undo.");
    last.undo();
    dispatch({ type: "undone", id: last.id });
  }, [say]);

  const bench = useMemo(
    () => ({ ...state, dispatch, changeBrief, keep, letGo, toggleKept, setAside, undo, say, sayFault, offerUndo }),
    [state, changeBrief, keep, letGo, toggleKept, setAside, undo, say, sayFault, offerUndo],
  );
  return <Context value={bench}>{children}</Context>;
}
