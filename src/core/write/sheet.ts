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

/** Label text: characters that the label face lacks become a question mark rather than an error. */
export function drawText(page: PDFPage, text: string, x: number, y: number, size: number, font: PDFFont, color: RGB) {
  const known = new Set(font.getCharacterSet());
  const safe = [...text].map((c) => (known.has(c.codePointAt(0)!) ? c : "?")).join("");
  page.drawText(safe, { x, y, size, font, color });
}
