// The fine stage: one candidate's shaped word drawn over the picture and moved into place; what remains different is its cost.
import { boundsOf, flattenOutline } from "../geometry/outline";
import type { InkPicture } from "../geometry/raster";
import type { OpenFace } from "../outlines/openFace";
import type { InkLine } from "../picture/readPicture";
import { shapeText } from "../shape/shapeText";
import { extentOf, fitLine, predictBoxes } from "./coarse";
import { clonePose, drawPose, imageInk, posePolygons, type Imaging, type Part, type Pose } from "./pose";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, exp, floor, log, max, min, sqrt } = Math;

export type FineResult = { cost: number; spacing: number; letters: number[]; pose: Pose };

/** How far aspect, slant and vertical shifts may go before they cost: wider where the picture was warped. */
const ASPECT_SIGMA = 0.025;
const SLANT_SIGMA = 0.025;
const RISE_SIGMA_EM = 0.012;

/**
 * Lays a candidate's word over the line.
 * @param text - with spaces, as it is set. @param characters - the same without spaces.
 * @returns null when the face draws nothing of it or cannot be placed.
 */
export function placeWord(
  face: OpenFace,
  line: InkLine,
  text: string,
  characters: string[],
  wordStarts: number[],
): Pose | null {
  const run = shapeText(face, text);
  const em = face.unitsPerEm;
  const units = indexUnits(text);
  const glyphs = run.glyphs.filter((g) => face.polygons(g.glyphId).length > 0);
  const parts: Part[] = [];
  const boxes = glyphs.map((g) => {
    const b = boundsOf(face.polygons(g.glyphId))!;
    return {
      left: b.xMin / em,
      right: b.xMax / em,
      top: (b.yMax + g.yFu) / em,
      bottom: (b.yMin + g.yFu) / em,
      advance: g.advanceFu / em,
    };
  });
  glyphs.forEach((g, k) => {
    const first = units[g.cluster] ?? 0;
    const later = glyphs.slice(k + 1).find((n) => n.cluster > g.cluster);
    const next = later ? (units[later.cluster] ?? first + 1) : characters.length;
    const polygons = flattenOutline(face.outline(g.glyphId), em / 500).map((p) => {
      const out = new Float64Array(p.length);
      for (let i = 0; i < p.length; i += 2) {
        out[i] = p[i]! / em;
        out[i + 1] = (p[i + 1]! + g.yFu) / em;
      }
      return out;
    });
    const box = boxes[k]!;
    parts.push({
      first,
      count: max(1, next - first),
      polygons,
      centreEm: (box.left + box.right) / 2,
      penEm: g.xFu / em,
      atPx: 0,
      dyPx: 0,
    });
  });
  if (!parts.length) return null;
  const clusters = new Set(parts.map((p) => p.first));
  const simple = line.letters.length === characters.length && clusters.size === parts.length;
  return simple ? placeByCuts(line, parts, boxes) : placeByAdvances(line, parts, boxes, wordStarts);
}

/** UTF-16 index in the text → index among the characters that are not white space. */
function indexUnits(text: string): number[] {
  const units: number[] = [];
  let at = 0;
  for (const c of text) {
    for (let k = 0; k < c.length; k++) units.push(at);
    if (c.trim()) at++;
  }
  return units;
}

type EmBox = { left: number; right: number; top: number; bottom: number; advance: number };

function placeByCuts(line: InkLine, parts: Part[], boxes: EmBox[]): Pose | null {
  const cuts = parts.map((p) => extentOf(line.letters.slice(p.first, p.first + p.count)));
  const fit = fitLine(cuts, boxes);
  if (!fit || fit.aspect < 0.4 || fit.aspect > 2.5) return null;
  parts.forEach((p, i) => (p.atPx = (cuts[i]!.left + cuts[i]!.right) / 2));
  return {
    parts,
    baselinePx: fit.baselinePx,
    slope: fit.slope,
    scalePx: fit.scalePx,
    aspect: clampAspect(fit.aspect),
    slant: 0,
  };
}

const clampAspect = (a: number) => min(1.12, max(0.89, a));

function placeByAdvances(line: InkLine, parts: Part[], boxes: EmBox[], wordStarts: number[]): Pose | null {
  const extent = extentOf(line.letters);
  const { scalePx, baselinePx } = predictBoxes(extent, boxes, wordStarts);
  // Places come from the shaped run (kerning, joins), stretched by one tracking so that both ends meet the ink.
  const left = parts[0]!.penEm + boxes[0]!.left;
  const right = max(...parts.map((p, i) => p.penEm + boxes[i]!.right));
  const tracking = ((extent.right - extent.left) / scalePx - (right - left)) / max(1, parts.length - 1);
  if (tracking < -0.35 || tracking > 1.2) return null;
  parts.forEach((p, i) => (p.atPx = extent.left + (p.penEm + p.centreEm - left + i * tracking) * scalePx));
  return { parts, baselinePx, slope: 0, scalePx, aspect: 1, slant: 0 };
}

/**
 * Moves a pose onto the picture by `rounds` steps of Gauss–Newton, then scores it.
 * The pose is changed in place and returned.
 * @param giveUpAbove - a cost that after the first step means this face is out of question.
 */
export function refinePose(
  pose: Pose,
  line: InkLine,
  imaging: Imaging,
  rounds: number,
  giveUpAbove = Infinity,
): FineResult {
  const { strip } = line;
  let drawn = imageInk(drawPose(pose, strip), strip, imaging);
  let best = score(pose, strip, drawn);
  let bestPose = clonePose(pose);
  for (let k = 0; k < rounds; k++) {
    if (k && best.cost > giveUpAbove) break;
    stepPose(pose, strip, drawn);
    drawn = imageInk(drawPose(pose, strip), strip, imaging);
    const now = score(pose, strip, drawn);
    if (now.cost < best.cost) {
      best = now;
      bestPose = clonePose(pose);
    }
  }
  Object.assign(pose, bestPose);
  return { ...best, spacing: spacingError(pose), pose };
}

function score(pose: Pose, strip: InkPicture, drawn: Float32Array): { cost: number; letters: number[] } {
  const { widthPx: w, heightPx: h, ink } = strip;
  let off = 0;
  let total = 0;
  const colOff = new Float32Array(w);
  const colInk = new Float32Array(w);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      const d = abs(ink[i]! - drawn[i]!);
      off += d;
      total += ink[i]!;
      colOff[x]! += d;
      colInk[x]! += (ink[i]! + drawn[i]!) / 2;
    }
  const letters = pose.parts.map((part) => {
    const b = boundsOf(posePolygons(pose, part));
    let o = 0;
    let n = 0;
    if (b)
      for (let x = max(0, floor(b.xMin - 1)); x < min(w, b.xMax + 1); x++) {
        o += colOff[x]!;
        n += colInk[x]!;
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

const SHARED = 3;

/** One step: shared scale, aspect and slant, and each part's shift, from the slope of the drawing against what remains. */
function stepPose(pose: Pose, strip: InkPicture, drawn: Float32Array) {
  const { widthPx: w, heightPx: h, ink } = strip;
  const C = new Float64Array(SHARED * SHARED);
  const g = new Float64Array(SHARED);
  const own: { A: number[]; B: number[]; r: number[] }[] = [];
  for (const part of pose.parts) {
    const A = [0, 0, 0];
    const B = [0, 0, 0, 0, 0, 0];
    const r = [0, 0];
    const b = boundsOf(posePolygons(pose, part));
    const base = pose.baselinePx + pose.slope * part.atPx + part.dyPx;
    if (b) {
      const x1 = min(w - 1, ceil(b.xMax) + 2);
      const y1 = min(h - 1, ceil(b.yMax) + 2);
      for (let y = max(1, floor(b.yMin) - 2); y < y1; y++)
        for (let x = max(1, floor(b.xMin) - 2); x < x1; x++) {
          const i = y * w + x;
          const gx = (drawn[i + 1]! - drawn[i - 1]!) / 2;
          const gy = (drawn[i + w]! - drawn[i - w]!) / 2;
          if (gx * gx + gy * gy < 1e-5) continue;
          const e = ink[i]! - drawn[i]!;
          // A drawing that moves by (ux, uy) changes by −(gx·ux + gy·uy).
          const fx = x + 0.5 - part.atPx;
          const fy = y + 0.5 - base;
          const j0 = -(gx * fx + gy * fy);
          const j1 = -gx * fx;
          const j2 = -gx * (-fy - 0.25 * pose.scalePx);
          const jx = -gx;
          const jy = -gy;
          A[0]! += jx * jx;
          A[1]! += jx * jy;
          A[2]! += jy * jy;
          r[0]! += jx * e;
          r[1]! += jy * e;
          B[0]! += jx * j0;
          B[1]! += jx * j1;
          B[2]! += jx * j2;
          B[3]! += jy * j0;
          B[4]! += jy * j1;
          B[5]! += jy * j2;
          C[0]! += j0 * j0;
          C[1]! += j0 * j1;
          C[2]! += j0 * j2;
          C[4]! += j1 * j1;
          C[5]! += j1 * j2;
          C[8]! += j2 * j2;
          g[0]! += j0 * e;
          g[1]! += j1 * e;
          g[2]! += j2 * e;
        }
    }
    own.push({ A, B, r });
  }
  C[3] = C[1]!;
  C[6] = C[2]!;
  C[7] = C[5]!;
  addPriors(pose, C, g, own);
  solveSchur(pose, C, g, own);
}

function addPriors(pose: Pose, C: Float64Array, g: Float64Array, own: { A: number[]; r: number[] }[]) {
  // Each prior weighs as much as a residual of 0.15 over as many pixels as the contour has.
  const noise = 0.15 * 0.15 * 12;
  const aspect = noise / (ASPECT_SIGMA * ASPECT_SIGMA);
  const slant = noise / (SLANT_SIGMA * SLANT_SIGMA);
  C[0]! += 1;
  C[4]! += aspect;
  g[1]! -= aspect * log(pose.aspect);
  C[8]! += slant;
  g[2]! -= slant * pose.slant;
  const rise = noise / (RISE_SIGMA_EM * pose.scalePx) ** 2;
  own.forEach(({ A, r }, i) => {
    A[0]! += 0.02;
    A[2]! += rise;
    r[1]! -= rise * pose.parts[i]!.dyPx;
  });
}

function solveSchur(pose: Pose, C: Float64Array, g: Float64Array, own: { A: number[]; B: number[]; r: number[] }[]) {
  const inverses = own.map(({ A }) => {
    const det = A[0]! * A[2]! - A[1]! * A[1]! || 1e-9;
    return [A[2]! / det, -A[1]! / det, A[0]! / det] as const;
  });
  const S = Float64Array.from(C);
  const t = Float64Array.from(g);
  own.forEach(({ B, r }, i) => {
    const [p, q, s] = inverses[i]!;
    for (let a = 0; a < SHARED; a++) {
      const ux = p * B[a]! + q * B[3 + a]!;
      const uy = q * B[a]! + s * B[3 + a]!;
      for (let b = 0; b < SHARED; b++) S[a * SHARED + b]! -= ux * B[b]! + uy * B[3 + b]!;
      t[a]! -= ux * r[0]! + uy * r[1]!;
    }
  });
  const shared = solve3x3(S, t) ?? [0, 0, 0];
  const limit = (v: number, by: number) => max(-by, min(by, v));
  const [dScale, dAspect, dSlant] = [limit(shared[0]!, 0.06), limit(shared[1]!, 0.05), limit(shared[2]!, 0.06)];
  own.forEach(({ B, r }, i) => {
    const [p, q, s] = inverses[i]!;
    const rx = r[0]! - B[0]! * dScale - B[1]! * dAspect - B[2]! * dSlant;
    const ry = r[1]! - B[3]! * dScale - B[4]! * dAspect - B[5]! * dSlant;
    const reach = 0.05 * pose.scalePx;
    pose.parts[i]!.atPx += limit(p * rx + q * ry, reach);
    pose.parts[i]!.dyPx += limit(q * rx + s * ry, reach);
  });
  pose.scalePx *= exp(dScale);
  pose.aspect *= exp(dAspect);
  pose.slant += dSlant;
  // What all letters rise by together is the baseline's, not theirs.
  const rise = pose.parts.reduce((a, p) => a + p.dyPx, 0) / pose.parts.length;
  pose.baselinePx += rise;
  for (const p of pose.parts) p.dyPx -= rise;
}

function solve3x3(S: Float64Array, t: Float64Array): number[] | null {
  const [a, b, c, d, e, f, g, h, i] = S as unknown as number[];
  const det = a! * (e! * i! - f! * h!) - b! * (d! * i! - f! * g!) + c! * (d! * h! - e! * g!);
  if (!Number.isFinite(det) || abs(det) < 1e-12) return null;
  const [p, q, r] = t as unknown as number[];
  return [
    (p! * (e! * i! - f! * h!) - b! * (q! * i! - f! * r!) + c! * (q! * h! - e! * r!)) / det,
    (a! * (q! * i! - f! * r!) - p! * (d! * i! - f! * g!) + c! * (d! * r! - q! * g!)) / det,
    (a! * (e! * r! - q! * h!) - b! * (d! * r! - q! * g!) + p! * (d! * h! - e! * g!)) / det,
  ];
}
