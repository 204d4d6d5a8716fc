// A face ready to be drawn: one HarfBuzz face with its outlines read on demand and kept.
// Stands behind `open`: only bytes that `open` accepted come here.
import { Blob, Buffer, Face, Font, Variation } from "harfbuzzjs";
import { readKernPairs, type KernPairs } from "./kernTable";
import { flattenOutline, parsePath, type Outline, type Polygons } from "../geometry/outline";

export type OpenFace = {
  readonly unitsPerEm: number;
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
  /** OpenType tags of the features by which the face sets other glyphs. */
  features(): readonly string[];
};

/**
 * Opens a face.
 * @param sfnt - bytes that `openFont` returned. @param coordinates - axis tag → value; others stay at default.
 */
export function openFace(sfnt: Uint8Array, coordinates: Record<string, number> = {}): OpenFace {
  const face = new Face(new Blob(sfnt), 0);
  const font = new Font(face);
  const tags = Object.entries(coordinates);
  if (tags.length) font.setVariations(tags.map(([tag, value]) => new Variation(tag, value)));
  const outlines = new Map<number, Outline>();
  const polygons = new Map<number, Polygons>();
  const unitsPerEm = face.upem;
  let features: string[] | null = null;
  let kernPairs: KernPairs | null | undefined;
  const outline = (glyphId: number) => {
    let known = outlines.get(glyphId);
    if (!known) outlines.set(glyphId, (known = parsePath(font.glyphToPath(glyphId))));
    return known;
  };
  return {
    unitsPerEm,
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

function findKernPairs(face: Face): KernPairs | null {
  if (face.getTableFeatureTags("GPOS").includes("kern")) return null;
  const table = face.referenceTable("kern");
  return table?.length ? readKernPairs(table) : null;
}
