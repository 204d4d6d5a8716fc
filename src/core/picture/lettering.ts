// Lines of lettering in any picture, found by what letters are: pieces that stand out from what is right around them, alike in height, stroke and
// colour, side by side in a row. What is ink in the picture as a whole need not be known.
import { sumInk } from "../geometry/raster";
import { findPieces, type Piece } from "./pieces";
import type { RgbaPicture } from "./ink";
import { shrinkPicture } from "./straighten";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, hypot, max, min, round, sqrt } = Math;

type Rgb = readonly [red: number, green: number, blue: number];
/** A line of lettering: its box in the picture's pixels, and how much it looks like one. */
export type LetteringLine = { x: number; y: number; width: number; height: number; score: number };

/** Longest side of the copy that is looked at, and the sides of smaller ones: letters are looked for that are about as high as the window. */
const LOOK_PX = 960;
const SCALES = [1, 0.5, 0.25];
const WINDOW_PX = 25;
/** A pixel is ink when it is so far from the mean of its window: steps of 255, and a share of how much the window varies. */
const LEAST_STEP = 9;
const SPREAD_SHARE = 0.35;
/** What may be a letter: height, breadth to height, share of its box, stroke to height. */
const HEIGHT_PX = [8, 90] as const;
const ASPECT = [0.08, 7] as const;
const FILL = [0.1, 0.93] as const;
const MOST_STROKE = 0.5;
/** Neighbours: heights, strokes and colours differ by no more, gaps are no wider than so many heights, a line climbs no steeper. */
const ALIKE_HEIGHT = 2.3;
const ALIKE_STROKE = 2.2;
const ALIKE_COLOUR = 0.45;
const GAP_HEIGHTS = 1.1;
const CLIMB = 0.42;
const LEAST_SCORE = 1.1;

type Letter = Piece & {
  height: number;
  strokePx: number;
  /** Its own colour, and how far that is from what is around it. */
  colour: Rgb;
  contrast: number;
};

/** @returns lines, the one that looks most like lettering first; none where nothing does. */
export function findLettering(picture: RgbaPicture): LetteringLine[] {
  const shrink = min(1, LOOK_PX / max(picture.widthPx, picture.heightPx));
  const lines: LetteringLine[] = [];
  for (const scale of SCALES) {
    const small = shrink * scale < 1 ? shrinkPicture(picture, shrink * scale) : picture;
    if (min(small.widthPx, small.heightPx) < WINDOW_PX) break;
    const by = small.widthPx / picture.widthPx;
    const isLast = scale === SCALES[SCALES.length - 1];
    for (const line of linesAtScale(small, scale < 1 ? CHANNELS : CHANNELS.slice(0, 1), isLast))
      lines.push({ ...line, x: line.x / by, y: line.y / by, width: line.width / by, height: line.height / by });
  }
  return keepBest(lines).map((l) => ({
    ...l,
    x: round(l.x),
    y: round(l.y),
    width: round(l.width),
    height: round(l.height),
  }));
}

/** Weights of red, green and blue: light (ITU-R BT.601), red against green, blue against both. Lettering may differ by hue alone. */
const CHANNELS = [
  [0.299, 0.587, 0.114],
  [0.7, -0.7, 0],
  [0.4, 0.4, -0.8],
] as const;
type Channel = (typeof CHANNELS)[number];

/** @param isLast - there is no smaller copy: taller letters are looked for here. */
function linesAtScale(picture: RgbaPicture, channels: readonly Channel[], isLast: boolean): LetteringLine[] {
  const { widthPx, heightPx } = picture;
  const tallest = isLast ? 2 * HEIGHT_PX[1] : HEIGHT_PX[1];
  return channels.flatMap((channel) => {
    const off = standOut(picture, channel);
    return [1, -1].flatMap((sign) => {
      const ink = new Float32Array(off.length);
      for (let i = 0; i < ink.length; i++) if (off[i]! * sign > 0) ink[i] = 1;
      const { labels, pieces } = findPieces({ widthPx, heightPx, ink }, 0.5);
      const letters = lettersOf(picture, labels, pieces, tallest).filter((l) => !isAtEdge(l, picture));
      return joinLetters(letters).flatMap((group) => writeLine(group, picture, isLast));
    });
  });
}

const isAtEdge = (p: Piece, { widthPx, heightPx }: RgbaPicture) =>
  p.left === 0 || p.top === 0 || p.right === widthPx || p.bottom === heightPx;

/** For every pixel 1 where it is clearly more than its window, −1 where it is less, 0 elsewhere. */
function standOut({ widthPx: w, heightPx: h, rgba }: RgbaPicture, [r, g, b]: Channel): Int8Array {
  const grey = new Float32Array(w * h);
  for (let i = 0; i < grey.length; i++) grey[i] = r * rgba[4 * i]! + g * rgba[4 * i + 1]! + b * rgba[4 * i + 2]!;
  const { sums } = sumInk({ widthPx: w, heightPx: h, ink: grey });
  const squared = new Float64Array(grey.length);
  for (let i = 0; i < grey.length; i++) squared[i] = grey[i]! * grey[i]!;
  const { sums: squares } = sumInk({ widthPx: w, heightPx: h, ink: squared });
  const out = new Int8Array(w * h);
  for (let y = 0; y < h; y++) {
    const [y0, y1] = [max(0, y - WINDOW_PX), min(h, y + WINDOW_PX + 1)];
    for (let x = 0; x < w; x++) {
      const [x0, x1] = [max(0, x - WINDOW_PX), min(w, x + WINDOW_PX + 1)];
      const n = (x1 - x0) * (y1 - y0);
      const [a, b, c, d] = [y0 * (w + 1) + x0, y0 * (w + 1) + x1, y1 * (w + 1) + x0, y1 * (w + 1) + x1];
      const mean = (sums[d]! - sums[b]! - sums[c]! + sums[a]!) / n;
      const spread = sqrt(max(0, (squares[d]! - squares[b]! - squares[c]! + squares[a]!) / n - mean * mean));
      const step = max(LEAST_STEP, SPREAD_SHARE * spread);
      const v = grey[y * w + x]! - mean;
      out[y * w + x] = v > step ? 1 : v < -step ? -1 : 0;
    }
  }
  return out;
}

/** Pieces that may be letters, with what is needed to compare them. */
function lettersOf(
  { widthPx: w, heightPx: h, rgba }: RgbaPicture,
  labels: Int32Array,
  pieces: Piece[],
  tallest: number,
): Letter[] {
  const n = pieces.length + 1;
  const [edge, r, g, b] = [0, 1, 2, 3].map(() => new Float64Array(n)) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const around = new Float64Array(4 * n);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      const label = labels[i]!;
      if (!label) continue;
      r[label]! += rgba[4 * i]!;
      g[label]! += rgba[4 * i + 1]!;
      b[label]! += rgba[4 * i + 2]!;
      const isInner =
        x > 0 &&
        y > 0 &&
        x < w - 1 &&
        y < h - 1 &&
        labels[i - 1] === label &&
        labels[i + 1] === label &&
        labels[i - w] === label &&
        labels[i + w] === label;
      if (isInner) continue;
      edge[label]!++;
      // What lies two pixels away is ground, in most directions.
      for (const [dx, dy] of AWAY) {
        const [ox, oy] = [x + dx, y + dy];
        if (ox < 0 || oy < 0 || ox >= w || oy >= h || labels[oy * w + ox] === label) continue;
        const to = 4 * label;
        around[to]! += rgba[4 * (oy * w + ox)]!;
        around[to + 1]! += rgba[4 * (oy * w + ox) + 1]!;
        around[to + 2]! += rgba[4 * (oy * w + ox) + 2]!;
        around[to + 3]!++;
      }
    }
  return pieces.flatMap((p) => {
    const [height, breadth] = [p.bottom - p.top, p.right - p.left];
    const fill = p.area / (height * breadth);
    const strokePx = (2 * p.area) / max(1, edge[p.label]!);
    if (height < HEIGHT_PX[0] || height > tallest) return [];
    if (breadth < ASPECT[0] * height || breadth > ASPECT[1] * height) return [];
    if (fill < FILL[0] || (fill > FILL[1] && breadth > 0.4 * height) || strokePx > MOST_STROKE * height) return [];
    const colour = [r, g, b].map((c) => c[p.label]! / p.area) as unknown as Rgb;
    const seen = max(1, around[4 * p.label + 3]!);
    const contrast = hypot(...colour.map((v, c) => v - around[4 * p.label + c]! / seen));
    return contrast > 2 * LEAST_STEP ? [{ ...p, height, strokePx, colour, contrast }] : [];
  });
}
const AWAY = [
  [2, 0],
  [-2, 0],
  [0, 2],
  [0, -2],
] as const;

/** Letters side by side, joined to rows. */
function joinLetters(letters: Letter[]): Letter[][] {
  const sorted = [...letters].sort((p, q) => p.left - q.left);
  const of = sorted.map((_, i) => i);
  const root = (i: number): number => (of[i] === i ? i : (of[i] = root(of[i]!)));
  for (let i = 0; i < sorted.length; i++) {
    const p = sorted[i]!;
    for (let j = i + 1; j < sorted.length; j++) {
      const q = sorted[j]!;
      if (q.left - p.right > 2 * GAP_HEIGHTS * HEIGHT_PX[1]) break;
      if (areNeighbours(p, q)) of[root(j)] = root(i);
    }
  }
  const groups = new Map<number, Letter[]>();
  sorted.forEach((letter, i) => {
    const at = root(i);
    groups.set(at, [...(groups.get(at) ?? []), letter]);
  });
  return [...groups.values()];
}

function areNeighbours(p: Letter, q: Letter): boolean {
  const [lower, taller] = [min(p.height, q.height), max(p.height, q.height)];
  if (taller > ALIKE_HEIGHT * lower) return false;
  const gap = q.left - p.right;
  if (gap > GAP_HEIGHTS * taller || gap < -0.6 * min(p.right - p.left, q.right - q.left)) return false;
  // Bottoms or tops stand on one line, which may climb.
  const across = (q.left + q.right - p.left - p.right) / 2;
  const off = min(abs(p.bottom - q.bottom), abs(p.top - q.top));
  if (off > 0.22 * taller + CLIMB * across * 0.5) return false;
  if (max(p.strokePx, q.strokePx) > ALIKE_STROKE * min(p.strokePx, q.strokePx)) return false;
  const colour = hypot(...p.colour.map((v, c) => v - q.colour[c]!));
  return colour < ALIKE_COLOUR * max(p.contrast, q.contrast);
}

/** @returns the line of a row of letters; none where they are too few, or too unlike. */
function writeLine(row: Letter[], { widthPx, heightPx }: RgbaPicture, isLast: boolean): LetteringLine[] {
  const height = meanOf(row, (l) => l.height);
  const stretch = max(...row.map((l) => l.right)) - min(...row.map((l) => l.left));
  // A joined script is one piece, or a few.
  if (row.length < 3 && stretch < 2.2 * height) return [];
  const rough = (of: (l: Letter) => number) => spreadOf(row, of) / max(1e-6, meanOf(row, of));
  const regular = 1 / (1 + 1.2 * rough((l) => l.strokePx) + 0.8 * rough((l) => l.height));
  const contrast = meanOf(row, (l) => l.contrast);
  const count = min(10, max(row.length, stretch / height));
  // Near the limit of height some of its letters may be over it: the smaller copy shows it whole.
  const whole = isLast ? 1 : min(1, (1.7 * HEIGHT_PX[1]) / max(...row.map((l) => l.height)) / 2);
  const score = whole * regular * sqrt(contrast / 60) * sqrt(count) * (height / HEIGHT_PX[1]) ** 0.25;
  if (score < LEAST_SCORE) return [];
  const room = 0.16 * height;
  const left = max(0, min(...row.map((l) => l.left)) - room);
  const top = max(0, min(...row.map((l) => l.top)) - room);
  const right = min(widthPx, max(...row.map((l) => l.right)) + room);
  const bottom = min(heightPx, max(...row.map((l) => l.bottom)) + room);
  return [{ x: left, y: top, width: right - left, height: bottom - top, score }];
}

const meanOf = (row: Letter[], of: (l: Letter) => number) => row.reduce((sum, l) => sum + of(l), 0) / row.length;
const spreadOf = (row: Letter[], of: (l: Letter) => number) => {
  const mean = meanOf(row, of);
  return sqrt(meanOf(row, (l) => (of(l) - mean) ** 2));
};

type Box = { x: number; y: number; width: number; height: number };
/** The area that two boxes share. */
export const overlap = (a: Box, b: Box) =>
  max(0, min(a.x + a.width, b.x + b.width) - max(a.x, b.x)) *
  max(0, min(a.y + a.height, b.y + b.height) - max(a.y, b.y));

/** Lines that lie over a better one for more than a third are the same, or a part of it. */
function keepBest(lines: LetteringLine[]): LetteringLine[] {
  const kept: LetteringLine[] = [];
  for (const line of lines.sort((p, q) => q.score - p.score)) {
    const isOver = kept.some((k) => overlap(k, line) > 0.33 * min(k.width * k.height, line.width * line.height));
    if (!isOver) kept.push(line);
  }
  return kept.slice(0, MAX_LINES);
}
const MAX_LINES = 12;
