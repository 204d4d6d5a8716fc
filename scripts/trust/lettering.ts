// A picture of words, from the outlines of a font: what people drop into Identify.
import sharp from "sharp";
import { writePath } from "../../src/core/geometry/outline";
import { openFace } from "../../src/core/outlines/openFace";
import { shapeText } from "../../src/core/shape/shapeText";

const SIZE_PX = 84;
const MARGIN_PX = 30;

/** @param sfnt - a bare font. @returns a PNG, dark on white. */
export async function drawWords(sfnt: Uint8Array, words: string): Promise<Uint8Array> {
  const face = openFace(sfnt);
  const { glyphs, widthFu } = shapeText(face, words);
  const scale = SIZE_PX / face.unitsPerEm;
  const paths = glyphs.map((g) => writePath(face.outline(g.glyphId), { a: 1, b: 0, c: 0, d: -1, e: g.xFu, f: -g.yFu }));
  const [width, height] = [Math.ceil(widthFu * scale) + 2 * MARGIN_PX, 2 * SIZE_PX];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><g transform="translate(${MARGIN_PX} ${SIZE_PX * 1.3}) scale(${scale})">${paths.map((d) => `<path d="${d}"/>`).join("")}</g></svg>`;
  return new Uint8Array(await sharp(Buffer.from(svg)).flatten({ background: "#fff" }).png().toBuffer());
}
