// One block's text → its lines of letters, straight and in font units: shaping, tracking, kerned pairs, letters put in place of others.
// What follows is placeBlock, which lays them on the sheet.
import type { Block } from "@/contracts/lettering";
import { boundsOf, type Bounds } from "../geometry/outline";
import type { OpenFace } from "../outlines/openFace";
import type { Features } from "../typeset/shapeRun";
import { typesetLine, type TypesetRun } from "../typeset/typesetText";

/** A glyph as it stands in its letter: x from the letter's own left edge. */
export type SetGlyph = { glyphId: number; cluster: number; dxFu: number; dyFu: number; advanceFu: number };
/** One shaped cluster. `at` counts through the block; `xFu` from the left end of the line; `advanceFu` without tracking and pairs. */
export type SetLetter = {
  at: number;
  cluster: number;
  text: string;
  isMissing: boolean;
  xFu: number;
  advanceFu: number;
  glyphs: SetGlyph[];
};
/** Letters from left to right. `widthFu` with what tracking adds after every letter. */
export type SetLineOfLetters = { letters: SetLetter[]; widthFu: number };

/** Optional ligatures: letters that are spaced stand alone unless the features say otherwise. */
export const UNJOINED: Features = { liga: 0, clig: 0 };

/** @returns one line per line of the text; `at` counts in the order of the text, over all lines. */
export function setBlock(face: OpenFace, block: Block): SetLineOfLetters[] {
  const trackingFu = (block.trackingEm ?? 0) * face.unitsPerEm;
  const features = { ...(trackingFu !== 0 && UNJOINED), ...block.features };
  const shifts = new Map((block.pairs ?? []).map((p) => [p.at, p.shiftEm * face.unitsPerEm]));
  const swaps = new Map(
    (block.letters ?? []).flatMap((l) => (l.glyphId === undefined ? [] : [[l.at, l.glyphId] as const])),
  );
  const lines: SetLineOfLetters[] = [];
  let count = 0;
  for (const { text, from } of linesOf(block.text)) {
    const line = typesetLine(face, text, { features });
    const lacking = new Map(line.missing.map((m) => [m.cluster, m.text]));
    const letters: SetLetter[] = [];
    let penFu = 0;
    for (const run of line.runs) {
      letters.push(...lettersOf(run, text, lacking, penFu));
      penFu += run.glyphs.reduce((sum, g) => sum + g.advanceFu, 0);
    }
    numberLetters(letters, count);
    for (const letter of letters) swapGlyph(face, letter, swaps.get(letter.at));
    const widthFu = spaceLetters(letters, line.runs, trackingFu, shifts);
    for (const letter of letters) moveClusters(letter, from);
    lines.push({ letters, widthFu });
    count += letters.length;
  }
  return lines;
}

function linesOf(text: string): { text: string; from: number }[] {
  const lines: { text: string; from: number }[] = [];
  let from = 0;
  for (const match of text.matchAll(/\r\n|[\n\r\u2028\u2029]/g)) {
    lines.push({ text: text.slice(from, match.index), from });
    from = match.index + match[0].length;
  }
  lines.push({ text: text.slice(from), from });
  return lines;
}

/** The letters of one run from left to right. Glyphs of one cluster stand together. @param penFu - where the run begins on its line. */
function lettersOf(
  { glyphs, from, to }: TypesetRun,
  text: string,
  lacking: ReadonlyMap<number, string>,
  penFu: number,
): SetLetter[] {
  const starts = [...new Set(glyphs.map((g) => g.cluster))].sort((a, b) => a - b);
  const endOf = new Map(starts.map((start, i) => [start, starts[i + 1] ?? to]));
  const letters: SetLetter[] = [];
  for (const { glyphId, cluster, xFu, yFu, advanceFu } of glyphs) {
    let letter = letters[letters.length - 1];
    if (letter?.cluster !== cluster) {
      const own = text.slice(Math.max(from, cluster), endOf.get(cluster));
      const isMissing = lacking.has(cluster);
      letter = { at: 0, cluster, text: own, isMissing, xFu: penFu, advanceFu: 0, glyphs: [] };
      letters.push(letter);
    }
    letter.glyphs.push({ glyphId, cluster, dxFu: xFu - letter.xFu, dyFu: yFu, advanceFu });
    letter.advanceFu += advanceFu;
    penFu += advanceFu;
  }
  return letters;
}

/** Numbers letters in the order of the text. */
function numberLetters(letters: readonly SetLetter[], first: number) {
  [...letters].sort((a, b) => a.cluster - b.cluster).forEach((letter, i) => (letter.at = first + i));
}

/** The glyph that marks stand on: what other forms and moved points are of. */
export const baseOf = <G extends SetGlyph>({ glyphs }: { glyphs: readonly G[] }): G | undefined =>
  glyphs.find((g) => g.advanceFu > 0) ?? glyphs[0];

/** Draws another glyph in place of a letter's base. */
function swapGlyph(face: OpenFace, letter: SetLetter, glyphId: number | undefined) {
  const base = baseOf(letter);
  if (glyphId === undefined || !base || !face.isDrawn(glyphId)) return;
  const advanceFu = face.advanceFu(glyphId);
  const growsFu = advanceFu - base.advanceFu;
  for (const g of letter.glyphs.slice(letter.glyphs.indexOf(base) + 1)) g.dxFu += growsFu;
  base.glyphId = glyphId;
  base.advanceFu = advanceFu;
  letter.advanceFu += growsFu;
  letter.isMissing = false;
}

/** Spaces a line out, from left to right. @returns its width. */
function spaceLetters(
  letters: readonly SetLetter[],
  runs: readonly TypesetRun[],
  trackingFu: number,
  shifts: ReadonlyMap<number, number>,
): number {
  const isRtl = (cluster: number) => runs.some((r) => r.direction === "rtl" && cluster >= r.from && cluster < r.to);
  let xFu = 0;
  letters.forEach((letter, i) => {
    letter.xFu = xFu;
    const next = letters[i + 1];
    // The pair of a letter lies between it and the one that follows in the text.
    const first = next && isRtl(letter.cluster) && isRtl(next.cluster) ? next : letter;
    xFu += letter.advanceFu + trackingFu + (shifts.get(first.at) ?? 0);
  });
  return xFu;
}

function moveClusters(letter: SetLetter, by: number) {
  letter.cluster += by;
  for (const g of letter.glyphs) g.cluster += by;
}

/** Box around the ink of a line, font units; null when nothing is drawn. */
export function inkOfLine(face: OpenFace, { letters }: SetLineOfLetters): Bounds | null {
  const boxes = letters.flatMap(({ xFu, glyphs }) =>
    glyphs.flatMap((g) => {
      const b = g.glyphId ? boundsOf(face.polygons(g.glyphId)) : null;
      if (!b) return [];
      const [dx, dy] = [xFu + g.dxFu, g.dyFu];
      return [Float64Array.of(b.xMin + dx, b.yMin + dy, b.xMax + dx, b.yMax + dy)];
    }),
  );
  return boundsOf(boxes);
}
