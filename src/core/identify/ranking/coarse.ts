// The coarse stage: all styles against the cut letters by signature and by one shared line fit; no face is opened.
import { LRUCache } from "lru-cache";
import { solveSymmetric3 } from "../../geometry/linear";
import { cellsOf, sumInk, type SumTable } from "../../geometry/raster";
import { describeCells, FORM_LENGTH } from "../../measure/cellForm";
import { isEvened } from "../../picture/inks";
import type { InkLine } from "../../picture/readPicture";
import type { CutBox } from "../../picture/straighten";
import { alignLine, type Alignment } from "./align";
import { quantize, type SignatureIndex, type GlyphBox } from "../../descriptors/extractDescriptors";
import { Nearest } from "./nearest";
import { drawnCharacters, type Wording } from "../../picture/wording";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, log, max, min, sqrt } = Math;

/** A style's place after the coarse stage; lower cost is better. */
export type CoarseRank = { style: number; cost: number; by: "cuts" | "advances" | "whole" };

/** Weights of the 36 frequencies: the mean ink suffers from blur and gain, high frequencies from noise. */
export const COARSE_WEIGHTS = Float32Array.from({ length: FORM_LENGTH }, (_, k) => (k === 0 ? 0.25 : k < 15 ? 1 : 0.6));
const LINE_WEIGHT = 6;
const WIDTH_WEIGHT = 4;
const ASPECT_WEIGHT = 0.6;
const ASPECT_WEIGHT_FROM_SIDE = 0.06;

/** A part of the index, or of some of its entries: every `of`th, beginning with `at`. */
export type Share = { at: number; of: number };
const ALL: Share = { at: 0, of: 1 };

/** How wide a style sets the word to its height, and the mean ink of its rows. */
export type WordShape = { ratio: number; rows: Float32Array };
/** A style's word drawn once, for lines of every length: ink of 0–255, shape [columns, ROUGH_ROWS]. */
export type RoughWord = { columns: number; ink: Uint8Array };

/** A text as every style would set it: looked up once, whatever number of lines it is laid over. */
export type SetWord = {
  /** Position of each character in the signatures; −1 where it is not described. */
  positions: number[];
  wordStarts: number[];
  /** Entries of the index that have enough of the characters, with the box of each; null where one is lacking. */
  entries: { style: number; boxes: (GlyphBox | null)[]; shape?: WordShape; rough?: RoughWord }[];
};

/** Texts that were asked about last, as they were looked up in an index: one question asks about the same text over and over. */
const lookedUp = new WeakMap<SignatureIndex, LRUCache<string, SetWord>>();
/** Of two shares: the text as it is, and in small capitals. */
const LOOKED_UP = 4;

/** The word in the entries of a share. @param among - those of which the share is taken; null: all of the index. */
export function measureWord(
  wording: Wording,
  index: SignatureIndex,
  share = ALL,
  among: Int32Array | null = null,
): SetWord {
  const positions = drawnCharacters(wording).map((c) => index.at(c));
  // Of a parted index only the leaders are asked about time and again: all of its entries would fill the memory.
  if (among !== (index.leaders?.leaders ?? null)) return lookUp(wording, positions, index, share, among);
  let kept = lookedUp.get(index);
  if (!kept) lookedUp.set(index, (kept = new LRUCache({ max: LOOKED_UP })));
  // Letters may be described between two questions: their positions tell.
  const key = JSON.stringify([wording.clean, wording.small, share, positions]);
  const known = kept.get(key) ?? lookUp(wording, positions, index, share, among);
  kept.set(key, known);
  return known;
}

/** Entries lacking more than a third of the characters are left out. */
function lookUp(
  { wordStarts, small }: Wording,
  positions: number[],
  index: SignatureIndex,
  { at, of }: Share,
  among: Int32Array | null,
): SetWord {
  const entries: SetWord["entries"] = [];
  const count = among?.length ?? index.ids.length;
  for (let i = at; i < count; i += of) {
    const style = among?.[i] ?? i;
    const boxes = positions.map((s, i) => {
      const box = s < 0 ? null : index.box(style, s);
      return box && small?.is[i] ? scaleBox(box, small.size) : box;
    });
    if (isWorthwhile(boxes)) entries.push({ style, boxes });
  }
  return { positions, wordStarts, entries };
}

const scaleBox = ({ left, top, right, bottom, advance }: GlyphBox, by: number): GlyphBox => ({
  left: left * by,
  top: top * by,
  right: right * by,
  bottom: bottom * by,
  advance: advance * by,
});

/** The count of cuts may be right by chance: then nothing comes near by them, and each style's own advances cut again. */
export const isCutWell = (byCuts: readonly CoarseRank[]) => byCuts.some((r) => r.cost < GOOD_CUTS);

/** Ranks by the cut letters. @returns the best `keep`, best first; none where the count of cuts does not fit the text. */
export function rankByCuts(line: InkLine, word: SetWord, index: SignatureIndex, keep: number): CoarseRank[] {
  return best(costsByCuts(line, word, index), keep);
}

function costsByCuts(line: InkLine, { positions, entries }: SetWord, index: SignatureIndex): CoarseRank[] {
  if (line.letters.length !== positions.length) return [];
  const sums = sumInk(line.strip);
  const forms = line.letters.map((b) => formIn(sums, b));
  const aspectWeight = isEvened(line.reading) ? ASPECT_WEIGHT_FROM_SIDE : ASPECT_WEIGHT;
  return entries.map(({ style, boxes }) => ({
    style,
    cost: costByCuts(line.letters, forms, boxes, positions, index, style, aspectWeight),
    by: "cuts",
  }));
}

/** Ranks by the pieces of ink, shared among the letters as each style's own widths and heights say. @returns the best `keep`. */
export function rankByPieces(line: InkLine, word: SetWord, index: SignatureIndex, keep: number): CoarseRank[] {
  const { positions, wordStarts, entries } = word;
  const sums = sumInk(line.strip);
  const byCuts = new Map(costsByCuts(line, word, index).map((r) => [r.style, r.cost]));
  const laid = entries.flatMap(({ style, boxes }) => {
    const alignment = alignLine(line, boxes, wordStarts);
    return alignment ? [{ style, alignment }] : [];
  });
  // Widths and heights leave a part of the styles, whose letters are then looked at.
  laid.sort((a, b) => a.alignment.cost - b.alignment.cost);
  const nearest = new Nearest(keep);
  return best(
    laid.slice(0, LOOKED_AT).map(({ style, alignment }) => {
      const cut = byCuts.get(style) ?? Infinity;
      const cost = costByAlignment(sums, alignment, positions, index, style, nearest.worst / LED_FACTOR) * LED_FACTOR;
      nearest.add(min(cut, cost));
      return cut <= cost ? { style, cost: cut, by: "cuts" } : { style, cost, by: "advances" };
    }),
    keep,
  );
}

/** Styles whose letters are looked at, after widths and heights chose them. */
const LOOKED_AT = 300;
/** A cost by cuts under which the cuts are believed. */
const GOOD_CUTS = 0.7;
/** Cuts led by advances are less exact, so they must be clearly better to win. */
const LED_FACTOR = 1.15;
export const best = (ranks: CoarseRank[], keep: number) => ranks.sort((a, b) => a.cost - b.cost).slice(0, keep);
const isWorthwhile = (boxes: (GlyphBox | null)[]) => boxes.filter(Boolean).length >= max(1, boxes.length * 0.66);

export function formIn(sums: SumTable, box: CutBox): Int8Array {
  const described = describeCells(cellsOf(sums, box, 16));
  const form = new Int8Array(FORM_LENGTH);
  for (let k = 0; k < FORM_LENGTH; k++) form[k] = quantize(described[k]!);
  return form;
}

/** Mean of all but the worst fifth: one wrong letter must not decide. */
export function trimmedMean(values: number[]): number {
  if (!values.length) return Infinity;
  const sorted = [...values].sort((a, b) => a - b);
  const used = sorted.slice(0, countUsed(sorted.length));
  return used.reduce((a, b) => a + b, 0) / used.length;
}

const countUsed = (letters: number) => max(1, ceil(letters * 0.8));

function costByCuts(
  cuts: CutBox[],
  forms: Int8Array[],
  boxes: (GlyphBox | null)[],
  positions: number[],
  index: SignatureIndex,
  style: number,
  aspectWeight: number,
): number {
  const distances: number[] = [];
  boxes.forEach((b, i) => {
    if (b) distances.push(index.distance(style, positions[i]!, forms[i]!, COARSE_WEIGHTS));
  });
  const fit = fitLine(cuts, boxes);
  if (!fit) return trimmedMean(distances) + 1;
  return (
    trimmedMean(distances) +
    LINE_WEIGHT * fit.heightError +
    WIDTH_WEIGHT * fit.widthError +
    aspectWeight * abs(log(fit.aspect))
  );
}

/**
 * The one transform that lays a style's boxes over the cut ones.
 * `scalePx` pixels an em upward, `aspect` times that sideways; the baseline is y = baselinePx + slope · x.
 * Errors are root mean squares in em.
 */
type LineFit = {
  baselinePx: number;
  slope: number;
  scalePx: number;
  aspect: number;
  heightError: number;
  widthError: number;
};

export function fitLine(cuts: CutBox[], boxes: (GlyphBox | null)[]): LineFit | null {
  // Normal equations of y = y0 + m·x − s·Y over tops and bottoms.
  const m = [0, 0, 0, 0, 0, 0];
  const v = [0, 0, 0];
  let count = 0;
  const middle = (cuts[0]!.left + cuts[cuts.length - 1]!.right) / 2;
  const each = (use: (x: number, y: number, em: number) => void) =>
    cuts.forEach((c, i) => {
      const b = boxes[i];
      if (!b) return;
      const x = (c.left + c.right) / 2 - middle;
      use(x, c.top, b.top);
      use(x, c.bottom, b.bottom);
    });
  each((x, y, em) => {
    m[0]! += 1;
    m[1]! += x;
    m[2]! -= em;
    m[3]! += x * x;
    m[4]! -= x * em;
    m[5]! += em * em;
    v[0]! += y;
    v[1]! += x * y;
    v[2]! -= y * em;
    count++;
  });
  if (count < 2) return null;
  // A stiff prior on the slope: the strip is level already.
  const span = max(1, cuts[cuts.length - 1]!.right - cuts[0]!.left);
  const solved = solveSymmetric3(m[0]!, m[1]!, m[2]!, m[3]! + 0.05 * span * span, m[4]!, m[5]! + 1e-6, v);
  if (!solved || solved[2] <= 1) return null;
  const [y0, slope, scalePx] = solved;
  let sum = 0;
  each((x, y, em) => {
    sum += (y - y0 - slope * x + scalePx * em) ** 2;
  });
  let seen = 0;
  let asked = 0;
  cuts.forEach((c, i) => {
    const b = boxes[i];
    if (!b) return;
    seen += (c.right - c.left) * (b.right - b.left);
    asked += (b.right - b.left) ** 2;
  });
  const acrossPx = seen / max(asked, 1e-9);
  let off = 0;
  let widths = 0;
  cuts.forEach((c, i) => {
    const b = boxes[i];
    if (!b) return;
    off += (c.right - c.left - acrossPx * (b.right - b.left)) ** 2;
    widths++;
  });
  return {
    baselinePx: y0 - slope * middle,
    slope,
    scalePx,
    aspect: acrossPx / scalePx,
    heightError: sqrt(sum / count) / scalePx,
    widthError: sqrt(off / widths) / max(acrossPx, 1),
  };
}

/** @param enough - a cost from which the style is out: Infinity is returned as soon as that is sure. */
function costByAlignment(
  sums: SumTable,
  { placed, cost, trackingEm }: Alignment,
  positions: number[],
  index: SignatureIndex,
  style: number,
  enough: number,
): number {
  const seen = placed.flatMap((b, i) => (b && b.right - b.left > 0.5 ? [{ b, i }] : []));
  const fixed = ALIGN_WEIGHT * min(cost, 9) + 0.3 * max(0, trackingEm - 0.05);
  if (fixed >= enough) return Infinity;
  const used = countUsed(seen.length);
  const spared = seen.length - used;
  const distances: number[] = [];
  // The sum of all but the worst so far: at the end no less will count.
  let sure = 0;
  for (const { b, i } of seen) {
    const d = index.distance(style, positions[i]!, formIn(sums, b), COARSE_WEIGHTS);
    const at = distances.findIndex((v) => v > d);
    distances.splice(at < 0 ? distances.length : at, 0, d);
    if (distances.length <= spared) continue;
    sure = 0;
    for (let k = 0; k < distances.length - spared; k++) sure += distances[k]!;
    if (fixed + sure / used >= enough) return Infinity;
  }
  return seen.length ? fixed + sure / used : Infinity;
}
const ALIGN_WEIGHT = 0.05;
