// What every PDF sheet begins with: a document with the label faces in it, and text that no missing character can break.
import fontkit from "@pdf-lib/fontkit";
import { PDFDocument, type PDFFont, type PDFPage, type RGB } from "pdf-lib";

/** Bare fonts for names and facts. */
export type LabelFonts = { labelSfnt: Uint8Array; labelBoldSfnt: Uint8Array };

export async function beginSheet(title: string, { labelSfnt, labelBoldSfnt }: LabelFonts) {
  const doc = await PDFDocument.create();
  doc.registerFontkit(fontkit);
  doc.setTitle(title);
  doc.setCreator("Fond Quarry");
  const label = await doc.embedFont(labelSfnt, { subset: true });
  const bold = await doc.embedFont(labelBoldSfnt, { subset: true });
  return { doc, label, bold };
}

/** Characters that a label face lacks become a question mark rather than an error. */
export const replaceUnknown = (text: string, has: (codePoint: number) => boolean) =>
  [...text].map((c) => (has(c.codePointAt(0)!) ? c : "?")).join("");

/** Label text, whatever characters it has. */
export function drawText(page: PDFPage, text: string, x: number, y: number, size: number, font: PDFFont, color: RGB) {
  const known = new Set(font.getCharacterSet());
  page.drawText(
    replaceUnknown(text, (c) => known.has(c)),
    { x, y, size, font, color },
  );
}
