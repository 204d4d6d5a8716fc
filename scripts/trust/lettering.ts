// A picture of words, from the outlines of a font: what people drop into Identify.
import sharp from "sharp";
import { openFace } from "../../src/core/outlines/openFace";
import { writeTypesetPath } from "../../src/core/typeset/pens";
import { typesetText } from "../../src/core/typeset/typesetText";

const SIZE_PX = 84;
const MARGIN_PX = 30;

/** @param sfnt - a bare font. @returns a PNG, dark on white. */
export async function drawWords(sfnt: Uint8Array, words: string): Promise<Uint8Array> {
  const face = openFace(sfnt);
  const set = typesetText(face, words, { widthEm: null });
  const scale = SIZE_PX / face.unitsPerEm;
  const [width, height] = [Math.ceil(set.lines[0]!.widthFu * scale) + 2 * MARGIN_PX, 2 * SIZE_PX];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><g transform="translate(${MARGIN_PX} ${SIZE_PX * 1.3}) scale(${scale})"><path d="${writeTypesetPath(face, set)}"/></g></svg>`;
  return new Uint8Array(await sharp(Buffer.from(svg)).flatten({ background: "#fff" }).png().toBuffer());
}
