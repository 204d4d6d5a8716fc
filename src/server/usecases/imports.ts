// Uploads: kept on disk at once, then read by a job, so that a restart loses nothing.
import { randomBytes } from "node:crypto";
import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { ImportReport } from "@/contracts/jobs";
import type { ImportId, LibraryId } from "@/contracts/ids";
import { dataFolder, type Db } from "../db/open";
import { addJob } from "../jobs/queue";
import type { ImportPayload } from "../jobs/importFiles";
import { findJob, listImportItems } from "../queries/jobs";
import { listLibraries, putLibrary } from "../queries/libraries";

export const OWN_LIBRARY = { libraryId: "own-fonts", name: "Own fonts" } as const;
export const MAX_UPLOAD_BYTES = 512 * 1024 * 1024;

/** Keeps the files and starts reading. @param library - an existing one, or the user's own. */
export function startImport(db: Db, files: { name: string; bytes: Uint8Array }[], library?: LibraryId): ImportId {
  const id = randomBytes(8).toString("hex");
  const folder = join(dataFolder(), "incoming", id);
  mkdirSync(folder, { recursive: true });
  const saved = files.map(({ name, bytes }, i) => {
    const path = join(folder, String(i));
    writeFileSync(path, bytes);
    return { name: name.slice(0, 300), saved: path };
  });
  putLibrary(db, OWN_LIBRARY.libraryId, OWN_LIBRARY.name, "own", new Date().toISOString());
  const known = library && listLibraries(db).some((l) => l.libraryId === library) ? library : OWN_LIBRARY.libraryId;
  const payload: ImportPayload = { libraryId: known, folder, files: saved };
  const title = files.length === 1 ? `Import ${files[0]!.name}` : `Import ${files.length} files`;
  addJob("import", title, payload, null, `j_${id}`);
  return `i_${id}` as ImportId;
}

/** An import's id is its job's with another first letter. */
export function getImport(db: Db, importId: ImportId): ImportReport | null {
  const job = findJob(db, `j_${importId.slice(2)}`);
  if (!job || !["import", "sync-library", "buy"].includes(job.kind)) return null;
  return {
    importId,
    state: job.state === "waiting" ? "running" : job.state,
    done: job.done,
    total: job.total,
    items: listImportItems(db, job.jobId),
  };
}
