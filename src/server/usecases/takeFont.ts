// A font that was read → the store: as a new style, as another file of a style that is there, or in the place of a poorer one.
import type { FaultCode } from "@/contracts/errors";
import type { StyleId } from "@/contracts/ids";
import type { Evidence } from "@/contracts/rights";
import { VERDICT_WORDS } from "@/contracts/words";
import { USES } from "@/contracts/traits";
import { isSamePrint, keyOfPrint } from "@/core/measure/printOutlines";
import { readRights } from "@/core/rights/readRights";
import type { Db } from "../db/open";
import { sha256Of, storeFile } from "../db/fileStore";
import type { FontReading } from "../jobs/readFont.worker";
import { addChange, listEvidence, listPrints, putAlternative, removeAlternative } from "../queries/records";
import { findStyle, putProvenance, updateRights, type StyleRecord } from "../queries/styles";
import { familyIdOf, storeReading, type ReadingSource } from "./storeReading";

export type Taken = {
  outcome: "added" | "already-there";
  code?: FaultCode;
  styleId: StyleId;
  /** The name of the style it was found to be. */
  as?: string;
};

/** Puts a read font where it belongs. Files are stored first; rows follow in one transaction. */
export function takeFont(db: Db, bytes: Uint8Array, reading: FontReading, source: ReadingSource): Taken {
  const twin = findTwin(db, reading);
  if (!twin) return { outcome: "added", styleId: storeReading(db, bytes, reading, source) };
  const as = `${twin.family} ${twin.style}`;
  const styleId = twin.styleId as StyleId;
  const sha256 = sha256Of(bytes);
  const now = new Date().toISOString();
  storeFile(bytes);
  return db.transaction((): Taken => {
    if (richnessOf(reading) > richnessOfRecord(twin)) {
      putAlternative(db, { styleId, sha256: twin.sha256, format: twin.format, name: as, addedAt: now });
      removeAlternative(db, styleId, sha256);
      storeReading(db, bytes, reading, { ...source, styleId, evidence: mergeEvidence(twin, source.evidence) });
      note(db, styleId, "file", `${source.path} took the place of the ${twin.format.toUpperCase()} file`);
      return { outcome: "added", code: "richer-taken", styleId, as };
    }
    putAlternative(db, {
      styleId,
      sha256,
      format: reading.opened.format,
      name: `${reading.family} ${reading.opened.style}`,
      addedAt: now,
    });
    putProvenance(db, styleId, { library: source.libraryId, path: source.path, importedAt: now, sha256 });
    addEvidence(db, styleId, source.evidence);
    const isSameName = reading.family === twin.family && reading.opened.style === twin.style;
    const isOtherFormat = reading.opened.format !== twin.format;
    return { outcome: "already-there", code: isSameName && isOtherFormat ? "less-rich" : "same-outlines", styleId, as };
  })();
}

/** The style whose letters have the same widths and boxes; null when there is none, or the font has too few letters. */
function findTwin(db: Db, reading: FontReading): StyleRecord | null {
  const { print } = reading;
  if (!print) return null;
  const rows = listPrints(db, keyOfPrint(print), familyIdOf(reading.family));
  for (const { styleId, print: other } of rows) {
    if (!isSamePrint(print, other)) continue;
    const record = findStyle(db, styleId);
    if (record && record.axes.map((a) => a.tag).join() === reading.opened.axes.map((a) => a.tag).join()) return record;
  }
  return null;
}

const FORMAT_RANK: Record<string, number> = { otf: 0.4, ttf: 0.3, woff2: 0.2, woff: 0.1 };
/** How much a file holds: characters, features; of equals the format that programs set type with. */
const richness = (characters: number, features: number, format: string) =>
  characters + 8 * features + (FORMAT_RANK[format] ?? 0);
const countOf = (ranges: [number, number][]) => ranges.reduce((n, [a, b]) => n + b - a + 1, 0);
const richnessOf = ({ opened }: FontReading) =>
  richness(countOf(opened.codePoints), opened.features.length, opened.format);
const richnessOfRecord = (r: StyleRecord) => richness(countOf(r.coverage), r.features.length, r.format);

const FROM_FONT = new Set(["name-table", "fs-type"]);
const isOwnEvidence = (e: Evidence) => Boolean(e.evidenceId);

/** Texts of both, each once; its own statements come from the file that is read. */
function mergeEvidence(record: StyleRecord, more: Evidence[]): Evidence[] {
  const known = record.rights.evidence.filter((e) => !FROM_FONT.has(e.kind) && !isOwnEvidence(e));
  return [...known, ...more.filter((e) => !known.some((k) => k.kind === e.kind && k.text === e.text))];
}

/** Adds texts to a style's record and reads its rights anew; changed verdicts are logged. */
export function addEvidence(db: Db, styleId: string, more: Evidence[]) {
  const record = findStyle(db, styleId);
  if (!record) return;
  const stated = record.rights.evidence.filter((e) => FROM_FONT.has(e.kind));
  const rights = readRights([...mergeEvidence(record, more), ...stated, ...listEvidence(db, styleId)]);
  if (JSON.stringify(rights) === JSON.stringify(record.rights)) return;
  updateRights(db, styleId, rights);
  const changed = USES.filter((u) => rights.verdicts[u]?.verdict !== record.rights.verdicts[u]?.verdict);
  if (changed.length)
    note(
      db,
      styleId,
      "rights",
      `Verdicts changed: ${changed.map((u) => `${u} ${VERDICT_WORDS[record.rights.verdicts[u]!.verdict]} → ${VERDICT_WORDS[rights.verdicts[u]!.verdict]}`).join("; ")}`,
    );
}

export const note = (db: Db, styleId: string, what: string, says: string, libraryId: string | null = null) =>
  addChange(db, { at: new Date().toISOString(), what, styleId, libraryId, says });
