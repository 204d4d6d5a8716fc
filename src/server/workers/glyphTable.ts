// The glyphs of one face, with the characters and features that reach each. Runs in a process that can be killed.
import type { Glyph, GlyphKind } from "@/contracts/styles";
import { SHAPING_FEATURES } from "@/contracts/words";
import { alikeGlyphs } from "@/core/descriptors/alikeGlyphs";
import { writePath } from "@/core/geometry/outline";
import { writeCodePoint } from "@/core/unicode/codePoint";
import { nameCharacter } from "@/core/unicode/names";
import { openContainer } from "@/core/open/container";
import { kindsOfGlyph } from "@/core/unicode/glyphKinds";
import { TableReader } from "@/core/open/reader";
import { readGlyphCount } from "@/core/open/tables/metrics";
import { readCmap } from "@/core/open/tables/cmap";
import { blockOf } from "@/core/unicode/blocks";
import { glyphInWhole, joinParts } from "@/core/outlines/joinParts";
import { openFace, type OpenFace } from "@/core/outlines/openFace";
import { glyphsOf, typesetLine } from "@/core/typeset/typesetText";

export type GlyphTable = { face: OpenFace; glyphs: Omit<Glyph, "path">[] };
export type GlyphQuery = {
  block?: string;
  kind?: GlyphKind;
  q?: string;
  alike?: number;
  limit: number;
  cursor?: string;
};
export type GlyphPage = { total: number; kinds: Record<string, number>; glyphs: Glyph[]; cursor?: string };

/** Characters listed of one glyph: fallback fonts map thousands to the same one. */
const MAX_CODE_POINTS = 50;
/** A letter that a feature turns into more glyphs than this shows nothing of use. */
const MAX_GLYPHS_PER_LETTER = 64;

/** @param sfnts - the bare fonts as they were stored: one, or all parts, the main part first. @param features - their tags. */
export async function buildGlyphTable(sfnts: readonly Uint8Array[], features: readonly string[]): Promise<GlyphTable> {
  const parts = await Promise.all(sfnts.map((sfnt) => listGlyphs(sfnt, features)));
  // What several parts have is set by the first of them.
  const known = new Set<number>();
  const glyphs = parts.flatMap((part, i) => {
    const own = part.glyphs.flatMap((g) => {
      const codePoints = g.codePoints.filter((c) => !known.has(c));
      const isRepeated = i > 0 && (g.id === 0 || (g.codePoints.length > 0 && !codePoints.length));
      return isRepeated ? [] : [{ ...g, codePoints, id: glyphInWhole(i, g.id) }];
    });
    for (const g of part.glyphs) for (const c of g.codePoints) known.add(c);
    return own;
  });
  return { face: joinParts(parts.map((p) => p.face)), glyphs };
}

async function listGlyphs(sfnt: Uint8Array, features: readonly string[]): Promise<GlyphTable> {
  const { tables } = await openContainer(sfnt);
  const { map } = readCmap(new TableReader("cmap", tables.get("cmap")!));
  const face = openFace(sfnt);
  const codePoints = new Map<number, number[]>();
  for (const [c, g] of map) {
    const known = codePoints.get(g);
    if (!known) codePoints.set(g, [c]);
    else if (known.length < MAX_CODE_POINTS) known.push(c);
  }
  const reached = findReaching(face, [...map.keys()], features);
  const glyphs = Array.from({ length: readGlyphCount(new TableReader("maxp", tables.get("maxp")!)) }, (_, id) => ({
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
function findReaching(face: OpenFace, characters: number[], features: readonly string[]): Map<number, string[]> {
  const reached = new Map<number, string[]>();
  const note = (glyph: number, tag: string) => {
    const tags = reached.get(glyph);
    if (!tags) reached.set(glyph, [tag]);
    else if (!tags.includes(tag)) tags.push(tag);
  };
  const choices = features.filter((f) => !NOT_FOR_CHOICE.has(f) && !/^(liga|dlig|clig|hlig)$/.test(f)).slice(0, 40);
  const letters = characters.filter((c) => c > 32 && c < 0x250).slice(0, 400);
  for (const tag of choices)
    for (const c of letters) {
      const glyphs = glyphsOf(typesetLine(face, String.fromCodePoint(c), { features: { [tag]: 1 } }));
      // One that multiplies letters does so for every one: the rest is not tried.
      if (glyphs.length > MAX_GLYPHS_PER_LETTER) break;
      const plain = face.glyphOf(c);
      for (const g of glyphs) if (g.glyphId && g.glyphId !== plain) note(g.glyphId, tag);
    }
  for (const tag of ["liga", "dlig"])
    if (features.includes(tag))
      for (const pair of LIGATURES) {
        const glyphs = glyphsOf(typesetLine(face, pair, { features: { [tag]: 1 } }));
        if (glyphs.length < pair.length) for (const g of glyphs) note(g.glyphId, tag);
      }
  return reached;
}

/** One page of a table. `q`: a character, a name or part of one, "U+00A9". */
export function pageGlyphs({ face, glyphs }: GlyphTable, query: GlyphQuery): GlyphPage {
  const wanted = glyphs.filter(
    (g) =>
      inBlock(g.codePoints, query.block) &&
      (!query.kind || kindsOfGlyph(g).includes(query.kind)) &&
      matches(g, query.q?.trim() ?? ""),
  );
  const ranked = query.alike === undefined ? wanted : inOrderOf(wanted, alikeGlyphs(face, query.alike, idsOf(wanted)));
  const from = Number(query.cursor ?? 0);
  const flip = { a: 1, b: 0, c: 0, d: -1, e: 0, f: 0 };
  const kinds: Record<string, number> = {};
  for (const g of glyphs) for (const k of kindsOfGlyph(g)) kinds[k] = (kinds[k] ?? 0) + 1;
  return {
    total: ranked.length,
    kinds,
    glyphs: ranked.slice(from, from + query.limit).map((g) => ({ ...g, path: writePath(face.outline(g.id), flip) })),
    ...(from + query.limit < ranked.length && { cursor: String(from + query.limit) }),
  };
}

type Listed = readonly Omit<Glyph, "path">[];
const idsOf = (glyphs: Listed) => glyphs.map((g) => g.id);
function inOrderOf(glyphs: Listed, ids: readonly number[]): Omit<Glyph, "path">[] {
  const byId = new Map(glyphs.map((g) => [g.id, g]));
  return ids.map((id) => byId.get(id)!);
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
