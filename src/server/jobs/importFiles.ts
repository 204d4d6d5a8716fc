// Job: reads uploaded files (fonts, folders, zips, zips in zips). The upload stays on disk until the job ends, so a restart goes on.
import { closeSync, openSync, readFileSync, readSync, rmSync } from "node:fs";
import { sortFile } from "../intake/sort";
import { ImportRun } from "./importRun";
import type { ImportPayload } from "../queue/payloads";
import type { JobContext } from "../queue/queue";

export async function importFiles({ job, signal, progress }: JobContext): Promise<void> {
  const payload = JSON.parse(job.payload) as ImportPayload;
  const run = new ImportRun({ jobId: job.jobId, libraryId: payload.libraryId, signal, progress });
  const loose = payload.files.filter((f) => !isArchiveFile(f));
  await run.group(loose.map((f) => ({ path: f.name, read: async () => ({ ok: true, value: readWhole(f.saved) }) })));
  for (const { name, saved } of payload.files.filter(isArchiveFile))
    if (!signal.aborted) await run.archive(name, saved);
  if (!signal.aborted) rmSync(payload.folder, { recursive: true, force: true });
}

const readWhole = (path: string) => new Uint8Array(readFileSync(path));

/** Whether a saved upload is an archive, by its first bytes and its name. */
function isArchiveFile({ name, saved }: { name: string; saved: string }): boolean {
  const start = new Uint8Array(8);
  const file = openSync(saved, "r");
  const size = readSync(file, start);
  closeSync(file);
  return size ? sortFile(name, start) === "archive" : /\.zip$/i.test(name);
}
