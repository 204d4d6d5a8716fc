// Turns, cuts and scales pictures: corners to a rectangle, a sloping line level, ink to a working height.
import { solveLinear } from "../geometry/linear";
import type { InkPicture } from "../geometry/raster";
import type { RgbaPicture } from "./ink";
import { pickInk, sharpnessOf } from "./rows";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, floor, hypot, max, min, round, tan } = Math;

export type Point = { x: number; y: number };

/**
 * Straightens four corners (clockwise from the top left) to a rectangle of their mean side lengths.
 * @returns the rectangle's picture, at most `limitPx` on its longer side; null when the corners do not span an area.
 */
export function straightenCorners(picture: RgbaPicture, corners: Point[], limitPx: number): RgbaPicture | null {
  const [p, q, r, s] = corners as [Point, Point, Point, Point];
  const side = (a: Point, b: Point) => hypot(a.x - b.x, a.y - b.y);
  const fullW = (side(p, q) + side(s, r)) / 2;
  const fullH = (side(p, s) + side(q, r)) / 2;
  if (fullW < 4 || fullH < 4) return null;
  const shrink = min(1, limitPx / max(fullW, fullH));
  const w = round(fullW * shrink);
  const h = round(fullH * shrink);
  const map = mapRectangle(corners, w, h);
  return map && samplePicture(picture, w, h, map);
}

/** The map of a rectangle, w × h from the origin, onto four corners as perspective lays it. @returns null when they span no area. */
export function mapRectangle(
  corners: readonly Point[],
  w: number,
  h: number,
): ((x: number, y: number) => Point) | null {
  const [p, q, r, s] = corners as [Point, Point, Point, Point];
  const rows: number[][] = [];
  for (const [u, v, to] of [
    [0, 0, p],
    [w, 0, q],
    [w, h, r],
    [0, h, s],
  ] as const) {
    rows.push([u, v, 1, 0, 0, 0, -u * to.x, -v * to.x, to.x]);
    rows.push([0, 0, 0, u, v, 1, -u * to.y, -v * to.y, to.y]);
  }
  const m = solveLinear(rows);
  if (!m) return null;
  return (x, y) => {
    const k = m[6]! * x + m[7]! * y + 1;
    return { x: (m[0]! * x + m[1]! * y + m[2]!) / k, y: (m[3]! * x + m[4]! * y + m[5]!) / k };
  };
}

/** A picture of another, opaque. @param from - for the middle of a pixel, the place in the other that it shows. */
export function samplePicture(
  picture: RgbaPicture,
  widthPx: number,
  heightPx: number,
  from: (x: number, y: number) => Point,
): RgbaPicture {
  const rgba = new Uint8Array(4 * widthPx * heightPx);
  for (let y = 0; y < heightPx; y++)
    for (let x = 0; x < widthPx; x++) {
      const at = from(x + 0.5, y + 0.5);
      const to = 4 * (y * widthPx + x);
      for (let c = 0; c < 3; c++) rgba[to + c] = sampleChannel(picture, at.x - 0.5, at.y - 0.5, c);
      rgba[to + 3] = 255;
    }
  return { widthPx, heightPx, rgba };
}

/** A channel between four pixels; outside, what stands at the border. */
function sampleChannel({ widthPx: w, heightPx: h, rgba }: RgbaPicture, x: number, y: number, c: number): number {
  const cx = min(max(x, 0), w - 1);
  const cy = min(max(y, 0), h - 1);
  const x0 = min(floor(cx), max(0, w - 2));
  const y0 = min(floor(cy), max(0, h - 2));
  const fx = cx - x0;
  const fy = cy - y0;
  const at = (i: number, j: number) => rgba[4 * (min(j, h - 1) * w + min(i, w - 1)) + c]!;
  return (
    at(x0, y0) * (1 - fx) * (1 - fy) +
    at(x0 + 1, y0) * fx * (1 - fy) +
    at(x0, y0 + 1) * (1 - fx) * fy +
    at(x0 + 1, y0 + 1) * fx * fy
  );
}

/** A part of a picture, drawn again in so many pixels: averaged where it shrinks, between pixels where it grows. Opaque. */
export function sampleArea(picture: RgbaPicture, part: CutBox, widthPx: number, heightPx: number): RgbaPicture {
  const [byX, byY] = [(part.right - part.left) / widthPx, (part.bottom - part.top) / heightPx];
  const [countX, countY] = [max(1, ceil(byX)), max(1, ceil(byY))];
  const rgba = new Uint8Array(4 * widthPx * heightPx);
  for (let y = 0; y < heightPx; y++)
    for (let x = 0; x < widthPx; x++) {
      const to = 4 * (y * widthPx + x);
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (let j = 0; j < countY; j++)
          for (let i = 0; i < countX; i++) {
            const fromX = part.left + (x + (i + 0.5) / countX) * byX - 0.5;
            sum += sampleChannel(picture, fromX, part.top + (y + (j + 0.5) / countY) * byY - 0.5, c);
          }
        rgba[to + c] = sum / (countX * countY);
      }
      rgba[to + 3] = 255;
    }
  return { widthPx, heightPx, rgba };
}

/** A strip made to lean: what stood at x stands at x − tan · (middle − y) + shift. */
export type Lean = { tan: number; middlePx: number; shiftPx: number };
export const UPRIGHT: Lean = { tan: 0, middlePx: 0, shiftPx: 0 };

/**
 * Leans a strip backward (tan > 0 straightens letters that lean to the right).
 * @returns the new strip, wide enough for all ink, and how it was leaned.
 */
export function leanInk(
  { widthPx: w, heightPx: h, ink }: InkPicture,
  tan: number,
): { picture: InkPicture; lean: Lean } {
  const middlePx = h / 2;
  const shiftPx = Math.ceil((abs(tan) * h) / 2);
  const outW = w + 2 * shiftPx;
  const out = new Float32Array(outW * h);
  for (let y = 0; y < h; y++) {
    const off = tan * (middlePx - (y + 0.5)) - shiftPx;
    for (let x = 0; x < outW; x++) {
      const from = x + off;
      const left = floor(from);
      const part = from - left;
      const at = (i: number) => (i < 0 || i >= w ? 0 : ink[y * w + i]!);
      out[y * outW + x] = at(left) * (1 - part) + at(left + 1) * part;
    }
  }
  return { picture: { widthPx: outW, heightPx: h, ink: out }, lean: { tan, middlePx, shiftPx } };
}

/** Shrinks a picture by averaging the pixels under each new one. @param scale - 0–1. */
export function shrinkPicture(p: RgbaPicture, scale: number): RgbaPicture {
  const w = max(1, round(p.widthPx * scale));
  const h = max(1, round(p.heightPx * scale));
  const rgba = new Uint8Array(4 * w * h);
  for (let y = 0; y < h; y++) {
    const y0 = floor((y * p.heightPx) / h);
    const y1 = max(y0 + 1, floor(((y + 1) * p.heightPx) / h));
    for (let x = 0; x < w; x++) {
      const x0 = floor((x * p.widthPx) / w);
      const x1 = max(x0 + 1, floor(((x + 1) * p.widthPx) / w));
      let [r, g, b] = [0, 0, 0];
      for (let j = y0; j < y1; j++)
        for (let i = x0, at = 4 * (j * p.widthPx + x0); i < x1; i++, at += 4) {
          r += p.rgba[at]!;
          g += p.rgba[at + 1]!;
          b += p.rgba[at + 2]!;
        }
      const n = (x1 - x0) * (y1 - y0);
      const to = 4 * (y * w + x);
      rgba[to] = r / n;
      rgba[to + 1] = g / n;
      rgba[to + 2] = b / n;
      rgba[to + 3] = 255;
    }
  }
  return { widthPx: w, heightPx: h, rgba };
}

/** Cuts a box out of a picture; parts outside are left away. Null when nothing remains. */
export function cropPicture(
  p: RgbaPicture,
  box: { x: number; y: number; width: number; height: number },
): RgbaPicture | null {
  const left = max(0, floor(box.x));
  const top = max(0, floor(box.y));
  const right = min(p.widthPx, ceil(box.x + box.width));
  const bottom = min(p.heightPx, ceil(box.y + box.height));
  if (right - left < 4 || bottom - top < 4) return null;
  const w = right - left;
  const rgba = new Uint8Array(4 * w * (bottom - top));
  for (let y = top; y < bottom; y++)
    rgba.set(p.rgba.subarray(4 * (y * p.widthPx + left), 4 * (y * p.widthPx + right)), 4 * (y - top) * w);
  return { widthPx: w, heightPx: bottom - top, rgba };
}

/**
 * Angle by which a line of ink climbs (degrees, positive = up to the right), found where its row profile is sharpest.
 * @returns 0 when turning gains less than a twelfth.
 */
export function findSlopeDeg(picture: InkPicture): number {
  const { widthPx, heightPx } = picture;
  const { stepPx, xs, ys, vs } = pickInk(picture, 60000);
  const bins = new Float64Array(ceil((heightPx + widthPx) / stepPx) + 4);
  const sharpness = (deg: number) => {
    const t = tan((deg * Math.PI) / 180);
    return sharpnessOf(vs, (i) => (ys[i]! + t * (xs[i]! - widthPx / 2)) / stepPx + widthPx / 2 / stepPx, bins);
  };
  const level = sharpness(0);
  let best = { deg: 0, value: level };
  for (const [reach, by] of [
    [20, 1],
    [0.8, 0.2],
    [0.15, 0.05],
  ] as const) {
    const centre = best.deg;
    for (let d = -reach; d <= reach + 1e-9; d += by) {
      const value = sharpness(centre + d);
      if (value > best.value) best = { deg: centre + d, value };
    }
  }
  return best.value > level * 1.085 ? best.deg : 0;
}

/** Ink at a place between pixels, whose middles lie at halves; none outside. */
export function readInk({ widthPx: w, heightPx: h, ink }: InkPicture, x: number, y: number): number {
  const x0 = floor(x - 0.5);
  const y0 = floor(y - 0.5);
  const at = (i: number, j: number) => (i < 0 || j < 0 || i >= w || j >= h ? 0 : ink[j * w + i]!);
  const fx = x - 0.5 - x0;
  const fy = y - 0.5 - y0;
  return (
    at(x0, y0) * (1 - fx) * (1 - fy) +
    at(x0 + 1, y0) * fx * (1 - fy) +
    at(x0, y0 + 1) * (1 - fx) * fy +
    at(x0 + 1, y0 + 1) * fx * fy
  );
}

/** Draws ink again, turned by an angle about its centre and scaled; outside is paper. Averages where it shrinks. */
export function turnInk(picture: InkPicture, slopeDeg: number, scale: number): InkPicture {
  const { widthPx: w, heightPx: h } = picture;
  const cos = Math.cos((slopeDeg * Math.PI) / 180);
  const sin = Math.sin((slopeDeg * Math.PI) / 180);
  const outW = max(4, ceil((w * abs(cos) + h * abs(sin)) * scale));
  const outH = max(4, ceil((h * abs(cos) + w * abs(sin)) * scale));
  const sub = scale < 0.9 ? min(4, ceil(1 / scale)) : 1;
  const out = new Float32Array(outW * outH);
  for (let y = 0; y < outH; y++)
    for (let x = 0; x < outW; x++) {
      let sum = 0;
      for (let j = 0; j < sub; j++)
        for (let i = 0; i < sub; i++) {
          const u = (x + (i + 0.5) / sub - outW / 2) / scale;
          const v = (y + (j + 0.5) / sub - outH / 2) / scale;
          sum += readInk(picture, u * cos + v * sin + w / 2, -u * sin + v * cos + h / 2);
        }
      out[y * outW + x] = sum / (sub * sub);
    }
  return { widthPx: outW, heightPx: outH, ink: out };
}

export type CutBox = { left: number; top: number; right: number; bottom: number };

/** Makes a box reach around another too. */
export function widen(box: CutBox, by: CutBox) {
  box.left = min(box.left, by.left);
  box.top = min(box.top, by.top);
  box.right = max(box.right, by.right);
  box.bottom = max(box.bottom, by.bottom);
}

/** The box around some boxes; turned inside out (left > right) when there are none. */
export function spanOf(boxes: readonly CutBox[]): CutBox {
  const span = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
  for (const b of boxes) widen(span, b);
  return span;
}

/** Cuts ink to a box (integer pixels) with a margin of paper around it. */
export function cropInk(p: InkPicture, box: CutBox, marginPx: number): InkPicture {
  const w = box.right - box.left + 2 * marginPx;
  const h = box.bottom - box.top + 2 * marginPx;
  const ink = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const sx = x + box.left - marginPx;
      const sy = y + box.top - marginPx;
      if (sx >= 0 && sy >= 0 && sx < p.widthPx && sy < p.heightPx) ink[y * w + x] = p.ink[sy * p.widthPx + sx]!;
    }
  return { widthPx: w, heightPx: h, ink };
}
