// Uploads: kept on disk at once, then read by a job, so that a restart loses nothing.
import { randomBytes } from "node:crypto";
import { mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { ImportReport } from "@/contracts/jobs";
import type { ImportId, LibraryId } from "@/contracts/ids";
import { dataFolder, type Db } from "../db/open";
import { addJob } from "../queue/queue";
import type { ImportPayload } from "../queue/payloads";
import { findJob, listImportItems } from "../queries/jobs";
import { putLibrary } from "../queries/libraries";

export const OWN_LIBRARY = { libraryId: "own-fonts", name: "Own fonts" } as const;

type Upload = { id: string; folder: string; placeOf: (n: number) => string; drop: () => void };

/** A folder for files that are on their way in. */
export function openUpload(): Upload {
  const id = randomBytes(8).toString("hex");
  const folder = join(dataFolder(), "incoming", id);
  mkdirSync(folder, { recursive: true });
  return {
    id,
    folder,
    placeOf: (n) => join(folder, String(n)),
    drop: () => rmSync(folder, { recursive: true, force: true }),
  };
}

const MAX_NAME = 300;

/** Starts reading what came in. @param names - of its files, in order. @param library - an existing one; one's own fonts when absent. */
export function startImport(db: Db, { id, folder, placeOf }: Upload, names: string[], library?: LibraryId): ImportId {
  putLibrary(db, OWN_LIBRARY.libraryId, OWN_LIBRARY.name, "own", new Date().toISOString());
  const files = distinctNames(names.map((n) => n.slice(0, MAX_NAME))).map((name, i) => ({ name, saved: placeOf(i) }));
  const payload: ImportPayload = { libraryId: library ?? OWN_LIBRARY.libraryId, folder, files };
  const title = files.length === 1 ? `Import ${files[0]!.name}` : `Import ${files.length} files`;
  addJob("import", title, payload, null, `j_${id}`);
  return `i_${id}` as ImportId;
}

/** Files of one name are all read, each with a line of its own. */
function distinctNames(names: string[]): string[] {
  const used = new Set<string>();
  return names.map((name) => {
    let own = name;
    for (let n = 2; used.has(own); n++) own = name.replace(/(\.[^./]{1,10})?$/, ` (${n})$1`);
    used.add(own);
    return own;
  });
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
