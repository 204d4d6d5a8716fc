// Lettering along an arc, laid out straight: a person draws its baseline through three points, and what stands over it is read along it.
import type { RgbaPicture } from "./ink";
import { samplePicture, type Point } from "./straighten";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, atan2, cos, hypot, max, min, PI, round, sin } = Math;

/** A baseline that bulges less than this share of its length is straight. */
const STRAIGHT = 0.004;
/** How far lettering may reach over and under its baseline, and beyond its ends, as shares of the baseline's length. */
const OVER = 0.5;
const UNDER = 0.22;
const BEYOND = 0.06;
/** Towards the middle of the circle no further than this share of its radius: there nothing is left to spread. */
const INWARD = 0.85;

/** A point `along` the baseline (pixels from its first point) and `over` it. */
type Along = (along: number, over: number) => Point;

/**
 * @param through - three points of the baseline: where the lettering begins, about its middle, where it ends. Pixels.
 * @param limitPx - longest side of what is given back.
 * @returns the lettering on a straight baseline; null when the points are none of a baseline.
 */
export function unbendBaseline(picture: RgbaPicture, through: readonly Point[], limitPx: number): RgbaPicture | null {
  const bent = readArc(through);
  if (!bent) return null;
  const { lengthPx, mostOverPx, mostUnderPx, at } = bent;
  const [over, under] = [min(OVER * lengthPx, mostOverPx), min(UNDER * lengthPx, mostUnderPx)];
  const beyond = BEYOND * lengthPx;
  const [fullW, fullH] = [lengthPx + 2 * beyond, over + under];
  const shrink = min(1, limitPx / max(fullW, fullH));
  const [w, h] = [round(fullW * shrink), round(fullH * shrink)];
  if (w < 4 || h < 4) return null;
  return samplePicture(picture, w, h, (x, y) => at(x / shrink - beyond, over - y / shrink));
}

/** The circle through three points, or the line where they hardly bulge. */
function readArc(
  through: readonly Point[],
): { lengthPx: number; mostOverPx: number; mostUnderPx: number; at: Along } | null {
  const [p, q, r] = through;
  if (!p || !q || !r) return null;
  const chord = hypot(r.x - p.x, r.y - p.y);
  if (!(chord >= 4)) return null;
  // Twice the area of the triangle; positive where the middle hangs below the chord, y down.
  const cross = (r.x - p.x) * (q.y - p.y) - (r.y - p.y) * (q.x - p.x);
  const bulge = cross / chord;
  if (abs(bulge) < STRAIGHT * chord) {
    const [ux, uy] = [(r.x - p.x) / chord, (r.y - p.y) / chord];
    const at: Along = (along, over) => ({ x: p.x + ux * along + uy * over, y: p.y + uy * along - ux * over });
    return { lengthPx: chord, mostOverPx: Infinity, mostUnderPx: Infinity, at };
  }
  const [pp, qq, rr] = [p, q, r].map((v) => v.x * v.x + v.y * v.y) as [number, number, number];
  const d = 2 * (p.x * (q.y - r.y) + q.x * (r.y - p.y) + r.x * (p.y - q.y));
  const centre = {
    x: (pp * (q.y - r.y) + qq * (r.y - p.y) + rr * (p.y - q.y)) / d,
    y: (pp * (r.x - q.x) + qq * (p.x - r.x) + rr * (q.x - p.x)) / d,
  };
  const radius = hypot(p.x - centre.x, p.y - centre.y);
  const angle = (v: Point) => atan2(v.y - centre.y, v.x - centre.x);
  // An arch is gone through clockwise (its centre is below), a bowl the other way.
  const turn = bulge < 0 ? 1 : -1;
  const swept = (((turn * (angle(r) - angle(p))) % (2 * PI)) + 2 * PI) % (2 * PI);
  const begin = angle(p);
  const at: Along = (along, over) => {
    const a = begin + (turn * along) / radius;
    const reach = radius + turn * over;
    return { x: centre.x + reach * cos(a), y: centre.y + reach * sin(a) };
  };
  return {
    lengthPx: swept * radius,
    mostOverPx: turn > 0 ? Infinity : INWARD * radius,
    mostUnderPx: turn > 0 ? INWARD * radius : Infinity,
    at,
  };
}
