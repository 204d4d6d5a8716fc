// How sharply a line's ink stands in rows, under any hypothesis of where its rows run: letters stand on one line and end at a few.
import type { InkPicture } from "../geometry/raster";

// Taken out of the global object once: the loops below call them millions of times.
const { floor, max, sqrt } = Math;

/** Points of ink, about evenly spread: places in pixels and how much ink each has. */
export type InkPoints = { stepPx: number; xs: number[]; ys: number[]; vs: number[] };

/** @param most - points of the whole picture that are looked at, about. */
export function pickInk({ widthPx, heightPx, ink }: InkPicture, most: number): InkPoints {
  const stepPx = max(1, floor(sqrt((widthPx * heightPx) / most)));
  const xs: number[] = [];
  const ys: number[] = [];
  const vs: number[] = [];
  for (let y = 0; y < heightPx; y += stepPx)
    for (let x = 0; x < widthPx; x += stepPx) {
      const v = ink[y * widthPx + x]!;
      if (v > 0.3) {
        xs.push(x);
        ys.push(y);
        vs.push(v);
      }
    }
  return { stepPx, xs, ys, vs };
}

/**
 * @param rowOf - the row of the nth point, in rows, not whole. @param rows - how many there are; a scratch array as long.
 * @returns sum of the squared differences of neighbouring rows.
 */
export function sharpnessOf(vs: readonly number[], rowOf: (i: number) => number, rows: Float64Array): number {
  rows.fill(0);
  for (let i = 0; i < vs.length; i++) {
    const at = rowOf(i);
    const low = floor(at);
    if (low < 0 || low + 1 >= rows.length) continue;
    rows[low]! += vs[i]! * (1 - at + low);
    rows[low + 1]! += vs[i]! * (at - low);
  }
  let sum = 0;
  for (let i = 1; i < rows.length; i++) sum += (rows[i]! - rows[i - 1]!) ** 2;
  return sum;
}
