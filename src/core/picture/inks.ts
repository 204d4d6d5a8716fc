// What else could be the ink of a picture than what stands out most: letters drawn as outlines, letters with a border or a shadow.
import type { InkPicture } from "../geometry/raster";
import type { FoundInk } from "./ink";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, hypot, max, min } = Math;

/** How a line may have been seen. */
export type SeenAs =
  | "evened"
  | "evened, bowed"
  | "evened, upright"
  | `evened, ${number} times as wide`
  | `evened, around ${number} from ${number}`;
/** What the ink of a line is taken for, beside what stands out. */
type InkAs =
  | "level as it is"
  | "away from the border"
  | "learned"
  | "learned colours"
  | "learned edges"
  | "filled outlines"
  | "first colour"
  | "second colour";
type Evened = SeenAs | `${InkAs}, ${SeenAs}`;
export type InkReading = "plain" | InkAs | Evened;
/** Whether a line was laid as if seen from the front: how far it was turned away, its rows do not tell. */
export const isEvened = (reading: InkReading): reading is Evened => reading.includes("evened");
/** What a line's ink is taken for, wherever it was seen from. */
export const inkOf = (reading: InkReading): string => reading.replace(/(^|, )evened.*/, "") || "plain";
export type InkHypothesis = { picture: InkPicture; reading: InkReading };

/** Of all ink, a colour must have this share to be letters of its own. */
const MIN_SHARE = 0.12;
/** Neighbours of a full pixel differ by less than this share of the contrast. */
const EVEN = 0.1;
/** Distance of two colours, as a share of the ink's own contrast, from which they are two. */
const APART = 0.28;

/** What the ink could be instead of what stands out most, where the picture gives reason. */
export function proposeInks(found: FoundInk): InkHypothesis[] {
  const out: InkHypothesis[] = [];
  const filled = fillOutlines(found);
  if (filled) out.push({ picture: filled, reading: "filled outlines" });
  const colours = partColours(found);
  if (colours)
    colours.forEach((ink, k) =>
      out.push({ picture: { ...found, ink }, reading: k ? "second colour" : "first colour" }),
    );
  return out;
}

/**
 * Letters drawn as lines around them, filled: paper enclosed by a stroke is inside, paper enclosed within that is a counter.
 * @returns null where too little is enclosed for the strokes to be outlines.
 */
export function fillOutlines({ widthPx: w, heightPx: h, ink }: InkPicture): InkPicture | null {
  const n = w * h;
  const depth = new Int16Array(n).fill(-1);
  let frontier: number[] = [];
  for (let x = 0; x < w; x++) frontier.push(x, (h - 1) * w + x);
  for (let y = 0; y < h; y++) frontier.push(y * w, y * w + w - 1);
  const isStroke = (i: number) => ink[i]! >= 0.5;
  // In turn: paper as far as it reaches, then the strokes around it, then the paper behind those.
  let inside = 0;
  let strokes = 0;
  for (let level = 0; frontier.length && level < 8; level++) {
    const wantsStroke = level % 2 === 1;
    const stack = frontier.filter((i) => depth[i]! < 0 && isStroke(i) === wantsStroke);
    const later: number[] = frontier.filter((i) => depth[i]! < 0 && isStroke(i) !== wantsStroke);
    for (const i of stack) depth[i] = level;
    while (stack.length) {
      const i = stack.pop()!;
      if (wantsStroke) strokes++;
      else if (level % 4 === 2) inside++;
      const x = i % w;
      for (const next of [x ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w]) {
        if (next < 0 || next >= n || depth[next]! >= 0) continue;
        if (isStroke(next) === wantsStroke) {
          depth[next] = level;
          stack.push(next);
        } else later.push(next);
      }
      // Strokes hang together over corners, so that a thin one does not let the paper through.
      if (wantsStroke)
        for (const next of [i - w - 1, i - w + 1, i + w - 1, i + w + 1])
          if (next >= 0 && next < n && abs((next % w) - x) === 1 && depth[next]! < 0 && isStroke(next)) {
            depth[next] = level;
            stack.push(next);
          }
    }
    frontier = later;
  }
  if (inside < 0.5 * strokes || strokes < 20) return null;
  // Where a stroke stands between inside and outside, the letter's edge runs along its middle.
  const toInside = spread(depth, w, h, (d) => d % 4 === 2);
  const toOutside = spread(depth, w, h, (d) => d % 4 === 0 && d >= 0);
  const out = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    const d = depth[i]!;
    if (d >= 0 && d % 4 === 2) out[i] = 1;
    else if (d >= 0 && d % 2 === 1) out[i] = max(0, min(1, (toOutside[i]! - toInside[i]!) / 2 + 0.5));
  }
  return { widthPx: w, heightPx: h, ink: out };
}

/** Steps from every pixel to the nearest of some regions (chamfer distance, two sweeps). */
function spread(depth: Int16Array, w: number, h: number, isSource: (depth: number) => boolean): Float32Array {
  const far = new Float32Array(w * h).fill(1e6);
  for (let i = 0; i < far.length; i++) if (isSource(depth[i]!)) far[i] = 0;
  const relax = (i: number, from: number, by: number) => {
    if (far[from]! + by < far[i]!) far[i] = far[from]! + by;
  };
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (x) relax(i, i - 1, 1);
      if (y) relax(i, i - w, 1);
      if (x && y) relax(i, i - w - 1, 1.41);
      if (y && x < w - 1) relax(i, i - w + 1, 1.41);
    }
  for (let y = h - 1; y >= 0; y--)
    for (let x = w - 1; x >= 0; x--) {
      const i = y * w + x;
      if (x < w - 1) relax(i, i + 1, 1);
      if (y < h - 1) relax(i, i + w, 1);
      if (x < w - 1 && y < h - 1) relax(i, i + w + 1, 1.41);
      if (y < h - 1 && x) relax(i, i + w - 1, 1.41);
    }
  return far;
}

/**
 * Two colours of ink, each by itself: a letter and its border, a letter and its shadow.
 * @returns coverage of the first and of the second, or null when there is one colour only.
 */
function partColours({ residual, ink, widthPx }: FoundInk): [Float32Array, Float32Array] | null {
  const n = ink.length;
  const colourOf = (i: number) => [residual[3 * i]!, residual[3 * i + 1]!, residual[3 * i + 2]!] as const;
  const apart = (a: readonly number[], b: readonly number[]) => hypot(a[0]! - b[0]!, a[1]! - b[1]!, a[2]! - b[2]!);
  // Full pixels only: edges are mixtures with the paper.
  const step = max(1, Math.floor(n / 40_000));
  const seen: number[] = [];
  let reach = 0;
  for (let i = 0; i < n; i += step) {
    const d = hypot(residual[3 * i]!, residual[3 * i + 1]!, residual[3 * i + 2]!);
    reach = max(reach, d);
    seen.push(i);
  }
  const isEven = (i: number) =>
    [1, widthPx].every((by) => i + by < n && apart(colourOf(i), colourOf(i + by)) < EVEN * reach);
  const inked = seen.filter((i) => hypot(...colourOf(i)) > 0.3 * reach && isEven(i));
  if (inked.length < 60) return null;
  // Two middles (k-means), begun at the colour furthest from paper and the one furthest from that.
  let a: readonly number[] = [0, 0, 0];
  for (const i of inked) if (hypot(...colourOf(i)) > hypot(...(a as [number, number, number]))) a = colourOf(i);
  let b: readonly number[] = a;
  for (const i of inked) if (apart(colourOf(i), a) > apart(b, a)) b = colourOf(i);
  let share = 0;
  for (let round = 0; round < 8; round++) {
    const sums = [
      [0, 0, 0, 0],
      [0, 0, 0, 0],
    ];
    for (const i of inked) {
      const c = colourOf(i);
      const to = sums[apart(c, a) <= apart(c, b) ? 0 : 1]!;
      to[0]! += c[0];
      to[1]! += c[1];
      to[2]! += c[2];
      to[3]!++;
    }
    const [p, q] = sums as [number[], number[]];
    if (!p[3] || !q[3]) return null;
    share = min(p[3], q[3]) / (p[3] + q[3]);
    [a, b] = [p.slice(0, 3).map((v) => v / p[3]!), q.slice(0, 3).map((v) => v / q[3]!)];
  }
  if (share < MIN_SHARE || apart(a, b) < APART * reach) return null;
  return [coverage(residual, a, b), coverage(residual, b, a)];
}

/** How much of each pixel is of colour `own`, the rest being `other` or paper. */
function coverage(residual: Float32Array, own: readonly number[], other: readonly number[]): Float32Array {
  const dot = (p: readonly number[], q: readonly number[]) => p[0]! * q[0]! + p[1]! * q[1]! + p[2]! * q[2]!;
  const [aa, bb, ab] = [dot(own, own), dot(other, other), dot(own, other)];
  const n = residual.length / 3;
  const out = new Float32Array(n);
  const det = aa * bb - ab * ab;
  const alike = det < 0.04 * aa * bb;
  for (let i = 0; i < n; i++) {
    const c = [residual[3 * i]!, residual[3 * i + 1]!, residual[3 * i + 2]!];
    const [pa, pb] = [dot(own, c), dot(other, c)];
    let v: number;
    if (alike) {
      // Both lie on one line from the paper: what is beyond the paler one is of the stronger, what is between, of the paler.
      const t = pa / aa;
      const s = ab / aa;
      v = s < 1 ? (t - s) / (1 - s) : min(t, max(0, 1 - (t - 1) / max(1e-3, s - 1)));
    } else v = (pa * bb - pb * ab) / det;
    out[i] = v < 0.08 ? 0 : v > 1 ? 1 : v;
  }
  return out;
}
