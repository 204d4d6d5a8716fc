// Pens: what becomes of a set text. `drawTypeset` walks it once; each pen is told glyph by glyph and knows nothing of lines.
import { boundsOf, mapPolygons, writePath, type Affine, type Bounds } from "../geometry/outline";
import { addPolygons, type InkPicture } from "../geometry/raster";
import type { OpenFace } from "../outlines/openFace";
import type { PlacedGlyph } from "./shapeRun";
import type { MissingCluster, TypesetRun, TypesetText } from "./typesetText";

/** Where something stands: font units from the left end of the first baseline, y up. */
type Origin = { xFu: number; yFu: number };
type Pen = {
  /** A glyph that the face has. */
  glyph(glyph: PlacedGlyph, at: Origin, run: TypesetRun): void;
  /** A box for what it lacks; left out where a pen has no use for it. */
  missing?(cluster: MissingCluster, at: Origin): void;
};

/** Distance of baselines where nothing else is said, in em. */
const LINE_HEIGHT_EM = 1.2;

/** Walks lines from the first on, runs and glyphs from left to right. Glyph 0 is never drawn. */
export function drawTypeset({ lines, unitsPerEm }: TypesetText, pen: Pen, lineHeightEm = LINE_HEIGHT_EM) {
  lines.forEach((line, i) => {
    const baselineFu = i ? -i * lineHeightEm * unitsPerEm : 0;
    for (const run of line.runs)
      for (const g of run.glyphs) if (g.glyphId) pen.glyph(g, { xFu: g.xFu, yFu: g.yFu + baselineFu }, run);
    for (const m of line.missing) pen.missing?.(m, { xFu: m.xFu, yFu: baselineFu });
  });
}

/** Origin of a glyph under a map of the whole text. */
const moveTo = ({ xFu, yFu }: Origin, by: Affine): Affine => ({
  ...by,
  e: by.a * xFu + by.c * yFu + by.e,
  f: by.b * xFu + by.d * yFu + by.f,
});

/**
 * Writes outlines as one SVG path.
 * @param by - map from font units (y up) to the path's; the default turns y down and keeps the size.
 */
export function writeTypesetPath(
  face: OpenFace,
  typeset: TypesetText,
  by: Affine = { a: 1, b: 0, c: 0, d: -1, e: 0, f: 0 },
  digits = 1,
): string {
  const parts: string[] = [];
  drawTypeset(typeset, { glyph: (g, at) => parts.push(writePath(face.outline(g.glyphId), moveTo(at, by), digits)) });
  return parts.join("");
}

/** Box around all ink in font units, y up; null when nothing is drawn. */
export function measureTypeset(face: OpenFace, typeset: TypesetText): Bounds | null {
  let all: Bounds | null = null;
  drawTypeset(typeset, {
    glyph(g, { xFu, yFu }) {
      const b = boundsOf(face.polygons(g.glyphId));
      if (!b) return;
      const at = { xMin: b.xMin + xFu, yMin: b.yMin + yFu, xMax: b.xMax + xFu, yMax: b.yMax + yFu };
      all = all
        ? {
            xMin: Math.min(all.xMin, at.xMin),
            yMin: Math.min(all.yMin, at.yMin),
            xMax: Math.max(all.xMax, at.xMax),
            yMax: Math.max(all.yMax, at.yMax),
          }
        : at;
    },
  });
  return all;
}

/** Fills the ink into a picture. @param by - map from font units (y up) to pixels (y down). @param picture - modified. */
export function rasterTypeset(face: OpenFace, typeset: TypesetText, by: Affine, picture: InkPicture) {
  drawTypeset(typeset, {
    glyph(g, at) {
      const polygons = mapPolygons(face.polygons(g.glyphId), moveTo(at, by));
      const box = boundsOf(polygons);
      if (box) addPolygons(picture, polygons, box);
    },
  });
}

/** Text as it stands in XML and HTML, within elements and quoted attributes. */
export const escapeXml = (s: string) =>
  s.replace(/[&<>"']/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;", "'": "&#39;" })[c]!);

/**
 * A document of outlines alone, as large as its ink at a size.
 * @param title - read aloud by programs; escaped. @param ink - a CSS colour.
 * @returns null when nothing is drawn.
 */
export function writeTypesetSvg(
  face: OpenFace,
  typeset: TypesetText,
  { sizePx, title, ink }: { sizePx: number; title: string; ink: string },
): string | null {
  const box = measureTypeset(face, typeset);
  if (!box) return null;
  const s = sizePx / typeset.unitsPerEm;
  const [width, height] = [(box.xMax - box.xMin) * s, (box.yMax - box.yMin) * s].map((v) => Number(v.toFixed(2)));
  const path = writeTypesetPath(face, typeset, { a: s, b: 0, c: 0, d: -s, e: -box.xMin * s, f: box.yMax * s }, 3);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><title>${escapeXml(title)}</title><path fill="${escapeXml(ink)}" d="${path}"/></svg>\n`;
}
