// Colours of a picture as the eye tells them apart, and what of it has one of them.
import { linearLight } from "../geometry/light";
import type { RgbaPicture } from "./ink";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, cbrt, floor, max, min, round, sqrt } = Math;

export type Lab = readonly [lightness: number, a: number, b: number];

/** Light counts less than hue: it changes over a surface. */
const LIGHT_WEIGHT = 0.6;
/** Letters and all else are at least so far from each other (CIE 1976 colour difference). */
const LEAST_SPAN = 4;

/** How near each pixel is to a colour of the letters rather than to another one. @returns null where all is of one colour. */
export function inkOfColours(
  framed: RgbaPicture,
  { letters, ground }: { letters: readonly Lab[]; ground: readonly Lab[] },
): Float32Array | null {
  const others = [...ground, ...otherColours(framed, letters)];
  if (!others.length) return null;
  return inkBetween(framed, letters, others);
}

/** How near each pixel is to some colours rather than to some others. */
export function inkBetween(picture: RgbaPicture, letters: readonly Lab[], others: readonly Lab[]): Float32Array {
  const { widthPx, heightPx, rgba } = picture;
  const ink = new Float32Array(widthPx * heightPx);
  for (let i = 0; i < ink.length; i++) {
    const c = labOf(rgba[4 * i]!, rgba[4 * i + 1]!, rgba[4 * i + 2]!);
    const other = nearest(others, c);
    ink[i] = soften(other / max(1e-3, nearest(letters, c) + other));
  }
  return ink;
}

/** Which of some colours a pixel is nearest to; −1 without any. */
export const nearestColour = (colours: readonly Lab[], rgba: Uint8Array, pixel: number): number =>
  indexOfNearest(colours, labOf(rgba[4 * pixel]!, rgba[4 * pixel + 1]!, rgba[4 * pixel + 2]!));

/** The main colours of a picture that are not those of the letters: the widest step away from these parts the two. */
function otherColours(framed: RgbaPicture, letters: readonly Lab[]): Lab[] {
  const ranked = mainColours(framed)
    .map((colour) => ({ colour, far: nearest(letters, colour) }))
    .sort((p, q) => p.far - q.far);
  let cut = 0;
  let widest = 0;
  ranked.forEach(({ far }, i) => {
    const step = (far + STEP_FLOOR) / ((ranked[i - 1]?.far ?? 0) + STEP_FLOOR);
    if (far > LEAST_SPAN && step > widest) [cut, widest] = [i, step];
  });
  return widest ? ranked.slice(cut).map((r) => r.colour) : [];
}
/** Steps between colours that hardly differ are none. */
const STEP_FLOOR = 6;

/** Means of the colours of even places (k-means, begun at colours far from each other). */
export function mainColours({ widthPx: w, heightPx: h, rgba }: RgbaPicture): Lab[] {
  const step = max(1, floor(Math.sqrt((w * h) / SEEN)));
  const at = (x: number, y: number) => 4 * (y * w + x);
  const off = (i: number, j: number) =>
    abs(rgba[i]! - rgba[j]!) + abs(rgba[i + 1]! - rgba[j + 1]!) + abs(rgba[i + 2]! - rgba[j + 2]!);
  const seen: Lab[] = [];
  for (let y = 1; y < h - 1; y += step)
    for (let x = 1; x < w - 1; x += step) {
      const i = at(x, y);
      // Edges are mixtures.
      if (off(at(x - 1, y), at(x + 1, y)) + off(at(x, y - 1), at(x, y + 1)) < EVEN)
        seen.push(labOf(rgba[i]!, rgba[i + 1]!, rgba[i + 2]!));
    }
  let means = farColours(seen);
  for (let round = 0; round < 6; round++) {
    const sums = means.map(() => [0, 0, 0, 0] as [number, number, number, number]);
    for (const c of seen) {
      const to = sums[indexOfNearest(means, c)]!;
      to[0] += c[0];
      to[1] += c[1];
      to[2] += c[2];
      to[3]++;
    }
    // What few places show is no main colour.
    means = sums.flatMap(([l, a, b, n]) => (n > FEW * seen.length ? [[l / n, a / n, b / n] as const] : []));
  }
  return means;
}

/** Colours as far from each other as may be, beginning with the first. */
function farColours(seen: readonly Lab[]): Lab[] {
  if (!seen[0]) return [];
  const means = [seen[0]];
  const far = seen.map((c) => difference(seen[0]!, c));
  while (means.length < COLOURS) {
    const next = far.reduce((best, d, i) => (d > far[best]! ? i : best), 0);
    if (far[next]! < LEAST_SPAN) break;
    means.push(seen[next]!);
    seen.forEach((c, i) => (far[i] = min(far[i]!, difference(seen[next]!, c))));
  }
  return means;
}

function indexOfNearest(colours: readonly Lab[], c: Lab): number {
  let [best, least] = [-1, Infinity];
  for (let k = 0; k < colours.length; k++) {
    const d = difference(colours[k]!, c);
    if (d < least) [best, least] = [k, d];
  }
  return best;
}
const SEEN = 6000;
const EVEN = 60;
const COLOURS = 8;
const FEW = 0.004;

function difference(p: Lab, q: Lab): number {
  const [l, a, b] = [LIGHT_WEIGHT * (p[0] - q[0]), p[1] - q[1], p[2] - q[2]];
  return sqrt(l * l + a * a + b * b);
}
const nearest = (colours: readonly Lab[], c: Lab) =>
  colours.reduce((least, p) => min(least, difference(p, c)), Infinity);

/** What is clearly one or the other is so fully. */
export const soften = (share: number) => min(1, max(0, 0.5 + 1.6 * (share - 0.5)));

/** Colour difference of each pixel to the nearest of some colours. */
export function distances({ widthPx, heightPx, rgba }: RgbaPicture, colours: readonly Lab[]): Float32Array {
  const out = new Float32Array(widthPx * heightPx);
  for (let i = 0; i < out.length; i++)
    out[i] = nearest(colours, labOf(rgba[4 * i]!, rgba[4 * i + 1]!, rgba[4 * i + 2]!));
  return out;
}

const LINEAR = Float32Array.from({ length: 256 }, (_, v) => linearLight(v));

/** The cube root that CIELAB takes of a share of the white's light, in steps. */
const ROOTS = Float32Array.from({ length: 4097 }, (_, i) => {
  const t = i / 4096;
  return t > 0.008_856 ? cbrt(t) : 7.787 * t + 16 / 116;
});
const rootOf = (t: number) => ROOTS[min(4096, round(t * 4096))]!;

/** CIELAB under D65 (CIE 15). */
export function labOf(r8: number, g8: number, b8: number): Lab {
  const [r, g, b] = [LINEAR[r8]!, LINEAR[g8]!, LINEAR[b8]!];
  const x = rootOf((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.950_47);
  const y = rootOf(0.2126 * r + 0.7152 * g + 0.0722 * b);
  const z = rootOf((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.088_83);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}
