// All that is known of one style, and its glyphs.
import type { FamilyId, LibraryId, StyleId } from "@/contracts/ids";
import type { Glyph, GlyphList, StyleDetail } from "@/contracts/styles";
import { writePath } from "@/core/geometry/outline";
import { charactersOf, findMissing } from "@/core/brief/checkBrief";
import { nameCharacter, writeCodePoint } from "@/core/open/characterNames";
import { readCmap } from "@/core/open/tables/cmap";
import { openContainer } from "@/core/open/container";
import { TableReader } from "@/core/open/reader";
import { blockOf, describeCoverage } from "@/core/open/unicodeBlocks";
import { openFace, type OpenFace } from "@/core/outlines/openFace";
import { strictestVerdict, verdictsOf } from "@/core/rights/verdicts";
import { shapeText } from "@/core/shape/shapeText";
import type { Db } from "../db/open";
import { readStored } from "../db/fileStore";
import { findBrief } from "../queries/briefs";
import { findStyle, listFamilyStyles, listProvenance, type StyleRecord } from "../queries/styles";
import { findLibrary } from "../queries/libraries";
import { listAlternatives, listChanges } from "../queries/records";
import { SIEVE_TRAITS, SLANTED_FROM_DEG } from "@/contracts/traits";
import { SHAPING_FEATURES } from "@/contracts/words";
import { HISTOGRAM_BINS } from "@/core/find/findIndex";
import { totalsOf } from "@/core/find/facets";
import { listTags } from "../queries/finding";
import type { Anatomy } from "@/contracts/anatomy";
import type { z } from "zod";
import type { Beside, BesideQuery } from "@/contracts/identify";
import type { GlyphKind } from "@/contracts/styles";
import { kindsOfGlyph } from "@/core/open/glyphKinds";
import { tellApart } from "@/core/identify/tellApart";
import { readAnatomy } from "@/core/measure/anatomy";
import { getRows } from "./findings";
import { getLanguages, setsLanguage } from "./languages";
import { priceOf } from "./shop";

export function getStyleDetail(db: Db, styleId: string, briefId: string | null): StyleDetail | null {
  const r = findStyle(db, styleId);
  if (!r || r.hidden) return null;
  const alternatives = listAlternatives(db, styleId);
  const brief = briefId ? findBrief(db, briefId) : null;
  const siblings = listFamilyStyles(db, r.familyId)
    .map((s) => ({
      styleId: s.styleId as StyleId,
      style: s.style,
      weight: s.facts.statedWeight ?? s.traits.weight,
      variable: s.axes.length > 0,
      owned: s.owned,
      axisDefaults: Object.fromEntries(s.axes.map((a) => [a.tag, a.default])),
      width: s.traits.width === null ? null : Math.round(s.traits.width),
      slanted: Math.abs(s.traits.slantDeg ?? 0) > SLANTED_FROM_DEG || /italic|oblique/i.test(s.style),
      slant: s.traits.slantDeg ?? 0,
    }))
    .sort((a, b) => Number(a.variable) - Number(b.variable) || (a.weight ?? 0) - (b.weight ?? 0) || a.slant - b.slant)
    .map(({ slant: _slant, ...s }) => s);
  return {
    styleId: r.styleId as StyleId,
    familyId: r.familyId as FamilyId,
    family: r.family,
    style: r.style,
    library: r.libraryId as LibraryId,
    names: r.names,
    foundry: r.facts.foundry,
    designer: r.facts.designer,
    version: r.facts.version,
    formats: [...new Set([r.format, ...alternatives.map((a) => a.format)])],
    kinds: r.kinds,
    treatments: r.treatments,
    traits: r.traits,
    notes: r.notes,
    vox: r.vox,
    moods: r.moods,
    tags: listTags(db, r.familyId).map(({ tag, holds }) => ({ tag, holds })),
    languages: getLanguages()
      .list.filter((l) => setsLanguage(r.coverage, l))
      .map(({ code, name }) => ({ code, name })),
    languagesOf: getLanguages().list.length,
    spread: spreadOf(db, r),
    ranges: getRows(db).ranges,
    codePoints: r.coverage,
    coverage: describeCoverage(r.coverage),
    glyphCount: r.facts.glyphCount,
    unitsPerEm: r.facts.unitsPerEm,
    axes: r.axes,
    instances: r.instances,
    features: r.features,
    health: r.health,
    rights: r.rights,
    verdict: strictestVerdict(verdictsOf(r.rights), brief?.uses ?? []),
    missing: brief ? findMissing(charactersOf(brief), r.coverage) : [],
    provenance: listProvenance(db, styleId).map((p) => ({
      ...p,
      libraryName: findLibrary(db, p.library)?.name ?? p.library,
    })),
    sha256: r.sha256,
    libraryName: findLibrary(db, r.libraryId)?.name ?? r.libraryId,
    owned: r.owned,
    offer: r.offer && {
      currency: r.offer.currency,
      pricesCents: r.offer.pricesCents,
      hasSetting: r.offer.settingUrl !== null,
    },
    price: priceOf(r.offer, brief?.uses ?? []),
    alternatives: alternatives.map(({ styleId: _styleId, ...a }) => a),
    changes: listChanges(db, styleId).map(({ at, what, says }) => ({ at, what, says })),
    siblings,
  };
}

/** Where a style stands in the library, trait by trait. */
function spreadOf(db: Db, r: StyleRecord): StyleDetail["spread"] {
  const { index } = getRows(db);
  return Object.fromEntries(
    SIEVE_TRAITS.flatMap((trait) => {
      const value = r.traits[trait];
      if (value === null || value === undefined) return [];
      const { values, bins, range } = index.traits[trait];
      const totals = totalsOf(bins, HISTOGRAM_BINS + 1);
      const measured = values.length - totals[HISTOGRAM_BINS]!;
      let less = 0;
      for (let i = 0; i < values.length; i++) if (values[i]! < value) less++;
      const above = measured ? less / measured : 0;
      return [[trait, { range, bins: [...totals.subarray(0, HISTOGRAM_BINS)], above }]];
    }),
  );
}

type GlyphTable = { face: OpenFace; glyphs: Omit<Glyph, "path">[] };
const tables = new Map<string, Promise<GlyphTable>>();
const TABLES_KEPT = 12;

/** The glyph table of a style, kept for the last few styles. */
function glyphTable(r: StyleRecord): Promise<GlyphTable> {
  let table = tables.get(r.styleId);
  if (!table) {
    table = buildGlyphTable(r);
    tables.set(r.styleId, table);
    if (tables.size > TABLES_KEPT) tables.delete(tables.keys().next().value!);
  }
  return table;
}

async function buildGlyphTable(r: StyleRecord): Promise<GlyphTable> {
  const sfnt = readStored(r.sfntSha256);
  const { tables: parts } = await openContainer(sfnt);
  const { map } = readCmap(new TableReader("cmap", parts.get("cmap")!));
  const face = openFace(sfnt);
  const codePoints = new Map<number, number[]>();
  for (const [c, g] of map) codePoints.set(g, [...(codePoints.get(g) ?? []), c]);
  const reached = findReaching(face, [...map.keys()], r.features);
  const glyphs = Array.from({ length: r.facts.glyphCount }, (_, id) => ({
    id,
    name: face.font.glyphName(id),
    codePoints: codePoints.get(id) ?? [],
    features: reached.get(id) ?? [],
    advance: face.advanceFu(id),
  }));
  return { face, glyphs };
}

/** Features of which a single character shows nothing. */
const NOT_FOR_CHOICE = new Set([...SHAPING_FEATURES, "calt", "vert", "vrt2", "frac"]);
const LIGATURES = ["fi", "fl", "ff", "ffi", "ffl", "fj", "tt", "ft", "ct", "st", "Th", "th", "ll", "ss"];

/** Which feature turns a character (or a usual pair) into which glyph: each is shaped with the feature on and off. */
function findReaching(face: OpenFace, characters: number[], features: string[]): Map<number, string[]> {
  const reached = new Map<number, string[]>();
  const note = (glyph: number, tag: string) => {
    const tags = reached.get(glyph) ?? [];
    if (!tags.includes(tag)) reached.set(glyph, [...tags, tag]);
  };
  const choices = features.filter((f) => !NOT_FOR_CHOICE.has(f) && !/^(liga|dlig|clig|hlig)$/.test(f)).slice(0, 40);
  const letters = characters.filter((c) => c > 32 && c < 0x250).slice(0, 400);
  for (const tag of choices)
    for (const c of letters) {
      const { glyphs } = shapeText(face, String.fromCodePoint(c), { [tag]: 1 });
      const plain = face.glyphOf(c);
      for (const g of glyphs) if (g.glyphId && g.glyphId !== plain) note(g.glyphId, tag);
    }
  for (const tag of ["liga", "dlig"])
    if (features.includes(tag))
      for (const pair of LIGATURES) {
        const { glyphs } = shapeText(face, pair, { [tag]: 1 });
        if (glyphs.length < pair.length) for (const g of glyphs) note(g.glyphId, tag);
      }
  return reached;
}

/** Answers GET /styles/:id/glyphs. `q`: a character, a name or part of one, "U+00A9". */
export async function listGlyphs(
  db: Db,
  styleId: string,
  query: { block?: string; kind?: GlyphKind; q?: string; limit: number; cursor?: string },
): Promise<GlyphList | null> {
  const r = findStyle(db, styleId);
  if (!r) return null;
  const { face, glyphs } = await glyphTable(r);
  const wanted = glyphs.filter(
    (g) =>
      inBlock(g.codePoints, query.block) &&
      (!query.kind || kindsOfGlyph(g).includes(query.kind)) &&
      matches(g, query.q?.trim() ?? ""),
  );
  const from = Number(query.cursor ?? 0);
  const flip = { a: 1, b: 0, c: 0, d: -1, e: 0, f: 0 };
  const kinds: Record<string, number> = {};
  for (const g of glyphs) for (const k of kindsOfGlyph(g)) kinds[k] = (kinds[k] ?? 0) + 1;
  return {
    total: wanted.length,
    kinds,
    unitsPerEm: r.facts.unitsPerEm,
    ascender: r.facts.ascenderFu,
    descender: r.facts.descenderFu,
    glyphs: wanted.slice(from, from + query.limit).map((g) => ({ ...g, path: writePath(face.outline(g.id), flip) })),
    ...(from + query.limit < wanted.length && { cursor: String(from + query.limit) }),
  };
}

/** Answers GET /styles/:id/anatomy; null when the style is unknown. */
export async function getAnatomy(db: Db, styleId: string): Promise<Anatomy | null> {
  const r = findStyle(db, styleId);
  return r ? readAnatomy((await glyphTable(r)).face, r.traits) : null;
}

/** Answers GET /styles/:id/beside; null where one of the two is unknown or lacks the letter. */
export async function getBeside(
  db: Db,
  styleId: string,
  { other, at, otherAt, letter }: z.output<typeof BesideQuery>,
): Promise<Beside | null> {
  const [a, b] = [findStyle(db, styleId), findStyle(db, other)];
  if (!a || !b) return null;
  const faceOf = async (r: StyleRecord, setting: typeof at) =>
    setting ? openFace(readStored(r.sfntSha256), setting) : (await glyphTable(r)).face;
  return tellApart(await faceOf(a, at), await faceOf(b, otherAt), letter);
}

const inBlock = (codePoints: number[], block?: string) =>
  !block || (block === "Not encoded" ? !codePoints.length : codePoints.some((c) => blockOf(c) === block));

function matches(g: Omit<Glyph, "path">, q: string): boolean {
  if (!q) return true;
  const code = q.match(/^(?:u\+?|0x)([0-9a-f]{2,6})$/i);
  if (code) return g.codePoints.includes(Number.parseInt(code[1]!, 16));
  if ([...q].length === 1) return g.codePoints.includes(q.codePointAt(0)!);
  const plain = q.toLowerCase();
  return (
    g.name.toLowerCase() === plain ||
    g.features.includes(plain) ||
    g.codePoints.some((c) => nameCharacter(c).includes(plain) || writeCodePoint(c).toLowerCase().includes(plain)) ||
    (plain.length > 2 && g.name.toLowerCase().includes(plain))
  );
}
