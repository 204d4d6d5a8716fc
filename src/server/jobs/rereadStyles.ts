// Job: measures styles again that an older pipeline read, from the files in the store. Resumable: what is new is not listed again.
import pLimit from "p-limit";
import { PIPELINE_VERSION } from "@/contracts/pipeline";
import type { StyleId } from "@/contracts/ids";
import { isStored, readStored } from "../db/fileStore";
import { getDb, type Db } from "../db/open";
import { findStyle, listOutdated, listProvenance } from "../queries/styles";
import { rereadRights } from "../store/rightsOfStyle";
import { storeReading } from "../store/storeReading";
import { readFontInWorker } from "../workers/pool";
import type { JobContext } from "../queue/queue";

const AT_ONCE = 4;

export async function rereadStyles({ signal, progress }: JobContext): Promise<void> {
  const db = getDb();
  const waiting = listOutdated(db, PIPELINE_VERSION);
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
  if (!style || !isStored(style.sha256)) return false;
  const bytes = readStored(style.sha256);
  const reply = await readFontInWorker({ bytes, fallbackFamily: style.family });
  if (!reply.ok) return false;
  const [first] = listProvenance(db, styleId);
  await storeReading(db, bytes, reply.reading, {
    libraryId: style.libraryId,
    path: first?.path ?? "",
    statedFamily: style.family,
    // The font’s own statements are read from it again; what the user added has a table of its own.
    evidence: style.rights.evidence.filter((e) => !e.evidenceId && e.kind !== "name-table" && e.kind !== "fs-type"),
    styleId: styleId as StyleId,
    trial: style.owned ? undefined : { coverage: style.coverage },
    offer: style.offer,
  });
  await rereadRights(db, styleId);
  return true;
}
