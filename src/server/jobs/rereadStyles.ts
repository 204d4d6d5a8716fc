// Job: measures styles anew that an older pipeline read, from the files in the store. Resumable: what is new is not listed again.
import pLimit from "p-limit";
import { PIPELINE_VERSION } from "@/contracts/pipeline";
import { readStored } from "../db/fileStore";
import { getDb, type Db } from "../db/open";
import { putInstances } from "../queries/signatures";
import { findStyle, listOutdated, updateReading } from "../queries/styles";
import { readFontInWorker } from "./pool";
import type { JobContext } from "./queue";
import { DEMO_LIBRARY } from "./readDemoLibrary";

const AT_ONCE = 4;

export async function rereadStyles({ signal, progress }: JobContext): Promise<void> {
  const db = getDb();
  const waiting = listOutdated(db, PIPELINE_VERSION, DEMO_LIBRARY.libraryId);
  let done = 0;
  let failed = 0;
  progress({ total: waiting.length, done });
  const limit = pLimit(AT_ONCE);
  await Promise.all(
    waiting.map((styleId) =>
      limit(async () => {
        if (signal.aborted) return;
        if (!(await rereadOne(db, styleId))) failed++;
        progress({ done: ++done, failed });
      }),
    ),
  );
}

/** A file that cannot be read any more keeps what was measured of it. */
async function rereadOne(db: Db, styleId: string): Promise<boolean> {
  const style = findStyle(db, styleId);
  if (!style) return false;
  const reply = await readFontInWorker({ bytes: readStored(style.sha256), fallbackFamily: style.family });
  if (!reply.ok) return false;
  const { measured, kinded, notes, opened, signature, signedInstances } = reply.reading;
  updateReading(
    db,
    styleId,
    { traits: measured.traits, ...kinded, notes, health: opened.health, pipelineVersion: PIPELINE_VERSION },
    signature,
  );
  putInstances(db, styleId, signedInstances);
  return true;
}
