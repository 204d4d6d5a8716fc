"use client";
// One lettering at work: what is done shows at once, is saved in order as steps that can be undone, and is told when another tab has it.
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState, useSyncExternalStore } from "react";
import type { Lettering, LetteringDocument } from "@/contracts/lettering";
import { useBench } from "../bench/BenchContext";
import { asSent } from "../bench/asSent";
import type { Save } from "../bench/saves";
import { openStore, tabId } from "../bench/savesStore";
import { ApiFault, readAgain, send } from "../parts/client";
import { LetteringSync } from "./letteringSync";

/** Who may write: this tab, or another one that has the lettering open. */
export type Holding = "here" | "elsewhere";
export type Editing = {
  document: LetteringDocument;
  /** Changes that the server does not have yet. */
  unsaved: number;
  /** The last of them did not reach it. */
  isFailing: boolean;
  retry: () => void;
  stepsBack: number;
  stepsForward: number;
  holding: Holding;
  /** Another tab or person saved meanwhile: theirs, until it is decided. */
  clash: Lettering | null;
  /** Shown only: what is dragged, before it is a step. */
  preview: (document: LetteringDocument | null) => void;
  change: (document: LetteringDocument) => void;
  undo: () => void;
  redo: () => void;
  takeOver: () => void;
  settle: (choice: "mine" | "theirs") => void;
};

type Told = "opened" | "held" | "taken";

export function useLettering(first: Lettering): Editing {
  const { say } = useBench();
  const sync = useSync(first);
  const [shown, setShown] = useState<LetteringDocument | null>(null);
  const { holding, takeOver } = useHolding(first.letteringId);
  const { server, draft, unsaved, isFailing, clash } = useSyncExternalStore(
    sync.subscribe,
    () => sync.now,
    () => sync.now,
  );
  useLeaving(unsaved);
  return {
    ...{ unsaved, isFailing, holding, clash, takeOver, preview: setShown },
    document: shown ?? draft ?? server.document,
    stepsBack: server.stepsBack + unsaved,
    stepsForward: unsaved ? 0 : server.stepsForward,
    change: (document) => {
      setShown(null);
      sync.change(document);
    },
    undo: sync.undo,
    redo: sync.redo,
    retry: sync.retry,
    settle: (choice) => {
      sync.settle(choice);
      if (choice === "theirs") say("Showing the other tab’s lettering");
    },
  };
}

/** Letterings that this page has at work: what waits of one goes on to the server while another view is open. */
const atWork = new Map<string, LetteringSync>();

function useSync(first: Lettering): LetteringSync {
  const { sayFault } = useBench();
  const queries = useQueryClient();
  const [sync] = useState(() => {
    const known = atWork.get(first.letteringId);
    if (known) return known;
    const opened = new LetteringSync(first, {
      send: sendSave,
      store: openStore(first.letteringId, tabId()),
      onSaved: () => void readAgain(queries, "letterings"),
      onFault: (fault) => sayFault(new ApiFault(fault, 400)),
    });
    atWork.set(first.letteringId, opened);
    return opened;
  });
  useEffect(() => sync.arrived(first), [sync, first]);
  return sync;
}

/** A document may be larger than what a page can still send while it is left: it waits in the browser's storage instead. */
const sendSave = ({ path, method, json }: Save) => asSent(send(path, { method }, json));

/** Tabs of one browser agree on who writes: a tab that opens what another has is told so, and may take it over. */
function useHolding(letteringId: string) {
  const queries = useQueryClient();
  const [holding, setHolding] = useState<Holding>("here");
  const channel = useRef<BroadcastChannel | null>(null);
  const isHere = useRef(true);
  const turn = useCallback((next: Holding) => {
    isHere.current = next === "here";
    setHolding(next);
  }, []);
  useEffect(() => {
    const own = new BroadcastChannel(`lettering ${letteringId}`);
    channel.current = own;
    own.onmessage = ({ data }: MessageEvent<Told>) => {
      if (data === "opened" && isHere.current) own.postMessage("held" satisfies Told);
      if (data !== "opened") turn("elsewhere");
    };
    own.postMessage("opened" satisfies Told);
    return () => own.close();
  }, [letteringId, turn]);
  const takeOver = () => {
    turn("here");
    // What the other tab did meanwhile is what goes on here.
    void readAgain(queries, "letterings");
    channel.current?.postMessage("taken" satisfies Told);
  };
  return { holding, takeOver };
}

function useLeaving(unsaved: number) {
  useEffect(() => {
    if (!unsaved) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [unsaved]);
}
