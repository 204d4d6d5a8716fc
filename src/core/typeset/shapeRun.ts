// One run of text in one direction and script → placed glyphs by HarfBuzz: ligatures, kerning, contextual forms as the font asks for;
// the old `kern` table by our own reader. Stands below `typesetLine`.
import { Direction as HbDirection, Feature, shape } from "harfbuzzjs";
import { applyKernPairs } from "../outlines/kernTable";
import type { OpenFace } from "../outlines/openFace";

export type Direction = "ltr" | "rtl";
/** One glyph. `cluster` is the index of its first UTF-16 unit in the text; lengths in font units, y up, x from where its run or line begins. */
export type PlacedGlyph = { glyphId: number; cluster: number; xFu: number; yFu: number; advanceFu: number };
/** OpenType tag → value, e.g. { liga: 0, swsh: 1 }. */
export type Features = Record<string, number>;
export type RunRange = { from: number; to: number; direction: Direction };

/**
 * Shapes one run.
 * @param text - the whole line, so that letters join over the ends of a run. @param range - the run, UTF-16 positions, `to` exclusive.
 * @returns glyphs from left to right in either direction; glyph 0 stands for what the face lacks.
 */
export function shapeRun(
  face: OpenFace,
  text: string,
  { from, to, direction }: RunRange,
  features: Features = {},
): { glyphs: PlacedGlyph[]; widthFu: number } {
  const { buffer } = face;
  buffer.reset();
  buffer.addText(text, from, to - from);
  buffer.setDirection(direction === "rtl" ? HbDirection.RTL : HbDirection.LTR);
  buffer.guessSegmentProperties();
  shape(
    face.font,
    buffer,
    Object.entries(features).map(([tag, value]) => new Feature(tag, value)),
  );
  const glyphs: PlacedGlyph[] = [];
  let x = 0;
  for (const g of buffer.getGlyphInfosAndPositions()) {
    const advanceFu = g.xAdvance ?? 0;
    glyphs.push({
      glyphId: g.codepoint,
      cluster: g.cluster,
      xFu: x + (g.xOffset ?? 0),
      yFu: g.yOffset ?? 0,
      advanceFu,
    });
    x += advanceFu;
  }
  const pairs = features.kern === 0 ? null : face.kernPairs();
  if (pairs) applyKernPairs(glyphs, pairs);
  return { glyphs, widthFu: glyphs.reduce((sum, g) => sum + g.advanceFu, 0) };
}
