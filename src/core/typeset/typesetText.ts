// Text + face + features + width → lines of runs with placed glyphs. The one way in which text becomes shapes; pens consume what it gives.
import type { CodePointRanges } from "@/contracts/traits";
import { glyphInWhole } from "../outlines/joinParts";
import type { OpenFace } from "../outlines/openFace";
import { hasCodePoint } from "../unicode/blocks";
import { needsGlyph } from "../unicode/codePoint";
import { fillLines, findBreaks, trimEnd, type LineRange } from "./breakLines";
import { findLevels, itemize, orderItems, type BaseDirection, type Item, type Levels } from "./itemize";
import { shapeRun, type Direction, type Features, type PlacedGlyph } from "./shapeRun";

/** What the face lacks, as one box: its text, and where it stands on the line. Font units; x from the left end of the line. */
export type MissingCluster = { text: string; cluster: number; xFu: number; widthFu: number };
/** One direction, one script, one part of the face; glyphs from left to right with x from the left end of the line. */
export type TypesetRun = LineRange & { direction: Direction; script: string; part: number; glyphs: PlacedGlyph[] };
/** `from`, `to`: UTF-16 positions in the text; white space at the end is not set. Runs stand from left to right. */
export type TypesetLine = LineRange & {
  direction: Direction;
  runs: TypesetRun[];
  missing: MissingCluster[];
  widthFu: number;
};
export type TypesetText = { unitsPerEm: number; lines: TypesetLine[] };

type LineOptions = {
  features?: Features;
  direction?: BaseDirection;
  /** What the face is known to cover: every other character is missing, even where the shaper could put it together. Absent: glyph 0 is. */
  coverage?: CodePointRanges;
  /** Width of the box for a missing character; absent: that of glyph 0. */
  missingEm?: number;
};
type TextOptions = LineOptions & {
  /** Lines are broken to fit it; null: only where the text says so. */
  widthEm: number | null;
};

/** All glyphs of a line from left to right. Most lines are one run, and its glyphs are returned as they are. */
export const glyphsOf = ({ runs }: TypesetLine): PlacedGlyph[] =>
  runs.length === 1 ? runs[0]!.glyphs : runs.flatMap((r) => r.glyphs);

/**
 * Sets a text.
 * @param face - opened at its location on the axes; size is the pen's affair.
 * @returns at least one line. Clusters and positions count in `text`.
 */
export function typesetText(face: OpenFace, text: string, options: TextOptions): TypesetText {
  const levels = findLevels(text, options.direction ?? "auto");
  const breaks = findBreaks(text);
  const isOneLine = options.widthEm === null && !breaks.some((b) => b.isRequired);
  const ranges = isOneLine
    ? [{ from: 0, to: text.length }]
    : fillLines(
        text,
        breaks,
        measureBefore(face, text, levels, options),
        options.widthEm === null ? null : options.widthEm * face.unitsPerEm,
      );
  const lines = ranges.map((range) =>
    setRange(face, text, { from: range.from, to: trimEnd(text, range) }, levels, options),
  );
  return { unitsPerEm: face.unitsPerEm, lines };
}

/** Sets a text on one line; line ends count as white space. */
export function typesetLine(face: OpenFace, text: string, options: LineOptions = {}): TypesetLine {
  return setRange(face, text, { from: 0, to: text.length }, findLevels(text, options.direction ?? "auto"), options);
}

/** Width of everything before each UTF-16 position, as if the text were one line. */
function measureBefore(face: OpenFace, text: string, levels: Levels, options: LineOptions): Float64Array {
  const before = new Float64Array(text.length + 1);
  const line = setRange(face, text, { from: 0, to: text.length }, levels, options);
  for (const g of glyphsOf(line)) before[g.cluster + 1]! += g.advanceFu;
  for (const m of line.missing) before[m.cluster + 1]! += m.widthFu;
  for (let i = 1; i < before.length; i++) before[i]! += before[i - 1]!;
  return before;
}

function setRange(face: OpenFace, text: string, range: LineRange, levels: Levels, options: LineOptions): TypesetLine {
  const { coverage } = options;
  const isMissing = coverage
    ? (char: string) => needsGlyph(char) && !hasCodePoint(coverage, char.codePointAt(0)!)
    : () => false;
  const ownText = text.slice(range.from, range.to);
  const ownLevels = { ofUnits: levels.ofUnits.subarray(range.from, range.to), paragraph: levels.paragraph };
  const items = orderItems(ownText, ownLevels, itemize(ownText, ownLevels, isMissing, face.parts?.partOf));
  const line: TypesetLine = {
    ...range,
    direction: levels.paragraph % 2 ? "rtl" : "ltr",
    runs: [],
    missing: [],
    widthFu: 0,
  };
  for (const item of items) addItem(line, face, text, item, options);
  return line;
}

/** Adds one item at the right end of a line. */
function addItem(line: TypesetLine, face: OpenFace, text: string, item: Item, options: LineOptions) {
  const [from, to] = [line.from + item.from, line.from + item.to];
  const boxFu = options.missingEm === undefined ? null : options.missingEm * face.unitsPerEm;
  if (item.isMissing) {
    const widthFu = boxFu ?? face.advanceFu(0);
    line.missing.push({ text: text.slice(from, to), cluster: from, xFu: line.widthFu, widthFu });
    line.widthFu += widthFu;
    return;
  }
  const { direction, script, part } = item;
  const shaped = shapeRun(face.parts?.faces[part] ?? face, text, { from, to, direction }, options.features);
  const run: TypesetRun = { from, to, direction, script, part, glyphs: [] };
  let shiftFu = line.widthFu;
  for (const g of shaped.glyphs) {
    const isLacking = g.glyphId === 0 && needsGlyph(String.fromCodePoint(text.codePointAt(g.cluster)!));
    const placed =
      shiftFu === 0 && part === 0 ? g : { ...g, glyphId: glyphInWhole(part, g.glyphId), xFu: g.xFu + shiftFu };
    if (isLacking) {
      const widthFu = boxFu ?? g.advanceFu;
      noteLacking(line, placed, widthFu, text.slice(g.cluster, endOfCluster(g.cluster, shaped.glyphs, to)));
      shiftFu += widthFu - g.advanceFu;
      run.glyphs.push({ ...placed, advanceFu: widthFu });
    } else run.glyphs.push(placed);
  }
  line.widthFu = shiftFu + shaped.widthFu;
  line.runs.push(run);
}

/** Where a cluster ends in the text: where the next begins, whatever the direction. */
const endOfCluster = (cluster: number, glyphs: PlacedGlyph[], to: number) =>
  glyphs.reduce((end, g) => (g.cluster > cluster && g.cluster < end ? g.cluster : end), to);

/** Several glyphs 0 of one cluster are one box. */
function noteLacking(line: TypesetLine, { cluster, xFu }: PlacedGlyph, widthFu: number, text: string) {
  const last = line.missing[line.missing.length - 1];
  if (last?.cluster === cluster) last.widthFu += widthFu;
  else line.missing.push({ text, cluster, xFu, widthFu });
}
