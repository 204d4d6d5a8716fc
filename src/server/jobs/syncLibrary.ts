// Job: brings what a library offers up to date, page by page. Incremental: what has not changed is not fetched again. Resumable:
// the page is remembered. A publication that fails is recorded and tried again at the next sync; the rest goes on.
import { LRUCache } from "lru-cache";
import pLimit from "p-limit";
import { createHash, randomBytes } from "node:crypto";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { FaultError, sentenceOf, type FaultCode } from "@/contracts/errors";
import type { StyleId } from "@/contracts/ids";
import type { ImportItem } from "@/contracts/jobs";
import type { Evidence } from "@/contracts/rights";
import { USE_WORDS } from "@/contracts/words";
import { USES, type Use } from "@/contracts/traits";
import { faultOfDisk } from "../db/diskFaults";
import { sha256Of } from "../db/fileStore";
import { dataFolder, getDb, type Db } from "../db/open";
import { sortFile } from "../intake/sort";
import { connectorOf } from "../libraries/connect";
import type { Connector, Publication } from "../libraries/connector";
import {
  findLibrary,
  listPublications,
  putPublication,
  updateLibrary,
  type PublicationRow,
} from "../queries/libraries";
import { putKeywords } from "../queries/finding";
import { findStyle } from "../queries/styles";
import { storeReading } from "../store/storeReading";
import { ImportRun, linesOf } from "./importRun";
import { readFontInWorker, readTermsInWorker } from "../workers/pool";
import type { SyncPayload } from "../queue/payloads";
import { finishReading } from "./finishReading";
import type { JobContext } from "../queue/queue";

/** One sync under way. */
type Sync = {
  db: Db;
  libraryId: string;
  connector: Connector;
  context: JobContext;
  /** What was seen of each publication at the last sync. */
  before: Map<string, PublicationRow>;
  /** Lines that the job has written, shared by all of its publications. */
  lines: Map<string, ImportItem>;
  counts: { done: number; failed: number };
  /** Parts of faces are left until the other files of the page were read. */
  leavesParts: boolean;
  /** There is much to read: the wall is filled first, the rest of the reading follows. */
  isFirst: boolean;
};

export async function syncLibrary(context: JobContext): Promise<void> {
  const { libraryId } = JSON.parse(context.job.payload) as SyncPayload;
  const db = getDb();
  const library = findLibrary(db, libraryId);
  const connector = library && connectorOf(library);
  if (!library || !connector || library.state !== "connected") return;
  const before = new Map(listPublications(db, libraryId).map((p) => [p.publicationId, p]));
  const lines = linesOf(context.job.jobId);
  const sync: Sync = {
    db,
    libraryId,
    connector,
    context,
    before,
    lines,
    counts: { done: 0, failed: 0 },
    leavesParts: true,
    isFirst: false,
  };
  if (!(await readPages(sync, library.cursor))) return;
  updateLibrary(db, libraryId, { cursor: null, fault: null, syncedAt: new Date().toISOString() });
  finishReading(db);
}

/** @returns whether the last page was reached: false when the job is to stop. */
async function readPages(sync: Sync, from: string | null): Promise<boolean> {
  const { db, libraryId, connector, context } = sync;
  const seen = new Set<string>();
  let at = from;
  do {
    if (seen.has(at ?? "") || seen.size >= MAX_PAGES || sync.counts.done > MAX_PUBLICATIONS)
      return stopAt(libraryId, null, "sync-endless", sentenceOf("sync-endless"));
    seen.add(at ?? "");
    let page = await connector.page(at, context.signal);
    // A page that was remembered may be gone: the sync starts over.
    if (!page.ok && at !== null && page.code === "library-refused")
      page = await connector.page((at = null), context.signal);
    if (!page.ok) return stopAt(libraryId, at, page.code, page.message);
    if (context.signal.aborted) return false;
    updateLibrary(db, libraryId, { cursor: at });
    const { publications, total, next } = page.value;
    context.progress({
      total: total ?? sync.counts.done + publications.length,
      done: sync.counts.done,
      failed: sync.counts.failed,
    });
    const isNew = (p: Publication) => sync.before.get(p.publicationId)?.digest !== p.digest;
    sync.isFirst = publications.filter(isNew).length > WHOLE_AT_ONCE;
    const limit = pLimit(connector.atOnce);
    const bringAll = async (leavesParts: boolean, list: Publication[]) =>
      (
        await Promise.all(
          list.map((p) => limit(async () => ((await bringUpToDate({ ...sync, leavesParts }, p, at)) ? [] : p))),
        )
      ).flat();
    // What may be one part of a face waits until its main part is there.
    await bringAll(false, await bringAll(true, publications));
    if (context.signal.aborted) return false;
    at = next;
    if (at !== null) await new Promise((r) => setTimeout(r, PAGE_PAUSE_MS));
  } while (at !== null);
  return true;
}

/** Takes a publication in unless it is as it was. @returns false when it is to be taken after the others. */
async function bringUpToDate(sync: Sync, offered: Publication, at: string | null): Promise<boolean> {
  const { db, libraryId, context } = sync;
  if (context.signal.aborted) return true;
  const before = sync.before.get(offered.publicationId);
  if (before?.digest !== offered.digest || before.outcome !== "taken") {
    const outcome = await takeSafely(sync, offered, at);
    if (context.signal.aborted) return true;
    if (outcome.code === "waits") return false;
    if (outcome.code !== "taken") sync.counts.failed++;
    const { publicationId, digest, title, keywords } = offered;
    // Most say nothing, and never did.
    if (outcome.styleIds && (keywords.length || before))
      putKeywords(db, { libraryId, publicationId }, outcome.styleIds, keywords);
    const row = { publicationId, digest, title, outcome: outcome.code, detail: outcome.detail };
    putPublication(db, libraryId, row, new Date().toISOString());
  }
  context.progress({ done: ++sync.counts.done, failed: sync.counts.failed });
  return true;
}

/** A catalogue beyond this has no end. */
const MAX_PAGES = 2_000;
const MAX_PUBLICATIONS = 100_000;
const PAGE_PAUSE_MS = 20;
/** So many fonts are read whole at once. */
const WHOLE_AT_ONCE = 60;

/** The library is left as it is, with what went wrong and where to go on. The job itself counts as failed. */
function stopAt(libraryId: string, at: string | null, code: FaultCode, message: string): never {
  updateLibrary(getDb(), libraryId, { cursor: at, fault: { code, message, at: new Date().toISOString() } });
  throw new FaultError(code, message);
}

/** @property styleIds - what it is made of, once it is taken. */
type Outcome = { code: string; detail: string | null; styleIds?: readonly StyleId[] };

/** One publication that goes wrong is recorded and tried again at the next sync; the rest goes on. A full disk ends the sync. */
async function takeSafely(sync: Sync, offered: Publication, at: string | null): Promise<Outcome> {
  try {
    return await take(sync, offered, at);
  } catch (error) {
    const disk = faultOfDisk(error);
    if (disk) stopAt(sync.libraryId, at, disk, sentenceOf(disk));
    console.error(`${offered.title}:`, error);
    const code = error instanceof FaultError ? error.code : "reader-failed";
    return { code, detail: `${offered.title}: ${sentenceOf(code)}` };
  }
}

async function take(sync: Sync, offered: Publication, at: string | null): Promise<Outcome> {
  const first = await takeOnce(sync, offered);
  if (first.code !== "link-expired") return first;
  // Links that expire are handed out again with their page.
  const again = await sync.connector.page(at, sync.context.signal);
  const fresh = again.ok ? again.value.publications.find((p) => p.publicationId === offered.publicationId) : undefined;
  return fresh ? takeOnce(sync, fresh) : first;
}

async function takeOnce(
  { connector, libraryId, context, lines, isFirst, leavesParts }: Sync,
  p: Publication,
): Promise<Outcome> {
  const url = p.openUrl ?? p.trialUrl;
  if (!url) return { code: "library-broken", detail: "It offers nothing to fetch." };
  const fetched = await connector.fetch(url, context.signal);
  if (!fetched.ok) return { code: fetched.code, detail: fetched.message };
  const { name, bytes, texts = [] } = fetched.value;
  if (!p.openUrl) return takeTrial(p, bytes, url, libraryId);
  const { jobId } = context.job;
  const stated = await readStated(p, texts);
  const isArchive = sortFile(name, bytes.subarray(0, 8)) === "archive";
  const run = new ImportRun({
    jobId,
    libraryId,
    signal: context.signal,
    stated,
    statedFamily: p.family,
    known: lines,
    isFirst,
    // An archive has all of its parts.
    leavesParts: leavesParts && !isArchive,
  });
  if (!isArchive) {
    await run.group([{ path: name, read: async () => ({ ok: true, value: bytes }) }]);
  } else await throughFile(bytes, (path) => run.archive(name, path));
  if (run.hasWaiting) return { code: "waits", detail: null };
  if (run.styleIds.length) {
    const detail = run.refusals.map((r) => r.reason).join(" ") || null;
    return { code: "taken", detail, styleIds: run.styleIds };
  }
  return { code: run.refusals[0]?.code ?? "no-file", detail: run.refusals[0]?.reason ?? "There was no font in it." };
}

/** What the library says of the terms, and what the texts beside a file say. */
async function readStated(p: Publication, texts: { name: string; bytes: Uint8Array }[]): Promise<Evidence[]> {
  const date = new Date().toISOString();
  const beside = texts.length ? await readTexts(texts, date) : [];
  const said: Evidence[] = p.rights
    ? [{ kind: "library", source: `${p.title} in the catalogue`, date, text: p.rights }]
    : [];
  return [...beside.map((t) => t.evidence), ...said];
}

type Texts = { name: string; bytes: Uint8Array }[];
/** Every font of a folder has the same texts beside it: they are read once. */
const textsRead = new LRUCache<string, ReturnType<typeof readTextsApart>>({ max: 32 });
const readTextsApart = (texts: Texts, date: string) =>
  readTermsInWorker({ what: "texts", files: texts.map((t) => ({ path: t.name, bytes: t.bytes })), date });

async function readTexts(texts: Texts, date: string) {
  const key = texts.map((t) => `${t.name}\n${sha256Of(t.bytes)}`).join("\n");
  let read = textsRead.get(key);
  if (!read) textsRead.set(key, (read = readTextsApart(texts, date)));
  const known = await read;
  // What could not be read is tried again.
  if (!known) textsRead.delete(key);
  return (known ?? []).map((t) => ({ ...t, evidence: { ...t.evidence, date } }));
}

/** Archives are read from disk: memory holds one entry at a time. */
async function throughFile(bytes: Uint8Array, read: (path: string) => Promise<void>) {
  const folder = join(dataFolder(), "incoming", `sync-${randomBytes(6).toString("hex")}`);
  mkdirSync(folder, { recursive: true });
  const path = join(folder, "archive");
  writeFileSync(path, bytes);
  try {
    await read(path);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const trialStyleId = (libraryId: string, publicationId: string) =>
  `s_${createHash("sha256").update(`${libraryId}\n${publicationId}`).digest("hex").slice(0, 20)}` as StyleId;

/** A face that is not owned: measured from its trial, covered as the library states, priced by use. */
async function takeTrial(p: Publication, bytes: Uint8Array, url: string, libraryId: string): Promise<Outcome> {
  const db = getDb();
  const styleId = trialStyleId(libraryId, p.publicationId);
  const taken: Outcome = { code: "taken", detail: null, styleIds: [styleId] };
  if (findStyle(db, styleId)?.owned) return taken;
  const reply = await readFontInWorker({ bytes, fallbackFamily: p.family ?? p.title });
  if (!reply.ok) return { code: reply.code, detail: `${p.title}: ${sentenceOf(reply.code)}` };
  await storeReading(db, bytes, reply.reading, {
    libraryId,
    path: new URL(url).pathname,
    statedFamily: p.family,
    evidence: [
      { kind: "library", source: `${p.title} in the catalogue`, date: new Date().toISOString(), text: writeOffer(p) },
    ],
    styleId,
    trial: { coverage: p.coverage },
    offer: {
      publicationId: p.publicationId,
      settingUrl: p.settingUrl,
      buyUrl: p.buyUrl,
      currency: p.currency,
      pricesCents: p.pricesCents,
    },
  });
  return taken;
}

/** The offer in words, as evidence that can be quoted. */
function writeOffer(p: Publication): string {
  const priced = (use: Use) => p.pricesCents[use];
  const sold = USES.filter((u) => priced(u) !== undefined);
  const not = USES.filter((u) => priced(u) === undefined);
  const lines = sold.map(
    (u) => `A licence must be bought for ${USE_WORDS[u]}: ${(priced(u)! / 100).toFixed(2)} ${p.currency}.`,
  );
  if (not.length)
    lines.push(`It is not offered for: ${not.map((u) => (u === "app" ? "apps" : USE_WORDS[u])).join(", ")}.`);
  return [...(p.rights ? [p.rights] : []), ...lines].join("\n");
}
