// The contact sheet as a PDF with embedded subsets: every kept face set in the brief's words, names attached.
import { rgb, type PDFFont, type PDFPage, type RGB } from "pdf-lib";
import { openPdfPen, type PdfPen } from "./pdfPen";
import { beginSheet, type LabelFonts } from "./sheet";
import { hatching, layOutBlock, layOutPages, openLabels, PLAIN_LOOK, wordsOf } from "./sheetLayout";
import type { Block, Mark, SheetEntry, SheetLook } from "./sheetLayout";

export type { SheetEntry, SheetLook } from "./sheetLayout";
export type SheetInput = LabelFonts & {
  title: string;
  subtitle: string;
  lines: string[];
  ink: string;
  paper: string;
  entries: SheetEntry[];
  look?: SheetLook;
};

/**
 * Writes the sheet as PDF.
 * @returns its bytes and the names of faces that could not be drawn at all (they are named on the sheet, without a sample).
 */
export async function writeContactSheet(input: SheetInput): Promise<{ pdf: Uint8Array; notDrawn: string[] }> {
  const { look = PLAIN_LOOK, lines } = input;
  const { doc, label, bold } = await beginSheet(input.title, input);
  const labels = openLabels(input);
  const blocks: Block<PdfPen>[] = [];
  for (const entry of input.entries) {
    const pen = await openPdfPen(doc, entry, wordsOf(entry, lines)).catch(() => null);
    blocks.push(layOutBlock(entry, pen, labels, { lines, look }));
  }
  const ink = toRgb(input.ink);
  for (const page of layOutPages(input, blocks, labels, { look, isEndless: false })) {
    const sheet = doc.addPage([page.widthPt, page.heightPt]);
    sheet.drawRectangle({ x: 0, y: 0, width: page.widthPt, height: page.heightPt, color: toRgb(input.paper) });
    const draw = (marks: Mark[], x: number, y: number, pen: PdfPen | null) => {
      for (const m of marks) drawMark(sheet, m, { x: x + m.x, y: page.heightPt - y - m.y }, { pen, label, bold, ink });
    };
    draw(page.marks, 0, 0, null);
    for (const { block, x, y } of page.blocks) draw(block.marks, x, y, block.face);
  }
  return { pdf: await doc.save(), notDrawn: blocks.filter((b) => !b.face).map((b) => b.entry.name) };
}

type Drawing = { pen: PdfPen | null; label: PDFFont; bold: PDFFont; ink: RGB };

function drawMark(page: PDFPage, m: Mark, { x, y }: { x: number; y: number }, { pen, label, bold, ink }: Drawing) {
  if (m.kind === "label") page.drawText(m.text, { x, y, size: m.sizePt, font: m.isBold ? bold : label, color: ink });
  else if (m.kind === "sample") pen?.draw(page, m.set, { xPt: x, yPt: y, sizePt: m.sizePt, ink });
  else if (m.kind === "rule")
    page.drawLine({
      start: { x, y },
      end: { x: x + m.widthPt, y },
      thickness: m.weightPt,
      color: ink,
      opacity: m.opacity,
    });
  else
    for (const [x1, y1, x2, y2] of hatching(m))
      page.drawLine({
        start: { x: x + x1, y: y + y1 },
        end: { x: x + x2, y: y + y2 },
        thickness: 0.5,
        color: ink,
      });
}

function toRgb(hex: string): RGB {
  const n = Number.parseInt(hex.slice(1), 16);
  return rgb(((n >> 16) & 255) / 255, ((n >> 8) & 255) / 255, (n & 255) / 255);
}
