// What a placed block is cut and printed as: its letters as outlines, joined to one where the block says so, with its bridges, grown.
import { MOST_MM, type Block } from "@/contracts/lettering";
import {
  areaOf,
  boundsOf,
  doBoxesMeet,
  flattenOutline,
  joinOutlines,
  middleOf,
  type Outline,
  type Polygons,
} from "../geometry/outline";
import {
  growPolygons,
  intersectPolygons,
  nestContours,
  piecesOf,
  subtractPolygons,
  unitePolygons,
  type Piece,
} from "../geometry/polygons";
import { fromPolygons, uniteOutlines } from "../geometry/unitePaths";
import { findGaps } from "./gaps";
import type { PlacedBlock } from "./layoutLettering";
import { FLAT_MM, type PlacedLetter } from "./placeBlock";

/** A letter's own outline and the same as polygons. Letters without ink are left out. */
export type LetterShape = { letter: PlacedLetter; outline: Outline; readonly polygons: Polygons };
/** `whole`: the one outline of a joined block; null where its letters stand for themselves. `isFlattened`: its curves could not be kept. */
export type BlockShape = { placed: PlacedBlock; letters: LetterShape[]; whole: Outline | null; isFlattened: boolean };

function shapeLetters({ letters }: PlacedBlock): LetterShape[] {
  return letters.flatMap((letter) => {
    const outline = joinOutlines(letter.glyphs.map((g) => g.outline));
    if (!outline.verbs) return [];
    // Taken apart when it is first asked for: plain letters on their way never are.
    let polygons: Polygons | null = null;
    return [
      {
        letter,
        outline,
        get polygons() {
          return (polygons ??= flattenOutline(outline, FLAT_MM));
        },
      },
    ];
  });
}

export function shapeBlock(placed: PlacedBlock): BlockShape {
  const letters = shapeLetters(placed);
  const { block } = placed;
  const { added, cut } = bridgesOf(block, letters);
  if (!block.joined && !added.length && !cut.length && !block.growMm)
    return { placed, letters, whole: null, isFlattened: false };
  const kept = block.keepsCounters ? findFilledCounters(letters).map((c) => c.counter) : [];
  const alone = (polygons: readonly Float64Array[]) => polygons.map((p) => fromPolygons([p]));
  const { outline, isFlattened } = uniteOutlines(
    [...letters.map((l) => l.outline), ...alone(added)],
    alone([...cut, ...kept]),
  );
  if (!block.growMm) return { placed, letters, whole: outline, isFlattened };
  const grown = growPolygons(flattenOutline(outline, FLAT_MM), block.growMm, FLAT_MM);
  return { placed, letters, whole: fromPolygons(grown), isFlattened: true };
}

const inkOfBlock = ({ letters, whole }: BlockShape): Polygons[] =>
  whole ? [flattenOutline(whole, FLAT_MM)] : letters.map((l) => l.polygons);
/** The block's ink as polygons that do not cross. */
export const polygonsOfBlock = (shape: BlockShape): Polygons => unitePolygons(inkOfBlock(shape));
export const piecesOfBlock = (shape: BlockShape): Piece[] =>
  shape.whole ? nestContours(flattenOutline(shape.whole, FLAT_MM)) : piecesOf(inkOfBlock(shape));

/** Strips that join letters, and strips that are cut through counters. */
function bridgesOf(block: Block, letters: readonly LetterShape[]) {
  const added: Float64Array[] = [];
  const cut: Float64Array[] = [];
  for (const { at, to, widthMm, turnDeg } of block.bridges ?? []) {
    const first = letters.find((l) => l.letter.at === at);
    const second = letters.find((l) => l.letter.at === to);
    if (first && second) added.push(...bridgeBetween(first, second, widthMm));
    else if (first && to === undefined) cut.push(...stripsThrough(first, widthMm, turnDeg ?? 0));
  }
  return { added, cut };
}

/** A strip over the shortest way between two letters, let into both by its width. */
function bridgeBetween(a: LetterShape, b: LetterShape, widthMm: number): Float64Array[] {
  const [first, second] = [wholeOf(a), wholeOf(b)];
  const gap = findGaps([first, second], MOST_MM)[0];
  if (!gap || gap.distanceMm < 1e-6) return [];
  const [dx, dy] = [(gap.to.xMm - gap.from.xMm) / gap.distanceMm, (gap.to.yMm - gap.from.yMm) / gap.distanceMm];
  const from = { x: gap.from.xMm - dx * widthMm, y: gap.from.yMm - dy * widthMm };
  return [stripOf(from, dx, dy, gap.distanceMm + 2 * widthMm, widthMm)];
}

/** All pieces of a letter as one list of contours. */
const wholeOf = ({ polygons }: LetterShape): Piece => ({ edge: polygons[0]!, counters: polygons.slice(1) });

/** A rectangle from a point in a direction, clockwise on the sheet. */
function stripOf(from: { x: number; y: number }, dx: number, dy: number, lengthMm: number, widthMm: number) {
  const [hx, hy] = [(-dy * widthMm) / 2, (dx * widthMm) / 2];
  const end = { x: from.x + dx * lengthMm, y: from.y + dy * lengthMm };
  return Float64Array.of(
    ...[from.x - hx, from.y - hy, end.x - hx, end.y - hy],
    ...[end.x + hx, end.y + hy, from.x + hx, from.y + hy],
  );
}

/** A strip through the middle of each counter of a letter, upward to beyond its edge. */
function stripsThrough({ polygons }: LetterShape, widthMm: number, turnDeg: number): Float64Array[] {
  const box = boundsOf(polygons)!;
  const reach = Math.hypot(box.xMax - box.xMin, box.yMax - box.yMin);
  const turn = ((turnDeg - 90) * Math.PI) / 180;
  return piecesOf([polygons])
    .flatMap((p) => p.counters)
    .map((counter) => {
      return stripOf(middleOf(boundsOf([counter])!), Math.cos(turn), Math.sin(turn), reach, widthMm);
    });
}

/** A counter that other letters cover, and how much of it is left. */
type FilledCounter = { at: number; by: number[]; counter: Float64Array };
/** A counter counts as filled from this part on. */
const FILLED_SHARE = 0.2;

/** Counters of single letters that are lost where letters are joined. */
export function findFilledCounters(letters: readonly LetterShape[]): FilledCounter[] {
  const boxes = letters.map((l) => boundsOf(l.polygons)!);
  return letters.flatMap((own, i) => {
    const near = letters.filter((_, k) => k !== i && doBoxesMeet(boxes[i]!, boxes[k]!));
    // One contour encloses nothing.
    if (!near.length || own.polygons.length < 2) return [];
    return piecesOf([own.polygons])
      .flatMap((p) => p.counters)
      .flatMap((counter) => {
        const by = near.filter((n) => intersectPolygons([counter], n.polygons).length);
        if (!by.length) return [];
        const left = subtractPolygons([counter], unitePolygons(by.map((n) => n.polygons)));
        const share = Math.abs(left.reduce((sum, p) => sum + areaOf(p), 0) / areaOf(counter));
        return share <= 1 - FILLED_SHARE
          ? [{ at: own.letter.at, by: by.map((n) => n.letter.at), counter: clockwise(counter) }]
          : [];
      });
  });
}

/** A counter as a shape of its own. */
const clockwise = (p: Float64Array): Float64Array => {
  if (areaOf(p) > 0) return p;
  const turned = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 2) {
    turned[i] = p[p.length - 2 - i]!;
    turned[i + 1] = p[p.length - 1 - i]!;
  }
  return turned;
};
