// The lean of a face and the stems that follow it, from the directions of contour edges: holds for scripts too, whose
// letters begin with hairlines that are no stems.
import type { Polygons } from "../geometry/outline";
import { median } from "../geometry/numbers";
import { spansAtY } from "../geometry/rays";
import { resample } from "./contour";
import { pick, type Letter, type Letters } from "./letters";

const { abs, atan2, hypot, max, min, exp, cos, floor } = Math;

/** Letters with at least one straight downstroke. */
const STRAIGHT = "hnmrlikbpudtjHIEFLTDBPRN";
/** Directions further than this from upright are no downstrokes. */
const MAX_DEG = 48;
const STEP_DEG = 0.5;
const KERNEL_DEG = 1.2;

/**
 * The direction in which most contour length runs, among edges near the upright.
 * @returns degrees from the upright, positive leaning right, and the share of near-upright length within 2.5° of it;
 *   null when the letters have no such edges.
 */
export function measureLean(letters: Letters): { leanDeg: number; share: number } | null {
  const lower = pick(letters, STRAIGHT.slice(0, 14));
  const used = lower.length >= 5 ? lower : pick(letters, STRAIGHT);
  const sharp = readLean(used.flatMap((l) => edgesOf(l.polygons)));
  if (sharp && sharp.share >= TORN_SHARE) return sharp;
  // Torn edges run every way: chords across the teeth keep the direction.
  return readLean(used.flatMap((l) => chordsOf(l, letters.em)));
}

/** The same of any letters, of whatever script. */
export const leanOf = (letters: readonly Polygons[]) => readLean(letters.flatMap(edgesOf));

/** Below this share edges are torn. */
const TORN_SHARE = 0.2;
const CHORD_EM = 0.16;

type Edge = { deg: number; length: number };

function readLean(edges: Edge[]): { leanDeg: number; share: number } | null {
  const total = edges.reduce((s, e) => s + e.length, 0);
  if (!total) return null;
  const bins = new Float64Array(floor((2 * MAX_DEG) / STEP_DEG) + 1);
  for (const e of edges)
    for (let k = -6; k <= 6; k++) {
      const at = floor((e.deg + MAX_DEG) / STEP_DEG + 0.5) + k;
      const off = at * STEP_DEG - MAX_DEG - e.deg;
      if (at >= 0 && at < bins.length) bins[at]! += e.length * exp(-0.5 * (off / KERNEL_DEG) ** 2);
    }
  const best = bins.indexOf(max(...bins)) * STEP_DEG - MAX_DEG;
  const near = edges.filter((e) => abs(e.deg - best) <= 2.5);
  const weight = near.reduce((s, e) => s + e.length, 0);
  if (!weight) return null;
  return { leanDeg: near.reduce((s, e) => s + e.deg * e.length, 0) / weight, share: weight / total };
}

/** Near-upright edges of a letter with their length and lean. Very short ones, of curves, count by their length alone. */
function edgesOf(polygons: Polygons): Edge[] {
  const out: Edge[] = [];
  for (const p of polygons)
    for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) addEdge(out, p[i]! - p[j]!, p[i + 1]! - p[j + 1]!);
  return out;
}

function chordsOf(letter: Letter, em: number): Edge[] {
  const out: Edge[] = [];
  for (const p of letter.polygons) {
    const ring = resample(p, em / 100);
    const n = ring.length / 2;
    const reach = Math.round(CHORD_EM * 100);
    if (n < 3 * reach) continue;
    for (let i = 0; i < n; i++) {
      const j = (i + reach) % n;
      const [dx, dy] = [ring[2 * j]! - ring[2 * i]!, ring[2 * j + 1]! - ring[2 * i + 1]!];
      // A chord as long as its arc follows a straight edge; a shorter one cuts a corner.
      if (hypot(dx, dy) > 0.8 * CHORD_EM * em) addEdge(out, dx, dy);
    }
  }
  return out;
}

function addEdge(out: Edge[], dx: number, dy: number) {
  const length = hypot(dx, dy);
  const deg = (atan2(dy < 0 ? -dx : dx, abs(dy)) * 180) / Math.PI;
  if (length > 0 && abs(deg) <= MAX_DEG) out.push({ deg, length });
}

/**
 * Lean of the first strokes of capitals, which are straight where small italic letters swing.
 * @returns degrees, positive leaning right; null when fewer than five capitals have such a stroke or they disagree.
 */
export function measureCapitalLean(letters: Letters): number | null {
  const found = pick(letters, "HIEFLTDBPRN")
    .map(leanOfFirstStroke)
    .filter((v): v is number => v !== null);
  if (found.length < 5) return null;
  const middle = median(found)!;
  return median(found.map((v) => abs(v - middle)))! < 1 ? middle : null;
}

/** Theil–Sen line through the middles of the first stroke over the middle three fifths of the letter. */
function leanOfFirstStroke({ polygons, bounds }: Letter): number | null {
  const height = bounds.yMax - bounds.yMin;
  const found = Array.from({ length: 25 }, (_, k) => bounds.yMin + height * (0.2 + (0.6 * k) / 24)).flatMap((y) => {
    const first = spansAtY(polygons, y)[0];
    return first ? [{ y, middle: (first.from + first.to) / 2, width: first.to - first.from }] : [];
  });
  if (found.length < 20) return null;
  const usual = median(found.map((f) => f.width))!;
  const steady = found.filter((f) => abs(f.width - usual) < 0.15 * usual + 2);
  if (steady.length < 9) return null;
  const slopes: number[] = [];
  for (let i = 0; i < steady.length; i++)
    for (let j = i + 4; j < steady.length; j++)
      slopes.push((steady[j]!.middle - steady[i]!.middle) / (steady[j]!.y - steady[i]!.y));
  return slopes.length ? (Math.atan(median(slopes)!) * 180) / Math.PI : null;
}

type Crossing = { x: number; deg: number; winding: number };

/**
 * Thickness of stems that lean as the face does: spans of ink whose both edges run along the lean.
 * @returns font units, across the stem; null when fewer than five such places exist.
 */
export function measureLeaningStem(letters: Letters, leanDeg: number): number | null {
  const tops = median(pick(letters, "nuxaeo").map((l) => l.bounds.yMax)) ?? letters.em * 0.5;
  const widths: number[] = [];
  for (const l of pick(letters, "hnmrlikbpudt"))
    for (let k = 0; k < 12; k++) {
      const y = tops * (0.2 + 0.05 * k);
      for (const [a, b] of inkPairs(l, y))
        if (abs(a.deg - leanDeg) < 4 && abs(b.deg - leanDeg) < 4 && b.x - a.x < tops)
          widths.push((b.x - a.x) * cos((leanDeg * Math.PI) / 180));
    }
  return widths.length < 5 ? null : densest(widths);
}

/** Entry and exit of each stretch of ink along a horizontal ray, with the direction of the edges there. */
function inkPairs(letter: Letter, y: number): [Crossing, Crossing][] {
  const found: Crossing[] = [];
  for (const p of letter.polygons)
    for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) {
      const [x0, y0, x1, y1] = [p[j]!, p[j + 1]!, p[i]!, p[i + 1]!];
      if (y0 <= y === y1 <= y) continue;
      const deg = (atan2((x1 - x0) * (y1 > y0 ? 1 : -1), abs(y1 - y0)) * 180) / Math.PI;
      found.push({ x: x0 + ((y - y0) / (y1 - y0)) * (x1 - x0), deg, winding: y1 > y0 ? 1 : -1 });
    }
  found.sort((a, b) => a.x - b.x);
  const pairs: [Crossing, Crossing][] = [];
  let winding = 0;
  let enter: Crossing | null = null;
  for (const c of found) {
    const before = winding;
    winding += c.winding;
    if (!before && winding) enter = c;
    else if (before && !winding && enter) pairs.push([enter, c]);
  }
  return pairs;
}

/** Middle of the values where they lie closest together: within 6 % of one another. */
export function densest(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  let [from, most] = [0, 0];
  for (let i = 0, j = 0; i < sorted.length; i++) {
    while (j < sorted.length && sorted[j]! <= sorted[i]! * 1.06) j++;
    if (j - i > most) [from, most] = [i, j - i];
  }
  return median(sorted.slice(from, min(sorted.length, from + most)))!;
}
