// Where everything stands on a contact sheet: every face a block of marks, blocks in rows, rows on pages. Points, from the top left. What
// writes the sheet (as PDF, as SVG, as HTML) only draws marks.
import { openFace, type OpenFace } from "../outlines/openFace";
import { typesetLine } from "../typeset/typesetText";
import { toLatin } from "../unicode/transliterate";
import { replaceUnknown, type LabelFonts } from "./sheet";
import type { FaceToSet, SetFace, SetLine } from "./setFace";

/** @property sizeShare - beside the first line. @property wraps - broken to the width, not made smaller. */
export type SheetLine = { text: string; sizeShare: number; wraps: boolean };
export type SheetEntry = FaceToSet & {
  name: string;
  facts: string;
  note: string;
  /** What is set instead of the lines of the sheet. */
  lines?: SheetLine[];
  /** Size factor so that all entries look equally large; 1 = as is. */
  level: number;
};
export type SheetLook = {
  /** `rows`: one under the other; `large`: one face a page; `columns`: beside each other. */
  layout: "rows" | "large" | "columns";
  /** 2–6, beside each other. */
  columns: number;
  /** Size of the first line in points, as it will be in print; null: as large as there is room for. */
  realPt: number | null;
};
export const PLAIN_LOOK: SheetLook = { layout: "rows", columns: 2, realPt: null };

export type Mark =
  | { kind: "label"; x: number; y: number; sizePt: number; isBold: boolean; text: string }
  | { kind: "sample"; x: number; y: number; sizePt: number; set: SetLine }
  | { kind: "missing"; x: number; y: number; widthPt: number; sizePt: number }
  | { kind: "rule"; x: number; y: number; widthPt: number; weightPt: number; opacity: number };
/** @property face - as whoever writes the sheet opened it; null where its file cannot be drawn. */
export type Block<F extends SetFace = SetFace> = {
  entry: SheetEntry;
  face: F | null;
  marks: Mark[];
  widthPt: number;
  heightPt: number;
};
export type Page<F extends SetFace = SetFace> = {
  widthPt: number;
  heightPt: number;
  marks: Mark[];
  blocks: { block: Block<F>; x: number; y: number }[];
};

/** The label face and its bold, opened, with the characters that they have. */
export type Labels = { label: LabelFace; bold: LabelFace };
type LabelFace = { open: OpenFace; has: (codePoint: number) => boolean };

export const openLabels = ({ labelSfnt, labelBoldSfnt }: LabelFonts): Labels => {
  const open = (sfnt: Uint8Array) => {
    const face = openFace(sfnt);
    return { open: face, has: (codePoint: number) => (face.glyphOf(codePoint) ?? 0) > 0 };
  };
  return { label: open(labelSfnt), bold: open(labelBoldSfnt) };
};

const PAGE = { width: 595.28, height: 841.89, margin: 48 };
const GAP_PT = 18;
const ROW_PT = 30;
const LARGE_MOST_PT = 230;
const NAME_PT = 10;
const FACTS_PT = 8;
const FACTS_LEADING = 1.35;
const FACTS_MOST_LINES = 2;
const NOTE_MOST = 160;
const LEADING = 1.2;
const DESCENT_EM = 0.33;
const ASCENT_EM = 0.9;

/** What will be set of an entry: asked before its face is opened, so that a subset is tried with it. */
export function wordsOf(entry: SheetEntry, lines: readonly string[]): string[] {
  // Its name too: a face named in its own script is named in itself.
  return [...linesOf(entry, lines).map((l) => l.text), entry.name];
}

const linesOf = (entry: SheetEntry, lines: readonly string[]) => entry.lines ?? inOrder(lines);

const FURTHER_SHARE = 0.62;
/** Lines as a brief has them: the first large, the others under it. */
export const inOrder = (lines: readonly string[]): SheetLine[] =>
  lines.filter(Boolean).map((text, i) => ({ text, sizeShare: i ? FURTHER_SHARE : 1, wraps: false }));

/** Width of the room that a block has. */
export const blockWidthPt = ({ layout, columns }: SheetLook) =>
  layout === "columns"
    ? (PAGE.width - 2 * PAGE.margin - GAP_PT * (columns - 1)) / columns
    : PAGE.width - 2 * PAGE.margin;

/** Sets one entry. @param face - null where its file cannot be drawn. */
export function layOutBlock<F extends SetFace>(
  entry: SheetEntry,
  face: F | null,
  labels: Labels,
  { lines, look }: { lines: readonly string[]; look: SheetLook },
): Block<F> {
  const roomPt = blockWidthPt(look);
  const marks: Mark[] = [];
  let y = NAME_PT;
  const nameWidth = addName(marks, entry.name, y, face, labels);
  if (look.layout === "columns")
    for (const text of wrapLabel(entry.facts, roomPt, FACTS_PT, labels.label, FACTS_MOST_LINES)) {
      y += FACTS_PT * FACTS_LEADING;
      marks.push(labelAt(0, y, FACTS_PT, text));
    }
  else marks.push(labelAt(nameWidth + 10, y, FACTS_PT, safe(entry.facts, labels.label)));
  y += 8;
  let widthPt = roomPt;
  if (!face) {
    y += 14;
    marks.push(labelAt(0, y, 9, "This file cannot be drawn; no sample."));
  } else {
    const set = sizeLines(linesOf(entry, lines), entry, face, { look, roomPt });
    let before = 0;
    for (const { line, sizePt } of set) {
      // What hangs down of a large line needs its room above a small one.
      y += before ? before * DESCENT_EM + sizePt * ASCENT_EM : sizePt * LEADING;
      before = sizePt;
      addSample(marks, face, line, { x: 0, y, sizePt });
      widthPt = Math.max(widthPt, widthOf(face, line, sizePt));
    }
    y += 0.3 * (set[set.length - 1]?.sizePt ?? 0);
  }
  if (entry.note) {
    y += 12;
    marks.push(labelAt(0, y, FACTS_PT, safe(entry.note.slice(0, NOTE_MOST), labels.label)));
  }
  return { entry, face, marks, widthPt, heightPt: y + 6 };
}

const labelAt = (x: number, y: number, sizePt: number, text: string): Mark => ({
  kind: "label",
  x,
  y,
  sizePt,
  isBold: false,
  text,
});

const widthOf = (face: SetFace, { line }: SetLine, sizePt: number) => (line.widthFu / face.unitsPerEm) * sizePt;

type Sized = { line: SetLine; sizePt: number };

/** Lines as they are set: at a real size they are broken where they are too long, else they are made smaller. */
function sizeLines(
  lines: SheetLine[],
  entry: SheetEntry,
  face: SetFace,
  { look, roomPt }: { look: SheetLook; roomPt: number },
): Sized[] {
  const level = Math.min(2.2, Math.max(0.5, entry.level));
  const first = lines[0] ? face.set(lines[0].text) : null;
  const fillPt = first?.line.widthFu ? (roomPt * face.unitsPerEm) / first.line.widthFu : ROW_PT;
  const wanted =
    look.realPt !== null
      ? look.realPt
      : look.layout === "large"
        ? Math.min(LARGE_MOST_PT, fillPt)
        : Math.min(1, roomPt / 250) * ROW_PT * level;
  return lines.flatMap(({ text, sizeShare, wraps }): Sized[] => {
    const sizePt = wanted * sizeShare;
    if (wraps || look.realPt !== null)
      return face.wrap(text, roomPt / sizePt).map((part) => ({ line: face.set(part), sizePt }));
    const line = face.set(text);
    const width = widthOf(face, line, sizePt);
    return [{ line, sizePt: width > roomPt ? (sizePt * roomPt) / width : sizePt }];
  });
}

function addSample(marks: Mark[], face: SetFace, set: SetLine, at: { x: number; y: number; sizePt: number }) {
  marks.push({ kind: "sample", set, ...at });
  const scale = at.sizePt / face.unitsPerEm;
  for (const { xFu, widthFu } of set.line.missing)
    marks.push({ kind: "missing", x: at.x + xFu * scale, y: at.y, widthPt: widthFu * scale, sizePt: at.sizePt });
}

/**
 * The name in the label face; words that it lacks letters of in the face itself, and else in Latin letters ("مرسى Regular").
 * @returns its width.
 */
function addName(marks: Mark[], name: string, y: number, face: SetFace | null, { bold }: Labels): number {
  let x = 0;
  for (const { words, isKnown } of stretchesOf(name, bold)) {
    const own = isKnown ? null : face?.set(words);
    if (face && own && !own.line.missing.length) {
      marks.push({ kind: "sample", set: own, x, y, sizePt: NAME_PT });
      x += widthOf(face, own, NAME_PT);
    } else {
      const text = safe(isKnown ? words : (toLatin(words) ?? words), bold);
      marks.push({ kind: "label", x, y, sizePt: NAME_PT, isBold: true, text });
      x += labelWidth(text, NAME_PT, bold);
    }
    x += labelWidth(" ", NAME_PT, bold);
  }
  return x;
}

/** Words that stand together and are all known, or all not. */
function stretchesOf(name: string, { has }: LabelFace) {
  const stretches: { words: string; isKnown: boolean }[] = [];
  for (const word of name.split(" ")) {
    const isKnown = [...word].every((c) => has(c.codePointAt(0)!));
    const last = stretches[stretches.length - 1];
    if (last?.isKnown === isKnown) last.words += ` ${word}`;
    else stretches.push({ words: word, isKnown });
  }
  return stretches;
}

const safe = (text: string, { has }: LabelFace) => replaceUnknown(text, has);

const labelWidth = (text: string, sizePt: number, { open }: LabelFace) =>
  (typesetLine(open, text).widthFu / open.unitsPerEm) * sizePt;

/** Breaks a label at its spaces. @returns at most so many lines; the last ends in … where more would follow. */
function wrapLabel(text: string, widthPt: number, sizePt: number, face: LabelFace, mostLines: number): string[] {
  const lines = [""];
  for (const word of safe(text, face).split(" ")) {
    const last = lines[lines.length - 1]!;
    const longer = last ? `${last} ${word}` : word;
    if (!last || labelWidth(longer, sizePt, face) <= widthPt) lines[lines.length - 1] = longer;
    else if (lines.length < mostLines) lines.push(word);
    else {
      lines[lines.length - 1] = `${last} …`;
      break;
    }
  }
  return lines;
}

const HEAD_LINE_PT = 12;
const HEAD_MOST_LINES = 4;

/** Title and what is said under it. @returns marks, and where the blocks begin. */
function layOutHead(head: { title: string; subtitle: string }, widthPt: number, labels: Labels) {
  const marks: Mark[] = [];
  const room = widthPt - 2 * PAGE.margin;
  let y = PAGE.margin + 12;
  marks.push({ kind: "label", x: PAGE.margin, y, sizePt: 15, isBold: true, text: safe(head.title, labels.bold) });
  y += 15;
  for (const text of wrapLabel(head.subtitle, room, 9, labels.label, HEAD_MOST_LINES)) {
    marks.push({ kind: "label", x: PAGE.margin, y, sizePt: 9, isBold: false, text });
    y += HEAD_LINE_PT;
  }
  y -= 3;
  marks.push({ kind: "rule", x: PAGE.margin, y, widthPt: room, weightPt: 1, opacity: 1 });
  return { marks, from: y + 16 };
}

/**
 * Puts blocks on pages.
 * @param isEndless - one page as high as all of them, for what is not printed page by page.
 * @returns at least one page; wider than a sheet of paper where a line at its real size is.
 */
export function layOutPages<F extends SetFace>(
  head: { title: string; subtitle: string },
  blocks: readonly Block<F>[],
  labels: Labels,
  { look, isEndless }: { look: SheetLook; isEndless: boolean },
): Page<F>[] {
  const across = look.layout === "columns" ? look.columns : 1;
  const blockPt = Math.max(blockWidthPt(look), ...blocks.map((b) => b.widthPt));
  const widthPt = Math.max(PAGE.width, across * blockPt + GAP_PT * (across - 1) + 2 * PAGE.margin);
  const top = layOutHead(head, widthPt, labels);
  const newPage = (): Page<F> => ({ widthPt, heightPt: PAGE.height, marks: [...top.marks], blocks: [] });
  const pages = [newPage()];
  let y = top.from;
  for (let i = 0; i < blocks.length; i += across) {
    const row = blocks.slice(i, i + across);
    const heightPt = Math.max(...row.map((b) => b.heightPt));
    const isFull = look.layout === "large" ? i > 0 : y + heightPt > PAGE.height - PAGE.margin && y > top.from;
    if (!isEndless && isFull) {
      pages.push(newPage());
      y = top.from;
    }
    const page = pages[pages.length - 1]!;
    row.forEach((block, c) => page.blocks.push({ block, x: PAGE.margin + c * (blockPt + GAP_PT), y }));
    y += heightPt;
    page.marks.push({
      kind: "rule",
      x: PAGE.margin,
      y,
      widthPt: widthPt - 2 * PAGE.margin,
      weightPt: 0.4,
      opacity: 0.3,
    });
    y += 14;
    page.heightPt = Math.max(isEndless ? 0 : PAGE.height, y + PAGE.margin);
  }
  return pages;
}

/** The lines of a hatched box, as on the wall; y up from its baseline. */
export function hatching({ widthPt, sizePt }: { widthPt: number; sizePt: number }): [number, number, number, number][] {
  const [left, right, top] = [widthPt * 0.08, widthPt * 0.92, sizePt * 0.66];
  const width = right - left;
  const box: [number, number, number, number][] = [
    [left, 0, right, 0],
    [right, 0, right, top],
    [right, top, left, top],
    [left, top, left, 0],
  ];
  const lines = [1, 2, 3, 4].flatMap((k): [number, number, number, number][] => {
    const [along, rest] = [k / 5, (5 - k) / 5];
    return [
      [left, top * along, left + width * rest, top],
      [left + width * along, 0, right, top * rest],
    ];
  });
  return [...box, ...lines];
}
