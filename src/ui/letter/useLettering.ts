"use client";
// One lettering at work: what is done shows at once, is saved in order as steps that can be undone, and is told when another tab has it.
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Lettering, LetteringDocument } from "@/contracts/lettering";
import { useBench } from "../bench/BenchContext";
import { ApiFault, ask, readAgain } from "../parts/client";

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
  const { say, sayFault } = useBench();
  const { letteringId } = first;
  const params = { id: letteringId };
  const [draft, setDraft] = useState<LetteringDocument | null>(null);
  const [shown, setShown] = useState<LetteringDocument | null>(null);
  const { holding, takeOver } = useHolding(letteringId);
  const { server, latest, adopt, unsaved, isFailing, clash, setClash, arrive, inOrder } = useSavesInOrder(first);
  const change = (document: LetteringDocument) => {
    setShown(null);
    setDraft(document);
    // Those on their way will have raised the version by then.
    keepUnsaved(letteringId, document, latest().version + unsaved);
    inOrder(async () => {
      try {
        const saved = await ask("changeLettering", { params, body: { document, version: latest().version } });
        dropUnsaved(letteringId, document);
        return saved;
      } catch (error) {
        if (!isRefused(error)) throw error;
        // What no server takes is not tried again: the lettering is shown as it was before.
        dropUnsaved(letteringId, document);
        setDraft(null);
        sayFault(error);
        return latest();
      }
    });
  };
  const step = (name: "undoLettering" | "redoLettering") =>
    inOrder(async () => {
      const lettering = await ask(name, { params });
      setDraft(null);
      return lettering;
    });
  useUnsaved(first, change, (document) => {
    setDraft(document);
    setClash(first);
  });
  useLeaving(unsaved);
  const settle = (choice: "mine" | "theirs") => {
    const theirs = clash!;
    setClash(null);
    adopt(theirs);
    if (choice === "mine") return change(draft ?? server.document);
    setDraft(null);
    dropUnsaved(letteringId);
    arrive(theirs);
    say("Showing the other tab’s lettering");
  };
  const document = shown ?? draft ?? server.document;
  return {
    ...{ document, unsaved, isFailing, holding, clash, change, takeOver, settle, preview: setShown },
    stepsBack: server.stepsBack + unsaved,
    stepsForward: unsaved ? 0 : server.stepsForward,
    undo: () => step("undoLettering"),
    redo: () => step("redoLettering"),
    retry: () => change(document),
  };
}

/** Whether a change was refused for what it is; one that did not arrive, or clashes, is none. */
const isRefused = (error: unknown) =>
  error instanceof ApiFault && error.status >= 400 && error.status < 500 && error.fault.code !== "changed-meanwhile";

/** What the server has, and what is on its way there: one after another, each made on the version that the one before gave. */
function useSavesInOrder(first: Lettering) {
  const { sayFault } = useBench();
  const queries = useQueryClient();
  const [server, setServer] = useState(first);
  const [unsaved, setUnsaved] = useState(0);
  const [isFailing, setFailing] = useState(false);
  const [clash, setClash] = useState<Lettering | null>(null);
  const now = useRef(first);
  const line = useRef<Promise<void>>(Promise.resolve());
  const latest = useCallback(() => now.current, []);
  /** The next change is made on this. */
  const adopt = useCallback((lettering: Lettering) => {
    now.current = lettering;
  }, []);
  const arrive = useCallback(
    (lettering: Lettering) => {
      now.current = lettering;
      setServer(lettering);
      setFailing(false);
      void readAgain(queries, "letterings");
    },
    [queries],
  );
  const inOrder = useCallback(
    (work: () => Promise<Lettering>) => {
      setUnsaved((n) => n + 1);
      line.current = line.current.then(async () => {
        try {
          arrive(await work());
        } catch (error) {
          const details = error instanceof ApiFault ? (error.fault.details as { lettering?: Lettering }) : null;
          if (details?.lettering) return setClash(details.lettering);
          setFailing(true);
          sayFault(error);
        } finally {
          setUnsaved((n) => n - 1);
        }
      });
    },
    [arrive, sayFault],
  );
  return { server, latest, adopt, unsaved, isFailing, clash, setClash, arrive, inOrder };
}

/** Tabs of one browser agree on who writes: a tab that opens what another has is told so, and may take it over. */
function useHolding(letteringId: string) {
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
    channel.current?.postMessage("taken" satisfies Told);
  };
  return { holding, takeOver };
}

const keyOf = (letteringId: string) => `lettering-unsaved ${letteringId}`;

/** A document with its fields by name: the server gives them back in an order of its own. */
const writeInOrder = (document: LetteringDocument) =>
  JSON.stringify(document, (_, value: unknown) =>
    value && typeof value === "object" && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );

type Left = { document: LetteringDocument; version: number };

/** What was done last, until the server has it: a reload in between loses nothing. @param version - that it was made on. */
function keepUnsaved(letteringId: string, document: LetteringDocument, version: number) {
  try {
    localStorage.setItem(keyOf(letteringId), JSON.stringify({ document, version } satisfies Left));
  } catch {
    // A full or forbidden store: the server has it in a moment.
  }
}

function readUnsaved(letteringId: string): Left | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(letteringId)) ?? "null") as Left | null;
  } catch {
    return null;
  }
}

/** @param document - dropped only while it is still the last one. */
function dropUnsaved(letteringId: string, document?: LetteringDocument) {
  const left = readUnsaved(letteringId);
  if (!document || JSON.stringify(left?.document) === JSON.stringify(document))
    localStorage.removeItem(keyOf(letteringId));
}

/** What a reload cut short is sent after it; what was made on an older version is not written over a newer one: a person decides. */
function useUnsaved(
  first: Lettering,
  change: (document: LetteringDocument) => void,
  onClash: (document: LetteringDocument) => void,
) {
  const once = useRef(false);
  useEffect(() => {
    if (once.current) return;
    once.current = true;
    const left = readUnsaved(first.letteringId);
    if (!left?.document) return;
    if (writeInOrder(left.document) === writeInOrder(first.document)) dropUnsaved(first.letteringId);
    else if (left.version >= first.version) change(left.document);
    else onClash(left.document);
  });
}

function useLeaving(unsaved: number) {
  useEffect(() => {
    if (!unsaved) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [unsaved]);
}
