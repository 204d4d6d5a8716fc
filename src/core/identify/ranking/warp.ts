// Words compared as a whole, for lettering whose letters cannot be parted: both are brought to the same few rows, and the columns of one
// are laid over those of the other by dynamic time warping, which also tells where in the picture each letter stands.
import { cellsOf, sumInk, type InkPicture } from "../../geometry/raster";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, max, min, round } = Math;

/** Columns may be laid this share of the whole away from where they would stand. */
const REACH = 0.12;
/** What a column that is stretched or left out costs, in ink of a row. */
const STRETCH_COST = 0.0175;

/** How finely a word is looked at: rows from the top of its ink to the bottom, and about as many columns as keep its proportions. */
export type Grain = { rows: number; columns: number };
type Span = { left: number; right: number; top: number; bottom: number };
const FEWEST = 2;
const MOST = 11;
export const grainOf = ({ left, right, top, bottom }: Span, rows: number): Grain => {
  const ratio = max(FEWEST, min(MOST, (right - left) / max(1, bottom - top)));
  return { rows, columns: round(rows * ratio) };
};
/** Rows for a first look at many, and for a second at few. */
export const ROUGH_ROWS = 10;
export const FINE_ROWS = 20;

/** A word as rows and columns of mean ink: Float32Array, shape [columns, rows]. */
export type WordColumns = Grain & { ink: Float32Array };

/** @param span - of the ink, in the picture's pixels. */
export function describeWord(picture: InkPicture, span: Span, { rows, columns }: Grain): WordColumns {
  const cells = cellsOf(sumInk(picture), span, columns, rows);
  const ink = new Float32Array(columns * rows);
  for (let r = 0, at = 0; r < rows; r++) for (let c = 0; c < columns; c++, at++) ink[c * rows + r] = cells[at]!;
  return { rows, columns, ink };
}

const described = new WeakMap<InkPicture, Map<string, WordColumns>>();
/** The same of a line's strip; remembered, since many faces are laid over one line. */
export function describeStrip(strip: InkPicture, span: Span, grain: Grain): WordColumns {
  let known = described.get(strip);
  if (!known) described.set(strip, (known = new Map()));
  const key = `${span.left} ${span.top} ${span.right} ${span.bottom} ${grain.rows} ${grain.columns}`;
  let columns = known.get(key);
  if (!columns) known.set(key, (columns = describeWord(strip, span, grain)));
  return columns;
}

type Warp = {
  /** What differs after warping, as a share of the ink of both: 0 = the same. */
  cost: number;
  /** For each column of the first word, the column of the second that it lies over. */
  onto: Float32Array;
};

/** Scratch of `warpWords`, which runs for every style of the library. */
let scratch = { cost: new Float32Array(0), from: new Uint8Array(0) };

/** Lays one word over another. @param enough - a cost from which it is of no interest: null is returned when that is sure. */
export function warpWords(a: WordColumns, b: WordColumns, enough = Infinity): Warp | null {
  const { rows, columns: n } = a;
  const m = b.columns;
  const stretch = STRETCH_COST * rows;
  const reach = max(3, ceil(REACH * m));
  const width = 2 * reach + 1;
  if (scratch.cost.length < n * width) scratch = { cost: new Float32Array(n * width), from: new Uint8Array(n * width) };
  const { cost, from } = scratch;
  let total = 0;
  for (let i = 0; i < a.ink.length; i++) total += a.ink[i]!;
  for (let i = 0; i < b.ink.length; i++) total += b.ink[i]!;
  total = max(1e-6, total / 2);
  const most = enough * total;
  const middle = (i: number) => round((i * (m - 1)) / max(1, n - 1));
  for (let i = 0; i < n; i++) {
    const first = middle(i) - reach;
    const before = i ? middle(i - 1) - reach : 0;
    let least = Infinity;
    let best = Infinity;
    let step = 0;
    for (let k = 0; k < width; k++) {
      const j = first + k;
      const at = i * width + k;
      cost[at] = Infinity;
      if (j < 0 || j >= m) continue;
      best = i ? Infinity : j * stretch;
      step = 0;
      if (i) {
        const diagonal = j - 1 - before;
        if (diagonal >= 0 && diagonal < width) {
          best = cost[at - width - k + diagonal]!;
          step = 1;
        }
        const straight = j - before;
        if (straight >= 0 && straight < width) {
          const c = cost[at - width - k + straight]! + stretch;
          if (c < best) {
            best = c;
            step = 2;
          }
        }
      }
      if (k) {
        const c = cost[at - 1]! + stretch;
        if (c < best) {
          best = c;
          step = 3;
        }
      }
      // Costs only grow: what is too far by now stays so.
      if (best > most || best === Infinity) continue;
      let off = 0;
      const [p, q] = [i * rows, j * rows];
      // A column that is skipped costs only the stretch: its ink is counted where it is passed.
      for (let r = 0; r < rows; r++) off += abs(a.ink[p + r]! - b.ink[q + r]!);
      cost[at] = best + (step === 3 ? off / 2 : off);
      from[at] = step;
      if (cost[at] < least) least = cost[at]!;
    }
    if (least > most) return null;
  }
  let k = m - 1 - (middle(n - 1) - reach);
  let end = Infinity;
  for (let j = max(0, m - 1 - reach); j < m; j++) {
    const at = j - (middle(n - 1) - reach);
    if (at < 0 || at >= width) continue;
    const c = cost[(n - 1) * width + at]! + (m - 1 - j) * stretch;
    if (c < end) [end, k] = [c, at];
  }
  if (!(end < most)) return null;
  const onto = new Float32Array(n).fill(-1);
  for (let i = n - 1; i >= 0;) {
    const j = middle(i) - reach + k;
    onto[i] = onto[i]! < 0 ? j : (onto[i]! + j) / 2;
    const step = from[i * width + k]!;
    if (!step || (i === 0 && step !== 3)) break;
    if (step === 3) k--;
    else {
      const next = step === 1 ? j - 1 : j;
      i--;
      k = next - (middle(i) - reach);
    }
  }
  return { cost: end / total, onto };
}
