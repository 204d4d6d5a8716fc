// Drawn fonts (Type 3, ISO 32000-2, 9.6.4): each glyph is a small page. Those that are drawn by paths are compared like any outlines.
import { OPS } from "pdfjs-dist/legacy/build/pdf.mjs";
import { extractDescriptors, type DescribedFace } from "../descriptors/extractDescriptors";
import { flattenOutline, IN_PLACE, joinMaps, mapOutline, type Affine, type Outline } from "../geometry/outline";

/** What the page reader makes of one glyph: operators and what they are given. */
type GlyphPage = { fnArray: readonly number[]; argsArray: readonly (readonly unknown[] | null)[] };
/** @property toText - takes the units of its glyphs to those of text, ems. */
export type DrawnFont = { toText: readonly number[]; glyphPages: Readonly<Record<string, GlyphPage>> };

const UNITS_PER_EM = 1000;
/** Verbs and how many numbers follow, by the page reader's code of a piece of a path. */
const PIECES = [
  ["M", 2],
  ["L", 2],
  ["C", 6],
  ["Q", 4],
  ["Z", 0],
] as const;

/**
 * @param glyphs - character → the name of its glyph. @param advancesEm - by character.
 * @returns letters described as the library's are; null where they are no paths (pictures of letters, as old programs wrote).
 */
export function signDrawn(
  { toText, glyphPages }: DrawnFont,
  glyphs: ReadonlyMap<string, string>,
  advancesEm: Readonly<Record<string, number>>,
): Uint8Array | null {
  const toUnits = affineOf(toText.map((v) => v * UNITS_PER_EM));
  const outlines: Outline[] = [];
  const idOf = new Map<number, number>();
  const advances: number[] = [];
  for (const [char, name] of glyphs) {
    const page = glyphPages[name];
    const drawn = page && readGlyph(page);
    if (!drawn) continue;
    idOf.set(char.codePointAt(0)!, outlines.push(mapOutline(drawn, toUnits)));
    advances.push((advancesEm[char] ?? 0) * UNITS_PER_EM);
  }
  if (!outlines.length) return null;
  const face: DescribedFace = {
    unitsPerEm: UNITS_PER_EM,
    outline: (id) => outlines[id - 1]!,
    polygons: (id) => flattenOutline(outlines[id - 1]!, 1),
    advanceFu: (id) => advances[id - 1]!,
    glyphOf: (codePoint) => idOf.get(codePoint) ?? null,
  };
  return extractDescriptors(face);
}

/** The six numbers of a map, as PDF writes them (ISO 32000-2, 8.3.4). */
const affineOf = ([a = 1, b = 0, c = 0, d = 1, e = 0, f = 0]: readonly number[]): Affine => ({ a, b, c, d, e, f });

/** The filled paths of a glyph in its own units; null without any. Strokes and pictures are no outlines. */
function readGlyph({ fnArray, argsArray }: GlyphPage): Outline | null {
  let by = IN_PLACE;
  const kept: Affine[] = [];
  let verbs = "";
  const coords: number[] = [];
  for (const [i, fn] of fnArray.entries()) {
    const args = argsArray[i];
    if (fn === OPS.save) kept.push(by);
    else if (fn === OPS.restore) by = kept.pop() ?? by;
    else if (fn === OPS.transform) by = joinMaps(affineOf(args as unknown as readonly number[]), by);
    else if (fn === OPS.constructPath) {
      const [how, [path]] = args as unknown as [number, [Float32Array | null]];
      if (!path || !FILLS.has(how)) continue;
      const drawn = mapOutline(readPath(path), by);
      verbs += drawn.verbs;
      coords.push(...drawn.coords);
    }
  }
  return verbs ? { verbs, coords: Float64Array.from(coords) } : null;
}

const FILLS: ReadonlySet<number> = new Set([
  OPS.fill,
  OPS.eoFill,
  OPS.fillStroke,
  OPS.eoFillStroke,
  OPS.closeFillStroke,
  OPS.closeEOFillStroke,
]);

function readPath(path: Float32Array): Outline {
  let verbs = "";
  const coords: number[] = [];
  for (let i = 0; i < path.length;) {
    const [verb, count] = PIECES[path[i]!] ?? ["Z", 0];
    i++;
    verbs += verb;
    for (let k = 0; k < count; k++) coords.push(path[i + k]!);
    i += count;
  }
  return { verbs, coords: Float64Array.from(coords) };
}
