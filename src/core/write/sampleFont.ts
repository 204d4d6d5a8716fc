// A face as a PDF sets it: embedded as a subset where every reader draws that rightly, else as outlines. What is embedded is tried in a
// document of its own first, so that one face never breaks a whole sheet.
import fontkit from "@pdf-lib/fontkit";
import { PDFDocument, type PDFPage, type RGB } from "pdf-lib";
import { writePath } from "../geometry/outline";
import { openFace } from "../outlines/openFace";
import { shapeText } from "../shape/shapeText";

export type SampleFont = {
  widthPt(text: string, sizePt: number): number;
  /** Draws from the left end of the baseline; y upwards. */
  draw(page: PDFPage, text: string, xPt: number, yPt: number, sizePt: number, ink: RGB): void;
};
/** A face at a place on its axes, with features switched; as it comes without either. */
type SampleFace = { sfnt: Uint8Array; location?: Record<string, number>; features?: Record<string, number> };

/** Tables with which the subset is drawn by a fallback in some readers, or cannot be made. */
const NOT_EMBEDDED = ["CFF ", "CFF2", "COLR", "SVG ", "CBDT", "sbix", "fvar"];

/** @param sampleText - what will be set: the subset is tried with it. */
export async function openSampleFont(doc: PDFDocument, face: SampleFace, sampleText: string): Promise<SampleFont> {
  const isPlain = !hasEntries(face.location) && !hasEntries(face.features) && canEmbed(face.sfnt);
  return (isPlain && (await embed(doc, face.sfnt, sampleText))) || outlined(face, sampleText);
}
const hasEntries = (record?: Record<string, number>) => Object.keys(record ?? {}).length > 0;

function canEmbed(sfnt: Uint8Array): boolean {
  const view = new DataView(sfnt.buffer, sfnt.byteOffset, sfnt.byteLength);
  const tags = Array.from({ length: view.getUint16(4) }, (_, i) =>
    String.fromCharCode(...sfnt.subarray(12 + 16 * i, 16 + 16 * i)),
  );
  return tags.includes("glyf") && !tags.some((tag) => NOT_EMBEDDED.includes(tag));
}

async function embed(doc: PDFDocument, sfnt: Uint8Array, sampleText: string): Promise<SampleFont | null> {
  try {
    const trial = await PDFDocument.create();
    trial.registerFontkit(fontkit);
    const tried = await trial.embedFont(sfnt, { subset: true });
    trial.addPage().drawText(sampleText, { font: tried });
    await trial.save();
    const font = await doc.embedFont(sfnt, { subset: true });
    return {
      widthPt: (text, sizePt) => font.widthOfTextAtSize(text, sizePt),
      draw: (page, text, x, y, size, color) => page.drawText(text, { x, y, size, font, color }),
    };
  } catch {
    // What the package cannot read is set as outlines.
    return null;
  }
}

/** @throws when the face has none of the characters: it is no font, or not this one. */
function outlined({ sfnt, location = {}, features = {} }: SampleFace, sampleText: string): SampleFont {
  const face = openFace(sfnt, location);
  if (sampleText.trim() && ![...sampleText].some((c) => face.glyphOf(c.codePointAt(0)!)))
    throw new Error("none of the characters is in the font");
  const flip = { a: 1, b: 0, c: 0, d: -1, e: 0, f: 0 };
  return {
    widthPt: (text, sizePt) => (shapeText(face, text, features).widthFu / face.unitsPerEm) * sizePt,
    draw(page, text, xPt, yPt, sizePt, color) {
      const scale = sizePt / face.unitsPerEm;
      for (const g of shapeText(face, text, features).glyphs) {
        const path = writePath(face.outline(g.glyphId), flip);
        if (path)
          page.drawSvgPath(path, { x: xPt + g.xFu * scale, y: yPt + g.yFu * scale, scale, color, borderWidth: 0 });
      }
    },
  };
}
