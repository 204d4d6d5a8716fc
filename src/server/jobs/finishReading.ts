// Job: runs the stages of the pipeline that styles lack, or that were done with an older method, on the files in the store. Resumable: what
// is done is not listed again. Fonts on their way in go before it.
import pLimit from "p-limit";
import { findStale, type Stage } from "@/contracts/pipeline";
import type { StyleId } from "@/contracts/ids";
import { isStored, readStored } from "../db/fileStore";
import { getDb, type Db } from "../db/open";
import { listJobsIn } from "../queries/jobs";
import { keyOfFingerprint } from "@/core/measure/fingerprintOutlines";
import { putPrint } from "../queries/records";
import { putInstances } from "../queries/signatures";
import { listStages, listStaleStyles, putStages } from "../queries/stages";
import { findStyle, listProvenance, putSignature, updateReading, type StyleRecord } from "../queries/styles";
import { addJob, type JobContext } from "../queue/queue";
import { rereadRights } from "../store/rightsOfStyle";
import { storeReading } from "../store/storeReading";
import { readFontInWorker, readLaterInWorker } from "../workers/pool";

/** Styles in hand at a time: enough for two cores and what is written meanwhile. */
const AT_ONCE = 4;

/** Starts the job when there is something to finish and none waits. */
export function finishReading(db: Db) {
  if (listJobsIn(db, "waiting").some((j) => j.kind === "reread")) return;
  const stale = listStaleStyles(db).length;
  if (stale) addJob("reread", `Finish measuring ${stale} styles`, {});
}

export async function rereadStyles({ signal, progress }: JobContext): Promise<void> {
  const db = getDb();
  const waiting = listStaleStyles(db);
  let done = 0;
  let failed = 0;
  progress({ total: waiting.length, done });
  const limit = pLimit(AT_ONCE);
  await Promise.all(
    waiting.map((styleId) =>
      limit(async () => {
        if (signal.aborted) return;
        if (!(await rereadOne(db, styleId, signal))) failed++;
        progress({ done: ++done, failed });
      }),
    ),
  );
}

/** A file that cannot be read any more keeps what was measured of it. */
async function rereadOne(db: Db, styleId: string, signal: AbortSignal): Promise<boolean> {
  const style = findStyle(db, styleId);
  if (!style || !isStored(style.sha256)) return false;
  const stale = findStale(listStages(db, styleId));
  if (stale.includes("opened")) return rereadWhole(db, style);
  return readStages(db, style, stale, signal);
}

async function readStages(db: Db, style: StyleRecord, stages: Stage[], signal: AbortSignal): Promise<boolean> {
  const bytes = readStored(style.sfntSha256);
  const reply = await readLaterInWorker({ bytes, stages, traits: style.traits }, signal);
  if (!reply.ok) return false;
  const { measured, classified, print, health, signature, varied } = reply.reading;
  const notes = { ...style.notes, ...measured?.notes, ...varied?.notes };
  db.transaction(() => {
    updateReading(db, style.styleId, {
      ...(measured && { traits: measured.traits }),
      ...((measured || varied) && { notes }),
      ...classified,
      ...(health && { health }),
    });
    if (print && style.owned) putPrint(db, style.styleId, keyOfFingerprint(print), print);
    // The places on its axes count with the descriptors at its default: they go first.
    if (varied) putInstances(db, style.styleId, varied.instances);
    if (signature) putSignature(db, style.styleId, signature);
    putStages(db, style.styleId, stages);
  })();
  return true;
}

/** All that is known of the file is read again, names and terms too. */
async function rereadWhole(db: Db, style: StyleRecord): Promise<boolean> {
  const bytes = readStored(style.sha256);
  const reply = await readFontInWorker({ bytes, fallbackFamily: style.family });
  if (!reply.ok) return false;
  const [first] = listProvenance(db, style.styleId);
  await storeReading(db, bytes, reply.reading, {
    libraryId: style.libraryId,
    path: first?.path ?? "",
    statedFamily: style.family,
    // The font’s own statements are read from it again; what the user added has a table of its own.
    evidence: style.rights.evidence.filter((e) => !e.evidenceId && e.kind !== "name-table" && e.kind !== "fs-type"),
    styleId: style.styleId as StyleId,
    trial: style.owned ? undefined : { coverage: style.coverage },
    offer: style.offer,
  });
  await rereadRights(db, style.styleId);
  return true;
}
