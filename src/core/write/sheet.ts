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

/** Breaks a line of facts at its spaces. @returns at most so many lines; the last ends in … where more would follow. */
export function wrapText(text: string, widthPt: number, size: number, font: PDFFont, maxLines: number): string[] {
  const known = new Set(font.getCharacterSet());
  const safe = [...text].map((c) => (known.has(c.codePointAt(0)!) ? c : "?")).join("");
  const lines = [""];
  for (const word of safe.split(" ")) {
    const last = lines[lines.length - 1]!;
    const longer = last ? `${last} ${word}` : word;
    if (!last || font.widthOfTextAtSize(longer, size) <= widthPt) lines[lines.length - 1] = longer;
    else if (lines.length < maxLines) lines.push(word);
    else {
      lines[lines.length - 1] = `${last} …`;
      break;
    }
  }
  return lines;
}
