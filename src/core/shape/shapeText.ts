// Text → placed glyphs by HarfBuzz: ligatures, kerning, contextual forms as the font asks for; the old `kern` table by our own reader.
import { Feature, shape } from "harfbuzzjs";
import { applyKernPairs } from "../outlines/kernTable";
import type { OpenFace } from "../outlines/openFace";

/** One glyph of a run. `cluster` is the index of its first UTF-16 unit in the text; lengths in font units, y up. */
export type PlacedGlyph = { glyphId: number; cluster: number; xFu: number; yFu: number; advanceFu: number };
type ShapedRun = { glyphs: PlacedGlyph[]; widthFu: number };

/**
 * Shapes one line of text.
 * @param features - OpenType tags to switch, e.g. { liga: 0, swsh: 1 }.
 * @returns glyphs from left to right; glyph 0 stands for characters that the face lacks.
 */
export function shapeText(face: OpenFace, text: string, features: Record<string, number> = {}): ShapedRun {
  const { buffer } = face;
  buffer.reset();
  buffer.addText(text);
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
