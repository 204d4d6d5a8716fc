// The contact sheet: every kept face set in the brief's words, names attached, as a PDF with embedded subsets.
import { rgb, type PDFDocument, type PDFFont, type PDFPage, type RGB } from "pdf-lib";
import type { CodePointRanges } from "@/contracts/traits";
import { toLatin } from "../unicode/transliterate";
import { openPdfPen, type PdfPen, type SetLine } from "./pdfPen";
import { beginSheet, drawText, wrapText, type LabelFonts } from "./sheet";

export type SheetEntry = {
  name: string;
  facts: string;
  note: string;
  sfnt: Uint8Array;
  /** The other files of a face that came in parts. */
  parts?: readonly Uint8Array[];
  /** What is set instead of the lines of the sheet. */
  lines?: string[];
  /** Place on its axes, and features, at which it was kept. */
  location?: Record<string, number>;
  features?: Record<string, number>;
  coverage: CodePointRanges;
  /** Size factor so that all entries look equally large; 1 = as is. */
  level: number;
};
export type SheetInput = LabelFonts & {
  title: string;
  subtitle: string;
  lines: string[];
  ink: string;
  paper: string;
  entries: SheetEntry[];
};

const PAGE = { width: 595.28, height: 841.89, margin: 48 };
const SAMPLE_PT = 30;
const WIDTH = PAGE.width - 2 * PAGE.margin;

/**
 * Writes the sheet.
 * @returns PDF bytes and the names of faces that could not be drawn at all (they are named on the sheet, without a sample).
 */
export async function writeContactSheet(input: SheetInput): Promise<{ pdf: Uint8Array; notDrawn: string[] }> {
  const { doc, label, bold } = await beginSheet(input.title, input);
  const notDrawn: string[] = [];
  const ink = toRgb(input.ink);
  let page = addPage(doc, input, label, bold);
  const first = PAGE.height - PAGE.margin - 52 - HEAD_LINE * (headLines(input, label).length - 1);
  let y = first;
  for (const entry of input.entries) {
    const lines = entry.lines ?? input.lines;
    // Its name too: a face named in its own script is named in itself.
    const pen = await openPdfPen(doc, entry, [...lines, entry.name]).catch(() => null);
    const block = layOut(entry, pen, lines);
    if (y - block.height < PAGE.margin) {
      page = addPage(doc, input, label, bold);
      y = first;
    }
    const nameWidth = drawName(page, entry.name, y - 10, pen, bold, ink);
    drawText(page, entry.facts, PAGE.margin + nameWidth + 10, y - 10, 8, label, ink);
    let lineY = y - 18;
    if (!pen) {
      notDrawn.push(entry.name);
      drawText(page, "This file cannot be drawn; no sample.", PAGE.margin, lineY - 14, 9, label, ink);
    } else
      for (const line of block.lines) {
        lineY -= line.sizePt * 1.2;
        drawSample(page, line, PAGE.margin, lineY, pen, ink);
      }
    if (entry.note) drawText(page, entry.note.slice(0, 160), PAGE.margin, y - block.height + 12, 8, label, ink);
    y -= block.height;
    page.drawLine({
      start: { x: PAGE.margin, y },
      end: { x: PAGE.width - PAGE.margin, y },
      thickness: 0.4,
      color: ink,
      opacity: 0.3,
    });
    y -= 14;
  }
  return { pdf: await doc.save(), notDrawn };
}

function addPage(doc: PDFDocument, input: SheetInput, label: PDFFont, bold: PDFFont): PDFPage {
  const page = doc.addPage([PAGE.width, PAGE.height]);
  const ink = toRgb(input.ink);
  page.drawRectangle({ x: 0, y: 0, width: PAGE.width, height: PAGE.height, color: toRgb(input.paper) });
  const top = PAGE.height - PAGE.margin;
  drawText(page, input.title, PAGE.margin, top - 12, 15, bold, ink);
  const lines = headLines(input, label);
  lines.forEach((line, i) => drawText(page, line, PAGE.margin, top - 27 - HEAD_LINE * i, 9, label, ink));
  const under = top - 36 - HEAD_LINE * (lines.length - 1);
  page.drawLine({
    start: { x: PAGE.margin, y: under },
    end: { x: PAGE.width - PAGE.margin, y: under },
    thickness: 1,
    color: ink,
  });
  return page;
}

const HEAD_LINE = 12;
const MAX_HEAD_LINES = 4;
const headLines = (input: SheetInput, label: PDFFont) => wrapText(input.subtitle, WIDTH, 9, label, MAX_HEAD_LINES);

type SizedLine = SetLine & { sizePt: number };

/** Lines of an entry and their sizes: levelled, then made smaller where a line would leave the page. */
function layOut(entry: SheetEntry, pen: PdfPen | null, lines: string[]) {
  const wanted = SAMPLE_PT * Math.min(2.2, Math.max(0.5, entry.level));
  const set = pen
    ? lines.filter(Boolean).map((text, i): SizedLine => {
        const sizePt = i === 0 ? wanted : wanted * 0.62;
        const own = pen.set(text);
        const widthPt = (own.line.widthFu / pen.unitsPerEm) * sizePt;
        return { ...own, sizePt: widthPt > WIDTH ? (sizePt * WIDTH) / widthPt : sizePt };
      })
    : [];
  const height =
    24 +
    (pen ? set.reduce((a, l) => a + l.sizePt * 1.2, 0) + 0.3 * (set[set.length - 1]?.sizePt ?? 0) : 16) +
    (entry.note ? 14 : 0);
  return { lines: set, height };
}

const NAME_PT = 10;
/**
 * The name in the label face; words that it lacks letters of in the face itself, and else in Latin letters ("مرسى Regular").
 * @returns its width in points.
 */
function drawName(page: PDFPage, name: string, yPt: number, pen: PdfPen | null, bold: PDFFont, ink: RGB): number {
  const known = new Set(bold.getCharacterSet());
  let xPt = PAGE.margin;
  for (const { words, isKnown } of stretchesOf(name, (c) => known.has(c.codePointAt(0)!))) {
    const own = isKnown ? null : pen?.set(words);
    if (pen && own && !own.line.missing.length) {
      pen.draw(page, own, { xPt, yPt, sizePt: NAME_PT, ink });
      xPt += (own.line.widthFu / pen.unitsPerEm) * NAME_PT;
    } else {
      const said = isKnown ? words : (toLatin(words) ?? words);
      drawText(page, said, xPt, yPt, NAME_PT, bold, ink);
      xPt += bold.widthOfTextAtSize(said, NAME_PT);
    }
    xPt += bold.widthOfTextAtSize(" ", NAME_PT);
  }
  return xPt - PAGE.margin;
}

/** Words that stand together and are all known, or all not. */
function stretchesOf(name: string, has: (char: string) => boolean) {
  const stretches: { words: string; isKnown: boolean }[] = [];
  for (const word of name.split(" ")) {
    const isKnown = [...word].every(has);
    const last = stretches[stretches.length - 1];
    if (last?.isKnown === isKnown) last.words += ` ${word}`;
    else stretches.push({ words: word, isKnown });
  }
  return stretches;
}

function drawSample(page: PDFPage, sized: SizedLine, xPt: number, yPt: number, pen: PdfPen, ink: RGB) {
  const { line, sizePt } = sized;
  pen.draw(page, sized, { xPt, yPt, sizePt, ink });
  const scale = sizePt / pen.unitsPerEm;
  for (const { xFu, widthFu } of line.missing) drawMissing(page, xPt + xFu * scale, yPt, widthFu * scale, sizePt, ink);
}

/** A hatched box, as on the wall. */
function drawMissing(page: PDFPage, x: number, y: number, width: number, sizePt: number, ink: RGB) {
  const box = { x: x + width * 0.08, y, width: width * 0.84, height: sizePt * 0.66 };
  page.drawRectangle({ ...box, borderColor: ink, borderWidth: 0.6 });
  const top = box.y + box.height;
  for (let k = 1; k < 5; k++) {
    const [along, rest] = [k / 5, (5 - k) / 5];
    page.drawLine({
      start: { x: box.x, y: box.y + box.height * along },
      end: { x: box.x + box.width * rest, y: top },
      thickness: 0.4,
      color: ink,
    });
    page.drawLine({
      start: { x: box.x + box.width * along, y: box.y },
      end: { x: box.x + box.width, y: box.y + box.height * rest },
      thickness: 0.4,
      color: ink,
    });
  }
}

function toRgb(hex: string): RGB {
  const n = Number.parseInt(hex.slice(1), 16);
  return rgb(((n >> 16) & 255) / 255, ((n >> 8) & 255) / 255, (n & 255) / 255);
}
