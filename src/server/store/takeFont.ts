// A font that was read → the store. The same bytes are the same file; the same letters under the same family, style, maker and terms are
// another file of the style; anything else is a style of its own, which says whose letters it has. Rights never cross that link in the
// clearing direction.
import type { FaultCode } from "@/contracts/errors";
import type { StyleId } from "@/contracts/ids";
import { NO_TRAITS, type Health } from "@/contracts/traits";
import { isSamePrint, keyOfFingerprint } from "@/core/measure/fingerprintOutlines";
import { storeFile } from "../db/fileStore";
import type { Db } from "../db/open";
import type { FirstReading } from "@/core/read/readFont";
import { listPrints, putAlternative, putSameLetters, removeAlternative } from "../queries/records";
import { findStyle, putProvenance, type StyleRecord } from "../queries/styles";
import { isSameMaker, isSameName, makerOf, makerOfRecord, mergeEvidence, note, rereadRights } from "./rightsOfStyle";
import { readLaterInWorker } from "../workers/pool";
import { familyIdOf, prepareStyle, writeStyle, type ReadingSource } from "./storeReading";

export type Taken = {
  outcome: "added" | "already-there";
  code?: FaultCode;
  styleId: StyleId;
  /** The name of the style it was found to be, or to look like. */
  as?: string;
};

/** A font on its way in. */
type Incoming = {
  bytes: Uint8Array;
  reading: FirstReading;
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
  const same = alike.find((record) => isSameStyle(record, reading));
  if (!same) return addStyle(db, incoming, alike);
  const degree = await degreeOf(reading);
  return isRicher(reading, degree, same) ? takePlace(db, incoming, same) : putBeside(db, incoming, same);
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

/** A richer, sound file of the same style: it is shown from now on; the one before is kept as an alternative. */
async function takePlace(db: Db, { bytes, reading, source, within }: Incoming, same: StyleRecord): Promise<Taken> {
  const styleId = same.styleId as StyleId;
  const as = `${same.family} ${same.style}`;
  const known = same.rights.evidence.filter((e) => !FROM_FONT.has(e.kind));
  const evidence = mergeEvidence(known, source.evidence);
  const prepared = await prepareStyle(db, bytes, reading, { ...source, styleId, evidence });
  const taken: Taken = { outcome: "added", code: "richer-taken", styleId, as };
  db.transaction(() => {
    putAlternative(db, { styleId, sha256: same.sha256, format: same.format, name: as, addedAt: prepared.at });
    removeAlternative(db, styleId, prepared.files.sha256);
    writeStyle(db, prepared);
    note(db, styleId, "file", `${source.path} took the place of the ${same.format.toUpperCase()} file`);
    within(taken);
  })();
  await rereadRights(db, styleId);
  return taken;
}

/** Another file of the same style: kept beside the one that is shown. */
async function putBeside(db: Db, { bytes, reading, source, within }: Incoming, same: StyleRecord): Promise<Taken> {
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
  return (
    isSameName(`${own.family} ${own.style}`, `${record.family} ${record.style}`) &&
    isSameMaker(makerOf(opened.names, opened.os2?.vendor ?? null), makerOfRecord(record)) &&
    [13, 14].every((id) => isSameName(opened.names[id] ?? "", record.names[id] ?? "")) &&
    isRestricted(opened.os2?.fsType ?? null) === isRestricted(record.facts.fsType)
  );
}
const isRestricted = (fsType: number | null) => ((fsType ?? 0) & 0xf) === 2;

const FORMAT_RANK: Record<string, number> = { otf: 0.4, ttf: 0.3, woff2: 0.2, woff: 0.1 };
/** How much a file holds: characters, features; of equals the format that programs set type with. */
const richness = (characters: number, features: number, format: string) =>
  characters + 8 * features + (FORMAT_RANK[format] ?? 0);
const countOf = (ranges: [number, number][]) => ranges.reduce((n, [a, b]) => n + b - a + 1, 0);
/** A worse health never replaces a better file. */
const isRicher = ({ opened }: FirstReading, degree: Health["degree"], r: StyleRecord) =>
  !(degree !== "fine" && r.health.degree === "fine") &&
  richness(countOf(opened.codePoints), opened.features.length, opened.format) >
    richness(countOf(r.coverage), r.features.length, r.format);

const FROM_FONT = new Set(["name-table", "fs-type"]);
