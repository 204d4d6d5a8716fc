// Ink that is known roughly, made as sharp as the picture: about every pixel the colour of ink and that of its ground are told from what was known,
// and the pixel is as much ink as it lies between them.
import { sumInk, type InkPicture } from "../geometry/raster";
import type { RgbaPicture } from "./ink";

// Taken out of the global object once: the loops below call them millions of times.
const { max, min, round } = Math;

/** How far around colours are looked at, as a share of the height of letters, and how often. */
const REACH = 0.3;
const ROUNDS = 2;
/** Colours that differ by as much (0–255) are told apart half by the picture, half by what was known. */
const APART = 22;
/** What is farther from rough ink than this share of the height of letters is none. */
const NEAR = 0.06;
const NEAR_GAIN = 5;

/** @param rough - ink at the pixels of the picture, 0–1. @param heightPx - of its letters. */
export function sharpenInk(picture: RgbaPicture, rough: Float32Array, heightPx: number): InkPicture {
  const { widthPx: w, heightPx: h, rgba } = picture;
  const n = w * h;
  const reach = max(2, round(REACH * heightPx));
  const planes = [0, 1, 2].map((c) => Float32Array.from({ length: n }, (_, i) => rgba[4 * i + c]!));
  const near = meanAround(rough, w, h, max(1, round(NEAR * heightPx)));
  let ink = rough;
  for (let k = 0; k < ROUNDS; k++) {
    const asInk = ink.map((v) => v * v);
    const asGround = ink.map((v) => (1 - v) * (1 - v));
    const inks = meanColours(planes, asInk, w, h, reach);
    const grounds = meanColours(planes, asGround, w, h, reach);
    const next = new Float32Array(n);
    for (let i = 0; i < n; i++) {
      let [along, apart] = [0, 0];
      for (let c = 0; c < 3; c++) {
        const d = inks[c]![i]! - grounds[c]![i]!;
        along += (planes[c]![i]! - grounds[c]![i]!) * d;
        apart += d * d;
      }
      const trust = apart / (apart + APART * APART);
      const between = max(0, min(1, along / max(1e-3, apart)));
      next[i] = (trust * between + (1 - trust) * rough[i]!) * min(1, NEAR_GAIN * near[i]!);
    }
    ink = next;
  }
  return { widthPx: w, heightPx: h, ink };
}

/** Weighted mean colours about every pixel. @returns red, green and blue. */
function meanColours(planes: Float32Array[], weights: Float32Array, w: number, h: number, reach: number) {
  const total = meanAround(weights, w, h, reach);
  return planes.map((plane) => {
    const sum = meanAround(
      plane.map((v, i) => v * weights[i]!),
      w,
      h,
      reach,
    );
    return sum.map((v, i) => v / max(1e-4, total[i]!));
  });
}

/** Means over squares of 2 · reach + 1 pixels, or what of them lies in the picture. */
function meanAround(values: Float32Array, w: number, h: number, reach: number): Float32Array {
  const { sums } = sumInk({ widthPx: w, heightPx: h, ink: values });
  const out = new Float32Array(w * h);
  for (let y = 0, i = 0; y < h; y++) {
    const [y0, y1] = [max(0, y - reach), min(h, y + reach + 1)];
    const [above, below] = [y0 * (w + 1), y1 * (w + 1)];
    for (let x = 0; x < w; x++, i++) {
      const [x0, x1] = [max(0, x - reach), min(w, x + reach + 1)];
      const sum = sums[below + x1]! - sums[below + x0]! - sums[above + x1]! + sums[above + x0]!;
      out[i] = sum / ((x1 - x0) * (y1 - y0));
    }
  }
  return out;
}
