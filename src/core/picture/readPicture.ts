// A picture → one straightened line of soft ink with its letters' boxes. Stands before `identify`; see README for the method.
import type { InkPicture } from "../geometry/raster";
import { drawStrokes, pickColours, takeInk, type HandInk } from "./handInk";
import { findInk, type RgbaPicture } from "./ink";
import { cutSeen, drawSeen, inkByEdges, inkByVote, seeInk, type InkNet } from "./learnedInk";
import { isEvened, proposeInks, type InkHypothesis, type InkReading, type SeenAs } from "./inks";
import { drawIn, findDotReach, spreadInk } from "./dots";
import { dropBorder, dropFaint, dropSpecks, dropSurfaces, mergePieces, type Piece } from "./pieces";
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
import { evenInk, findTaper, isBowed, stretchInk, unrollInk, type Round, type Taper } from "./taper";
import { unbendBaseline } from "./unbend";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, floor, max, min, PI, tan } = Math;

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
  others: () => AsyncIterable<InkLine>;
  /** One of these as it would be from the front, if its rows tell that it is not seen from there. */
  evened: (line: InkLine) => InkLine[];
  /** One of these as it would be from the front, if it was seen from further round than its rows tell. */
  further: (line: InkLine) => InkLine[];
};

/**
 * Reads the line of lettering in a picture (the heaviest one where there are several).
 * @param byHand - what a person takes for ink: nothing else is assumed of it then.
 * @param net - sees ink that does not simply stand out; left out, nothing is assumed of that kind.
 * @returns null when no lettering stands out.
 */
export function readPicture(
  picture: RgbaPicture,
  frame: PictureFrame = {},
  byHand: HandInk | null = null,
  net: InkNet | null = null,
): InkReadings | null {
  const framed = framePicture(picture, frame);
  if (!framed) return null;
  const scale = scaleOfDetail(framed);
  const fitted = shrunk(framed, scale);
  const found = byHand ? takeByHand(picture, frame, byHand, fitted, scale) : findInk(fitted);
  if (!found) return null;
  const plain = lineOf({ picture: found, reading: "plain" }, found);
  if (!plain) return null;
  // Long strokes of a script may look like the slope of its line.
  const level: InkHypothesis[] = abs(plain.slopeDeg) > LEVEL_DEG ? [{ picture: found, reading: "level as it is" }] : [];
  const others = async function* () {
    if (net && !byHand) yield* readLearned({ picture, frame, framed, fitted }, net);
    const inner = byHand ? null : dropSurfaces(found);
    const inside: InkHypothesis[] = inner ? [{ picture: inner, reading: "away from the border" }] : [];
    for (const ink of [...inside, ...level, ...(byHand ? [] : proposeInks(found))]) {
      const line = lineOf(ink, found);
      if (line) yield line;
    }
  };
  // Reading the text and identifying both ask for them.
  return { plain, others: replayed(others), ...seenFrom() };
}

/** Lines as they would be from the front. */
function seenFrom(): Pick<InkReadings, "evened" | "further"> {
  const frontOf = onceEach(findFront);
  return {
    evened: onceEach((line) => evenLine(line, frontOf(line))),
    further: (line) => seeFurther(line, frontOf(line)),
  };
}

/** The same, where the net is asked at once when nothing stands out. */
export async function readPhotograph(
  picture: RgbaPicture,
  frame: PictureFrame,
  byHand: HandInk | null,
  net: InkNet,
): Promise<InkReadings | null> {
  const lines = readPicture(picture, frame, byHand, net);
  const framed = lines || byHand ? null : framePicture(picture, frame);
  if (!framed) return lines;
  const fitted = shrunk(framed, scaleOfDetail(framed));
  const seen = replayed(() => readLearned({ picture, frame, framed, fitted }, net));
  const first = await seen().next();
  if (first.done) return null;
  const plain = first.value;
  return { plain, others: () => after(plain, seen()), ...seenFrom() };
}

/** The line under a hypothesis of its ink; null where none is left of it. */
function lineOf({ picture, reading }: InkHypothesis, of: Pick<InkLine, "noisy" | "contrast">): InkLine | null {
  const sure = reading.startsWith("learned") ? dropFaint(picture) : null;
  const clean = dropBorder(sure ?? picture);
  const line = cutLine(clean, reading === "level as it is" ? 0 : findSlopeDeg(clean));
  return line && { ...line, reading, noisy: of.noisy, contrast: of.contrast };
}

/** A picture, what of it is asked about, and that with no more detail than is needed. */
type Framed = { picture: RgbaPicture; frame: PictureFrame; framed: RgbaPicture; fitted: RgbaPicture };

/** The line as a net sees it, and in the colours that it sees as ink. */
async function* readLearned({ picture, frame, framed, fitted }: Framed, net: InkNet): AsyncGenerator<InkLine> {
  const seen = await seeFramed(picture, frame, framed, net);
  if (!seen) return;
  const clear = { noisy: false, contrast: LEARNED_CONTRAST };
  const as = (ink: InkPicture | null, reading: InkReading) => {
    const line = ink && lineOf({ picture: ink, reading }, clear);
    return line ? [line] : [];
  };
  yield* as(seen, "learned");
  const rough = drawSeen(seen, fitted, framed.widthPx);
  yield* as(inkByVote(rough, fitted), "learned colours");
  yield* as(inkByEdges(seen, rough, fitted, framed.widthPx), "learned edges");
}
/** What is around a box helps to tell letters from their ground: it is shown, but what is seen there does not count. */
async function seeFramed(
  picture: RgbaPicture,
  { box, corners, baseline }: PictureFrame,
  framed: RgbaPicture,
  net: InkNet,
) {
  if (!box || corners || baseline) return seeInk(framed, net);
  const by = AROUND * min(box.height, box.width);
  const left = max(0, floor(box.x - by));
  const top = max(0, floor(box.y - by));
  const around = cropPicture(picture, {
    x: left,
    y: top,
    width: box.x + box.width + by - left,
    height: box.y + box.height + by - top,
  });
  const seen = around && (await seeInk(around, net));
  return seen && cutSeen(seen, { x: max(0, floor(box.x)) - left, y: max(0, floor(box.y)) - top }, framed);
}
/** How much of a box's shorter side is shown around it. */
const AROUND = 0.25;
/** What a net sees is as clear as lettering in print; in noise widths. */
const LEARNED_CONTRAST = 40;

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

/** What is made once and read as often as it is asked for, as far as it is asked for. */
function replayed<T>(make: () => AsyncGenerator<T>): () => AsyncGenerator<T> {
  const made: T[] = [];
  let rest: AsyncGenerator<T> | null = null;
  return async function* () {
    for (let i = 0; ; i++) {
      if (i === made.length) {
        const next = await (rest ??= make()).next();
        if (next.done) return;
        made.push(next.value);
      }
      yield made[i]!;
    }
  };
}

async function* after<T>(one: T, all: AsyncIterable<T>) {
  for await (const each of all) if (each !== one) yield each;
}

function onceEach<K extends object, T>(make: (of: K) => T): (of: K) => T {
  const made = new WeakMap<K, { value: T }>();
  return (of) => {
    let known = made.get(of);
    if (!known) made.set(of, (known = { value: make(of) }));
    return known.value;
  };
}

/** A line even again, as if seen from the front; null: it neither grows towards one end nor is bowed. */
type Front = { taper: Taper | null; even: InkPicture | null };

function findFront({ strip }: InkLine): Front {
  const taper = findTaper(strip);
  return { taper, even: taper && evenInk(strip, taper) };
}

/** The line under a reading of how it was seen. */
function cutAsSeen(line: InkLine, ink: InkPicture, seen: SeenAs): InkLine[] {
  const { reading } = line;
  if (isEvened(reading)) return [];
  const cut = cutLine(ink, 0);
  const as: InkReading = reading === "plain" ? seen : `${reading}, ${seen}`;
  return cut ? [{ ...line, ...cut, slopeDeg: line.slopeDeg, reading: as }] : [];
}

/** Even, and with what stood upright in the picture upright again: a line is sloping that is seen from the side, and its letters are not turned. */
function evenLine(line: InkLine, { taper, even }: Front): InkLine[] {
  const turned = even ? cutAsSeen(line, even, taper && isBowed(taper) ? "evened, bowed" : "evened") : [];
  if (abs(line.slopeDeg) < SLANTED_DEG) return turned;
  const { picture } = leanInk(line.strip, tan((line.slopeDeg * PI) / 180));
  const upright = taper ? evenInk(picture, taper) : picture;
  return [...turned, ...(upright ? cutAsSeen(line, upright, "evened, upright") : [])];
}
/** A line that slopes less looks the same turned level or leaned. */
const SLANTED_DEG = 2;

/** From how far round the line was seen is not known: it is cut in a few ways, and fitting finds the rest. */
function seeFurther(line: InkLine, { taper, even }: Front): InkLine[] {
  if (!taper || !even) return cutAsSeen(line, stretchInk(line.strip, NARROWED), `evened, ${NARROWED} times as wide`);
  if (!taper.bow) return [];
  return ROUNDS.flatMap((round) =>
    cutAsSeen(line, unrollInk(even, round), `evened, around ${round.arcRad} from ${round.turnRad}`),
  );
}
/** How a line may stand on a cylinder, and how much narrower a sign is seen than it is, about. */
const ROUNDS: Round[] = [0, -0.35, 0.35].map((turnRad) => ({ arcRad: 0.9, turnRad }));
const NARROWED = 1.25;

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
