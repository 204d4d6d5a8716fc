// A font's reading from the worker → one style in the store and the database, with its rights.
import type { FamilyId, StyleId } from "@/contracts/ids";
import type { Evidence } from "@/contracts/rights";
import { PIPELINE_VERSION } from "@/contracts/pipeline";
import { readRights } from "@/core/rights/readRights";
import type { Db } from "../db/open";
import { storeFile } from "../db/fileStore";
import type { FontReading } from "../jobs/readFont.worker";
import { putStyle } from "../queries/styles";

export type ReadingSource = {
  libraryId: string;
  /** Path within the library or the import, kept as provenance. */
  path: string;
  /** Family as the library states it; null when it says nothing. */
  statedFamily: string | null;
  evidence: Evidence[];
};

export const styleIdOf = (sha256: string) => `s_${sha256.slice(0, 20)}` as StyleId;
/** Latin names as words; names in other scripts by their code points, so that no two of them fall together. */
export function familyIdOf(family: string): FamilyId {
  const words = family
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 70);
  const codes = [...family].map((c) => c.codePointAt(0)!.toString(16)).join("-");
  return `f_${words || `u-${codes.slice(0, 68)}`}` as FamilyId;
}

/**
 * Stores one reading: files first (both are content-addressed, so a crash leaves nothing half-read), then the row.
 * @returns the style's id.
 */
export function storeReading(db: Db, bytes: Uint8Array, reading: FontReading, source: ReadingSource): StyleId {
  const { opened } = reading;
  const sha256 = storeFile(bytes);
  const sfntSha256 = storeFile(opened.sfnt);
  const now = new Date().toISOString();
  const named = nameStyle(reading, source.statedFamily);
  const styleId = styleIdOf(sha256);
  putStyle(
    db,
    {
      styleId,
      familyId: familyIdOf(named.family),
      ...named,
      libraryId: source.libraryId,
      sha256,
      sfntSha256,
      format: opened.format,
      names: Object.fromEntries(Object.entries(opened.names).filter(([id]) => Number(id) <= 25)),
      facts: {
        unitsPerEm: opened.unitsPerEm,
        glyphCount: opened.glyphCount,
        ascenderFu: opened.hhea?.ascenderFu ?? Math.round(opened.unitsPerEm * 0.8),
        descenderFu: opened.hhea?.descenderFu ?? -Math.round(opened.unitsPerEm * 0.2),
        foundry: opened.names[8] ?? opened.os2?.vendor ?? null,
        designer: opened.names[9] ?? null,
        version: opened.names[5] ?? null,
        fsType: opened.os2?.fsType ?? null,
        statedWeight: opened.os2?.usWeightClass ?? null,
      },
      traits: reading.measured.traits,
      kinds: reading.kinded.kinds,
      treatments: reading.kinded.treatments,
      coverage: opened.codePoints,
      axes: opened.axes,
      instances: opened.instances,
      features: opened.features,
      health: opened.health,
      rights: readRights([...source.evidence, ...nameEvidence(reading, now)]),
      pipelineVersion: PIPELINE_VERSION,
      addedAt: now,
    },
    reading.signature,
    { path: source.path, importedAt: now },
  );
  return styleId;
}

/** The library's family name wins where the font's begins with it ("Recursive" over "Recursive Sans Linear"). */
function nameStyle({ opened, family }: FontReading, stated: string | null): { family: string; style: string } {
  const plain = (s: string) => s.toLowerCase().replace(/[^a-z0-9]/g, "");
  const chosen = stated && plain(family).startsWith(plain(stated)) ? stated : family;
  if (!opened.axes.length) return { family: chosen, style: opened.style };
  const italic = /italic|oblique/i.test(opened.style) || (opened.italicAngleDeg ?? 0) < -1;
  return { family: chosen, style: italic ? "Variable Italic" : "Variable" };
}

/** The terms that a font itself states: name strings 13 and 14. A copyright line alone is no permission. */
function nameEvidence({ opened }: FontReading, date: string): Evidence[] {
  return [13, 14].flatMap((id) => {
    const text = opened.names[id];
    return text ? [{ kind: "name-table" as const, source: `name ${id} of the font`, date, text }] : [];
  });
}
