// Fills polygons into a coverage picture with exact area coverage, and reads cells out of pictures.
// Stands between outlines and everything that compares pictures. Method: signed area accumulation per pixel row.
import type { Affine, Bounds, Outline, Polygons } from "./outline";
import { flattenOutline, mapPolygons } from "./outline";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, floor, fround, max, min, sqrt } = Math;

/** A picture of ink: row-major from the top left, 0 = paper, 1 = full ink. */
export type InkPicture = { widthPx: number; heightPx: number; ink: Float32Array };

/**
 * Draws an outline as coverage.
 * @param outline - font units, y up. @param to - maps font units to pixels (y down, so d is negative).
 * @returns ink in 0–1 per pixel: the share of the pixel that the outline covers (non-zero winding; where
 *   contours overlap the sum is cut off at 1).
 */
export function rasterOutline(outline: Outline, to: Affine, widthPx: number, heightPx: number): InkPicture {
  const scale = sqrt(abs(to.a * to.d - to.b * to.c)) || 1;
  const polygons = mapPolygons(flattenOutline(outline, 0.12 / scale), to);
  return { widthPx, heightPx, ink: fillPolygons(polygons, widthPx, heightPx) };
}

/**
 * Fills polygons given in pixel coordinates (y down).
 * @returns Float32Array, shape [heightPx, widthPx], 0–1. What lies outside is clipped.
 */
export function fillPolygons(polygons: Polygons, widthPx: number, heightPx: number): Float32Array {
  const picture = { widthPx, heightPx, ink: new Float32Array(widthPx * heightPx) };
  addPolygons(picture, polygons, { xMin: 0, yMin: 0, xMax: widthPx, yMax: heightPx });
  return picture.ink;
}

/**
 * Draws one polygon over a picture: each pixel keeps the greater ink.
 * @param polygon - pixels, y down.
 */
export function coverWithPolygon({ widthPx, heightPx, ink }: InkPicture, polygon: Polygons[number]): void {
  const stride = widthPx + 2;
  if (cover.length < stride * heightPx) cover = new Float32Array(stride * heightPx);
  let top = Infinity;
  let bottom = -Infinity;
  let x0 = polygon[polygon.length - 2]!;
  let y0 = polygon[polygon.length - 1]!;
  for (let i = 0; i < polygon.length; i += 2) {
    const x1 = polygon[i]!;
    const y1 = polygon[i + 1]!;
    addEdge(cover, stride, widthPx, heightPx, x0, y0, x1, y1);
    if (y1 < top) top = y1;
    if (y1 > bottom) bottom = y1;
    x0 = x1;
    y0 = y1;
  }
  const last = min(heightPx, ceil(bottom) + 1);
  for (let y = max(0, floor(top)); y < last; y++) {
    let sum = 0;
    const from = y * stride;
    const to = y * widthPx;
    for (let x = 0; x < widthPx; x++) {
      sum += cover[from + x]!;
      cover[from + x] = 0;
      const v = fround(sum < 0 ? -sum : sum);
      const capped = v > 1 ? 1 : v;
      if (capped > ink[to + x]!) ink[to + x] = capped;
    }
    cover[from + widthPx] = 0;
    cover[from + widthPx + 1] = 0;
  }
}

/** Signed area per pixel while polygons are filled; all zero between two fillings. */
let cover = new Float32Array(0);

/**
 * Adds the coverage of polygons to a picture, cut off at 1.
 * @param bounds - a box around the polygons, pixels; nothing is drawn beyond it.
 */
export function addPolygons({ widthPx, heightPx, ink }: InkPicture, polygons: Polygons, bounds: Bounds): void {
  const left = max(0, floor(bounds.xMin));
  const top = max(0, floor(bounds.yMin));
  const w = min(widthPx, ceil(bounds.xMax) + 1) - left;
  const h = min(heightPx, ceil(bounds.yMax) + 1) - top;
  // Also false for bounds that are no numbers.
  if (!(w > 0 && h > 0)) return;
  const stride = w + 2;
  if (cover.length < stride * h) cover = new Float32Array(stride * h);
  for (const p of polygons) {
    let x0 = p[p.length - 2]! - left;
    let y0 = p[p.length - 1]! - top;
    for (let i = 0; i < p.length; i += 2) {
      const x1 = p[i]! - left;
      const y1 = p[i + 1]! - top;
      addEdge(cover, stride, w, h, x0, y0, x1, y1);
      x0 = x1;
      y0 = y1;
    }
  }
  for (let y = 0; y < h; y++) {
    let sum = 0;
    const from = y * stride;
    const to = (y + top) * widthPx + left;
    for (let x = 0; x < w; x++) {
      sum += cover[from + x]!;
      cover[from + x] = 0;
      const v = ink[to + x]! + (sum < 0 ? -sum : sum);
      ink[to + x] = v > 1 ? 1 : v;
    }
    cover[from + w] = 0;
    cover[from + w + 1] = 0;
  }
}

function addEdge(
  cover: Float32Array,
  stride: number,
  width: number,
  height: number,
  xa: number,
  ya: number,
  xb: number,
  yb: number,
) {
  if (ya === yb) return;
  const sign = ya < yb ? 1 : -1;
  if (sign < 0) {
    const x = xa;
    xa = xb;
    xb = x;
    const y = ya;
    ya = yb;
    yb = y;
  }
  const slope = (xb - xa) / (yb - ya);
  if (ya < 0) {
    xa -= ya * slope;
    ya = 0;
  }
  if (yb > height) yb = height;
  if (ya >= yb) return;
  let x = xa;
  for (let row = floor(ya); row < yb; row++) {
    const top = max(row, ya);
    const bottom = min(row + 1, yb);
    const dy = bottom - top;
    if (dy <= 0) continue;
    const xNext = x + slope * dy;
    addSpan(cover, row * stride, width, x < xNext ? x : xNext, x < xNext ? xNext : x, dy * sign);
    x = xNext;
  }
}

/** Adds an edge piece lying within one pixel row, from xl to xr, as signed area per pixel. */
function addSpan(cover: Float32Array, base: number, width: number, xl: number, xr: number, signedDy: number) {
  if (xl >= width) return;
  if (xr <= 0) {
    cover[base]! += signedDy;
    return;
  }
  xl = xl < 0 ? 0 : xl;
  xr = xr > width ? width : xr;
  const first = floor(xl);
  const last = floor(xr);
  if (first === last || xr - xl < 1e-9) {
    const mid = (xl + xr) / 2 - first;
    cover[base + first]! += signedDy * (1 - mid);
    cover[base + first + 1]! += signedDy * mid;
    return;
  }
  const perX = signedDy / (xr - xl);
  let carried = 0;
  for (let px = first; px <= last; px++) {
    const from = max(px, xl);
    const to = min(px + 1, xr);
    if (to <= from) continue;
    const part = perX * (to - from);
    const mid = (from + to) / 2 - px;
    cover[base + px]! += carried + part * (1 - mid);
    carried = part * mid;
  }
  cover[base + last + 1]! += carried;
}

/** Running sums for fast box means: shape [height + 1, width + 1], double precision. */
export type SumTable = { widthPx: number; heightPx: number; sums: Float64Array };

/** Builds the table once per picture. */
export function sumInk({
  widthPx,
  heightPx,
  ink,
}: Pick<InkPicture, "widthPx" | "heightPx"> & { ink: Float32Array | Float64Array }): SumTable {
  const stride = widthPx + 1;
  const sums = new Float64Array(stride * (heightPx + 1));
  for (let y = 0; y < heightPx; y++) {
    let row = 0;
    for (let x = 0; x < widthPx; x++) {
      row += ink[y * widthPx + x]!;
      sums[(y + 1) * stride + x + 1] = sums[y * stride + x + 1]! + row;
    }
  }
  return { widthPx, heightPx, sums };
}

/**
 * Describes a box of a picture by cells, as many across as down unless told otherwise.
 * @param box - pixels, may be fractional and reach outside (outside is paper).
 * @returns Float32Array, shape [down, across]: mean ink 0–1 per cell, row-major from the top left.
 */
export function cellsOf(
  { widthPx, heightPx, sums }: SumTable,
  box: { left: number; top: number; right: number; bottom: number },
  across: number,
  down = across,
): Float32Array {
  const out = new Float32Array(across * down);
  const w = (box.right - box.left) / across;
  const h = (box.bottom - box.top) / down;
  const perArea = 1 / max(w * h, 1e-9);
  const stride = widthPx + 1;
  for (let i = 0; i <= across; i++) {
    const x = min(widthPx, max(0, box.left + i * w));
    columns[i] = min(floor(x), widthPx - 1);
    shares[i] = x - columns[i]!;
  }
  for (let j = 0; j <= down; j++) {
    const y = min(heightPx, max(0, box.top + j * h));
    const row = min(floor(y), heightPx - 1);
    const fy = y - row;
    for (let i = 0; i <= across; i++) {
      // Ink left of and above this corner, bilinear between grid points.
      const at = row * stride + columns[i]!;
      const fx = shares[i]!;
      const upper = sums[at]! + fx * (sums[at + 1]! - sums[at]!);
      const lower = sums[at + stride]! + fx * (sums[at + stride + 1]! - sums[at + stride]!);
      below[i] = upper + fy * (lower - upper);
    }
    if (j)
      for (let i = 0; i < across; i++)
        out[(j - 1) * across + i] = (below[i + 1]! - below[i]! - above[i + 1]! + above[i]!) * perArea;
    for (let i = 0; i <= across; i++) above[i] = below[i]!;
  }
  return out;
}

// Scratch of cellsOf, which is called tens of thousands of times a picture; at most so many cells across.
const MOST_ACROSS = 255;
const columns = new Int32Array(MOST_ACROSS + 1);
const shares = new Float64Array(MOST_ACROSS + 1);
const above = new Float64Array(MOST_ACROSS + 1);
const below = new Float64Array(MOST_ACROSS + 1);
