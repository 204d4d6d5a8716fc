// A line seen from the side grows towards one end. How much is told by its rows: under the right taper letters stand in the sharpest ones.
import type { InkPicture } from "../geometry/raster";
import { pickInk, sharpnessOf } from "./rows";
import { mapRectangle, readInk, type Point } from "./straighten";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, max, min, round } = Math;

/** How letters grow from the middle of the line to its right end, as a share; and how its middle row rises there, in heights. */
type Taper = { growth: number; rise: number };

/** Points of ink that are looked at. */
const POINTS = 4500;
const MAX_GROWTH = 0.42;
const MAX_RISE = 0.3;
/** A growth under which the line is even, and what the sharpness of its rows must gain. */
const MIN_GROWTH = 0.05;
const MIN_GAIN = 1.05;

/** The taper of a level line. @returns null for an even one. */
export function findTaper(strip: InkPicture): Taper | null {
  const sharpness = rowsUnder(strip);
  // All there may be in broad rows, then what is about the best of them in fine ones.
  const begun = tapersAbout(EVEN, MAX_GROWTH, MAX_RISE, 0.04, 0.03)
    .map((taper) => ({ taper, value: sharpness(taper, BROAD_ROWS) }))
    .sort((p, q) => q.value - p.value)
    .slice(0, FOLLOWED);
  const even = sharpness(EVEN, FINE_ROWS);
  let [best, most] = [EVEN, even];
  for (const { taper } of begun)
    for (const near of tapersAbout(taper, 0.036, 0.027, 0.012, 0.009)) {
      const value = sharpness(near, FINE_ROWS);
      if (value > most) [best, most] = [near, value];
    }
  return abs(best.growth) >= MIN_GROWTH && most > MIN_GAIN * even ? best : null;
}

const EVEN: Taper = { growth: 0, rise: 0 };
/** Rows to a height of the strip, for a first and a second look; tapers that are looked at twice. */
const BROAD_ROWS = 26;
const FINE_ROWS = 40;
const FOLLOWED = 8;

function tapersAbout(middle: Taper, growthReach: number, riseReach: number, growthBy: number, riseBy: number): Taper[] {
  const list: Taper[] = [];
  for (let g = -growthReach; g <= growthReach + 1e-9; g += growthBy)
    for (let r = -riseReach; r <= riseReach + 1e-9; r += riseBy)
      list.push({ growth: middle.growth + g, rise: middle.rise + r });
  return list;
}

/** How sharp the rows of a strip are under a taper. */
function rowsUnder(strip: InkPicture): (taper: Taper, rows: number) => number {
  const { widthPx: w, heightPx: h } = strip;
  const { stepPx, xs, ys, vs } = pickInk(strip, 4 * POINTS);
  const us = xs.map((x) => (2 * (x + 0.5)) / w - 1);
  const bins = new Float64Array(4 * h + 4);
  const middle = us.reduce((sum, u) => sum + u, 0) / max(1, us.length);
  return ({ growth, rise }, rows) => {
    const rowPx = max(1, stepPx, h / rows);
    // The line as large as before, on the whole.
    const size = 1 + growth * middle;
    const rowOf = (i: number) => {
      const off = ys[i]! + 0.5 - h / 2 - rise * h * us[i]!;
      return ((off * size) / (1 + growth * us[i]!) + 2 * h) / rowPx;
    };
    return sharpnessOf(vs, rowOf, bins);
  };
}

/** The strip as seen from the front: what grew to one end is as large as at the other. */
export function evenInk(strip: InkPicture, { growth, rise }: Taper): InkPicture | null {
  const { widthPx: w, heightPx: h } = strip;
  const at = (u: number, v: number): Point => ({
    x: ((u + 1) / 2) * w,
    y: h / 2 + rise * h * u + v * (1 + growth * u),
  });
  // Room above and below for what the smaller end is enlarged by.
  const reach = (h / 2) * (1 + 2 * abs(growth));
  const corners = [at(-1, -reach), at(1, -reach), at(1, reach), at(-1, reach)];
  const [outW, outH] = [w, round(2 * reach)];
  const map = mapRectangle(corners, outW, outH);
  if (!map) return null;
  const ink = new Float32Array(outW * outH);
  for (let y = 0; y < outH; y++)
    for (let x = 0; x < outW; x++) {
      const from = map(x + 0.5, y + 0.5);
      ink[y * outW + x] = min(1, readInk(strip, from.x, from.y));
    }
  return { widthPx: outW, heightPx: outH, ink };
}
