// A line seen from the side grows towards one end, one around a mug is bowed. How much is told by its rows: under the right taper letters stand in
// the sharpest ones.
import type { InkPicture } from "../geometry/raster";
import { pickInk, type InkPoints } from "./rows";
import { mapRectangle, readInk, type Point } from "./straighten";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, cos, floor, max, min, round, sin } = Math;

/**
 * How letters grow from the middle of the line to its right end, as a share; how its middle row falls there, and how much lower both ends lie than the
 * middle, in heights of the strip.
 */
export type Taper = { growth: number; rise: number; bow: number };

/** Places that are looked at, about a quarter of them ink; points of ink that are moved under each taper, and at first under all there may be. */
const POINTS = 4500;
const INKED_POINTS = 1800;
const ROUGHLY_POINTS = 900;
const MAX_GROWTH = 0.6;
const MAX_RISE = 0.3;
const MAX_BOW = 0.66;
/** A growth and a bow under which the line is even, and what the sharpness of its rows must gain. */
const MIN_GROWTH = 0.05;
const MIN_BOW = 0.05;
const MIN_GAIN = 1.05;

/** The taper of a level line. @returns null for an even one. */
export function findTaper(strip: InkPicture): Taper | null {
  const ink = pickInk(strip, 4 * POINTS);
  const sharpness = rowsUnder(strip, ink, INKED_POINTS);
  const roughly = rowsUnder(strip, ink, ROUGHLY_POINTS);
  // All there may be in broad rows, then what is about the best of them in fine ones.
  const begun = sharpest(tapersAbout(EVEN, MAX_GROWTH, MAX_RISE, 0.04, 0.03), (taper) => roughly(taper, BROAD_ROWS));
  const even = sharpness(EVEN, FINE_ROWS);
  let [best, most] = [EVEN, even];
  for (const taper of begun)
    for (const near of tapersAbout(taper, 0.036, 0.027, 0.012, 0.009)) {
      const value = sharpness(near, FINE_ROWS);
      if (value > most) [best, most] = [near, value];
    }
  for (const taper of sharpest(bowsAbout(best), (taper) => roughly(taper, FINE_ROWS))) {
    const value = sharpness(taper, FINE_ROWS);
    if (value > MIN_GAIN * most) [best, most] = [taper, value];
  }
  if (best.bow) [best, most] = refine(best, most, sharpness);
  const isBent = abs(best.growth) >= MIN_GROWTH || isBowed(best);
  return isBent && most > MIN_GAIN * even ? best : null;
}

/** Those tapers under which rows are sharpest. */
const sharpest = (tapers: Taper[], by: (taper: Taper) => number) =>
  tapers
    .map((taper) => ({ taper, value: by(taper) }))
    .sort((p, q) => q.value - p.value)
    .slice(0, FOLLOWED)
    .map(({ taper }) => taper);

/** Bows that are looked at, upright or leaning to one end, with the growth that was found or none. */
function bowsAbout({ growth, rise }: Taper): Taper[] {
  const list: Taper[] = [];
  for (let bow = -MAX_BOW; bow <= MAX_BOW + 1e-9; bow += 0.0825)
    for (let r = -0.24; r <= 0.24 + 1e-9; r += 0.08)
      for (const own of growth ? [0, growth] : [0]) list.push({ growth: own, rise: (own && rise) + r, bow });
  return list;
}

/** Each of the three by ever smaller steps, for as long as rows get sharper. */
function refine(begun: Taper, value: number, sharpness: (taper: Taper, rows: number) => number): [Taper, number] {
  let [best, most] = [begun, value];
  for (const by of [0.03, 0.015, 0.008])
    for (let round = 0; round < 3; round++)
      for (const side of ["bow", "rise", "growth"] as const)
        for (const step of [-by, by]) {
          const near = { ...best, [side]: best[side] + step };
          const sharp = abs(near.growth) > MAX_GROWTH ? 0 : sharpness(near, FINE_ROWS);
          if (sharp > most) [best, most] = [near, sharp];
        }
  return [best, most];
}

/** Whether a line is bowed, beside what growing towards one end may look like. */
export const isBowed = ({ bow }: Taper) => abs(bow) >= MIN_BOW;
const EVEN: Taper = { growth: 0, rise: 0, bow: 0 };
/** Rows to a height of the strip, for a first and a second look; tapers that are looked at twice. */
const BROAD_ROWS = 26;
const FINE_ROWS = 40;
const FOLLOWED = 8;

function tapersAbout(middle: Taper, growthReach: number, riseReach: number, growthBy: number, riseBy: number): Taper[] {
  const list: Taper[] = [];
  for (let g = -growthReach; g <= growthReach + 1e-9; g += growthBy)
    for (let r = -riseReach; r <= riseReach + 1e-9; r += riseBy)
      list.push({ ...middle, growth: middle.growth + g, rise: middle.rise + r });
  return list;
}

/** How sharp the rows of a strip are under a taper. @param points - of its ink so many are moved, about. */
function rowsUnder(
  { widthPx: w, heightPx: h }: InkPicture,
  { stepPx, xs, ys, vs }: InkPoints,
  points: number,
): (taper: Taper, rows: number) => number {
  // Fewer of them tell as much: some thousand tapers are tried.
  const every = max(1, floor(xs.length / points));
  const n = ceil(xs.length / every);
  const us = Float64Array.from({ length: n }, (_, i) => (2 * (xs[i * every]! + 0.5)) / w - 1);
  const offs = Float64Array.from({ length: n }, (_, i) => ys[i * every]! + 0.5 - h / 2);
  const inks = Float64Array.from({ length: n }, (_, i) => vs[i * every]!);
  const bins = new Float64Array(4 * h + 4);
  const middle = us.reduce((sum, u) => sum + u, 0) / max(1, n);
  return ({ growth, rise, bow }, rows) => {
    const rowPx = max(1, stepPx, h / rows);
    const used = bins.subarray(0, min(bins.length, ceil((4 * h) / rowPx) + 2));
    used.fill(0);
    // The line as large as before, on the whole.
    const size = 1 + growth * middle;
    for (let i = 0; i < n; i++) {
      const u = us[i]!;
      const off = offs[i]! - h * u * (rise + bow * u);
      const at = ((off * size) / (1 + growth * u) + 2 * h) / rowPx;
      const low = floor(at);
      if (low < 0 || low + 1 >= used.length) continue;
      used[low]! += inks[i]! * (1 - at + low);
      used[low + 1]! += inks[i]! * (at - low);
    }
    return steps(used);
  };
}

/** Sum of the squared differences of neighbouring rows. */
function steps(rows: Float64Array): number {
  let sum = 0;
  for (let i = 1; i < rows.length; i++) {
    const step = rows[i]! - rows[i - 1]!;
    sum += step * step;
  }
  return sum;
}

/** The strip as seen from the front: what grew to one end is as large as at the other. */
export function evenInk(strip: InkPicture, { growth, rise, bow }: Taper): InkPicture | null {
  const { widthPx: w, heightPx: h } = strip;
  const at = (u: number, v: number): Point => ({
    x: ((u + 1) / 2) * w,
    y: h / 2 + rise * h * u + v * (1 + growth * u),
  });
  // Room above and below for what the smaller end is enlarged by.
  const reach = (h / 2) * (1 + 2 * abs(growth)) + h * abs(bow);
  const corners = [at(-1, -reach), at(1, -reach), at(1, reach), at(-1, reach)];
  const [outW, outH] = [w, round(2 * reach)];
  const map = mapRectangle(corners, outW, outH);
  if (!map) return null;
  const ink = new Float32Array(outW * outH);
  for (let y = 0; y < outH; y++)
    for (let x = 0; x < outW; x++) {
      const from = map(x + 0.5, y + 0.5);
      const u = (2 * from.x) / w - 1;
      ink[y * outW + x] = min(1, readInk(strip, from.x, from.y + bow * h * u * u));
    }
  return { widthPx: outW, heightPx: outH, ink };
}

/** What a column shows: the place along the strip, −1 to 1, and how large it stands there. */
type Column = { at: number; size: number };

/** The strip drawn again with columns from elsewhere. @param from - for a place along it, −1 to 1, what it shows. */
function moveColumns(strip: InkPicture, outW: number, from: (u: number) => Column): InkPicture {
  const { widthPx: w, heightPx: h } = strip;
  const ink = new Float32Array(outW * h);
  for (let x = 0; x < outW; x++) {
    const { at, size } = from((2 * (x + 0.5)) / outW - 1);
    const fromX = ((at + 1) / 2) * w;
    for (let y = 0; y < h; y++) ink[y * outW + x] = readInk(strip, fromX, h / 2 + (y + 0.5 - h / 2) * size);
  }
  return { widthPx: outW, heightPx: h, ink };
}

/** What was seen from the side is as wide again as from the front. @param by - 1 and more. */
export const stretchInk = (strip: InkPicture, by: number): InkPicture =>
  moveColumns(strip, round(strip.widthPx * by), (u) => ({ at: u, size: 1 }));

/** From where a cylinder is seen, in its radii: mugs and bottles are seen from about here, and it makes little difference. */
const FAR_RADII = 6;

/** How a line stands on a cylinder: half of what it takes of it, and how far its middle stands from where it is nearest to the eye. */
export type Round = { arcRad: number; turnRad: number };

/** What stands around a cylinder, rolled out. */
export function unrollInk(strip: InkPicture, { arcRad, turnRad }: Round): InkPicture {
  const awayAt = (rad: number) => FAR_RADII - cos(rad);
  const seenAt = (rad: number) => sin(rad) / awayAt(rad);
  const [from, to] = [seenAt(turnRad - arcRad), seenAt(turnRad + arcRad)];
  // As wide as its letters are high, at its middle.
  const outW = round((2 * arcRad * strip.widthPx) / ((to - from) * awayAt(turnRad)));
  return moveColumns(strip, outW, (u) => {
    const rad = turnRad + arcRad * u;
    return { at: (2 * (seenAt(rad) - from)) / (to - from) - 1, size: awayAt(turnRad) / awayAt(rad) };
  });
}
