// Bytes of one font file → an opened font with a health report. First stage of the pipeline ("opened").
// The three states of a table are kept apart: absent (null), damaged (null, with a fault on record), read.
import type { Axis, CodePointRanges, Fault, Health } from "@/contracts/traits";
import { openContainer, type FontFormat } from "./container";
import { FontFileError } from "./fontFileError";
import { TableReader } from "./reader";
import { readCmap, type CharacterMap } from "./tables/cmap";
import { readFeatureTags, readFvar, type Instance } from "./tables/layout";
import { readGlyphNames } from "./tables/glyphNames";
import { readGlyphCount, readHead, readHhea, readOs2, readPost, type Hhea, type Os2 } from "./tables/metrics";
import { readFamilyAndStyle, readNames, readOtherFamilies, type NameFaults, type Names } from "./tables/names";
import { toRanges } from "../unicode/blocks";

export type OpenedFont = {
  format: FontFormat;
  /** The bare font as the shaper reads it. */
  sfnt: Uint8Array;
  names: Names;
  /** What the family is called in other scripts. */
  otherFamilies: string[];
  family: string | null;
  style: string;
  unitsPerEm: number;
  glyphCount: number;
  revision: number;
  hhea: Hhea | null;
  os2: Os2 | null;
  italicAngleDeg: number | null;
  characters: Map<number, number>;
  codePoints: CodePointRanges;
  axes: Axis[];
  instances: Instance[];
  features: string[];
  hasKerning: boolean;
  health: Health;
};

/** Usable with care when any fault is more than a note. */
export const gradeHealth = (faults: Fault[]): Health => ({
  degree: faults.some((f) => f.weight !== "note") ? "with-care" : "fine",
  faults,
});

/**
 * Opens one font file.
 * @param bytes - the whole file; not modified.
 * @returns the opened font; `health.degree` is "with-care" when any fault is on record.
 * @throws FontFileError when nothing usable can be made of it: head, maxp, cmap or the outlines absent or damaged.
 */
export async function openFont(bytes: Uint8Array): Promise<OpenedFont> {
  const { format, sfnt, tables, faults } = await openContainer(bytes);
  const must = (tag: string) => {
    const data = tables.get(tag);
    if (!data) throw new FontFileError("table-missing", tag, 0, `a ${tag} table`, [...tables.keys()].join(" "));
    return new TableReader(tag, data);
  };
  const may = <T>(tag: string, read: (t: TableReader) => T, use: string): T | null => {
    const data = tables.get(tag);
    if (!data) return null;
    try {
      return read(new TableReader(tag, data));
    } catch (error) {
      if (!(error instanceof FontFileError)) throw error;
      faults.push({ code: "table-damaged", table: tag, meaning: `${use} (${error.message}).` });
      return null;
    }
  };
  if (!["glyf", "CFF ", "CFF2"].some((tag) => tables.get(tag)?.length))
    throw new FontFileError("no-outlines", "file", 0, "a glyf or CFF table", [...tables.keys()].join(" "));
  const head = readHead(must("head"));
  const glyphCount = readGlyphCount(must("maxp"));
  const cmap = readCmap(must("cmap"));
  const kept = keepExistingGlyphs(cmap, glyphCount, faults);
  const nameFaults: NameFaults = { hidden: [], twice: [] };
  const names = may("name", (t) => readNames(t, nameFaults), "Its names cannot be read") ?? {};
  const otherFamilies = may("name", (t) => readOtherFamilies(t, names), "Its names cannot be read") ?? [];
  noteNames(nameFaults, faults);
  const fvar = may("fvar", (t) => readFvar(t, names), "Its axes cannot be used");
  const gsub = may("GSUB", readFeatureTags, "Its substitutions cannot be used") ?? [];
  const gpos = may("GPOS", readFeatureTags, "Its kerning cannot be used") ?? [];
  noteAbsences(tables, cmap, faults);
  noteGlyphNames(may("post", readGlyphNames, "Its glyph names cannot be read") ?? [], faults);
  const hhea = may("hhea", readHhea, "Its line metrics are unknown");
  const os2 = may("OS/2", readOs2, "Its stated weight and embedding terms are unknown");
  return {
    format,
    sfnt,
    names,
    otherFamilies,
    ...readFamilyAndStyle(names, os2?.usWeightClass ?? null),
    unitsPerEm: head.unitsPerEm,
    glyphCount,
    revision: head.revision,
    hhea,
    os2,
    italicAngleDeg: may("post", readPost, "Its stated slant is unknown")?.italicAngleDeg ?? null,
    characters: kept,
    codePoints: toRanges(kept.keys()),
    axes: fvar?.axes ?? [],
    instances: fvar?.instances ?? [],
    features: [...new Set([...gsub, ...gpos])].sort(),
    hasKerning: gpos.includes("kern") || tables.has("kern"),
    health: gradeHealth(faults),
  };
}

function keepExistingGlyphs(cmap: CharacterMap, glyphCount: number, faults: Fault[]): Map<number, number> {
  const kept = new Map<number, number>();
  let lost = 0;
  for (const [c, g] of cmap.map) {
    if (g < glyphCount) kept.set(c, g);
    else lost++;
  }
  if (lost)
    faults.push({
      code: "cmap-beyond-glyphs",
      table: "cmap",
      meaning: `${lost} characters point to glyphs that do not exist; they count as missing.`,
    });
  if (!kept.size) throw new FontFileError("no-characters", "cmap", 0, "at least one mapped character", "none");
  return kept;
}

function noteNames({ hidden, twice }: NameFaults, faults: Fault[]) {
  if (hidden.length)
    faults.push({
      code: "name-hidden-characters",
      table: "name",
      meaning: `Name ${hidden.join(", ")} carries control or direction characters; they are left out here. Menus and file names may show something else than what is written.`,
    });
  if (twice.length)
    faults.push({
      code: "names-duplicate",
      table: "name",
      meaning: `Name ${twice.join(", ")} is given twice in one language with different words: programs show different names.`,
    });
}

/** The first glyph must be .notdef, and no name may stand for two. Told where the post table names its glyphs. */
function noteGlyphNames(names: (string | null)[], faults: Fault[]) {
  if (names.length && names[0] !== ".notdef")
    faults.push({
      code: "notdef-missing",
      table: "post",
      meaning: "The first glyph is not .notdef: characters that the font lacks show some letter instead of a box.",
    });
  const seen = new Set<string>();
  const twice = new Set<string>();
  for (const name of names) {
    if (name && seen.has(name)) twice.add(name);
    if (name) seen.add(name);
  }
  if (twice.size)
    faults.push({
      code: "glyph-names-duplicate",
      table: "post",
      weight: "note",
      meaning: `${twice.size} glyph names stand for two glyphs (${[...twice].slice(0, 3).join(", ")}): text copied out of a PDF may be wrong.`,
    });
}

function noteAbsences(tables: Map<string, Uint8Array>, cmap: CharacterMap, faults: Fault[]) {
  const note = (table: string, meaning: string) => {
    if (!tables.has(table)) faults.push({ code: "table-missing", table, meaning });
  };
  note("hmtx", "Widths are missing: letters will stand on top of each other.");
  note("hhea", "Line metrics are missing: some programs refuse the font.");
  note("OS/2", "Weight and embedding terms are not stated: some programs refuse the font.");
  note("name", "The font carries no names: it cannot be installed safely.");
  note("post", "The post table is missing: some printers refuse the font.");
  if (!cmap.unicode)
    faults.push({
      code: "cmap-legacy",
      table: "cmap",
      meaning: cmap.symbol
        ? "Characters are mapped as symbols only; some programs show none of them."
        : "Only an old character mapping is present; some programs show none of them.",
    });
}
