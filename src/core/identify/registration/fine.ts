// The fine stage: a placed word drawn over the picture and moved onto it; what remains different is its cost.
import type { Bounds } from "../../geometry/outline";
import type { InkPicture } from "../../geometry/raster";
import { solveLinear } from "../../geometry/linear";
import type { InkLine } from "../../picture/readPicture";
import { isEvened } from "../../picture/inks";
import { alongLine, atEnds, clonePose, drawPose, fallAt, imageInk, type Imaging, type Part, type Pose } from "./pose";
import { offRunEm } from "./spread";

// Taken out of the global object once: the loops below call them millions of times.
const { ceil, exp, floor, log, max, min, sqrt } = Math;

export type FineResult = { cost: number; spacing: number; letters: number[]; pose: Pose };

/** What letters share beside their scale, in the order in which a step is solved for. */
const SHAPED = ["aspect", "slant", "taper", "turn", "slope", "widen", "bulge", "bow"] as const;
/** How far that may go before it costs. */
type Freedom = Record<(typeof SHAPED)[number], number>;
const FROM_FRONT: Freedom = {
  aspect: 0.025,
  slant: 0.025,
  taper: 0.03,
  turn: 0.03,
  slope: 0.02,
  widen: 0.008,
  bulge: 0.008,
  bow: 0.012,
};
/** Where the rows of a line told that it was not seen from the front, they did not tell all. */
const FROM_SIDE: Freedom = {
  aspect: 0.3,
  slant: 0.12,
  taper: 0.05,
  turn: 0.08,
  slope: 0.03,
  widen: 0.12,
  bulge: 0.2,
  bow: 0.04,
};
/** The same for a letter's own rise. */
const RISE_SIGMA_EM = 0.012;

/** A step that gains less than this share of the cost was the last: what is found is found. */
const WORTH_A_ROUND = 0.004;
/** Where the drawings of one picture are made, over and over. */
let sheets = { drawn: new Float32Array(0), imaged: new Float32Array(0) };

/**
 * Moves a pose onto the picture by `rounds` steps of Gauss–Newton, then scores it.
 * The pose is changed in place and returned.
 */
export function refinePose(pose: Pose, line: InkLine, imaging: Imaging, rounds: number): FineResult {
  const { strip } = line;
  const n = strip.ink.length;
  if (sheets.drawn.length !== n) sheets = { drawn: new Float32Array(n), imaged: new Float32Array(n) };
  const { drawn, imaged } = sheets;
  const isFromSide = isEvened(line.reading);
  const draw = () => {
    const drawing = drawPose(pose, strip, drawn);
    imageInk(drawing, imaging, imaged);
    return drawing.boxes;
  };
  let boxes = draw();
  let best = score(boxes, strip, imaged);
  let bestPose = clonePose(pose);
  for (let k = 0; k < rounds; k++) {
    stepPose(pose, boxes, strip, imaged, isFromSide ? FROM_SIDE : FROM_FRONT);
    boxes = draw();
    const now = score(boxes, strip, imaged);
    const gained = best.cost - now.cost;
    if (gained > 0) {
      best = now;
      bestPose = clonePose(pose);
    }
    if (gained < WORTH_A_ROUND * best.cost) break;
  }
  Object.assign(pose, bestPose);
  return { ...best, spacing: isFromSide ? offRun(pose) : spacingError(pose), pose };
}

/** Per column: what differs, and the mean ink of both. Grown as needed. */
let columns = { off: new Float32Array(0), ink: new Float32Array(0) };

function score(
  boxes: (Bounds | null)[],
  { widthPx: w, heightPx: h, ink }: InkPicture,
  imaged: Float32Array,
): { cost: number; letters: number[] } {
  if (columns.off.length < w) columns = { off: new Float32Array(w), ink: new Float32Array(w) };
  const { off: colOff, ink: colInk } = columns;
  colOff.fill(0);
  colInk.fill(0);
  let total = 0;
  for (let y = 0, i = 0; y < h; y++)
    for (let x = 0; x < w; x++, i++) {
      const a = ink[i]!;
      const b = imaged[i]!;
      total += a;
      colOff[x]! += a > b ? a - b : b - a;
      colInk[x]! += a + b;
    }
  let off = 0;
  for (let x = 0; x < w; x++) off += colOff[x]!;
  const letters = boxes.map((b) => {
    let o = 0;
    let n = 0;
    if (b)
      for (let x = max(0, floor(b.xMin - 1)); x < min(w, b.xMax + 1); x++) {
        o += colOff[x]!;
        n += colInk[x]! / 2;
      }
    return n > 0 ? max(0, 1 - o / n) : 0;
  });
  return { cost: off / max(total, 1), letters };
}

/** Root mean square of what the places of the letters differ from the shaped run under one scale and tracking, in em. */
function spacingError(pose: Pose): number {
  const n = pose.parts.length;
  if (n < 4) return 0;
  // x ≈ a + b·pen + c·i: the scale is known, so only a and the tracking c are free.
  const s = pose.scalePx * pose.aspect;
  const rest = pose.parts.map((p) => p.atPx / s - p.penEm - p.centreEm);
  const mean = rest.reduce((a, b) => a + b, 0) / n;
  const middle = (n - 1) / 2;
  let xy = 0;
  let xx = 0;
  rest.forEach((r, i) => {
    xy += (i - middle) * (r - mean);
    xx += (i - middle) ** 2;
  });
  const c = xy / xx;
  return sqrt(rest.reduce((a, r, i) => a + (r - mean - c * (i - middle)) ** 2, 0) / n);
}

/** The same for a line whose letters may stand wider in one place than in another. */
const offRun = (pose: Pose) =>
  offRunEm(pose.parts.map((p) => ({ u: alongLine(pose, p.atPx), em: p.penEm + p.centreEm })));

/** The scale, and what is shaped. */
const SHARED = 1 + SHAPED.length;

type OwnTerms = { A: number[]; B: Float64Array; r: number[] };

/** One step: what the letters share, and each part's shift, from the slope of the drawing against what remains. */
function stepPose(pose: Pose, boxes: (Bounds | null)[], strip: InkPicture, drawn: Float32Array, freedom: Freedom) {
  const C = new Float64Array(SHARED * SHARED);
  const g = new Float64Array(SHARED);
  const own: OwnTerms[] = [];
  pose.parts.forEach((part, i) => {
    const B = new Float64Array(2 * SHARED);
    const b = boxes[i];
    const moments = b && sumMoments(pose, part, b, strip, drawn);
    if (!moments) {
      own.push({ A: [0, 0, 0], B, r: [0, 0] });
      return;
    }
    // Every derivative is a sum of the same six products; so their moments give all that the step needs.
    const u = alongLine(pose, part.atPx);
    const ends = atEnds(u);
    const lean = 0.25 * pose.scalePx;
    const terms = [
      [-1, 0, 0, 0, 0, 0],
      [0, -1, 0, 0, 0, 0],
      [0, 0, -1, 0, 0, -1],
      [0, 0, -1, 0, 0, 0],
      [lean, 0, 0, 1, 0, 0],
      [0, 0, -u, 0, 0, -u],
      [lean * u, 0, 0, u, 0, 0],
      [0, pose.middlePx - part.atPx, 0, 0, -1, 0],
      [0, 0, -u, 0, 0, 0],
      [0, 0, -ends, 0, 0, 0],
      [0, -ends * pose.scalePx, 0, 0, -(2 * u * pose.scalePx) / pose.halfPx, 0],
    ];
    const { M, v } = moments;
    const times = terms.map((t) => M.map((row) => dot6(t, row)));
    const product = (p: number, q: number) => dot6(times[p]!, terms[q]!);
    for (let p = 0; p < SHARED; p++) {
      B[p] = product(0, p + 2);
      B[SHARED + p] = product(1, p + 2);
      g[p]! += dot6(terms[p + 2]!, v);
      for (let q = 0; q < SHARED; q++) C[p * SHARED + q]! += product(p + 2, q + 2);
    }
    own.push({ A: [product(0, 0), product(0, 1), product(1, 1)], B, r: [-v[0]!, -v[1]!] });
  });
  addPriors(pose, C, g, own, freedom);
  solveSchur(pose, C, g, own);
}

const dot6 = (a: readonly number[], b: readonly number[]) =>
  a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]! + a[3]! * b[3]! + a[4]! * b[4]! + a[5]! * b[5]!;

const SIX: [number, number, number, number, number, number] = [0, 0, 0, 0, 0, 0];

/**
 * Sums over the pixels around a part. A drawing that moves by (ux, uy) changes by −(gx·ux + gy·uy), where g is its slope.
 * @returns M, shape [6, 6], of the products of gx, gy, gx·x, gx·y, gy·x, gy·y (from the part's own point), and v: each times what
 *   picture and drawing differ by.
 */
function sumMoments(
  pose: Pose,
  part: Part,
  b: Bounds,
  { widthPx: w, heightPx: h, ink }: InkPicture,
  drawn: Float32Array,
): { M: number[][]; v: number[] } {
  const base = pose.baselinePx + fallAt(pose, part.atPx) + part.dyPx;
  const x0 = max(1, floor(b.xMin) - 2);
  const x1 = min(w - 1, ceil(b.xMax) + 2);
  const y1 = min(h - 1, ceil(b.yMax) + 2);
  let [m00, m01, m02, m03, m04, m05] = SIX;
  let [m11, m12, m13, m14, m15] = SIX;
  let [m22, m23, m24, m25] = SIX;
  let [m33, m34, m35] = SIX;
  let [m44, m45, m55] = SIX;
  let [v0, v1, v2, v3, v4, v5] = SIX;
  for (let y = max(1, floor(b.yMin) - 2); y < y1; y++)
    for (let x = x0; x < x1; x++) {
      const i = y * w + x;
      const q0 = (drawn[i + 1]! - drawn[i - 1]!) / 2;
      const q1 = (drawn[i + w]! - drawn[i - w]!) / 2;
      if (q0 * q0 + q1 * q1 < 1e-5) continue;
      const e = ink[i]! - drawn[i]!;
      const fx = x + 0.5 - part.atPx;
      const fy = y + 0.5 - base;
      const q2 = q0 * fx;
      const q3 = q0 * fy;
      const q4 = q1 * fx;
      const q5 = q1 * fy;
      m00 += q0 * q0;
      m01 += q0 * q1;
      m02 += q0 * q2;
      m03 += q0 * q3;
      m04 += q0 * q4;
      m05 += q0 * q5;
      m11 += q1 * q1;
      m12 += q1 * q2;
      m13 += q1 * q3;
      m14 += q1 * q4;
      m15 += q1 * q5;
      m22 += q2 * q2;
      m23 += q2 * q3;
      m24 += q2 * q4;
      m25 += q2 * q5;
      m33 += q3 * q3;
      m34 += q3 * q4;
      m35 += q3 * q5;
      m44 += q4 * q4;
      m45 += q4 * q5;
      m55 += q5 * q5;
      v0 += q0 * e;
      v1 += q1 * e;
      v2 += q2 * e;
      v3 += q3 * e;
      v4 += q4 * e;
      v5 += q5 * e;
    }
  return {
    M: [
      [m00, m01, m02, m03, m04, m05],
      [m01, m11, m12, m13, m14, m15],
      [m02, m12, m22, m23, m24, m25],
      [m03, m13, m23, m33, m34, m35],
      [m04, m14, m24, m34, m44, m45],
      [m05, m15, m25, m35, m45, m55],
    ],
    v: [v0, v1, v2, v3, v4, v5],
  };
}

function addPriors(pose: Pose, C: Float64Array, g: Float64Array, own: OwnTerms[], freedom: Freedom) {
  // Each prior weighs as much as a residual of 0.15 over as many pixels as the contour has.
  const noise = 0.15 * 0.15 * 12;
  const hold = (k: number, value: number, sigma: number) => {
    C[k * SHARED + k]! += noise / (sigma * sigma);
    g[k]! -= (noise / (sigma * sigma)) * value;
  };
  C[0]! += 1;
  SHAPED.forEach((key, i) => hold(i + 1, key === "aspect" ? log(pose.aspect) : pose[key], freedom[key]));
  const rise = noise / (RISE_SIGMA_EM * pose.scalePx) ** 2;
  own.forEach(({ A, r }, i) => {
    A[0]! += 0.02;
    A[2]! += rise;
    r[1]! -= rise * pose.parts[i]!.dyPx;
  });
}

function solveSchur(pose: Pose, C: Float64Array, g: Float64Array, own: OwnTerms[]) {
  const inverses = own.map(({ A }) => {
    const det = A[0]! * A[2]! - A[1]! * A[1]! || 1e-9;
    return [A[2]! / det, -A[1]! / det, A[0]! / det] as const;
  });
  const rows = Array.from({ length: SHARED }, (_, a) => [...C.subarray(a * SHARED, (a + 1) * SHARED), g[a]!]);
  own.forEach(({ B, r }, i) => {
    const [p, q, s] = inverses[i]!;
    for (let a = 0; a < SHARED; a++) {
      const ux = p * B[a]! + q * B[SHARED + a]!;
      const uy = q * B[a]! + s * B[SHARED + a]!;
      for (let b = 0; b < SHARED; b++) rows[a]![b]! -= ux * B[b]! + uy * B[SHARED + b]!;
      rows[a]![SHARED]! -= ux * r[0]! + uy * r[1]!;
    }
  });
  const solved = solveLinear(rows);
  const limit = (v: number, by: number) => max(-by, min(by, v));
  const shared = LIMITS.map((by, a) => limit(Number.isFinite(solved?.[a]) ? solved![a]! : 0, by));
  own.forEach(({ B, r }, i) => {
    const [p, q, s] = inverses[i]!;
    let [rx, ry] = [r[0]!, r[1]!];
    for (let a = 0; a < SHARED; a++) {
      rx -= B[a]! * shared[a]!;
      ry -= B[SHARED + a]! * shared[a]!;
    }
    const reach = 0.05 * pose.scalePx;
    pose.parts[i]!.atPx += limit(p * rx + q * ry, reach);
    pose.parts[i]!.dyPx += limit(q * rx + s * ry, reach);
  });
  const slopeBefore = pose.slope;
  pose.scalePx *= exp(shared[0]!);
  SHAPED.forEach((key, i) => {
    const by = shared[i + 1]!;
    pose[key] = key === "aspect" ? pose.aspect * exp(by) : pose[key] + by;
  });
  pose.baselinePx -= (pose.slope - slopeBefore) * pose.middlePx;
  // What all letters rise by together is the baseline's, not theirs.
  const rise = pose.parts.reduce((a, p) => a + p.dyPx, 0) / pose.parts.length;
  pose.baselinePx += rise;
  for (const p of pose.parts) p.dyPx -= rise;
}
/** How far one step may go in what the letters share. */
const LIMITS = [0.06, 0.05, 0.06, 0.05, 0.05, 0.03, 0.05, 0.05, 0.03];
