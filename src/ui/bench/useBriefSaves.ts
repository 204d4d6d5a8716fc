"use client";
// The brief as this page shows it, as the server has it, and the changes between: sent in order, merged with what others change, shown
// within a second in every tab.
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, type Dispatch } from "react";
import type { Brief, BriefEvent, BriefPatch } from "@/contracts/brief";
import { mergeBrief, type BriefPart, type Conflict } from "@/core/brief/mergeBrief";
import { ApiFault, callApi } from "../parts/api";
import type { Fault } from "../messages";
import type { Notices, Now } from "./BenchContext";
import { SaveQueue, type Save, type Sent } from "./saves";
import { openStore, SIGN_OF_LIFE_MS, tabId } from "./savesStore";
import type { BenchAction, Resolution } from "./state";

const SAVE_AFTER_MS = 300;
/** Fields that are merged when the brief arrives; the others are the server's alone. */
const MERGED = [
  "name",
  "client",
  "note",
  "medium",
  "lines",
  "uses",
  "size",
  "unit",
  "levelBy",
  "ink",
  "paper",
  "wanted",
  "kept",
  "setAside",
] as const;
const partOf = (brief: Brief): BriefPart => Object.fromEntries(MERGED.map((f) => [f, brief[f]]));

async function send({ path, method, json }: Save): Promise<Sent> {
  try {
    const body = await callApi(path, { method, json, headers: { "x-who": tabId() }, keepalive: true });
    return { ok: true, body };
  } catch (error) {
    if (error instanceof ApiFault) return { ok: false, fault: error.fault, status: error.status };
    return { ok: false, fault: { code: "internal", message: String((error as Error).message) }, status: 0 };
  }
}

export function useBriefSaves(brief: Brief, now: Now, dispatch: Dispatch<BenchAction>, { sayFault, say }: Notices) {
  const queries = useQueryClient();
  const { briefId } = brief;
  /** The brief as the server had it when it was last heard of. */
  const synced = useRef(brief);
  const queue = useRef<SaveQueue | null>(null);

  /** Takes the server's brief: what was changed here and is not saved yet stays on top. */
  const arrive = useCallback(
    (next: Brief) => {
      if (next.version < synced.current.version) return;
      const { merged } = mergeBrief(partOf(synced.current), partOf(now.current.brief), partOf(next));
      synced.current = next;
      const shown = queue.current?.waiting ? { ...next, ...merged } : next;
      if (JSON.stringify(shown) !== JSON.stringify(now.current.brief))
        dispatch({ type: "brief arrived", brief: shown });
    },
    [now, dispatch],
  );
  const refresh = useCallback(() => {
    for (const key of ["kept", "styles"]) void queries.invalidateQueries({ queryKey: [key] });
  }, [queries]);
  const fetchBrief = useCallback(
    () =>
      callApi<Brief>(`/briefs/${briefId}`)
        .then((next) => {
          const isNewer = next.version > synced.current.version;
          arrive(next);
          if (isNewer) refresh();
        })
        .catch(() => {
          // Away: it is asked again when the connection is back.
        }),
    [briefId, arrive, refresh],
  );

  const resolve = useCallback(
    (save: Save, fault: Fault) => askOver(now, dispatch, arrive)(save, fault),
    [now, dispatch, arrive],
  );
  useEffect(() => {
    const store = openStore(briefId, tabId());
    const own = new SaveQueue({
      send,
      store,
      onChange: (count, isFailing) => dispatch({ type: "unsaved", count, isFailing }),
      onSaved: (save, body) => {
        if (save.name.startsWith("brief")) arrive(body as Brief);
        else if (!own.waiting) void fetchBrief();
        refresh();
      },
      onConflict: resolve,
      onRefused: (_save, fault) => {
        sayFault(new ApiFault(fault, 400));
        void fetchBrief();
      },
    });
    queue.current = own;
    if (own.waiting) dispatch({ type: "unsaved", count: own.waiting, isFailing: true });
    const alive = setInterval(() => own.waiting && store.write(own.list), SIGN_OF_LIFE_MS);
    return () => clearInterval(alive);
  }, [briefId, dispatch, arrive, refresh, fetchBrief, resolve, sayFault]);

  useEvents(briefId, synced, fetchBrief, queue);
  const changeBrief = useChanges(briefId, now, dispatch, queue, synced);
  const add = useCallback((save: Save) => queue.current?.add(save), []);
  return useMemo(
    () => ({
      add,
      arrive,
      changeBrief: changeBrief.change,
      settled: async () => {
        changeBrief.flush();
        await queue.current?.settled();
      },
      who: tabId,
      retrySaves: () => {
        queue.current?.retry();
        say("Trying again …");
      },
    }),
    [add, arrive, changeBrief, say],
  );
}

/** Typing is gathered for a moment before it is a save. */
function useChanges(
  briefId: string,
  now: Now,
  dispatch: Dispatch<BenchAction>,
  queue: { readonly current: SaveQueue | null },
  synced: { readonly current: Brief },
) {
  const waiting = useRef<{ patch: BriefPatch; base: BriefPart } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const flush = useCallback(() => {
    clearTimeout(timer.current);
    const change = waiting.current;
    waiting.current = null;
    if (!change || !Object.keys(change.patch).length) return;
    queue.current?.add({
      name: "brief",
      path: `/briefs/${briefId}`,
      method: "PATCH",
      json: { ...change.patch, base: change.base },
    });
  }, [briefId, queue]);
  useEffect(() => {
    window.addEventListener("pagehide", flush);
    return () => {
      window.removeEventListener("pagehide", flush);
      flush();
    };
  }, [flush]);
  const change = useCallback(
    (patch: BriefPatch) => {
      const held = (waiting.current ??= { patch: {}, base: {} });
      for (const key of Object.keys(patch) as (keyof BriefPatch)[]) {
        // What a save is measured against: the server's brief, or what the saves before it will have made of it.
        if (!(key in held.base))
          held.base[key] = queue.current?.waiting
            ? now.current.brief[key as keyof Brief]
            : synced.current[key as keyof Brief];
      }
      held.patch = { ...held.patch, ...patch };
      dispatch({ type: "brief changed here", patch });
      // A name may be empty while it is typed, but is not saved so.
      if (patch.name?.trim() === "") delete held.patch.name;
      clearTimeout(timer.current);
      timer.current = setTimeout(flush, SAVE_AFTER_MS);
    },
    [now, dispatch, queue, synced, flush],
  );
  return useMemo(() => ({ change, flush }), [change, flush]);
}

/** Hears of changes that others make. */
function useEvents(
  briefId: string,
  synced: { readonly current: Brief },
  fetchBrief: () => Promise<void>,
  queue: { readonly current: SaveQueue | null },
) {
  useEffect(() => {
    const events = new EventSource(`/api/v1/briefs/${briefId}/events`);
    const onVersion = (event: MessageEvent<string>) => {
      const { version, by } = JSON.parse(event.data) as Partial<BriefEvent> & { version: number };
      if (by !== tabId() && version > synced.current.version) void fetchBrief();
    };
    events.addEventListener("changed", onVersion);
    events.addEventListener("version", onVersion);
    // The server is back: what waited is tried at once.
    events.addEventListener("open", () => queue.current?.retry());
    return () => events.close();
  }, [briefId, synced, fetchBrief, queue]);
}

/** Where both changed the same, the person is asked; the save waits for the answer. */
const askOver =
  (now: Now, dispatch: Dispatch<BenchAction>, arrive: (brief: Brief) => void) =>
  async (save: Save, { details }: Fault): Promise<Save | null> => {
    const { brief: theirs, conflicts } = details as { brief: Brief; conflicts: Conflict[] };
    const { base: _base, ...patch } = save.json as BriefPart & { base?: BriefPart };
    const choice = await new Promise<Resolution>((answer) =>
      dispatch({ type: "conflict", conflict: { conflicts, brief: theirs, answer } }),
    );
    dispatch({ type: "conflict", conflict: null });
    const mine = choice === "theirs" ? {} : resolveBy(choice, patch, theirs, conflicts);
    arrive(theirs);
    const shown = pick({ ...theirs, ...mine }, Object.keys(patch));
    dispatch({ type: "brief arrived", brief: { ...now.current.brief, ...shown } });
    return choice === "theirs" ? null : { ...save, json: { ...mine, base: pick(theirs, Object.keys(mine)) } };
  };

const pick = (brief: Brief, keys: string[]): BriefPart =>
  Object.fromEntries(keys.map((k) => [k, brief[k as keyof Brief]]));
const MAX_LINES = 12;

/** My patch laid over theirs: mine stands where both changed the same, or both do: lines under each other, words behind each other. */
function resolveBy(choice: "mine" | "both", patch: BriefPart, theirs: Brief, conflicts: Conflict[]): BriefPart {
  const out: BriefPart = { ...patch };
  if (choice === "mine" || !conflicts.length) return out;
  for (const c of conflicts) {
    if (c.field === "lines.text" && c.id) {
      const lines = [...((out.lines as Brief["lines"] | undefined) ?? theirs.lines)];
      const at = lines.findIndex((l) => l.id === c.id);
      const other = { text: String(c.theirs), role: lines[at]?.role ?? ("text" as const) };
      if (lines.length < MAX_LINES) lines.splice(at + 1, 0, other);
      else lines[at] = { ...lines[at]!, text: `${lines[at]!.text} ${other.text}` };
      out.lines = lines;
    } else if (
      typeof c.mine === "string" &&
      typeof c.theirs === "string" &&
      ["client", "note", "medium", "wanted"].includes(c.field)
    )
      out[c.field] = `${c.theirs} ${c.mine}`;
  }
  return out;
}
