// Connected pieces of ink, specks dropped, pieces above each other merged to letters with edges between pixels.
import type { InkPicture } from "../geometry/raster";
import { widen, type CutBox } from "./straighten";

// Taken out of the global object once: the loops below call them millions of times.
const { max, min } = Math;

export type Piece = CutBox & { area: number; peak: number; label: number };

/** Labels 8-connected pieces of ink ≥ threshold. @returns labels (0 = none) and one entry a piece, in reading order of discovery. */
export function findPieces(
  { widthPx: w, heightPx: h, ink }: InkPicture,
  threshold: number,
): { labels: Int32Array; pieces: Piece[] } {
  const labels = new Int32Array(w * h);
  const pieces: Piece[] = [];
  const stack: number[] = [];
  for (let start = 0; start < labels.length; start++) {
    if (labels[start] || ink[start]! < threshold) continue;
    const label = pieces.length + 1;
    const piece: Piece = { left: w, top: h, right: 0, bottom: 0, area: 0, peak: 0, label };
    labels[start] = label;
    stack.push(start);
    while (stack.length) {
      const at = stack.pop()!;
      const x = at % w;
      const y = (at - x) / w;
      piece.area += ink[at]!;
      piece.peak = max(piece.peak, ink[at]!);
      piece.left = min(piece.left, x);
      piece.right = max(piece.right, x + 1);
      piece.top = min(piece.top, y);
      piece.bottom = max(piece.bottom, y + 1);
      for (let j = max(0, y - 1); j <= min(h - 1, y + 1); j++)
        for (let i = max(0, x - 1); i <= min(w - 1, x + 1); i++) {
          const next = j * w + i;
          if (!labels[next] && ink[next]! >= threshold) {
            labels[next] = label;
            stack.push(next);
          }
        }
    }
    pieces.push(piece);
  }
  return { labels, pieces };
}

/** A piece that lies for this share along the picture's border is an edge of the picture, not lettering. */
const BORDER_SHARE = 0.6;

/** A piece that goes along the picture's border for this share of its shorter side is a surface that begins there, not a letter. */
const SURFACE_SHARE = 0.3;

/** Removes what begins at the border: beside a sign its wall may stand out as its letters do. @returns null when nothing does. */
export function dropSurfaces(picture: InkPicture): InkPicture | null {
  const { widthPx: w, heightPx: h, ink } = picture;
  const { labels, pieces } = findPieces(picture, 0.25);
  const along = new Float64Array(pieces.length + 1);
  for (let x = 0; x < w; x++) for (const y of [0, h - 1]) along[labels[y * w + x]!]! += ink[y * w + x]!;
  for (let y = 0; y < h; y++) for (const x of [0, w - 1]) along[labels[y * w + x]!]! += ink[y * w + x]!;
  return without(
    picture,
    labels,
    pieces.filter((p) => along[p.label]! > SURFACE_SHARE * min(w, h)),
  );
}

/** Pieces whose ink is this much paler than the ink of most are doubt. */
const FAINT = 0.7;

/** Removes what is ink only in part, where the rest is sure to be. @returns null when nothing is. */
export function dropFaint(picture: InkPicture): InkPicture | null {
  const { labels, pieces } = findPieces(picture, 0.25);
  const sizes = new Float64Array(pieces.length + 1);
  for (const label of labels) sizes[label]!++;
  const meanOf = (p: Piece) => p.area / sizes[p.label]!;
  const byMean = [...pieces].sort((p, q) => meanOf(q) - meanOf(p));
  const half = byMean.reduce((sum, p) => sum + p.area, 0) / 2;
  let sum = 0;
  const usual = byMean.find((p) => (sum += p.area) >= half);
  return usual ? without(picture, labels, pieces.filter((p) => meanOf(p) < FAINT * meanOf(usual))) : null; // oxfmt-ignore
}

function without(picture: InkPicture, labels: Int32Array, goes: readonly Piece[]): InkPicture | null {
  if (!goes.length) return null;
  const gone = new Set(goes.map((p) => p.label));
  return { ...picture, ink: picture.ink.map((v, i) => (gone.has(labels[i]!) ? 0 : v)) };
}

/** Removes lines along the border: edges of what the picture was cut from. */
export function dropBorder(picture: InkPicture): InkPicture {
  const { widthPx: w, heightPx: h } = picture;
  const band = max(2, Math.round(0.012 * min(w, h)));
  const { labels, pieces } = findPieces(picture, 0.25);
  const atBorder = new Float64Array(pieces.length + 1);
  const isNear = (x: number, y: number) => x < band || y < band || x >= w - band || y >= h - band;
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const label = labels[y * w + x]!;
      if (label && isNear(x, y)) atBorder[label]! += picture.ink[y * w + x]!;
    }
  const goes = pieces.filter((p) => atBorder[p.label]! > BORDER_SHARE * p.area);
  return without(picture, labels, goes) ?? picture;
}

/**
 * Drops specks: pieces whose ink is under 0.04 % of the line's height squared or that never get dark.
 * @returns the ink without them and the pieces that stay.
 */
export function dropSpecks(picture: InkPicture): { picture: InkPicture; pieces: Piece[] } {
  const { labels, pieces } = findPieces(picture, 0.25);
  const top = min(...pieces.map((p) => p.top));
  const height = pieces.length ? max(...pieces.filter((p) => p.area > 4).map((p) => p.bottom), top + 1) - top : 0;
  const tallest = max(0, ...pieces.map((p) => (p.peak > 0.5 ? p.bottom - p.top : 0)));
  const reach = min(height, tallest * 1.6);
  const stays = new Set(pieces.filter((p) => p.peak > 0.5 && p.area > 0.0009 * reach * reach).map((p) => p.label));
  const ink = picture.ink.slice();
  for (let i = 0; i < ink.length; i++) {
    const label = labels[i]!;
    if (label && !stays.has(label)) ink[i] = 0;
  }
  return { picture: { ...picture, ink }, pieces: pieces.filter((p) => stays.has(p.label)) };
}

/**
 * Merges pieces that stand above each other (i, j, é, !, ?, :, %) and sorts them along the line.
 * @returns letter boxes with edges where the coverage crosses one half.
 */
export function mergePieces(picture: InkPicture, pieces: Piece[]): CutBox[] {
  const sorted = [...pieces].sort((a, b) => a.left - b.left);
  const boxes: (CutBox & { area: number })[] = [];
  for (const p of sorted) {
    const over = boxes.find((b) => {
      const overlap = min(b.right, p.right) - max(b.left, p.left);
      const narrow = min(b.right - b.left, p.right - p.left);
      return overlap > 0.55 * narrow && (overlap > 0.8 * narrow || min(b.area, p.area) < 0.4 * max(b.area, p.area));
    });
    if (!over) {
      boxes.push({ left: p.left, top: p.top, right: p.right, bottom: p.bottom, area: p.area });
      continue;
    }
    widen(over, p);
    over.area += p.area;
  }
  return boxes.sort((a, b) => a.left + a.right - b.left - b.right).map((b) => refineBox(picture, b));
}

/** Moves each edge to where the strongest pixel of the border row or column says the contour lies. */
function refineBox({ widthPx: w, heightPx: h, ink }: InkPicture, b: CutBox): CutBox {
  const colMax = (x: number) => {
    let m = 0;
    if (x >= 0 && x < w) for (let y = max(0, b.top); y < min(h, b.bottom); y++) m = max(m, ink[y * w + x]!);
    return m;
  };
  const rowMax = (y: number) => {
    let m = 0;
    if (y >= 0 && y < h) for (let x = max(0, b.left); x < min(w, b.right); x++) m = max(m, ink[y * w + x]!);
    return m;
  };
  // An edge pixel covered to v reaches v of its breadth outward from its inner side.
  const edge = (at: number, inward: 1 | -1, of: (i: number) => number) => {
    let i = at;
    for (let k = 0; k < 3 && of(i) < 0.5; k++) i += inward;
    const v = min(1, of(i));
    const before = min(1, of(i - inward));
    return inward > 0 ? i + 1 - v - before : i + v + before;
  };
  return {
    left: edge(b.left, 1, colMax),
    right: edge(b.right - 1, -1, colMax),
    top: edge(b.top, 1, rowMax),
    bottom: edge(b.bottom - 1, -1, rowMax),
  };
}
