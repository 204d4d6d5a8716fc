// Where a candidate's shaped word is laid over the line before it is fitted: by the cut letters, or by the pieces they share.
import { boundsOf, flattenOutline } from "../../geometry/outline";
import { addPolygons } from "../../geometry/raster";
import type { OpenFace } from "../../outlines/openFace";
import type { InkLine } from "../../picture/readPicture";
import { spanOf } from "../../picture/straighten";
import type { PlacedGlyph } from "../../typeset/shapeRun";
import { glyphsOf, typesetLine } from "../../typeset/typesetText";
import { isEvened } from "../../picture/inks";
import { alignLine } from "../ranking/align";
import { fitLine } from "../ranking/coarse";
import { alongLine, type Part, type Pose } from "./pose";
import { spreadOf } from "./spread";
import { describeStrip, describeWord, grainOf, ROUGH_ROWS, warpWords } from "../ranking/warp";
import { writeSmall, type Wording } from "../../picture/wording";

// Taken out of the global object once: the loops below call them many times.
const { abs, ceil, floor, max, min } = Math;

/** A glyph as a program may have drawn it: at `scale` times the size of the text. */
type SetGlyph = PlacedGlyph & { scale: number };
/** A text as a program may have set it in a face, and the features that were switched on for it. */
type ShapedVariant = { glyphs: SetGlyph[]; features: string[] };

/** What programs that know nothing of a font's own rules leave away. */
const WITHOUT_RULES = { calt: 0, liga: 0, clig: 0, rlig: 0 };
/** Features of a whole text that people and programs switch on. */
const CHOSEN = ["dlig", "onum", "lnum"];

/** Ways in which programs may have set a text in a face: the font's own rules and, where it makes a difference, without them or more. */
export function shapeVariants(face: OpenFace, wording: Wording): ShapedVariant[] {
  const { clean, small } = wording;
  if (small) return setSmallCapitals(face, wording);
  const own = shape(face, clean);
  const ways = [own, shape(face, clean, WITHOUT_RULES)];
  for (const tag of CHOSEN) if (face.features().includes(tag)) ways.push(shapeVariant(face, clean, [tag]));
  return ways.filter((w, i) => !ways.slice(0, i).some((before) => isSameVariant(before, w)));
}

/** A text with features switched on. */
export const shapeVariant = (face: OpenFace, text: string, features: string[]): ShapedVariant =>
  shape(face, text, Object.fromEntries(features.map((tag) => [tag, 1])), features);

function shape(
  face: OpenFace,
  text: string,
  switched: Record<string, number> = {},
  features: string[] = [],
): ShapedVariant {
  return {
    glyphs: glyphsOf(typesetLine(face, text, { features: switched })).map((g) => ({ ...g, scale: 1 })),
    features,
  };
}

const isSameVariant = (a: ShapedVariant, b: ShapedVariant) =>
  a.glyphs.length === b.glyphs.length && a.glyphs.every((g, i) => g.glyphId === b.glyphs[i]!.glyphId);

/** The font's own small capitals, where it has them, and capitals drawn smaller, as programs make them otherwise. */
function setSmallCapitals(face: OpenFace, wording: Wording): ShapedVariant[] {
  const scaled = shape(face, writeSmall(wording, "upper"));
  const units = indexUnits(wording.clean);
  let x = 0;
  for (const g of scaled.glyphs) {
    if (wording.small!.is[units[g.cluster] ?? 0]) g.scale = wording.small!.size;
    g.xFu = x;
    x += g.advanceFu * g.scale;
  }
  if (!face.features().includes("smcp")) return [scaled];
  const lower = writeSmall(wording, "lower");
  const own = shapeVariant(face, lower, ["smcp"]);
  return isSameVariant(own, shape(face, lower)) ? [scaled] : [own, scaled];
}

/**
 * Lays a candidate's word over the line.
 * @param set - the text as it was set, one of `shapeVariants`.
 * @returns places where it may begin, one when letters were cut as the face has them; none when the face draws nothing of it or cannot be placed.
 */
export function placeWord(
  face: OpenFace,
  line: InkLine,
  { clean, characters, wordStarts }: Wording,
  set: ShapedVariant,
): Pose[] {
  const { parts, boxes } = makeParts(face, clean, characters.length, set);
  if (!parts.length) return [];
  const clusters = new Set(parts.map((p) => p.first));
  const simple = line.letters.length === characters.length && clusters.size === parts.length;
  const { features } = set;
  // Each moves the parts that it is given.
  const own = () => parts.map((p) => ({ ...p }));
  const byCuts = simple ? placeByCuts(line, own(), boxes) : null;
  if (byCuts?.isSure) return present([byCuts.place], features);
  return present(
    [byCuts?.place ?? null, placeByPieces(line, own(), boxes, wordStarts), placeByWarp(line, own(), boxes)],
    features,
  );
}

/** The glyphs of a variant that draw something: those of its parts. Glyph 0 stands for what the face lacks, as a trial does. */
export const drawnGlyphs = (face: OpenFace, set: ShapedVariant): SetGlyph[] =>
  set.glyphs.filter((g) => g.glyphId > 0 && face.polygons(g.glyphId).length > 0);

/** What a variant draws, letter by letter, nowhere yet; and the box of each. */
export function makeParts(
  face: OpenFace,
  text: string,
  count: number,
  set: ShapedVariant,
): { parts: Part[]; boxes: EmBox[] } {
  const em = face.unitsPerEm;
  const units = indexUnits(text);
  const glyphs = drawnGlyphs(face, set);
  const boxes = glyphs.map((g): EmBox => {
    const b = boundsOf(face.polygons(g.glyphId))!;
    return {
      left: (b.xMin * g.scale) / em,
      right: (b.xMax * g.scale) / em,
      top: (b.yMax * g.scale + g.yFu) / em,
      bottom: (b.yMin * g.scale + g.yFu) / em,
      advance: (g.advanceFu * g.scale) / em,
    };
  });
  const parts = glyphs.map((g, k): Part => {
    const first = units[g.cluster] ?? 0;
    const later = glyphs.slice(k + 1).find((n) => n.cluster > g.cluster);
    const next = later ? (units[later.cluster] ?? first + 1) : count;
    const polygons = flattenOutline(face.outline(g.glyphId), em / 500).map((p) => {
      const out = new Float64Array(p.length);
      for (let i = 0; i < p.length; i += 2) {
        out[i] = (p[i]! * g.scale) / em;
        out[i + 1] = (p[i + 1]! * g.scale + g.yFu) / em;
      }
      return out;
    });
    const centreEm = (boxes[k]!.left + boxes[k]!.right) / 2;
    return {
      first,
      count: max(1, next - first),
      glyphId: g.glyphId,
      polygons,
      centreEm,
      penEm: g.xFu / em,
      atPx: 0,
      dyPx: 0,
    };
  });
  return { parts, boxes };
}

type Place = Omit<Pose, "features">;
const present = (places: (Place | null)[], features: string[]) => places.flatMap((p) => (p ? { ...p, features } : []));

/** UTF-16 index in the text → index among the characters that are not white space. */
function indexUnits(text: string): number[] {
  const units: number[] = [];
  let at = 0;
  for (const c of text) {
    for (let k = 0; k < c.length; k++) units.push(at);
    if (c.trim()) at++;
  }
  return units;
}

type EmBox = { left: number; right: number; top: number; bottom: number; advance: number };

const FLAT = { slant: 0, taper: 0, turn: 0, bow: 0 };

/** As many cuts as letters may be right or chance: boxes of the face tell. */
function placeByCuts(line: InkLine, parts: Part[], boxes: EmBox[]): { place: Place; isSure: boolean } | null {
  const cuts = parts.map((p) => spanOf(line.letters.slice(p.first, p.first + p.count)));
  const fit = fitLine(cuts, boxes);
  if (!fit || fit.aspect < 0.4 || fit.aspect > 2.5) return null;
  parts.forEach((p, i) => (p.atPx = (cuts[i]!.left + cuts[i]!.right) / 2));
  const place = {
    parts,
    baselinePx: fit.baselinePx,
    slope: fit.slope,
    scalePx: fit.scalePx,
    ...spreadIn(line, parts, fit.scalePx, clampAspect(fit.aspect)),
    ...FLAT,
    ...lengthOf(line),
  };
  return { place, isSure: fit.heightError < SURE_ERROR && fit.widthError < SURE_ERROR };
}

/** Errors of boxes under which cuts are believed, em. */
const SURE_ERROR = 0.07;

const clampAspect = (a: number) => min(1.12, max(0.89, a));

/** How wide letters stand along the line: as the places of its letters say where it was not seen from the front, else the same all along. */
function spreadIn(line: InkLine, parts: readonly Part[], scalePx: number, aspect: number) {
  if (!isEvened(line.reading)) return { aspect, widen: 0, bulge: 0 };
  const length = lengthOf(line);
  return spreadOf(
    parts.map((p) => ({ u: alongLine(length, p.atPx), em: p.penEm + p.centreEm })),
    length.halfPx / scalePx,
  );
}

function lengthOf(line: InkLine): Pick<Pose, "middlePx" | "halfPx"> {
  const { left, right } = spanOf(line.letters);
  return { middlePx: (left + right) / 2, halfPx: max(1, (right - left) / 2) };
}

/** Where letters touch, each piece of ink is shared among letters as the face's own widths and heights say. */
function placeByPieces(line: InkLine, parts: Part[], boxes: EmBox[], wordStarts: number[]): Place | null {
  // Pens of the shaped run (kerning, joins) instead of plain advances.
  const run = boxes.map((b, i) => ({
    ...b,
    advance: i + 1 < parts.length ? parts[i + 1]!.penEm - parts[i]!.penEm : b.advance,
  }));
  const starts = parts.flatMap((p, i) => (i && wordStarts.includes(p.first) ? [i] : []));
  // The alignment counts gaps of words by itself: the pens must not hold them too.
  for (const i of starts) run[i - 1]!.advance = boxes[i - 1]!.advance;
  const alignment = alignLine(line, run, [0, ...starts]);
  if (!alignment) return null;
  const { placed } = alignment;
  const seen = placed.flatMap((b, i) => (b ? [i] : []));
  if (seen.length < max(1, parts.length * 0.5)) return null;
  const fit = fitLine(
    seen.map((i) => placed[i]!),
    seen.map((i) => boxes[i]!),
  );
  const isGood = fit && fit.scalePx > 0.6 * alignment.scalePx && fit.scalePx < 1.6 * alignment.scalePx;
  const scalePx = isGood ? fit.scalePx : alignment.scalePx;
  parts.forEach((p, i) => {
    const own = placed[i];
    if (own) p.atPx = (own.left + own.right) / 2;
    else {
      // A letter without ink of its own stands beside the nearest that has some.
      const near = seen.reduce((a, b) => (abs(b - i) < abs(a - i) ? b : a));
      const at = placed[near]!;
      p.atPx = (at.left + at.right) / 2 + (p.penEm + p.centreEm - parts[near]!.penEm - parts[near]!.centreEm) * scalePx;
    }
  });
  return {
    parts,
    baselinePx: isGood ? fit.baselinePx : alignment.baselinePx,
    slope: isGood ? max(-0.08, min(0.08, fit.slope)) : 0,
    scalePx,
    ...spreadIn(line, parts, scalePx, isGood ? clampAspect(fit.aspect) : 1),
    ...FLAT,
    ...lengthOf(line),
  };
}

/** The word as a whole, drawn as the face sets it: where its columns come to lie over the line's, there its letters stand. */
function placeByWarp(line: InkLine, parts: Part[], boxes: EmBox[]): Place | null {
  const extent = spanOf(line.letters);
  const em = {
    left: min(...parts.map((p, i) => p.penEm + boxes[i]!.left)),
    right: max(...parts.map((p, i) => p.penEm + boxes[i]!.right)),
    top: max(...boxes.map((b) => b.top)),
    bottom: min(...boxes.map((b) => b.bottom)),
  };
  const scalePx = (extent.bottom - extent.top) / max(0.05, em.top - em.bottom);
  const [width, naturalPx] = [extent.right - extent.left, (em.right - em.left) * scalePx];
  if (naturalPx > 2 * width || naturalPx < 0.4 * width) return null;
  // Drawn at the size at which it is looked at: twice as many rows as are compared. Few tell about where a letter stands.
  const per = (2 * ROUGH_ROWS) / max(0.05, em.top - em.bottom);
  const span = { left: 0, top: 0, right: (em.right - em.left) * per, bottom: 2 * ROUGH_ROWS };
  const [widthPx, heightPx] = [ceil(span.right) + 1, 2 * ROUGH_ROWS + 1];
  const picture = { widthPx, heightPx, ink: new Float32Array(widthPx * heightPx) };
  for (const part of parts) {
    const placed = part.polygons.map((p) =>
      p.map((v, k) => (k % 2 ? (em.top - v) * per : (part.penEm + v - em.left) * per)),
    );
    const box = boundsOf(placed);
    if (box) addPolygons(picture, placed, box);
  }
  const grain = grainOf(extent, ROUGH_ROWS);
  const { columns } = grain;
  const warp = warpWords(describeWord(picture, span, grain), describeStrip(line.strip, extent, grain));
  if (!warp) return null;
  parts.forEach((p) => {
    const at = ((p.penEm + p.centreEm - em.left) / (em.right - em.left)) * columns - 0.5;
    const k = max(0, min(columns - 2, floor(at)));
    const onto = warp.onto[k]! + (at - k) * (warp.onto[k + 1]! - warp.onto[k]!);
    p.atPx = extent.left + ((onto + 0.5) / columns) * width;
  });
  return {
    parts,
    baselinePx: extent.top + em.top * scalePx,
    slope: 0,
    scalePx,
    ...spreadIn(line, parts, scalePx, 1),
    ...FLAT,
    ...lengthOf(line),
  };
}
