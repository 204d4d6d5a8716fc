"use client";
// The brief as this page shows it, as the server has it, and the changes between: sent in order, merged with what others change, shown
// within a second in every tab.
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState, type Dispatch } from "react";
import type { Brief, BriefEvent, BriefPatch } from "@/contracts/brief";
import type { Conflict } from "@/core/brief/mergeBrief";
import { addressOf, ApiFault, ask, readAgain, send } from "../parts/client";
import type { Fault } from "../messages";
import { asSent } from "./asSent";
import { BriefSync } from "./briefSync";
import { SaveQueue, type Save, type Sent } from "./saves";
import { openStore, SIGN_OF_LIFE_MS, tabId } from "./savesStore";
import type { BenchAction, Notices, Now, Resolution } from "./state";

const SAVE_AFTER_MS = 300;
/** Saves that follow one another faster are read again together. */
const REFRESH_AFTER_MS = 250;

async function sendSave({ path, method, json, isStep }: Save): Promise<Sent> {
  const init = { method, headers: { "x-who": tabId() }, keepalive: true };
  const sent = await asSent(send(path, init, isStep ? { ...json, step: true } : json));
  // What is gone is gone: a removal may have been taken just before a reload.
  return !sent.ok && method === "DELETE" && sent.status === 404 ? { ok: true, body: null } : sent;
}

export function useBriefSaves(brief: Brief, now: Now, dispatch: Dispatch<BenchAction>, { sayFault, say }: Notices) {
  const queries = useQueryClient();
  const { briefId } = brief;
  const [sync] = useState(() => new BriefSync(brief));
  /** The newest version that was heard of. */
  const heard = useRef(brief.version);

  const refresh = useCallback(() => {
    void readAgain(queries, "kept", "styles");
  }, [queries]);
  const fetchBrief = useCallback(
    () =>
      ask("getBrief", { params: { id: briefId } })
        .then((next) => {
          const isNewer = next.version > sync.version;
          if (sync.arrived(next) && isNewer) refresh();
        })
        .catch(() => {
          // Away: it is fetched again when the connection is back.
        }),
    [briefId, sync, refresh],
  );

  const queue = useQueue({ briefId, now, dispatch, sync, heard, refresh, fetchBrief, sayFault });
  useEvents(briefId, sync, heard, fetchBrief, queue, dispatch);
  const { change, flush } = useChanges(briefId, sync);
  const addSave = useCallback((save: Save) => queue.current?.add(save), [queue]);
  return useMemo(
    () => ({
      addSave,
      arrive: (next: Brief) => void sync.arrived(next),
      changeBrief: change,
      flush,
      settled: async () => {
        flush();
        await queue.current?.settled();
      },
      who: tabId,
      retrySaves: () => {
        queue.current?.retry();
        say("Trying again …");
      },
    }),
    [addSave, sync, queue, change, flush, say],
  );
}

type QueueProps = {
  briefId: string;
  now: Now;
  dispatch: Dispatch<BenchAction>;
  sync: BriefSync;
  heard: { readonly current: number };
  refresh: () => void;
  fetchBrief: () => Promise<void>;
  sayFault: Notices["sayFault"];
};

/** Opens the queue of what is to be saved, with what a reload left in it. */
function useQueue({ briefId, now, dispatch, sync, heard, refresh, fetchBrief, sayFault }: QueueProps) {
  const queue = useRef<SaveQueue | null>(null);
  useEffect(() => {
    const store = openStore(briefId, tabId());
    let settling: ReturnType<typeof setTimeout> | undefined;
    /** The brief that is shown lacks what was saved beside its own fields. */
    let isOlder = false;
    const settle = () => {
      if (!own.waiting && (isOlder || heard.current > sync.version)) void fetchBrief();
      isOlder &&= own.waiting > 0;
      refresh();
    };
    const own: SaveQueue = new SaveQueue({
      send: sendSave,
      store,
      onChange: (count, failing) => dispatch({ type: "unsaved", count, failing }),
      onSaved: (save, body) => {
        dispatch({ type: "away", isAway: false });
        if (save.name === "brief") sync.saved(save, body as Brief);
        else if (own.list.every((s) => s.name === "brief")) sync.keptSaved();
        isOlder ||= save.name !== "brief";
        clearTimeout(settling);
        settling = setTimeout(settle, REFRESH_AFTER_MS);
      },
      onConflict: (save, fault) => askOver(dispatch, sync, save, fault),
      onRefused: (save, fault) => {
        sayFault(new ApiFault(fault, 400));
        if (save.name === "brief") sync.refused(save);
        void fetchBrief();
      },
    });
    queue.current = own;
    sync.connect({
      shown: () => now.current.brief,
      show: (shown) => dispatch({ type: "brief arrived", brief: shown }),
      waiting: () => own,
    });
    if (own.waiting) {
      sync.takeUp();
      dispatch({ type: "unsaved", count: own.waiting, failing: 0 });
    }
    const alive = setInterval(() => own.waiting && store.write(own.list), SIGN_OF_LIFE_MS);
    return () => {
      clearInterval(alive);
      clearTimeout(settling);
    };
  }, [briefId, now, dispatch, sync, heard, refresh, fetchBrief, sayFault]);
  return queue;
}

/** Typing is gathered for a moment before it is a save. */
function useChanges(briefId: string, sync: BriefSync) {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const flush = useCallback(
    (isStep = false) => {
      clearTimeout(timer.current);
      sync.flush(`/briefs/${briefId}`, isStep);
    },
    [briefId, sync],
  );
  useEffect(() => {
    const leave = () => flush();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [flush]);
  const change = useCallback(
    (patch: BriefPatch, seen: Brief) => {
      sync.change(patch, seen);
      clearTimeout(timer.current);
      timer.current = setTimeout(() => flush(), SAVE_AFTER_MS);
    },
    [sync, flush],
  );
  return { change, flush };
}

/** Hears of changes that others make. */
function useEvents(
  briefId: string,
  sync: BriefSync,
  heard: { current: number },
  fetchBrief: () => Promise<void>,
  queue: { readonly current: SaveQueue | null },
  dispatch: Dispatch<BenchAction>,
) {
  const queries = useQueryClient();
  useEffect(() => {
    const onVersion = (event: MessageEvent<string>) => {
      const { version, by, fields } = JSON.parse(event.data) as Partial<BriefEvent> & { version: number };
      if (fields?.includes("answers")) void readAgain(queries, "shares", "decisions");
      heard.current = Math.max(heard.current, version);
      if (by !== tabId() && version > sync.version) void fetchBrief();
    };
    let events: EventSource | null = null;
    // Browsers open six connections to a server for all tabs together: one that nobody looks at needs none. It catches up when seen again.
    const listen = () => {
      if (document.hidden) {
        events?.close();
        events = null;
      } else if (!events) {
        events = new EventSource(addressOf("hearBrief", { params: { id: briefId } }));
        events.addEventListener("changed", onVersion);
        events.addEventListener("version", onVersion);
        events.addEventListener("open", () => {
          dispatch({ type: "away", isAway: false });
          // The server is back: what waited is tried at once.
          queue.current?.retry();
        });
        events.addEventListener("error", () => {
          // Closed for good is an answer (signed out, deleted), not a server that is away.
          dispatch({ type: "away", isAway: events?.readyState === EventSource.CONNECTING });
        });
      }
    };
    listen();
    document.addEventListener("visibilitychange", listen);
    return () => {
      document.removeEventListener("visibilitychange", listen);
      events?.close();
    };
  }, [briefId, sync, heard, fetchBrief, queue, dispatch, queries]);
}

/** Where both changed the same, the person is asked; the save waits for the answer. */
async function askOver(
  dispatch: Dispatch<BenchAction>,
  sync: BriefSync,
  save: Save,
  { details }: Fault,
): Promise<Save> {
  const { brief: theirs, conflicts } = details as { brief: Brief; conflicts: Conflict[] };
  const choice = await new Promise<Resolution>((answer) =>
    dispatch({ type: "conflict", conflict: { conflicts, brief: theirs, answer } }),
  );
  dispatch({ type: "conflict", conflict: null });
  return sync.settle(save, theirs, choice);
}
