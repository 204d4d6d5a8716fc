// Ink as a person has told it: whether it is the dark or the light, what colours it has and has not, what was painted in and rubbed out.
import type { InkPicture } from "../geometry/raster";
import { findInk, otsu, type FoundInk, type RgbaPicture } from "./ink";
import { fillOutlines } from "./inks";
import type { Point } from "./straighten";

// Taken out of the global object once: the loops below call them millions of times.
const { cbrt, ceil, floor, hypot, max, min } = Math;

/** A stroke of a brush; pixels of the picture. */
export type BrushStroke = { rubsOut: boolean; radiusPx: number; points: readonly Point[] };
export type HandInk = {
  /** What of the picture the letters are; colours that were picked go before it. */
  letters: "found" | "dark" | "light" | "outlines";
  /** Places that show a colour of the letters, and places that show another one; pixels of the picture. */
  letterAt: readonly Point[];
  groundAt: readonly Point[];
  strokes: readonly BrushStroke[];
};

type Lab = readonly [number, number, number];

/** Pixels around a picked place that give its colour. */
const PICK_REACH_PX = 2;
/** Light counts less than hue: it changes over a surface. */
const LIGHT_WEIGHT = 0.6;
/** Letters and all else are at least so far from each other (CIE 1976 colour difference). */
const LEAST_SPAN = 4;

/** The colours at the picked places of a picture. */
export const pickColours = (picture: RgbaPicture, { letterAt, groundAt }: HandInk) => ({
  letters: letterAt.map((p) => colourAt(picture, p)),
  ground: groundAt.map((p) => colourAt(picture, p)),
});
type PickedColours = ReturnType<typeof pickColours>;

/**
 * @param colours - as picked from the picture before it was framed. @param strokes - of the same size as `framed`, or null.
 * @returns null where there is nothing of the kind.
 */
export function takeInk(
  framed: RgbaPicture,
  { letters }: HandInk,
  colours: PickedColours,
  strokes: RgbaPicture | null,
): FoundInk | null {
  const found = findInk(framed, letters === "dark" || letters === "light" ? letters : undefined);
  const ink = colours.letters.length
    ? inkOfColours(framed, colours)
    : colours.ground.length && found
      ? withoutColours(framed, found.ink, colours.ground)
      : letters === "outlines"
        ? found && fillOutlines(found)?.ink
        : found?.ink;
  if (!ink && !strokes) return null;
  const { widthPx, heightPx } = framed;
  const own = ink ? Float32Array.from(ink) : new Float32Array(widthPx * heightPx);
  if (strokes)
    for (let i = 0; i < own.length; i++)
      own[i] = max(own[i]!, strokes.rgba[4 * i]! / 255) * (1 - strokes.rgba[4 * i + 1]! / 255);
  const rest = found ?? { contrast: 1, noisy: false, residual: new Float32Array(3 * own.length) };
  return { ...rest, widthPx, heightPx, ink: own };
}

/** How near each pixel is to a colour of the letters rather than to another one. @returns null where all is of one colour. */
function inkOfColours(framed: RgbaPicture, { letters, ground }: PickedColours): Float32Array | null {
  const others = [...ground, ...otherColours(framed, letters)];
  if (!others.length) return null;
  const own = distances(framed, letters);
  const other = distances(framed, others);
  return own.map((d, i) => soften(other[i]! / max(1e-3, d + other[i]!)));
}

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
function mainColours({ widthPx: w, heightPx: h, rgba }: RgbaPicture): Lab[] {
  const step = max(1, floor(Math.sqrt((w * h) / SEEN)));
  const at = (x: number, y: number) => 4 * (y * w + x);
  const off = (i: number, j: number) => [0, 1, 2].reduce((sum, c) => sum + Math.abs(rgba[i + c]! - rgba[j + c]!), 0);
  const seen: Lab[] = [];
  for (let y = 1; y < h - 1; y += step)
    for (let x = 1; x < w - 1; x += step) {
      const i = at(x, y);
      // Edges are mixtures.
      if (off(at(x - 1, y), at(x + 1, y)) + off(at(x, y - 1), at(x, y + 1)) < EVEN)
        seen.push(labOf(rgba[i]!, rgba[i + 1]!, rgba[i + 2]!));
    }
  if (!seen.length) return [];
  let means: Lab[] = [seen[0]!];
  while (means.length < COLOURS) {
    const next = seen.reduce((a, b) => (nearest(means, b) > nearest(means, a) ? b : a));
    if (nearest(means, next) < LEAST_SPAN) break;
    means.push(next);
  }
  for (let round = 0; round < 6; round++) {
    const sums = means.map(() => [0, 0, 0, 0]);
    for (const c of seen) {
      const to = sums[means.reduce((best, m, k) => (difference(m, c) < difference(means[best]!, c) ? k : best), 0)]!;
      c.forEach((v, k) => (to[k]! += v));
      to[3]!++;
    }
    // What few places show is no main colour.
    means = sums.flatMap(([l, a, b, n]) => (n! > FEW * seen.length ? [[l! / n!, a! / n!, b! / n!] as const] : []));
  }
  return means;
}
const SEEN = 6000;
const EVEN = 60;
const COLOURS = 8;
const FEW = 0.004;

const difference = (p: Lab, q: Lab) => hypot(LIGHT_WEIGHT * (p[0] - q[0]), p[1] - q[1], p[2] - q[2]);
const nearest = (colours: readonly Lab[], c: Lab) =>
  colours.reduce((least, p) => min(least, difference(p, c)), Infinity);

function withoutColours(framed: RgbaPicture, ink: Float32Array, ground: readonly Lab[]): Float32Array {
  const far = distances(framed, ground);
  const limit = otsu(far);
  return ink.map((v, i) => min(v, soften(far[i]! / max(1e-3, 2 * limit))));
}

/** What is clearly one or the other is so fully. */
const soften = (share: number) => min(1, max(0, 0.5 + 1.6 * (share - 0.5)));

/** Colour difference of each pixel to the nearest of some colours. */
function distances({ widthPx, heightPx, rgba }: RgbaPicture, colours: readonly Lab[]): Float32Array {
  const out = new Float32Array(widthPx * heightPx);
  for (let i = 0; i < out.length; i++)
    out[i] = nearest(colours, labOf(rgba[4 * i]!, rgba[4 * i + 1]!, rgba[4 * i + 2]!));
  return out;
}

function colourAt({ widthPx, heightPx, rgba }: RgbaPicture, { x, y }: Point): Lab {
  const [cx, cy] = [min(widthPx - 1, max(0, floor(x))), min(heightPx - 1, max(0, floor(y)))];
  const channels: [number[], number[], number[]] = [[], [], []];
  for (let j = max(0, cy - PICK_REACH_PX); j <= min(heightPx - 1, cy + PICK_REACH_PX); j++)
    for (let i = max(0, cx - PICK_REACH_PX); i <= min(widthPx - 1, cx + PICK_REACH_PX); i++)
      channels.forEach((list, c) => list.push(rgba[4 * (j * widthPx + i) + c]!));
  const middle = (list: number[]) => list.sort((p, q) => p - q)[list.length >> 1]!;
  return labOf(middle(channels[0]), middle(channels[1]), middle(channels[2]));
}

/** Linear light of an 8-bit sRGB value (IEC 61966-2-1). */
const LINEAR = Float32Array.from({ length: 256 }, (_, v) => {
  const s = v / 255;
  return s <= 0.040_45 ? s / 12.92 : ((s + 0.055) / 1.055) ** 2.4;
});

/** CIELAB under D65 (CIE 15). */
function labOf(r8: number, g8: number, b8: number): Lab {
  const [r, g, b] = [LINEAR[r8]!, LINEAR[g8]!, LINEAR[b8]!];
  const f = (t: number) => (t > 0.008_856 ? cbrt(t) : 7.787 * t + 16 / 116);
  const x = f((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.950_47);
  const y = f(0.2126 * r + 0.7152 * g + 0.0722 * b);
  const z = f((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.088_83);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/** Strokes as a picture of their own, to be framed like the other: painted in stands in red, rubbed out in green; the later wins. */
export function drawStrokes(
  strokes: readonly BrushStroke[],
  { widthPx, heightPx }: Pick<InkPicture, "widthPx" | "heightPx">,
): RgbaPicture {
  const picture = { widthPx, heightPx, rgba: new Uint8Array(4 * widthPx * heightPx) };
  for (const stroke of strokes)
    stroke.points.forEach((to, i) => drawStretch(picture, stroke, stroke.points[max(0, i - 1)]!, to));
  return picture;
}

/** What lies within the brush's radius of the way from one point to the next. */
function drawStretch({ widthPx: w, heightPx: h, rgba }: RgbaPicture, brush: BrushStroke, from: Point, to: Point) {
  const { radiusPx, rubsOut } = brush;
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const square = dx * dx + dy * dy || 1;
  const [own, other] = rubsOut ? [1, 0] : [0, 1];
  for (let y = max(0, floor(min(from.y, to.y) - radiusPx)); y < min(h, ceil(max(from.y, to.y) + radiusPx)); y++)
    for (let x = max(0, floor(min(from.x, to.x) - radiusPx)); x < min(w, ceil(max(from.x, to.x) + radiusPx)); x++) {
      const [px, py] = [x + 0.5 - from.x, y + 0.5 - from.y];
      const t = min(1, max(0, (px * dx + py * dy) / square));
      if (hypot(px - t * dx, py - t * dy) > radiusPx) continue;
      rgba[4 * (y * w + x) + own] = 255;
      rgba[4 * (y * w + x) + other] = 0;
    }
}
