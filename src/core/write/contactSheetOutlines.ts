// The contact sheet as outlines: one endless page of SVG, and a page of HTML whose names and facts are text.
import type { OpenFace } from "../outlines/openFace";
import { escapeXml, writeTypesetPath } from "../typeset/pens";
import { typesetLine, type TypesetLine } from "../typeset/typesetText";
import type { SheetInput } from "./contactSheet";
import { openSetFace, type SetFace } from "./setFace";
import { hatching, layOutBlock, layOutPages, openLabels, PLAIN_LOOK, wordsOf } from "./sheetLayout";
import type { Block, Labels, Mark, Page } from "./sheetLayout";

/** Faces opened and set, for what is written as outlines. */
function layOutOutlines(input: SheetInput): { blocks: Block[]; labels: Labels } {
  const { look = PLAIN_LOOK, lines } = input;
  const labels = openLabels(input);
  const blocks = input.entries.map((entry) => {
    let face: SetFace | null = null;
    try {
      face = openSetFace(entry, wordsOf(entry, lines));
    } catch {
      // Named on the sheet, without a sample.
    }
    return layOutBlock(entry, face, labels, { lines, look });
  });
  return { blocks, labels };
}

/**
 * Writes the sheet as one page of outlines: whoever draws it needs no fonts.
 * @param unit - of its width and height: points, as it would be printed, or none, for a program that counts in pixels.
 */
export function writeContactSheetSvg(input: SheetInput, unit: "pt" | "" = "pt"): string {
  const { blocks, labels } = layOutOutlines(input);
  const look = input.look ?? PLAIN_LOOK;
  const [page] = layOutPages(input, blocks, labels, { look, isEndless: true }) as [Page];
  const { widthPt, heightPt } = page;
  const ink = escapeXml(input.ink);
  const of = ({ block, x, y }: Page["blocks"][number]) =>
    `<g transform="translate(${x.toFixed(2)} ${y.toFixed(2)})"><title>${escapeXml(block.entry.name)}</title>${writeMarks(block.marks, block.face, labels)}</g>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPt.toFixed(2)}${unit}" height="${heightPt.toFixed(2)}${unit}" viewBox="0 0 ${widthPt.toFixed(2)} ${heightPt.toFixed(2)}"><title>${escapeXml(input.title)}</title><rect width="100%" height="100%" fill="${escapeXml(input.paper)}"/><g fill="${ink}" stroke="none">${writeMarks(page.marks, null, labels)}${page.blocks.map(of).join("")}</g></svg>\n`;
}

/** Marks as SVG elements. */
const writeMarks = (marks: readonly Mark[], face: SetFace | null, { label, bold }: Labels): string =>
  marks
    .map((m) => {
      if (m.kind === "label") {
        const { open } = m.isBold ? bold : label;
        return writeOutlines(open, typesetLine(open, m.text), m);
      }
      if (m.kind === "sample") return face ? writeOutlines(face.open, m.set.line, m) : "";
      if (m.kind === "rule")
        return `<rect x="${m.x}" y="${(m.y - m.weightPt / 2).toFixed(2)}" width="${m.widthPt.toFixed(2)}" height="${m.weightPt}" fill-opacity="${m.opacity}"/>`;
      const d = hatching(m)
        .map(([x1, y1, x2, y2]) => `M${pt(m.x + x1)} ${pt(m.y - y1)}L${pt(m.x + x2)} ${pt(m.y - y2)}`)
        .join("");
      return `<path d="${d}" fill="none" stroke="currentColor" stroke-width="0.5"/>`;
    })
    .join("");

const pt = (v: number) => v.toFixed(2);

function writeOutlines(face: OpenFace, line: TypesetLine, { x, y, sizePt }: { x: number; y: number; sizePt: number }) {
  const s = sizePt / face.unitsPerEm;
  const typeset = { unitsPerEm: face.unitsPerEm, lines: [line] };
  const d = writeTypesetPath(face, typeset, { a: s, b: 0, c: 0, d: -s, e: x, f: y }, 2);
  return d && `<path d="${d}"/>`;
}

/** Writes the sheet as a page that needs nothing else: samples as outlines, names, facts and notes as text. Everything is escaped. */
export function writeContactSheetHtml(input: SheetInput): string {
  const { blocks, labels } = layOutOutlines(input);
  const { layout, columns } = input.look ?? PLAIN_LOOK;
  const [ink, paper, title] = [input.ink, input.paper, input.title].map(escapeXml);
  const figures = blocks.map((block) => {
    const { entry, face, widthPt } = block;
    // What the caption says as text is not drawn.
    const samples = block.marks.filter((m) => m.kind !== "label" && m.y > NAME_LINE_PT);
    const [top, bottom] = [NAME_LINE_PT, block.heightPt];
    const drawn = face
      ? `<svg width="${pt(widthPt)}pt" viewBox="0 ${top} ${pt(widthPt)} ${pt(bottom - top)}" role="img" aria-label="${escapeXml(entry.name)} in the words of the brief"><g fill="${ink}">${writeMarks(samples, face, labels)}</g></svg>`
      : `<p>This file cannot be drawn; no sample.</p>`;
    const note = entry.note && `<br>${escapeXml(entry.note)}`;
    return `<figure>${drawn}<figcaption><b>${escapeXml(entry.name)}</b> ${escapeXml(entry.facts)}${note}</figcaption></figure>`;
  });
  return `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${title}</title>
<style>body{font:14px/1.45 system-ui,sans-serif;margin:32px;color:${ink};background:${paper}}h1{font-size:22px;margin:0}main{display:grid;grid-template-columns:repeat(${layout === "columns" ? columns : 1},minmax(0,1fr));gap:28px 24px;margin-top:20px}figure{margin:0;border-top:1px solid;padding-top:8px;min-width:0}svg{display:block;max-width:100%;color:${ink}}@media(max-width:640px){main{grid-template-columns:1fr}}@media print{body{margin:0}figure{break-inside:avoid}}</style>
<h1>${title}</h1>
<p>${escapeXml(input.subtitle)}</p>
<main>
${figures.join("\n")}
</main>
</html>
`;
}
/** The line of the name, over which nothing else stands. */
const NAME_LINE_PT = 11;
