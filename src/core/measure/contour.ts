// How contours turn: gentle or sharp (roundness), steady or restless (roughness), in pieces or whole.
import { clamp, median } from "../geometry/numbers";
import { areaOf } from "../geometry/outline";
import { pick, type Letter, type Letters } from "./letters";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, atan2, hypot, max } = Math;

const PROBE = "nHELThitaoesRkSdm";

/**
 * Roundness of ends and joins: of all turning in letters that have corners, the share made in gentle steps.
 * 0 = every corner sharp, 1 = no corner at all. Counted in letters of straight strokes, where a bowl cannot help.
 */
export function measureRoundness(letters: Letters): number | null {
  const shares = pick(letters, "HELTNIFMilkvxzt").map((l) => gentleShare(l, letters.em));
  const found = shares.filter((s): s is number => s !== null);
  return found.length < 3 ? null : median(found);
}

function gentleShare(letter: Letter, em: number): number | null {
  let gentle = 0;
  let all = 0;
  for (const p of letter.polygons) {
    const { fine, even } = turnsOf(p, em);
    // Corners: turns of more than 25° at one point of the finely flattened outline, or within a ninetieth of an em.
    let sharp = 0;
    for (const t of fine) if (abs(t) > 0.44) sharp += abs(t);
    const total = sumOfTurns(even);
    all += max(total, sharp);
    gentle += max(0, total - sharp);
  }
  return all > 1 ? clamp(gentle / all, 0, 1) : null;
}

/** Turns along a contour as it is, and at even steps of a ninetieth of an em: roundness and corners ask for the same. */
const turnsOfContours = new WeakMap<Float64Array, { fine: Float64Array; even: Float64Array }>();
function turnsOf(p: Float64Array, em: number) {
  let turns = turnsOfContours.get(p);
  if (!turns) turnsOfContours.set(p, (turns = { fine: turnings(p), even: turnings(resample(p, em / 90)) }));
  return turns;
}
function sumOfTurns(turns: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < turns.length; i++) sum += abs(turns[i]!);
  return sum;
}

/**
 * The same share for ends (corners that stick out of the ink) and for joins (corners that reach into it) alone.
 * @returns each 0–1; null where too few letters have such corners.
 */
export function measureCorners(letters: Letters): { ends: number | null; joins: number | null } {
  const found = pick(letters, "HELTNIFMilkvxzt").map((l) => cornerShares(l, letters.em));
  const middle = (key: "ends" | "joins") => {
    const values = found.map((f) => f[key]).filter((v): v is number => v !== null);
    return values.length < 3 ? null : median(values);
  };
  return { ends: middle("ends"), joins: middle("joins") };
}

function cornerShares(letter: Letter, em: number) {
  const areas = letter.polygons.map(areaOf);
  const way = Math.sign(areas.reduce((a, b) => (abs(b) > abs(a) ? b : a), 0)) || 1;
  const all = { ends: 0, joins: 0 };
  const sharp = { ends: 0, joins: 0 };
  for (const p of letter.polygons) {
    const { fine, even } = turnsOf(p, em);
    for (const t of fine) if (abs(t) > 0.44) sharp[t * way > 0 ? "ends" : "joins"] += abs(t);
    for (const t of even) all[t * way > 0 ? "ends" : "joins"] += abs(t);
  }
  const share = (key: "ends" | "joins") =>
    all[key] > 0.7 ? clamp((all[key] - sharp[key]) / max(all[key], sharp[key]), 0, 1) : null;
  return { ends: share("ends"), joins: share("joins") };
}

/**
 * Restlessness of the contour: turning beyond what the smoothed contour needs, per em of its length.
 * @returns 0–1: below 0.15 a drawn letter, above 0.5 a worn, torn or sketched one.
 */
export function measureRoughness(letters: Letters): number | null {
  const found = pick(letters, PROBE).map((l) => {
    let excess = 0;
    let length = 0;
    for (const p of l.polygons) {
      const ring = resample(p, letters.em / 120);
      if (ring.length < 24) {
        excess += 4;
        continue;
      }
      const raw = sumOfTurns(turnings(ring));
      const calm = sumOfTurns(turnings(smooth(ring, 4)));
      excess += max(0, raw - calm - 1.5);
      length += ring.length / 2 / 120;
    }
    return length ? excess / length : null;
  });
  const values = found.filter((v): v is number => v !== null);
  const m = median(values);
  return m === null ? null : clamp((m - 1) / 18, 0, 1);
}

/** Points at even distance along a closed polygon. */
export function resample(p: Float64Array, step: number): Float64Array {
  const out: number[] = [];
  let left = 0;
  const n = p.length / 2;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const [x0, y0, x1, y1] = [p[2 * i]!, p[2 * i + 1]!, p[2 * j]!, p[2 * j + 1]!];
    const length = hypot(x1 - x0, y1 - y0);
    let at = left;
    for (; at < length; at += step) out.push(x0 + ((x1 - x0) * at) / length, y0 + ((y1 - y0) * at) / length);
    left = at - length;
  }
  return Float64Array.from(out);
}

function smooth(p: Float64Array, reach: number): Float64Array {
  const n = p.length / 2;
  const out = new Float64Array(p.length);
  for (let i = 0; i < n; i++)
    for (let k = -reach; k <= reach; k++) {
      const j = (i + k + n * reach) % n;
      out[2 * i]! += p[2 * j]! / (2 * reach + 1);
      out[2 * i + 1]! += p[2 * j + 1]! / (2 * reach + 1);
    }
  return out;
}

/** Change of direction at each point, radians, −π to π. */
function turnings(p: Float64Array): Float64Array {
  const n = p.length / 2;
  const out = new Float64Array(n);
  let count = 0;
  let before = NaN;
  for (let i = 0; i <= n; i++) {
    const a = i === n ? 0 : i;
    const b = a + 1 === n ? 0 : a + 1;
    const dx = p[2 * b]! - p[2 * a]!;
    const dy = p[2 * b + 1]! - p[2 * a + 1]!;
    if (hypot(dx, dy) < 1e-9) continue;
    const angle = atan2(dy, dx);
    if (before === before) {
      let turn = angle - before;
      if (turn > Math.PI) turn -= 2 * Math.PI;
      if (turn < -Math.PI) turn += 2 * Math.PI;
      out[count++] = turn;
    }
    before = angle;
  }
  return out.subarray(0, count);
}
