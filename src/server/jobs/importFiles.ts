// Job: reads uploaded files (fonts, zips). Every file seen gets a line. The upload stays on disk until the job ends, so a restart goes on.
import { readFileSync, rmSync } from "node:fs";
import { sentenceOf, type FaultCode } from "@/contracts/errors";
import type { ImportItem } from "@/contracts/jobs";
import type { Evidence } from "@/contracts/rights";
import type { StyleId } from "@/contracts/ids";
import { MAX_FONT_BYTES } from "@/core/open/container";
import { PIPELINE_VERSION } from "@/contracts/pipeline";
import { getDb } from "../db/open";
import { sha256Of } from "../db/fileStore";
import { openArchive, type ArchiveFile } from "../intake/archive";
import { sortFile } from "../intake/sort";
import { listImportItems, putImportItem } from "../queries/jobs";
import { findStyleBySha, putProvenance } from "../queries/styles";
import { storeReading } from "../usecases/storeReading";
import { readFontInWorker } from "./pool";
import type { JobContext } from "./queue";

export type ImportPayload = { libraryId: string; folder: string; files: { name: string; saved: string }[] };

export async function importFiles({ job, signal, progress }: JobContext): Promise<void> {
  const payload = JSON.parse(job.payload) as ImportPayload;
  const db = getDb();
  const known = new Set(listImportItems(db, job.jobId).map((i) => i.path));
  const put = (item: ImportItem) => {
    putImportItem(db, job.jobId, item);
    known.add(item.path);
  };
  let total = payload.files.length;
  progress({ total, done: known.size });
  for (const { name, saved } of payload.files) {
    if (signal.aborted) break;
    const bytes = new Uint8Array(readFileSync(saved));
    const files = await unpack(name, bytes, put);
    total += Math.max(0, files.length - 1);
    progress({ total, done: known.size });
    const evidence = evidenceOf(files);
    for (const file of files) {
      if (signal.aborted) break;
      if (known.has(file.path)) continue;
      put(await takeFile(file, payload.libraryId, evidence));
      progress({ done: known.size });
    }
  }
  if (!signal.aborted) rmSync(payload.folder, { recursive: true, force: true });
}

/** A zip's files, or the file itself. A refused zip leaves its line and gives nothing. */
async function unpack(name: string, bytes: Uint8Array, put: (item: ImportItem) => void): Promise<ArchiveFile[]> {
  if (!bytes.length || sortFile(name, bytes) !== "archive") return [{ path: name, bytes }];
  const opened = await openArchive(bytes);
  if (opened.ok) return opened.value.map((f) => ({ ...f, path: `${name}/${f.path}` }));
  put({ name, path: name, outcome: "refused", code: opened.code, reason: `${name}: ${opened.message}` });
  return [];
}

function evidenceOf(files: ArchiveFile[]): Evidence[] {
  const date = new Date().toISOString();
  return files
    .filter((f) => sortFile(f.path, f.bytes) === "evidence")
    .map((f) => ({
      kind: /readme|read me|liesmich/i.test(f.path) ? ("readme" as const) : ("licence-file" as const),
      source: f.path,
      date,
      text: new TextDecoder().decode(f.bytes),
    }));
}

async function takeFile({ path, bytes }: ArchiveFile, libraryId: string, evidence: Evidence[]): Promise<ImportItem> {
  const name = path.split("/").pop() ?? path;
  const say = (outcome: ImportItem["outcome"], code?: FaultCode, styleId?: StyleId, detail?: string): ImportItem => ({
    name,
    path,
    outcome,
    ...(code && { code, reason: `${name}: ${sentenceOf(code)}${detail ? ` (${detail})` : ""}` }),
    ...(styleId && { styleId }),
  });
  if (!bytes.length) return say("refused", "empty-file");
  const sort = sortFile(path, bytes);
  if (sort === "evidence") return say("ignored", "evidence");
  if (sort !== "font") return say("ignored", "not-for-us");
  if (bytes.length > MAX_FONT_BYTES) return say("refused", "too-large");
  const db = getDb();
  const sha256 = sha256Of(bytes);
  const already = findStyleBySha(db, sha256);
  if (already?.pipelineVersion === PIPELINE_VERSION) {
    putProvenance(db, already.styleId, { library: libraryId, path, importedAt: new Date().toISOString(), sha256 });
    return say("already-there", undefined, already.styleId as StyleId);
  }
  const reply = await readFontInWorker({ bytes, fallbackFamily: name.replace(/\.[a-z0-9]+$/i, "") });
  if (!reply.ok) return say("refused", reply.code, undefined, reply.detail);
  return say(
    "added",
    undefined,
    storeReading(db, bytes, reply.reading, { libraryId, path, statedFamily: null, evidence }),
  );
}
