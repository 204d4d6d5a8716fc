// Libraries as people handle them: what is connected and how it is, adding, pausing, removing, syncing now.
import { realpath, stat } from "node:fs/promises";
import { homedir } from "node:os";
import { isAbsolute, resolve, sep } from "node:path";
import { LRUCache } from "lru-cache";
import type { z } from "zod";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { JobId, LibraryId } from "@/contracts/ids";
import type {
  Library,
  LibraryAdd,
  LibraryPatch,
  PublicationLine,
  SetLineReply,
  SystemFolder,
} from "@/contracts/libraries";
import type { Db } from "../db/open";
import { isLoopbackOnly } from "../access/hosts";
import { askLibrary } from "../workers/pool";
import { addJob, cancelJob, describeJob, wakeQueue } from "../queue/queue";
import { connectorOf } from "../libraries/connect";
import { findSystemFolders } from "../libraries/systemFolders";
import { listJobsIn, type JobRow } from "../queries/jobs";
import {
  findLibrary,
  forgetPublications,
  listLibraries as listRows,
  listPublications,
  putLibrary,
  updateLibrary,
  type LibraryRow,
} from "../queries/libraries";
import { forgetKeywords } from "../queries/finding";
import { addChange } from "../queries/records";
import { findStyle, setHidden } from "../queries/styles";

const jobOf = (jobs: JobRow[], r: LibraryRow) =>
  jobs.find(
    (j) => j.kind === "sync-library" && (JSON.parse(j.payload) as { libraryId: string }).libraryId === r.libraryId,
  );

export function listLibraries(db: Db): Library[] {
  const jobs = listJobsIn(db, "waiting", "running");
  return listRows(db).map((r) => {
    const job = jobOf(jobs, r);
    const { cursor: _cursor, ...rest } = r;
    return { ...rest, job: job ? describeJob(job) : null } as Library;
  });
}

const libraryIdOf = (name: string) =>
  (name
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 36) || "library") as LibraryId;

/** Connects a library after looking whether it answers. One that was removed comes back as it was. */
export async function addLibrary(
  db: Db,
  { kind, address, name }: z.infer<typeof LibraryAdd>,
): Promise<Outcome<LibraryId>> {
  const place = address.replace(/^file:\/\//, "");
  const url = kind === "folder" ? resolve(place) : address;
  if (kind === "folder" && !(isAbsolute(place) && (await mayConnectFolder(url))))
    return refuse("address-not-allowed", `${address}: There is no such folder here to connect. Give its whole path.`);
  if (kind === "opds" && !/^https?:\/\//i.test(url)) return refuse("address-not-allowed");
  const first = await askLibrary({ what: "firstPage", library: { kind, url } });
  if (!first.ok) return refuse(first.code, `${address}: ${first.message}`);
  return succeed(connect(db, kind, url, name || first.value.title));
}

/** A folder, by what it really is. Where others can reach the server only those below FOND_QUARRY_FOLDERS; which others exist is not told. */
async function mayConnectFolder(folder: string): Promise<boolean> {
  const real = await realpath(folder).catch(() => null);
  if (!real || !(await stat(real).catch(() => null))?.isDirectory()) return false;
  const listed = process.env.FOND_QUARRY_FOLDERS;
  if (isLoopbackOnly() && !listed) return true;
  const roots = await Promise.all(
    (listed ?? "")
      .split(":")
      .filter(Boolean)
      .map((r) => realpath(r).catch(() => null)),
  );
  return roots.some(
    (root) => root !== null && (real === root || real.startsWith(root.endsWith(sep) ? root : root + sep)),
  );
}

/** Folders of this system that hold fonts, may be connected and are not yet. */
export async function listSystemFolders(db: Db): Promise<SystemFolder[]> {
  const connected = new Set(listRows(db).map((l) => l.url));
  const found = await findSystemFolders({ platform: process.platform, home: homedir(), env: process.env });
  const may = await Promise.all(found.map((f) => mayConnectFolder(f.path)));
  return found.filter((f, i) => may[i] && !connected.has(f.path));
}

/** Puts a library in, or brings it back, and starts its sync. */
function connect(db: Db, kind: string, url: string, name: string, wantedId?: string): LibraryId {
  const known = listRows(db, true).find((l) => l.url === url || l.libraryId === wantedId);
  let id = wantedId ?? known?.libraryId ?? libraryIdOf(name);
  if (!known && !wantedId) for (let n = 2; findLibrary(db, id); n++) id = `${libraryIdOf(name)}-${n}`;
  const now = new Date().toISOString();
  putLibrary(db, id, name, kind, now, url);
  updateLibrary(db, id, { url, ...(known?.state === "removed" && { state: "connected" }) });
  if (known?.state === "removed") setHidden(db, id, false);
  addChange(db, { at: now, what: "library", styleId: null, libraryId: id, says: `${name} connected` });
  startSync(db, id);
  return id as LibraryId;
}

/** Starts a sync unless one runs or waits. @returns its job; null for libraries that are not synced. */
export function startSync(db: Db, libraryId: string): JobId | null {
  const library = findLibrary(db, libraryId);
  if (!library || !connectorOf(library) || library.state !== "connected") return null;
  const under = jobOf(listJobsIn(db, "waiting", "running"), library);
  return (under?.jobId as JobId | undefined) ?? addJob("sync-library", `Sync ${library.name}`, { libraryId });
}

export function patchLibrary(db: Db, libraryId: string, patch: z.infer<typeof LibraryPatch>): boolean {
  const library = findLibrary(db, libraryId);
  if (!library || library.state === "removed") return false;
  updateLibrary(db, libraryId, patch);
  if (patch.state === "paused") stopSync(db, library);
  if (patch.state === "connected" && library.state === "paused") startSync(db, libraryId);
  return true;
}

function stopSync(db: Db, library: LibraryRow) {
  const job = jobOf(listJobsIn(db, "waiting", "running"), library);
  if (job && job.kind === "sync-library") cancelJob(job.jobId);
}

/** Disconnects a library. What is owned stays; faces that were only offered go out of sight. */
export function removeLibrary(db: Db, libraryId: string): boolean {
  const library = findLibrary(db, libraryId);
  if (!library || library.state === "removed" || !["opds", "folder"].includes(library.kind)) return false;
  stopSync(db, library);
  db.transaction(() => {
    updateLibrary(db, libraryId, { state: "removed", cursor: null, fault: null });
    forgetPublications(db, libraryId);
    forgetKeywords(db, libraryId);
    setHidden(db, libraryId, true);
    addChange(db, {
      at: new Date().toISOString(),
      what: "library",
      styleId: null,
      libraryId,
      says: `${library.name} disconnected`,
    });
  })();
  wakeQueue();
  return true;
}

/** What of a library could not be taken, and why. */
export const listRefused = (db: Db, libraryId: string): PublicationLine[] =>
  listPublications(db, libraryId)
    .filter((p) => p.outcome !== "taken" || p.detail !== null)
    .map(({ digest: _digest, ...p }) => p);

/** Asks the library itself. */
export async function searchLibrary(db: Db, libraryId: string, words: string) {
  const library = findLibrary(db, libraryId);
  if (!library?.url) return refuse("not-found");
  const found = await askLibrary({ what: "search", library: { kind: library.kind, url: library.url }, words });
  if (!found.ok) return found;
  return succeed({
    total: found.value.total ?? found.value.publications.length,
    publications: found.value.publications.map((p) => ({
      publicationId: p.publicationId,
      title: p.title,
      maker: p.maker,
    })),
  });
}

type Lines = { lines: LRUCache<string, SetLineReply>; asked: Map<string, Promise<Outcome<SetLineReply>>> };
const shared = globalThis as unknown as { fondQuarrySettings?: Lines };
const LINES_KEPT = 2000;

/** A line set by the library in a face that is not owned. Kept, so that the same line is asked for once. */
export async function setLineIn(db: Db, styleId: string, text: string): Promise<Outcome<SetLineReply>> {
  const held = (shared.fondQuarrySettings ??= { lines: new LRUCache({ max: LINES_KEPT }), asked: new Map() });
  const key = `${styleId}\n${text}`;
  const known = held.lines.get(key);
  if (known) return succeed(known);
  const record = findStyle(db, styleId);
  const library = record && findLibrary(db, record.libraryId);
  if (!record?.offer?.settingUrl || !library?.url) return refuse("not-found");
  let asked = held.asked.get(key);
  if (!asked) {
    const { settingUrl } = record.offer;
    asked = askLibrary({ what: "setLine", library: { kind: library.kind, url: library.url }, settingUrl, text });
    held.asked.set(key, asked);
  }
  const set = await asked;
  held.asked.delete(key);
  if (set.ok) {
    held.lines.set(key, set.value);
  }
  return set;
}

const STALE_MS = 60 * 60 * 1000;
/** At start what was not looked at for an hour is synced. */
export function wakeLibraries(db: Db) {
  for (const l of listRows(db)) {
    if (!l.url || l.state !== "connected") continue;
    if (!l.syncedAt || Date.now() - Date.parse(l.syncedAt) > STALE_MS) startSync(db, l.libraryId);
  }
}
