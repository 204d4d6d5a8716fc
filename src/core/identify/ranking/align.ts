// Which pieces of ink are which letters, where letters touch or fall apart: a candidate's own widths and heights lead.
// Method: dynamic programming over pieces (left to right) and letters; several letters may share a piece, several pieces a letter.
import { isEvened } from "../../picture/inks";
import type { InkLine } from "../../picture/readPicture";
import { spanOf, type CutBox } from "../../picture/straighten";
import type { GlyphBox } from "../../descriptors/extractDescriptors";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, max, min, sqrt } = Math;

export type Alignment = {
  /** Box of every letter in pixels; null where the style lacks it or no ink was left for it. */
  placed: (CutBox | null)[];
  /** Mean squared misfit of widths and heights a letter, in expected errors; 0 = as predicted. */
  cost: number;
  scalePx: number;
  baselinePx: number;
  /** How much the letters stand further apart than the style sets them, em. */
  trackingEm: number;
};

/** Letters that one piece may hold. */
const MAX_LETTERS = 60;
/** Pieces that one letter may fall into. */
const MAX_PIECES = 3;
/** Expected errors: of a letter's width, of each further one in the same piece, and of tops and bottoms, em. */
const WIDTH_SIGMA = 0.04;
/** What small or blurred lettering loses at both ends of a letter, pixels of the strip. */
const EDGE_SIGMA_PX = 2;
const MORE_SIGMA = 0.02;
const HEIGHT_SIGMA = 0.04;
const WORST = 9;
/** Prices beside misfits: a piece that is no letter, a letter without ink, a piece over a gap of words, a letter in pieces. */
const SPECK_COST = 4;
const UNSEEN_COST = 7;
const OVER_GAP_COST = 4;
const BROKEN_COST = 1.5;

/** Scratch of `alignPieces`, which runs for every style of the library. */
let scratch = { cost: new Float64Array(0), from: new Int32Array(0) };

/**
 * @param pieces - boxes of ink, left to right. @param boxes - a style's letters in em, null where it lacks one.
 * @param wordStarts - indices of letters that begin a word.
 * @returns null when the letters cannot be laid over the pieces at all.
 */
export function alignPieces(
  pieces: readonly CutBox[],
  boxes: readonly (GlyphBox | null)[],
  wordStarts: readonly number[],
): Alignment | null {
  const n = boxes.length;
  const { scalePx, trackingEm, baselinePx } = predictBoxes(spanOf(pieces), boxes, wordStarts);
  if (trackingEm < -0.4 || trackingEm > 1.2) return null;
  const word = measureWord(boxes, wordStarts, trackingEm);
  const size = (pieces.length + 1) * (n + 1);
  if (scratch.cost.length < size) scratch = { cost: new Float64Array(size), from: new Int32Array(size) };
  fillCosts(pieces, word, 1 / scalePx, baselinePx);
  const { cost, from } = scratch;
  if (cost[size - 1] === Infinity) return null;
  const placed = new Array<CutBox | null>(n).fill(null);
  for (let k = pieces.length, i = n; k > 0 || i > 0;) {
    const step = from[k * (n + 1) + i]!;
    const [taken, letters] = [step >> 8, step & 255];
    k -= taken;
    i -= letters;
    if (taken && letters) layOver(placed, word, spanOf(pieces.slice(k, k + taken)), i, letters);
  }
  return { placed, cost: cost[size - 1]! / n, scalePx, baselinePx, trackingEm };
}

/** The letters of a line laid over its pieces, as it was seen. */
export const alignLine = (
  { letters, reading }: InkLine,
  boxes: readonly (GlyphBox | null)[],
  wordStarts: readonly number[],
): Alignment | null => (isEvened(reading) ? alignFromSide : alignPieces)(letters, boxes, wordStarts);

/**
 * The same for a line that was seen from the side: it may be narrower than the style sets it.
 * @returns null when it is much narrower or wider.
 */
export function alignFromSide(
  pieces: readonly CutBox[],
  boxes: readonly (GlyphBox | null)[],
  wordStarts: readonly number[],
): Alignment | null {
  const extent = spanOf(pieces);
  const { scalePx, trackingEm } = predictBoxes(extent, boxes, wordStarts);
  const widthPx = extent.right - extent.left;
  const by = 1 - (max(1, boxes.length - 1) * trackingEm * scalePx) / max(1, widthPx);
  if (!(by > LEAST_WIDENED && by < MOST_WIDENED)) return null;
  const across = (b: CutBox, times: number) => ({
    ...b,
    left: extent.left + (b.left - extent.left) * times,
    right: extent.left + (b.right - extent.left) * times,
  });
  const alignment = alignPieces(
    pieces.map((b) => across(b, by)),
    boxes,
    wordStarts,
  );
  return alignment && { ...alignment, placed: alignment.placed.map((b) => b && across(b, 1 / by)) };
}
const LEAST_WIDENED = 0.7;
const MOST_WIDENED = 2.6;

/** The letters of a style as it sets them: pens in em, and which of them begin a word. */
type SetWord = { boxes: readonly (GlyphBox | null)[]; pens: Float64Array; isStart: Uint8Array };

function measureWord(boxes: SetWord["boxes"], wordStarts: readonly number[], trackingEm: number): SetWord {
  const n = boxes.length;
  // Letters in one piece touch: they stand no further apart than the style sets them.
  const tracking = min(0, trackingEm);
  const pens = new Float64Array(n);
  for (let i = 1; i < n; i++) pens[i] = pens[i - 1]! + (boxes[i - 1]?.advance ?? 0.5) + tracking;
  const isStart = new Uint8Array(n + 1);
  for (const s of wordStarts) isStart[s] = 1;
  return { boxes, pens, isStart };
}
const leftOf = ({ pens, boxes }: SetWord, i: number) => pens[i]! + (boxes[i]?.left ?? 0.05);
const rightOf = ({ pens, boxes }: SetWord, i: number) => pens[i]! + (boxes[i]?.right ?? 0.45);

/** The least cost of every number of pieces with every number of letters, and the step that led there, in the scratch. */
function fillCosts(pieces: readonly CutBox[], word: SetWord, perPx: number, baselinePx: number) {
  const [m, n] = [pieces.length, word.boxes.length];
  const { cost } = scratch;
  cost.fill(Infinity, 0, (m + 1) * (n + 1));
  cost[0] = 0;
  const widthSigma = sqrt(WIDTH_SIGMA * WIDTH_SIGMA + (EDGE_SIGMA_PX * perPx) ** 2);
  for (let k = 0; k <= m; k++)
    for (let i = 0; i <= n; i++) {
      if (cost[k * (n + 1) + i] === Infinity) continue;
      if (k < m) reach(n, k, i, 0, 1, SPECK_COST);
      if (i < n) reach(n, k, i, 1, 0, UNSEEN_COST);
      if (k === m || i === n) continue;
      reachLettersOfPiece(pieces[k]!, word, k, i, perPx, baselinePx, widthSigma);
      reachPiecesOfLetter(pieces, word, k, i, perPx, baselinePx, widthSigma);
    }
}

function reach(n: number, k: number, i: number, letters: number, taken: number, by: number) {
  const { cost, from } = scratch;
  const at = (k + taken) * (n + 1) + i + letters;
  const total = cost[k * (n + 1) + i]! + by;
  if (total < cost[at]!) {
    cost[at] = total;
    from[at] = (taken << 8) | letters;
  }
}

/** One piece of ink as one letter, or as several that touch. */
function reachLettersOfPiece(
  piece: CutBox,
  word: SetWord,
  k: number,
  i: number,
  perPx: number,
  baselinePx: number,
  widthSigma: number,
) {
  const { boxes, isStart } = word;
  const n = boxes.length;
  const width = (piece.right - piece.left) * perPx;
  const up = (baselinePx - piece.top) * perPx;
  const down = (baselinePx - piece.bottom) * perPx;
  const left = leftOf(word, i);
  let [right, top, bottom, gaps] = [-Infinity, -Infinity, Infinity, 0];
  for (let c = 1; c <= MAX_LETTERS && i + c <= n; c++) {
    const j = i + c - 1;
    if (c > 1 && isStart[j]) gaps++;
    const b = boxes[j];
    right = max(right, rightOf(word, j));
    top = max(top, b?.top ?? 0.5);
    bottom = min(bottom, b?.bottom ?? 0);
    const off = misfit(width - (right - left), widthSigma + MORE_SIGMA * (c - 1));
    const by = off + misfit(up - top, HEIGHT_SIGMA) + misfit(down - bottom, HEIGHT_SIGMA);
    reach(n, k, i, c, 1, by + gaps * OVER_GAP_COST);
    if (right - left > width + 0.5) break;
  }
}

/** One letter in several pieces. */
function reachPiecesOfLetter(
  pieces: readonly CutBox[],
  { boxes }: SetWord,
  k: number,
  i: number,
  perPx: number,
  baselinePx: number,
  widthSigma: number,
) {
  const b = boxes[i];
  if (!b) return;
  for (let p = 2; p <= MAX_PIECES && k + p <= pieces.length; p++) {
    const whole = spanOf(pieces.slice(k, k + p));
    const by =
      misfit((whole.right - whole.left) * perPx - (b.right - b.left), widthSigma) +
      misfit((baselinePx - whole.top) * perPx - b.top, HEIGHT_SIGMA) +
      misfit((baselinePx - whole.bottom) * perPx - b.bottom, HEIGHT_SIGMA);
    reach(boxes.length, k, i, 1, p, by + BROKEN_COST * (p - 1));
  }
}

/** Letters i … over one piece: its width is shared as the style's own is, its top and bottom move them up or down. */
function layOver(placed: (CutBox | null)[], word: SetWord, piece: CutBox, i: number, letters: number) {
  const { boxes, pens } = word;
  const left = leftOf(word, i);
  let [right, top, bottom] = [-Infinity, -Infinity, Infinity];
  for (let j = i; j < i + letters; j++) {
    right = max(right, rightOf(word, j));
    top = max(top, boxes[j]?.top ?? 0.5);
    bottom = min(bottom, boxes[j]?.bottom ?? 0);
  }
  const across = (piece.right - piece.left) / max(1e-3, right - left);
  const upright = (piece.bottom - piece.top) / max(1e-3, top - bottom);
  for (let j = i; j < i + letters; j++) {
    const b = boxes[j];
    if (!b) continue;
    placed[j] = {
      left: piece.left + (pens[j]! + b.left - left) * across,
      right: piece.left + (pens[j]! + b.right - left) * across,
      top: piece.top + (top - b.top) * upright,
      bottom: piece.top + (top - b.bottom) * upright,
    };
  }
}

function misfit(em: number, sigmaEm: number): number {
  const d = abs(em) / sigmaEm;
  return d > 3 ? min(WORST, 6 * d - 9) : d * d;
}

/** A gap between words, em. */
const GAP_EM = 0.25;

/** A word as a style's own advances set it: where each letter begins, and the extent of them all, em. */
export function layOutBoxes(boxes: readonly (GlyphBox | null)[], wordStarts: readonly number[]) {
  let [pen, left, right, top, bottom] = [0, Infinity, -Infinity, -Infinity, Infinity];
  const pens = boxes.map((b, i) => {
    if (i && wordStarts.includes(i)) pen += GAP_EM;
    const at = pen;
    pen += b?.advance ?? 0.5;
    if (b) {
      left = min(left, at + b.left);
      right = max(right, at + b.right);
      top = max(top, b.top);
      bottom = min(bottom, b.bottom);
    }
    return at;
  });
  return { pens, left, right, top, bottom };
}

/** Letters whose boxes are as far apart as this do not touch, em. */
const APART_EM = 0.015;

/** Into how many pieces a word falls as a style sets it, letters that hang together taken as one. */
export function countParts(boxes: readonly (GlyphBox | null)[], wordStarts: readonly number[]): number {
  const { pens } = layOutBoxes(boxes, wordStarts);
  const isApart = (i: number) => {
    const [before, own] = [boxes[i - 1], boxes[i]];
    return !before || !own || pens[i]! + own.left - pens[i - 1]! - before.right > APART_EM;
  };
  return boxes.reduce((parts, _, i) => parts + (i > 0 && isApart(i) ? 1 : 0), 1);
}

/** Where a style's own advances put its letters when its word is laid over the ink's extent. Pixels; null for absent letters. */
export function predictBoxes(extent: CutBox, boxes: readonly (GlyphBox | null)[], wordStarts: readonly number[]) {
  const { pens, top, bottom } = layOutBoxes(boxes, wordStarts);
  const scalePx = (extent.bottom - extent.top) / max(0.05, top - bottom);
  const first = boxes[0];
  const last = boxes[boxes.length - 1];
  const naturalEm = pens[pens.length - 1]! + (last?.right ?? 0.5) - (first?.left ?? 0);
  const gaps = max(1, boxes.length - 1);
  const trackingEm = ((extent.right - extent.left) / scalePx - naturalEm) / gaps;
  const x0 = extent.left - (first?.left ?? 0) * scalePx;
  const placed = boxes.map((b, i) => {
    if (!b) return null;
    const at = x0 + (pens[i]! + i * trackingEm) * scalePx;
    return {
      left: at + b.left * scalePx,
      right: at + b.right * scalePx,
      top: extent.top + (top - b.top) * scalePx,
      bottom: extent.top + (top - b.bottom) * scalePx,
    };
  });
  return { placed, scalePx, trackingEm, baselinePx: extent.top + top * scalePx };
}
