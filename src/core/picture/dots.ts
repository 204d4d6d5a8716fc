// Lettering made of dots: which pieces of ink belong to a letter is seen once the dots are spread until they meet.
import type { InkPicture } from "../geometry/raster";
import type { Piece } from "./pieces";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, max, min } = Math;

/** Fewer pieces than this are letters. */
const MIN_DOTS = 16;
/** Of all pieces so many must be of one size, and the line so many of them high. */
const ALIKE_SHARE = 0.8;
const MIN_ROWS = 4;
/** Dots further apart than so many of their own size are no letter. */
const MAX_GAP = 2.6;

/**
 * How far dots must be spread to meet their neighbours.
 * @param pieces - all pieces of a line, in any order. @returns pixels; 0 where the pieces are not dots.
 */
export function findDotReach(pieces: readonly Piece[]): number {
  if (pieces.length < MIN_DOTS) return 0;
  const sizes = pieces.map((p) => max(p.right - p.left, p.bottom - p.top)).sort((a, b) => a - b);
  const usual = sizes[sizes.length >> 1]!;
  const alike = sizes.filter((s) => s >= usual * 0.5 - 1 && s <= usual * 1.5 + 1).length;
  const height = max(...pieces.map((p) => p.bottom)) - min(...pieces.map((p) => p.top));
  if (alike < ALIKE_SHARE * pieces.length || height < MIN_ROWS * usual) return 0;
  const gaps = pieces.map((p) => gapToNearest(p, pieces)).sort((a, b) => a - b);
  const usualGap = gaps[Math.floor(gaps.length * 0.7)]!;
  return usualGap > MAX_GAP * usual ? 0 : ceil((usualGap + 1) / 2);
}

function gapToNearest(p: Piece, pieces: readonly Piece[]): number {
  let least = Infinity;
  for (const q of pieces) {
    if (q === p) continue;
    const across = max(0, q.left - p.right, p.left - q.right);
    const down = max(0, q.top - p.bottom, p.top - q.bottom);
    least = min(least, max(across, down));
  }
  return least;
}

/** Ink spread by so many pixels to all sides: each pixel has the most of its square. */
export function spreadInk({ widthPx: w, heightPx: h, ink }: InkPicture, byPx: number): InkPicture {
  const rows = new Float32Array(ink.length);
  const out = new Float32Array(ink.length);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let most = 0;
      for (let k = max(0, x - byPx); k <= min(w - 1, x + byPx); k++) most = max(most, ink[y * w + k]!);
      rows[y * w + x] = most;
    }
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let most = 0;
      for (let k = max(0, y - byPx); k <= min(h - 1, y + byPx); k++) most = max(most, rows[k * w + x]!);
      out[y * w + x] = most;
    }
  return { widthPx: w, heightPx: h, ink: out };
}

/** A piece of spread ink as it was before. */
export const drawIn = (p: Piece, byPx: number): Piece => {
  const inset = (from: number, to: number) => min(byPx, abs(to - from) / 2 - 0.5);
  const [x, y] = [inset(p.left, p.right), inset(p.top, p.bottom)];
  return { ...p, left: p.left + x, right: p.right - x, top: p.top + y, bottom: p.bottom - y };
};
