// Stress: where the thin places of round letters lie, from which the trade tells old book faces from later ones.
import { median } from "../geometry/numbers";
import { spansAlong } from "../geometry/rays";
import { pick, type Letters } from "./letters";

const { atan2, cos, hypot, sin, tan } = Math;
const DIRECTIONS = 36;
/** Below this share of second harmonic a ring is of one thickness and has no stress. */
const MIN_SWING = 0.05;

/**
 * Lean of the axis through the thinnest places of o, O and Q: the phase of thickness over direction.
 * @param slantDeg - taken off, so that italics compare with their uprights.
 * @returns degrees, positive leaning left (as a broad pen gives), near 0 upright, beyond ±45 where horizontal strokes are the thick ones; null for rings of even thickness.
 */
export function measureStress(letters: Letters, slantDeg: number): number | null {
  const shear = tan((slantDeg * Math.PI) / 180);
  const found: number[] = [];
  for (const l of pick(letters, "oOQbdp")) {
    if ("bdp".includes(l.char) && found.length >= 2) break;
    const cx = (l.bounds.xMin + l.bounds.xMax) / 2;
    const cy = (l.bounds.yMin + l.bounds.yMax) / 2;
    let [re, im, sum, n] = [0, 0, 0, 0];
    for (let i = 0; i < DIRECTIONS; i++) {
      const angle = (i / DIRECTIONS) * 2 * Math.PI;
      // The direction as it is in the slanted letter, thickness told in the upright one.
      const [dx, dy] = [cos(angle) + shear * sin(angle), sin(angle)];
      const first = spansAlong(l.polygons, cx, cy, atan2(dy, dx))[0];
      if (!first || first.from <= 0) continue;
      const thick = (first.to - first.from) / hypot(dx, dy);
      re += thick * cos(2 * angle);
      im += thick * sin(2 * angle);
      sum += thick;
      n++;
    }
    if (n < 28 || hypot(re, im) / sum < MIN_SWING) continue;
    // Thickest at `phase` from the horizontal; the thin axis stands upright on it.
    found.push(((atan2(im, re) / 2) * 180) / Math.PI);
  }
  return median(found);
}
