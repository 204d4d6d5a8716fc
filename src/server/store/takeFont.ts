// A font that was read → the store. The same bytes are the same file; the same letters under the same family, style, maker and terms are
// another file of the style; anything else is a style of its own, which says whose letters it has. Rights never cross that link in the
// clearing direction.
import type { StyleId } from "@/contracts/ids";
import { NO_TRAITS, type Health } from "@/contracts/traits";
import { countCodePoints } from "@/core/unicode/ranges";
import { isSamePrint, keyOfFingerprint } from "@/core/measure/fingerprintOutlines";
import { storeFile } from "../db/fileStore";
import type { Db } from "../db/open";
import type { FirstReading, OpenedReading } from "@/core/read/readFont";
import { listPrints, putAlternative, putSameLetters, removeAlternative } from "../queries/records";
import { findStyle, listProvenance, putProvenance, type StyleRecord } from "../queries/styles";
import { isFromSame, isSameName, mergeEvidence, note, rereadRights } from "./rightsOfStyle";
import { readLaterInWorker } from "../workers/pool";
import { familyIdOf, prepareStyle, writeStyle, type ReadingSource, type Taken } from "./storeReading";
import { addsCharacters, becomePart, findFaceOf, isAwaited, isPartOf, isSameFace, takePart } from "./takePart";

/** A font on its way in. */
type Incoming<Reading = FirstReading> = {
  bytes: Uint8Array;
  reading: Reading;
  source: ReadingSource;
  /** Run in the transaction that writes it, with what became of it. */
  within: (taken: Taken) => void;
};

/** Puts a read font where it belongs. @param within - run in the transaction that writes it, with what became of it. */
export async function takeFont(
  db: Db,
  bytes: Uint8Array,
  reading: FirstReading,
  source: ReadingSource,
  within: (taken: Taken) => void = () => {},
): Promise<Taken> {
  const incoming = { bytes, reading, source, within };
  const alike = findAlike(db, reading);
  const same = alike.find((record) => isSameStyle(record, reading)) ?? null;
  const face = same ?? findFaceOf(db, reading, source);
  // By its own name it may be another ("Moda 11pt"): then its letters tell.
  const isKnown = same || (face && (isAwaited(face, reading) || alike.some((a) => a.styleId === face.styleId)));
  if (!face || !isKnown) return addStyle(db, incoming, alike);
  if (isSameFace(face, reading) && isPartOf(face, reading)) return takeApart(db, incoming, face);
  const degree = await degreeOf(reading);
  return isRicher(reading, degree, face) ? takePlace(db, incoming, face) : putBeside(db, incoming, face);
}

/** Whether a font that was only opened has a style to go to. */
export const hasStyleFor = (db: Db, reading: OpenedReading, source: ReadingSource) =>
  findFaceOf(db, reading, source) !== null;

/** Puts a font that was only opened where its style is; null where there is none yet: then it is to be read whole. */
export async function takeOpened(
  db: Db,
  bytes: Uint8Array,
  reading: OpenedReading,
  source: ReadingSource,
  within: (taken: Taken) => void = () => {},
): Promise<Taken | null> {
  const face = findFaceOf(db, reading, source);
  if (!face) return null;
  return addsCharacters(reading, face)
    ? takePart(db, bytes, reading, source, face, within)
    : putBeside(db, { bytes, reading, source, within }, face);
}

/** How sound a font is, asked now where its reading left it for later: it is to take the place of another. */
async function degreeOf({ health, opened }: FirstReading): Promise<Health["degree"]> {
  if (health) return health.degree;
  const asked = await readLaterInWorker({ bytes: opened.sfnt, stages: ["checked"], traits: NO_TRAITS });
  return asked.ok && asked.reading.health ? asked.reading.health.degree : "with-care";
}

/** A style of its own. Those with the same letters are told of it. */
async function addStyle(db: Db, { bytes, reading, source, within }: Incoming, alike: StyleRecord[]): Promise<Taken> {
  const prepared = await prepareStyle(db, bytes, reading, source, alike);
  const { styleId } = prepared;
  const [first] = alike;
  const taken: Taken = {
    outcome: "added",
    styleId,
    ...(first && { code: "letters-of-another" as const, as: `${first.family} ${first.style}` }),
  };
  db.transaction(() => {
    writeStyle(db, prepared);
    for (const other of alike) putSameLetters(db, styleId, other.styleId);
    within(taken);
  })();
  for (const other of alike) await rereadRights(db, other.styleId);
  return taken;
}

/** One part of a style that has others. The fullest with the Latin alphabet is its main part, and measured. */
async function takeApart(db: Db, incoming: Incoming, face: StyleRecord): Promise<Taken> {
  const { bytes, reading, source, within } = incoming;
  const isMain =
    isAwaited(face, reading) ||
    (reading.opened.glyphCount > face.facts.glyphCount && !isWorse(await degreeOf(reading), face));
  return isMain ? takePlace(db, incoming, face, "part-added") : takePart(db, bytes, reading, source, face, within);
}

/** Shown from now on; what was shown before is kept: as an alternative that holds less, or as another part. */
async function takePlace(
  db: Db,
  { bytes, reading, source, within }: Incoming,
  same: StyleRecord,
  code: "richer-taken" | "part-added" = "richer-taken",
): Promise<Taken> {
  const styleId = same.styleId as StyleId;
  const as = `${same.family} ${same.style}`;
  const known = same.rights.evidence.filter((e) => !FROM_FONT.has(e.kind));
  const evidence = mergeEvidence(known, source.evidence);
  const prepared = await prepareStyle(db, bytes, reading, { ...source, styleId, evidence });
  const taken: Taken = { outcome: "added", code, styleId, as };
  db.transaction(() => {
    const { sha256, format } = same;
    if (code === "part-added") becomePart(db, same, listProvenance(db, styleId)[0]?.path ?? "");
    else putAlternative(db, { styleId, sha256, format, name: as, addedAt: prepared.at });
    removeAlternative(db, styleId, prepared.files.sha256);
    writeStyle(db, prepared);
    note(db, styleId, "file", `${source.path} took the place of the ${same.format.toUpperCase()} file`);
    within(taken);
  })();
  await rereadRights(db, styleId);
  return taken;
}

/** Another file of the same style: kept beside the one that is shown. */
async function putBeside(
  db: Db,
  { bytes, reading, source, within }: Incoming<OpenedReading>,
  same: StyleRecord,
): Promise<Taken> {
  const styleId = same.styleId as StyleId;
  const sha256 = storeFile(bytes);
  const { format, style } = reading.opened;
  const at = new Date().toISOString();
  const taken: Taken = {
    outcome: "already-there",
    code: format === same.format ? "same-outlines" : "less-rich",
    styleId,
    as: `${same.family} ${same.style}`,
  };
  db.transaction(() => {
    putAlternative(db, { styleId, sha256, format, name: `${reading.family} ${style}`, addedAt: at });
    putProvenance(db, styleId, { library: source.libraryId, path: source.path, importedAt: at, sha256 });
    within(taken);
  })();
  await rereadRights(db, styleId, source.evidence);
  return taken;
}

/** Styles whose letters have the same widths and boxes, with the same axes. None for a font of too few letters. */
function findAlike(db: Db, reading: FirstReading, except?: string): StyleRecord[] {
  const { print } = reading;
  if (!print) return [];
  const axes = reading.opened.axes.map((a) => a.tag).join();
  return listPrints(db, keyOfFingerprint(print), familyIdOf(reading.family))
    .filter(({ styleId, print: other }) => styleId !== except && isSamePrint(print, other))
    .flatMap(({ styleId }) => findStyle(db, styleId) ?? [])
    .filter((record) => record.axes.map((a) => a.tag).join() === axes);
}

/** Whether a file is another file of a style rather than a copy of it: all that a font says of itself agrees. */
export function isSameStyle(record: StyleRecord, { opened, family }: FirstReading): boolean {
  const own = { family, style: opened.axes.length ? record.style : opened.style };
  return isSameName(`${own.family} ${own.style}`, `${record.family} ${record.style}`) && isFromSame(record, opened);
}

const FORMAT_RANK: Record<string, number> = { otf: 0.4, ttf: 0.3, woff2: 0.2, woff: 0.1 };
/** How much a file holds: characters, features; of equals the format that programs set type with. */
const richness = (characters: number, features: number, format: string) =>
  characters + 8 * features + (FORMAT_RANK[format] ?? 0);
/** A worse health never replaces a better file. */
const isWorse = (degree: Health["degree"], r: StyleRecord) => degree !== "fine" && r.health.degree === "fine";
const isRicher = ({ opened }: FirstReading, degree: Health["degree"], r: StyleRecord) =>
  !isWorse(degree, r) &&
  richness(countCodePoints(opened.codePoints), opened.features.length, opened.format) >
    richness(countCodePoints(r.coverage), r.features.length, r.format);

const FROM_FONT = new Set(["name-table", "fs-type"]);
