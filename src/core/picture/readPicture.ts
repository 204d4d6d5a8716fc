// A picture → one straightened line of soft ink with its letters' boxes. Stands before `identify`; see README for the method.
import type { InkPicture } from "../geometry/raster";
import { drawStrokes, pickColours, takeInk, type HandInk } from "./handInk";
import { findInk, type RgbaPicture } from "./ink";
import { proposeInks, type InkReading, type InkHypothesis } from "./inks";
import { drawIn, findDotReach, spreadInk } from "./dots";
import { dropBorder, dropSpecks, mergePieces, type Piece } from "./pieces";
import {
  cropInk,
  cropPicture,
  findSlopeDeg,
  leanInk,
  shrinkPicture,
  spanOf,
  straightenCorners,
  turnInk,
  type CutBox,
  type Lean,
  type Point,
} from "./straighten";
import { evenInk, findTaper, stretchInk, unrollInk, type Round } from "./taper";
import { unbendBaseline } from "./unbend";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, max, min } = Math;

export type PictureFrame = {
  box?: { x: number; y: number; width: number; height: number };
  /** Four corners, clockwise from the top left. */
  corners?: Point[];
  /** Three points of a curved baseline: where the lettering begins, about its middle, where it ends. */
  baseline?: Point[];
};

/** One line of lettering. Boxes are in the strip's pixels. */
export type InkLine = {
  strip: InkPicture;
  letters: CutBox[];
  slopeDeg: number;
  reading: InkReading;
  noisy: boolean;
  contrast: number;
};

/** Longest side that is worked on, and the height of ink the comparison wants. */
const WORK_PX = 1600;
const INK_HEIGHT_PX = 56;
/** Above this many pixels a small copy is looked at first, to see how much of the detail is needed. */
const LARGE_PX = 300_000;
const PREVIEW_PX = 560;
const SMALL_PX = 34;
const MARGIN_PX = 8;
/** A line that slopes less is level. */
const LEVEL_DEG = 0.5;

/** The line as its ink stands out, and the line under other hypotheses of what the ink is, read when they are asked for. */
export type InkReadings = {
  plain: InkLine;
  others: () => InkLine[];
  /** As it would be from the front, if it was seen from further round than its rows tell. */
  further: () => InkLine[];
};

/**
 * Reads the line of lettering in a picture (the heaviest one where there are several).
 * @param byHand - what a person takes for ink: nothing else is assumed of it then.
 * @returns null when no lettering stands out.
 */
export function readPicture(
  picture: RgbaPicture,
  frame: PictureFrame = {},
  byHand: HandInk | null = null,
): InkReadings | null {
  const framed = framePicture(picture, frame);
  if (!framed) return null;
  const scale = scaleOfDetail(framed);
  const fitted = shrunk(framed, scale);
  const found = byHand ? takeByHand(picture, frame, byHand, fitted, scale) : findInk(fitted);
  if (!found) return null;
  const read = ({ picture: ink, reading }: InkHypothesis): InkLine[] => {
    const clean = dropBorder(ink);
    const line = cutLine(clean, reading === "level as it is" ? 0 : findSlopeDeg(clean));
    return line ? [{ ...line, reading, noisy: found.noisy, contrast: found.contrast }] : [];
  };
  const plain = read({ picture: found, reading: "plain" })[0];
  if (!plain) return null;
  // Long strokes of a script may look like the slope of its line.
  const level: InkHypothesis[] = abs(plain.slopeDeg) > LEVEL_DEG ? [{ picture: found, reading: "level as it is" }] : [];
  // Reading the text and identifying both ask for them.
  let front: Front | null = null;
  const evened = () => (front ??= findFront(plain));
  let others: InkLine[] | null = null;
  const otherInks = () => (byHand ? [] : proposeInks(found));
  return {
    plain,
    others: () => (others ??= [...evenLine(plain, evened()), ...[...level, ...otherInks()].flatMap(read)]),
    further: () => seeFurther(plain, evened()),
  };
}

/** What of a picture is asked about, laid straight. @returns null when the frame holds nothing. */
function framePicture(picture: RgbaPicture, { baseline, corners, box }: PictureFrame): RgbaPicture | null {
  if (baseline?.length === 3) return unbendBaseline(picture, baseline, WORK_PX);
  if (corners?.length === 4) return straightenCorners(picture, corners, WORK_PX);
  return box ? cropPicture(picture, box) : picture;
}

function takeByHand(picture: RgbaPicture, frame: PictureFrame, byHand: HandInk, fitted: RgbaPicture, scale: number) {
  const strokes = byHand.strokes.length ? framePicture(drawStrokes(byHand.strokes, picture), frame) : null;
  return takeInk(fitted, byHand, pickColours(picture, byHand), strokes && shrunk(strokes, scale));
}

const shrunk = (picture: RgbaPicture, scale: number) => (scale < 1 ? shrinkPicture(picture, scale) : picture);

/** A line even again, as if seen from the front; null: it neither grows towards one end nor is bowed. */
type Front = { even: InkPicture | null; isBowed: boolean };

function findFront({ strip }: InkLine): Front {
  const taper = findTaper(strip);
  return { even: taper && evenInk(strip, taper), isBowed: Boolean(taper?.bow) };
}

/** The line under a reading of how it was seen. */
function cutAsSeen(line: InkLine, ink: InkPicture, reading: InkReading): InkLine[] {
  const cut = cutLine(ink, 0);
  return cut ? [{ ...line, ...cut, slopeDeg: line.slopeDeg, reading }] : [];
}

const evenLine = (line: InkLine, { even }: Front): InkLine[] => (even ? cutAsSeen(line, even, "evened") : []);

/** From how far round the line was seen is not known: it is cut in a few ways. */
function seeFurther(line: InkLine, { even, isBowed }: Front): InkLine[] {
  const from = even ?? line.strip;
  if (!isBowed) return STRETCHES.flatMap((by) => cutAsSeen(line, stretchInk(from, by), `evened, ${by} times as wide`));
  return ROUNDS.flatMap((round) =>
    cutAsSeen(line, unrollInk(from, round), `evened, around ${round.arcRad} from ${round.turnRad}`),
  );
}
/** How a line may stand on a cylinder, and how much narrower a sign may be seen than it is. */
const ROUNDS: Round[] = [0.55, 0.8, 1.05].flatMap((arcRad) => [0, -0.3, 0.3].map((turnRad) => ({ arcRad, turnRad })));
const STRETCHES = [1.18, 1.39, 1.64, 1.94];

/** Ink made level, its heaviest band cut out at a working height, its letters boxed. */
function cutLine(found: InkPicture, slopeDeg: number): Pick<InkLine, "strip" | "letters" | "slopeDeg"> | null {
  const level = slopeDeg ? turnInk(found, slopeDeg, 1) : found;
  const all = dropSpecks(level);
  const reach = findDotReach(all.pieces);
  const band = reach ? bandOfDots(all.picture, reach) : heaviestBand(all.picture);
  if (!band) return null;
  const cut = cropInk(level, band, 2);
  const inkHeight = band.bottom - band.top;
  const scale = inkHeight > INK_HEIGHT_PX * 1.25 ? INK_HEIGHT_PX / inkHeight : inkHeight < SMALL_PX ? 2 : 1;
  const scaled = scale === 1 ? cut : turnInk(cut, 0, scale);
  const clean = dropSpecks(scaled);
  if (!clean.pieces.length) return null;
  const strip = cropInk(clean.picture, spanOf(clean.pieces), MARGIN_PX);
  return { strip, letters: mergePieces(strip, lettersIn(strip)), slopeDeg };
}

/** Pieces of a strip that are letters, or parts of one: dots are taken together. */
function lettersIn(strip: InkPicture): Piece[] {
  const { pieces } = dropSpecks(strip);
  const reach = findDotReach(pieces);
  return reach ? dropSpecks(spreadInk(strip, reach)).pieces.map((p) => drawIn(p, reach)) : pieces;
}

function bandOfDots(picture: InkPicture, reach: number): CutBox | null {
  const band = heaviestBand(spreadInk(picture, reach));
  return band && { ...band, top: band.top + reach, bottom: band.bottom - reach };
}

/**
 * How much a large picture is shrunk, to the detail that the comparison can use: lettering of a good working height. 1: not at all.
 * What cannot be made out in the small copy is left as it is.
 */
function scaleOfDetail(picture: RgbaPicture): number {
  const { widthPx, heightPx } = picture;
  if (widthPx * heightPx < LARGE_PX) return 1;
  const shrink = min(1, PREVIEW_PX / max(widthPx, heightPx));
  const preview = findInk(shrinkPicture(picture, shrink));
  if (!preview) return 1;
  const slopeDeg = findSlopeDeg(preview);
  const band = heaviestBand(dropSpecks(slopeDeg ? turnInk(preview, slopeDeg, 1) : preview).picture);
  if (!band) return 1;
  const wanted = (INK_HEIGHT_PX * 1.6) / ((band.bottom - band.top) / shrink);
  return wanted < 0.85 ? wanted : 1;
}

/** The line at half its size: for a first look that needs no detail. */
export function halveLine(line: InkLine): InkLine {
  const { widthPx, heightPx, ink } = line.strip;
  const w = widthPx >> 1;
  const h = heightPx >> 1;
  const half = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const at = 2 * y * widthPx + 2 * x;
      half[y * w + x] = (ink[at]! + ink[at + 1]! + ink[at + widthPx]! + ink[at + widthPx + 1]!) / 4;
    }
  const halve = ({ left, top, right, bottom }: CutBox) => ({
    left: left / 2,
    top: top / 2,
    right: right / 2,
    bottom: bottom / 2,
  });
  return { ...line, strip: { widthPx: w, heightPx: h, ink: half }, letters: line.letters.map(halve) };
}

/** The line as it would be if its letters leaned less by `tan`; cut again. */
export function leanLine(line: InkLine, tan: number): { line: InkLine; lean: Lean } {
  const { picture, lean } = leanInk(line.strip, tan);
  return { line: { ...line, strip: picture, letters: mergePieces(picture, lettersIn(picture)) }, lean };
}

/** The band of rows with most ink; bands separated by less than a fifth of the taller one's height are one line. */
function heaviestBand(picture: InkPicture): CutBox | null {
  const { widthPx: w, heightPx: h, ink } = picture;
  const rows = Array.from({ length: h }, (_, y) => {
    let sum = 0;
    for (let x = 0; x < w; x++) if (ink[y * w + x]! > 0.3) sum += ink[y * w + x]!;
    return sum;
  });
  const bands: { top: number; bottom: number; sum: number }[] = [];
  rows.forEach((sum, y) => {
    if (sum < 0.5) return;
    const last = bands[bands.length - 1];
    if (last && last.bottom === y) {
      last.bottom = y + 1;
      last.sum += sum;
    } else bands.push({ top: y, bottom: y + 1, sum });
  });
  const merged: typeof bands = [];
  // Letters made of rows of dots: the gaps between rows are as high as the rows.
  const heights = bands.map((b) => b.bottom - b.top).sort((a, b) => a - b);
  const isDotted = bands.length >= 5 && heights[heights.length - 1]! < 2 * heights[heights.length >> 1]!;
  const closeness = isDotted ? 1.2 : 0.2;
  for (const b of bands) {
    const last = merged[merged.length - 1];
    const taller = last ? max(last.bottom - last.top, b.bottom - b.top) : 0;
    if (last && b.top - last.bottom < closeness * taller) {
      last.bottom = b.bottom;
      last.sum += b.sum;
    } else merged.push({ ...b });
  }
  const best = merged.sort((a, b) => b.sum - a.sum)[0];
  if (!best || best.bottom - best.top < 5) return null;
  let left = w;
  let right = 0;
  for (let y = best.top; y < best.bottom; y++)
    for (let x = 0; x < w; x++)
      if (ink[y * w + x]! > 0.3) {
        left = min(left, x);
        right = max(right, x + 1);
      }
  return right > left ? { left, right, top: best.top, bottom: best.bottom } : null;
}
