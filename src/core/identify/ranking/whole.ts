// The coarse stage by the word as a whole, drawn from the signatures as each style would set it: where letters run into each other and reach over
// and under their neighbours, pieces of ink say little.
import { drawCells, meanInk } from "../../measure/cellForm";
import { isEvened } from "../../picture/inks";
import type { InkLine } from "../../picture/readPicture";
import { spanOf } from "../../picture/straighten";
import type { Wording } from "../../picture/wording";
import { FORM_STEPS, type SignatureIndex } from "../../descriptors/extractDescriptors";
import { layOutBoxes } from "./align";
import { best, measureWord, type CoarseRank, type RoughWord, type SetWord, type Share, type WordShape } from "./coarse";
import { Nearest } from "./nearest";
import { describeStrip, FINE_ROWS, grainOf, ROUGH_ROWS, warpWords, type Grain, type WordColumns } from "./warp";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, floor, max, min, round } = Math;

/** Styles whose word is looked at finely, after a rough look at all. */
const LOOKED_AT_WHOLE = 60;
/** How far a style's own width of the word may be from the line's; a line seen from the side may be narrower. */
const WIDER = 1.6;
const WIDER_FROM_SIDE = 2.4;
/** Of the styles, this share has rows filled about as the line's are: those are warped onto it. At least so many. */
const WARPED_SHARE = 0.4;
const WARPED_LEAST = 120;
/** Of those, so many for each that is kept come near at half as many rows and columns, and are warped at all. */
const FOR_EACH_KEPT = 2;
const NEAR_LEAST = 60;

/** @returns the best `keep`, best first. */
export function rankByWhole(line: InkLine, word: SetWord, index: SignatureIndex, keep: number): CoarseRank[] {
  const rough = new Set(glanceAtWhole(line, word, index, max(keep, LOOKED_AT_WHOLE)).map((r) => r.style));
  const extent = spanOf(line.letters);
  const grain = grainOf(extent, FINE_ROWS);
  const seen = describeStrip(line.strip, extent, grain);
  const nearest = new Nearest(keep);
  const ranks = word.entries.flatMap((entry) => {
    if (!rough.has(entry.style)) return [];
    const drawn = drawSigned(entry, word, index, grain);
    return rankWarped(entry.style, drawn, seen, nearest);
  });
  return best(ranks, keep);
}

function rankWarped(style: number, drawn: WordColumns, seen: WordColumns, nearest: Nearest): CoarseRank[] {
  const warp = warpWords(drawn, seen, nearest.worst);
  if (!warp) return [];
  nearest.add(warp.cost);
  return [{ style, cost: warp.cost, by: "whole" }];
}

/**
 * Entries ranked by the word as a whole and roughly: to choose between readings of a picture, and for a closer look.
 * @returns the best `keep`, best first; none where no entry sets it about as wide.
 */
export function glanceAtWhole(line: InkLine, word: SetWord, index: SignatureIndex, keep: number): CoarseRank[] {
  const extent = spanOf(line.letters);
  const grain = grainOf(extent, ROUGH_ROWS);
  const seen = describeStrip(line.strip, extent, grain);
  const rowsSeen = meanRows(seen);
  const ratio = (extent.right - extent.left) / max(1, extent.bottom - extent.top);
  const widest = isEvened(line.reading) ? WIDER_FROM_SIDE : WIDER;
  const alike = word.entries.flatMap((entry) => {
    const shape = (entry.shape ??= shapeOf(entry, word, index));
    const wider = shape.ratio / ratio;
    if (!(wider < widest && wider > 1 / WIDER)) return [];
    return [{ entry, off: offRows(shape.rows, rowsSeen) }];
  });
  alike.sort((p, q) => p.off - q.off);
  const warped = alike
    .slice(0, max(WARPED_LEAST, ceil(WARPED_SHARE * alike.length)))
    .map(({ entry }) => ({ entry, rough: (entry.rough ??= drawRough(entry, word, index)) }));
  const nearest = new Nearest(keep);
  const ranks = chooseByHalf(warped, seen, max(NEAR_LEAST, FOR_EACH_KEPT * keep)).flatMap(({ entry, rough }) =>
    rankWarped(entry.style, inColumns(rough, grain), seen, nearest),
  );
  return best(ranks, keep);
}

/** Those that come nearest in half as many rows and columns. */
function chooseByHalf<T extends { rough: RoughWord }>(all: T[], seen: WordColumns, keep: number): T[] {
  if (all.length <= keep) return all;
  const grain = { rows: seen.rows, columns: ceil(seen.columns / 2) };
  const half = halve(inColumns(seen, grain, 1));
  const nearest = new Nearest(keep);
  const near = all.flatMap((one) => {
    const warp = warpWords(halve(inColumns(one.rough, grain)), half, nearest.worst);
    if (!warp) return [];
    nearest.add(warp.cost);
    return [{ one, cost: warp.cost }];
  });
  near.sort((p, q) => p.cost - q.cost);
  return near.slice(0, keep).map(({ one }) => one);
}

/** Each two rows as one. */
function halve({ rows, columns, ink }: WordColumns): WordColumns {
  const out = new Float32Array(columns * (rows / 2));
  for (let i = 0; i < out.length; i++) out[i] = (ink[2 * i]! + ink[2 * i + 1]!) / 2;
  return { rows: rows / 2, columns, ink: out };
}

type Entry = SetWord["entries"][number];

/** Columns a row of the rough drawing, and at most. */
const COLUMNS_A_ROW = 2;
const MOST_COLUMNS = 220;

function drawRough(entry: Entry, word: SetWord, index: SignatureIndex): RoughWord {
  const { ratio } = entry.shape!;
  const columns = max(ROUGH_ROWS, min(MOST_COLUMNS, round(COLUMNS_A_ROW * ROUGH_ROWS * ratio))) || ROUGH_ROWS;
  const drawn = drawSigned(entry, word, index, { rows: ROUGH_ROWS, columns });
  const ink = new Uint8Array(drawn.ink.length);
  for (let i = 0; i < ink.length; i++) ink[i] = 255 * drawn.ink[i]! + 0.5;
  return { columns, ink };
}

const rowsOfLetter = new Float32Array(ROUGH_ROWS + 1);

/** The word as a style sets it, in so far as it shows without being drawn. */
function shapeOf({ style, boxes }: Entry, { positions, wordStarts }: SetWord, index: SignatureIndex): WordShape {
  const { left, right, top, bottom } = layOutBoxes(boxes, wordStarts);
  const [width, height] = [max(1e-6, right - left), max(1e-6, top - bottom)];
  const rows = new Float32Array(ROUGH_ROWS);
  const down = (y: number) => ((top - y) / height) * ROUGH_ROWS;
  boxes.forEach((b, i) => {
    if (!b || positions[i]! < 0) return;
    const [r0, ys] = cellsAlong(down(b.top), down(b.bottom), ROUGH_ROWS);
    meanInk(index.form(style, positions[i]!), FORM_STEPS, ys, rowsOfLetter);
    const share = (b.right - b.left) / width;
    for (let r = 0; r < ys.length; r++) rows[r0 + r]! += share * rowsOfLetter[r]!;
  });
  return { ratio: (right - left) / max(1e-3, top - bottom), rows };
}

function meanRows({ rows, columns, ink }: WordColumns): Float32Array {
  const mean = new Float32Array(rows);
  for (let c = 0, at = 0; c < columns; c++) for (let r = 0; r < rows; r++, at++) mean[r]! += ink[at]! / columns;
  return mean;
}

function offRows(a: Float32Array, b: Float32Array): number {
  let off = 0;
  for (let r = 0; r < a.length; r++) off += abs(a[r]! - b[r]!);
  return off;
}

/** A rough word in as many columns as a line has. @param full - the number that stands for all ink. */
function inColumns(
  { columns: own, ink }: { columns: number; ink: ArrayLike<number> },
  { rows, columns }: Grain,
  full = 255,
): WordColumns {
  const out = new Float32Array(columns * rows);
  const by = own / columns;
  for (let c = 0; c < columns; c++) {
    const [from, to] = [c * by, (c + 1) * by];
    const last = min(own - 1, ceil(to) - 1);
    for (let k = min(own - 1, floor(from)); k <= last; k++) {
      const share = (min(k + 1, to) - max(k, from)) / (full * by);
      for (let r = 0; r < rows; r++) out[c * rows + r]! += share * ink[k * rows + r]!;
    }
  }
  return { rows, columns, ink: out };
}

let letter = new Float32Array(0);

/** The word as a style sets it, in so many rows and columns. */
function drawSigned({ style, boxes }: Entry, word: SetWord, index: SignatureIndex, grain: Grain): WordColumns {
  const { positions, wordStarts } = word;
  const { rows, columns } = grain;
  const { pens, left, right, top, bottom } = layOutBoxes(boxes, wordStarts);
  const [width, height] = [right - left, top - bottom];
  const ink = new Float32Array(columns * rows);
  boxes.forEach((b, i) => {
    if (!b || positions[i]! < 0) return;
    const across = (x: number) => ((pens[i]! + x - left) / width) * columns;
    const down = (y: number) => ((top - y) / height) * rows;
    const [c0, xs] = cellsAlong(across(b.left), across(b.right), columns);
    const [r0, ys] = cellsAlong(down(b.top), down(b.bottom), rows);
    if (letter.length < xs.length * ys.length) letter = new Float32Array(xs.length * ys.length);
    drawCells(index.form(style, positions[i]!), FORM_STEPS, xs, ys, letter);
    for (let c = 0, at = 0; c < xs.length; c++)
      for (let r = 0; r < ys.length; r++, at++) {
        const to = (c0 + c) * rows + r0 + r;
        const v = ink[to]! + letter[at]!;
        ink[to] = v > 1 ? 1 : v;
      }
  });
  return { rows, columns, ink };
}

/** The pixels that a letter reaches along one side, and which of its sixteen cells the middle of each lies in. */
function cellsAlong(from: number, to: number, most: number): [first: number, cells: number[]] {
  const first = max(0, floor(from));
  const cells: number[] = [];
  for (let at = first; at < min(most, to); at++)
    cells.push(max(0, min(15, floor(((at + 0.5 - from) / max(1e-6, to - from)) * 16))));
  return [first, cells];
}

/**
 * The entries of a share that resemble those leaders which come nearest to the line at a rough look.
 * @returns null for an index whose entries are few enough to look at each.
 */
export function chooseNear(line: InkLine, wording: Wording, index: SignatureIndex, share: Share): Int32Array | null {
  const { leaders: parted } = index;
  if (!parted) return null;
  const { leaders, members, starts } = parted;
  const placeOf = new Map([...leaders].map((entry, i) => [entry, i]));
  const nearest = glanceAtWhole(
    line,
    measureWord(wording, index, share, leaders),
    index,
    ceil(GROUPS_LOOKED_AT / share.of),
  );
  return Int32Array.from(
    nearest.flatMap(({ style }) => {
      const at = placeOf.get(style)!;
      return [...members.subarray(starts[at], starts[at + 1])];
    }),
  );
}
/** Groups of a large index whose entries are looked at one by one. */
const GROUPS_LOOKED_AT = 40;
