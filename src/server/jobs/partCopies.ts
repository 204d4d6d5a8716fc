// Job, once: files that an earlier version merged because their letters are the same are looked at again. What another name, maker or
// terms tell apart becomes a style of its own, with the texts that it came with; the verdicts of both are read again.
import type { Evidence } from "@/contracts/rights";
import type { StyleId } from "@/contracts/ids";
import { isStored, readStored } from "../db/fileStore";
import { getDb, type Db } from "../db/open";
import { listEveryAlternative, putSameLetters, removeAlternative, setMeta, type Alternative } from "../queries/records";
import { findStyle, listProvenance, moveProvenance, type StyleRecord } from "../queries/styles";
import { note, rereadRights } from "../store/rightsOfStyle";
import { storeReading, styleIdOf } from "../store/storeReading";
import { isSameStyle } from "../store/takeFont";
import { readFontInWorker } from "../workers/pool";
import type { JobContext } from "../queue/queue";
import type { FontReading } from "@/core/read/readFont";

export const PART_COPIES = "part-copies";

export async function partCopies({ signal, progress }: JobContext): Promise<void> {
  const db = getDb();
  const waiting = listEveryAlternative(db);
  let done = 0;
  progress({ total: waiting.length, done });
  for (const alternative of waiting) {
    if (signal.aborted) return;
    await partOne(db, alternative);
    progress({ done: ++done });
  }
  setMeta(db, PART_COPIES, "done");
}

async function partOne(db: Db, { styleId, sha256 }: Alternative): Promise<void> {
  const record = findStyle(db, styleId);
  if (!record || !isStored(sha256)) return;
  const bytes = readStored(sha256);
  const reply = await readFontInWorker({ bytes, fallbackFamily: record.family });
  if (!reply.ok || isSameStyle(record, reply.reading)) return;
  // The id was made of the file that came first: that one keeps it, and with it what briefs keep.
  const isFirst = styleIdOf(sha256) === styleId;
  const parted = isFirst
    ? await giveBack(db, record, bytes, reply.reading)
    : await makeOwn(db, record, bytes, sha256, reply.reading);
  note(
    db,
    parted,
    "file",
    `Told apart from ${record.family} ${record.style}: its letters are the same, its name, maker or terms are not`,
  );
  await rereadRights(db, styleId);
  await rereadRights(db, parted);
}

/** The file that had been merged gets a style of its own. */
async function makeOwn(
  db: Db,
  record: StyleRecord,
  bytes: Uint8Array,
  sha256: string,
  reading: FontReading,
): Promise<StyleId> {
  const paths = listProvenance(db, record.styleId).filter((p) => p.sha256 === sha256);
  const [theirs, ours] = partEvidence(
    record.rights.evidence,
    paths.map((p) => p.path),
  );
  const source = {
    libraryId: paths[0]?.library ?? record.libraryId,
    path: paths[0]?.path ?? "",
    statedFamily: null,
    evidence: theirs,
  };
  const styleId = await storeReading(db, bytes, reading, source);
  db.transaction(() => {
    removeAlternative(db, record.styleId, sha256);
    moveProvenance(db, record.styleId, styleId, sha256);
    putSameLetters(db, record.styleId, styleId);
  })();
  await rewrite(db, record, ours);
  return styleId;
}

/** The style had taken over the name of a copy: it gets its own file back, the copy becomes a style of its own. */
async function giveBack(db: Db, record: StyleRecord, bytes: Uint8Array, reading: FontReading): Promise<StyleId> {
  const paths = listProvenance(db, record.styleId).filter((p) => p.sha256 === record.sha256);
  const [theirs, ours] = partEvidence(
    record.rights.evidence,
    paths.map((p) => p.path),
  );
  const copyBytes = readStored(record.sha256);
  const copy = await readFontInWorker({ bytes: copyBytes, fallbackFamily: record.family });
  const own = listProvenance(db, record.styleId).find((p) => p.sha256 !== record.sha256);
  await storeReading(db, bytes, reading, {
    libraryId: own?.library ?? record.libraryId,
    path: own?.path ?? "",
    statedFamily: null,
    evidence: ours,
    styleId: record.styleId as StyleId,
  });
  removeAlternative(
    db,
    record.styleId,
    styleIdOf(record.sha256) === record.styleId ? record.sha256 : (own?.sha256 ?? ""),
  );
  if (!copy.ok) return record.styleId as StyleId;
  const source = {
    libraryId: paths[0]?.library ?? record.libraryId,
    path: paths[0]?.path ?? "",
    statedFamily: null,
    evidence: theirs,
  };
  const styleId = await storeReading(db, copyBytes, copy.reading, source);
  db.transaction(() => {
    moveProvenance(db, record.styleId, styleId, record.sha256);
    putSameLetters(db, record.styleId, styleId);
  })();
  return styleId;
}

const FROM_FONT = new Set<Evidence["kind"]>(["name-table", "fs-type"]);
const rootOf = (path: string) => path.split("/")[0]!;

/** Texts by what they came with: [those of the paths' archives and folders, the others]. */
function partEvidence(evidence: readonly Evidence[], paths: readonly string[]): [Evidence[], Evidence[]] {
  const roots = new Set(paths.filter((p) => p.includes("/")).map(rootOf));
  const texts = evidence.filter((e) => !FROM_FONT.has(e.kind) && !e.evidenceId);
  const isTheirs = (e: Evidence) => e.source.includes("/") && roots.has(rootOf(e.source));
  return [texts.filter(isTheirs), texts.filter((e) => !isTheirs(e))];
}

/** A style's record with fewer texts: its own statements are read from the file again. */
async function rewrite(db: Db, record: StyleRecord, evidence: Evidence[]): Promise<void> {
  const bytes = readStored(record.sha256);
  const reply = await readFontInWorker({ bytes, fallbackFamily: record.family });
  const [first] = listProvenance(db, record.styleId);
  if (reply.ok)
    await storeReading(db, bytes, reply.reading, {
      libraryId: record.libraryId,
      path: first?.path ?? "",
      statedFamily: record.family,
      evidence,
      styleId: record.styleId as StyleId,
      offer: record.offer,
    });
}
