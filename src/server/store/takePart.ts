// Web collections cut one face by character: a file for Latin, one for Cyrillic and so on, all of the same name. They are one style.
// The file with the Latin alphabet is its main part; the others add their characters.
import type { StyleId } from "@/contracts/ids";
import type { Axis } from "@/contracts/traits";
import type { OpenedReading } from "@/core/read/readFont";
import { hasLatinAlphabet, isInside, subtractRanges, uniteRanges } from "@/core/unicode/ranges";
import { storeFile } from "../db/fileStore";
import type { Db } from "../db/open";
import { listParts, putPart, updateCoverage, type StylePart } from "../queries/parts";
import { listStylesNamed, putProvenance, type StyleRecord } from "../queries/styles";
import { isFromSame, isSameName, rereadRights } from "./rightsOfStyle";
import { ascentOf, descentOf, familyIdIn, nameStyle, type ReadingSource, type Taken } from "./storeReading";

/** The style that a font is a file of, by all that it says of itself but its characters; null when there is none. */
export function findFaceOf(db: Db, reading: OpenedReading, source: ReadingSource): StyleRecord | null {
  const named = nameStyle(reading, source);
  const list = listStylesNamed(db, familyIdIn(db, named.family), named.style);
  return list.find((record) => record.owned && isSameFace(record, reading)) ?? null;
}

/** Whether a font has characters that a style lacks. */
export const addsCharacters = ({ opened }: OpenedReading, { coverage }: StyleRecord) =>
  !isInside(opened.codePoints, coverage);

/** All that the files of one face say alike, whatever their characters. */
export const isSameFace = (record: StyleRecord, { opened }: OpenedReading) =>
  isFromSame(record, opened) &&
  isSameName(opened.names[5] ?? "", record.names[5] ?? "") &&
  opened.unitsPerEm === record.facts.unitsPerEm &&
  ascentOf(opened) === record.facts.ascenderFu &&
  descentOf(opened) === record.facts.descenderFu &&
  writeAxes(opened.axes) === writeAxes(record.axes);
const writeAxes = (axes: readonly Axis[]) => axes.map((a) => `${a.tag} ${a.min} ${a.default} ${a.max}`).join();

/** Whether a font and a style each have characters that the other lacks. */
export const isPartOf = (record: StyleRecord, reading: OpenedReading) =>
  addsCharacters(reading, record) && !isInside(record.coverage, reading.opened.codePoints);

/** Adds a font to the style that it is a part of. @param within - run in the transaction that writes it. */
export async function takePart(
  db: Db,
  bytes: Uint8Array,
  reading: OpenedReading,
  source: ReadingSource,
  whole: StyleRecord,
  within: (taken: Taken) => void,
): Promise<Taken> {
  const styleId = whole.styleId as StyleId;
  const { format, codePoints, sfnt } = reading.opened;
  const at = new Date().toISOString();
  const part: StylePart = {
    styleId,
    sha256: storeFile(bytes),
    sfntSha256: storeFile(sfnt),
    format,
    path: source.path,
    coverage: codePoints,
    addedAt: at,
  };
  const taken: Taken = { outcome: "added", code: "part-added", styleId, as: `${whole.family} ${whole.style}` };
  db.transaction(() => {
    putPart(db, part);
    updateCoverage(db, styleId, uniteRanges([whole.coverage, codePoints]));
    putProvenance(db, styleId, { library: source.libraryId, path: source.path, importedAt: at, sha256: part.sha256 });
    within(taken);
  })();
  const known = new Set(whole.rights.evidence.map((e) => e.text));
  if (source.evidence.some((e) => !known.has(e.text))) await rereadRights(db, styleId, source.evidence);
  return taken;
}

/** Whether a font is the main part that a style waited for. */
export const isAwaited = (whole: StyleRecord, { opened }: OpenedReading) =>
  hasLatinAlphabet(opened.codePoints) && !hasLatinAlphabet(whole.coverage);

/** The main file of a style becomes one part of it: another takes its place. */
export function becomePart(db: Db, face: StyleRecord, path: string) {
  const others = uniteRanges(listParts(db, face.styleId).map((p) => p.coverage));
  const own = subtractRanges(face.coverage, others);
  if (own.length)
    putPart(db, {
      styleId: face.styleId,
      sha256: face.sha256,
      sfntSha256: face.sfntSha256,
      format: face.format,
      path,
      coverage: own,
      addedAt: face.addedAt,
    });
}
