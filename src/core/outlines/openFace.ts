// A face ready to be drawn: one HarfBuzz face with its outlines read on demand and kept.
// Stands behind `open`: only bytes that `open` accepted come here.
import { Blob, Buffer, DrawFuncs, Face, Font, Variation } from "harfbuzzjs";
import { readKernPairs, type KernPairs } from "./kernTable";
import { flattenOutline, type Outline, type Polygons } from "../geometry/outline";

export type OpenFace = {
  readonly unitsPerEm: number;
  /** Of its file, of which HarfBuzz holds a copy. */
  readonly sizeBytes: number;
  /** The HarfBuzz font, for `shape` alone. */
  readonly font: Font;
  /** Scratch of `shape`: the package frees buffers only when it idles, so one is used again and again. */
  readonly buffer: Buffer;
  /** Outline of a glyph in font units; empty for a space. Kept after the first read. */
  outline(glyphId: number): Outline;
  /** The outline as polygons, no piece further than a thousandth em from the curve. */
  polygons(glyphId: number): Polygons;
  /** Whether a glyph has ink, by its extents: no outline is read. */
  isDrawn(glyphId: number): boolean;
  advanceFu(glyphId: number): number;
  /** Glyph of a character by the cmap alone; null when not mapped. */
  glyphOf(codePoint: number): number | null;
  /** Pairs of the old `kern` table where GPOS does not kern; null for other fonts. */
  kernPairs(): KernPairs | null;
  /** The faces that this one was put together from, and which of them sets a character (`joinParts`); absent of a whole face. */
  readonly parts?: { faces: readonly OpenFace[]; partOf(codePoint: number, before: number): number };
  /** OpenType tags of the features by which the face sets other glyphs. */
  features(): readonly string[];
};

/**
 * Opens a face.
 * @param sfnt - bytes that `openFont` returned. @param coordinates - axis tag → value; others stay at default.
 */
export function openFace(sfnt: Uint8Array, coordinates: Record<string, number> = {}): OpenFace {
  const { face, moveTo } = openMovingFace(sfnt);
  if (Object.keys(coordinates).length) moveTo(coordinates);
  return face;
}

/** A face whose axes move: one HarfBuzz font, at one location at a time. What was read of it before a move stays as it was. */
export type MovingFace = {
  face: OpenFace;
  moveTo: (coordinates: Record<string, number>) => void;
  /** Where an axis rests, by its tag; 0 where there is none such. */
  defaultOf: (tag: string) => number;
};

let openedBytes = 0;
/** Bytes of all files that were opened here so far: each is copied, and freed only some time after it was let go. */
export const countOpenedBytes = (): number => openedBytes;

export function openMovingFace(sfnt: Uint8Array): MovingFace {
  openedBytes += sfnt.length;
  const face = new Face(new Blob(sfnt), 0);
  const font = new Font(face);
  const outlines = new Map<number, Outline>();
  const polygons = new Map<number, Polygons>();
  return {
    face: readFace(face, font, sfnt.length, outlines, polygons),
    moveTo(coordinates) {
      font.setVariations(Object.entries(coordinates).map(([tag, value]) => new Variation(tag, value)));
      outlines.clear();
      polygons.clear();
    },
    defaultOf: (tag) => face.getAxisInfos()[tag]?.default ?? 0,
  };
}

/** @param outlines - read already, by glyph. @param polygons - the same, taken apart. */
function readFace(
  face: Face,
  font: Font,
  sizeBytes: number,
  outlines: Map<number, Outline>,
  polygons: Map<number, Polygons>,
): OpenFace {
  const unitsPerEm = face.upem;
  let features: string[] | null = null;
  let kernPairs: KernPairs | null | undefined;
  const outline = (glyphId: number) => {
    let known = outlines.get(glyphId);
    if (!known) outlines.set(glyphId, (known = drawOutline(font, glyphId)));
    return known;
  };
  return {
    unitsPerEm,
    sizeBytes,
    font,
    buffer: new Buffer(),
    outline,
    polygons(glyphId) {
      let known = polygons.get(glyphId);
      if (!known) polygons.set(glyphId, (known = flattenOutline(outline(glyphId), unitsPerEm / 1000)));
      return known;
    },
    isDrawn(glyphId) {
      const extents = font.glyphExtents(glyphId);
      return extents !== null && extents !== undefined && (extents.width !== 0 || extents.height !== 0);
    },
    advanceFu: (glyphId) => font.glyphHAdvance(glyphId),
    glyphOf: (codePoint) => font.nominalGlyph(codePoint) || null,
    kernPairs: () => (kernPairs === undefined ? (kernPairs = findKernPairs(face)) : kernPairs),
    features: () => (features ??= [...new Set(face.getTableFeatureTags("GSUB"))]),
  };
}

type Pen = { verbs: string; coords: number[] };
const put = (verb: string, pen: unknown, ...coords: number[]) => {
  (pen as Pen).verbs += verb;
  (pen as Pen).coords.push(...coords);
};
/** What the shaper calls while it draws a glyph: the numbers go into the pen as they are. */
const PEN = new DrawFuncs();
PEN.setMoveToFunc((x, y, pen) => put("M", pen, x, y));
PEN.setLineToFunc((x, y, pen) => put("L", pen, x, y));
PEN.setQuadraticToFunc((cx, cy, x, y, pen) => put("Q", pen, cx, cy, x, y));
PEN.setCubicToFunc((c1x, c1y, c2x, c2y, x, y, pen) => put("C", pen, c1x, c1y, c2x, c2y, x, y));
PEN.setClosePathFunc((pen) => put("Z", pen));

/** @throws RangeError where a point lies nowhere (variations of a damaged font). */
function drawOutline(font: Font, glyphId: number): Outline {
  const pen: Pen = { verbs: "", coords: [] };
  font.drawGlyph(glyphId, PEN, pen);
  if (!pen.coords.every(Number.isFinite)) throw new RangeError(`glyph ${glyphId} has a point that is no number`);
  return { verbs: pen.verbs, coords: Float64Array.from(pen.coords) };
}

function findKernPairs(face: Face): KernPairs | null {
  if (face.getTableFeatureTags("GPOS").includes("kern")) return null;
  const table = face.referenceTable("kern");
  return table?.length ? readKernPairs(table) : null;
}
