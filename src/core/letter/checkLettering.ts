// What would go wrong with a lettering in its material: thin strokes, narrow gaps, letters that overlap or do not join, counters that fall
// out or fill up, pieces too small to weed. Measured on the outlines that would be cut.
import { CUT_MM_PER_S, type Finding, type LetteringCheck, type Material } from "@/contracts/lettering";
import { areaOf, boundsOf, doBoxesMeet, middleOf, type Bounds, type Polygons } from "../geometry/outline";
import { contains, intersectPolygons, type Piece } from "../geometry/polygons";
import { findGaps, type Gap } from "./gaps";
import { findFilledCounters, piecesOfBlock, type BlockShape, type LetterShape } from "./shapeBlock";
import { planCut } from "./planCut";
import { findThinStrokes } from "./thinStrokes";

/** A piece of a block, and the letters that it is made of. */
type OwnedPiece = Piece & { shape: BlockShape; letters: number[]; box: Bounds };

/** Strokes and gaps are measured up to this part of the em, so that the narrowest of all can be told. */
const LOOK_EM = 0.3;
/** Letters overlap from this area on: less is rounding where they touch. */
const LEAST_OVERLAP_MM2 = 0.01;
/** Of a knife. */
const TRAVEL_MM_PER_S = 400;
const LIFT_SECONDS = 0.12;

/** @param shapes - of `shapeBlock`, blocks in the document's order. */
export function checkLettering(shapes: readonly BlockShape[], material: Material): LetteringCheck {
  const ofBlocks = shapes.map(ownPieces);
  const pieces = ofBlocks.flat();
  const strokes = shapes.map((shape, i) => checkStrokes(shape, contoursOf(ofBlocks[i]!), material.minStrokeMm));
  const gaps = checkGaps(pieces, material.minGapMm);
  const contours = contoursOf(pieces);
  const { cutMm, toolUps, seconds } = planCut(pieces, {
    cutMmPerS: material.cutMmPerS ?? CUT_MM_PER_S,
    travelMmPerS: TRAVEL_MM_PER_S,
    liftSeconds: LIFT_SECONDS,
  });
  return {
    findings: [
      ...strokes.flatMap((s) => s.findings),
      ...gaps.findings,
      ...shapes.flatMap(checkOverlaps),
      ...shapes.flatMap(checkCounters),
      ...pieces.flatMap((p) => checkIslands(p, material)),
      ...checkPieces(pieces, material.minPieceMm2 ?? 0),
    ],
    pieces: pieces.length,
    islands: pieces.reduce((sum, p) => sum + p.counters.length, 0),
    areaMm2: contours.reduce((sum, p) => sum + areaOf(p), 0),
    cutLengthMm: cutMm,
    toolUps,
    cutSeconds: seconds,
    thinnestMm: least(strokes.map((s) => s.thinnestMm)),
    smallestGapMm: gaps.smallestMm,
  };
}

const least = (values: readonly (number | null)[]): number | null => {
  const known = values.filter((v) => v !== null);
  return known.length ? Math.min(...known) : null;
};

const contoursOf = (pieces: readonly Piece[]): Polygons => pieces.flatMap((p) => [p.edge, ...p.counters]);

function ownPieces(shape: BlockShape): OwnedPiece[] {
  return piecesOfBlock(shape).map((piece) => {
    const box = boundsOf([piece.edge])!;
    const letters = shape.letters.filter((l) => reaches(piece, box, l)).map((l) => l.letter.at);
    return { ...piece, shape, letters, box };
  });
}

/** Whether a letter has a corner in a piece. */
function reaches({ edge }: Piece, box: Bounds, { polygons }: LetterShape): boolean {
  const own = boundsOf(polygons);
  return own !== null && doBoxesMeet(grown(own), box) && polygons.some((p) => contains(edge, p[0]!, p[1]!));
}
const grown = (b: Bounds): Bounds => ({ xMin: b.xMin - 1, yMin: b.yMin - 1, xMax: b.xMax + 1, yMax: b.yMax + 1 });

type Place = { xMm: number; yMm: number };
/** Letters of a block that a place lies in; the nearest one where it lies in none. */
function lettersAt({ letters }: BlockShape, { xMm, yMm }: Place): number[] {
  const within = letters.filter((l) => l.polygons.reduce((n, p) => n + Number(contains(p, xMm, yMm)), 0) % 2 === 1);
  if (within.length) return within.map((l) => l.letter.at);
  const away = (l: LetterShape) => {
    const { x, y } = middleOf(boundsOf(l.polygons)!);
    return Math.hypot(x - xMm, y - yMm);
  };
  const [nearest] = [...letters].sort((a, b) => away(a) - away(b));
  return nearest ? [nearest.letter.at] : [];
}

function checkStrokes(shape: BlockShape, polygons: Polygons, wantedMm: number) {
  const { block, emMm } = shape.placed;
  const { thin, thinnestMm } = findThinStrokes(polygons, wantedMm, Math.max(1.2 * wantedMm, LOOK_EM * emMm));
  const findings = thin.map(({ xMm, yMm, measuredMm }): Finding => ({
    kind: "thin",
    blockId: block.id,
    letters: lettersAt(shape, { xMm, yMm }),
    ...{ xMm, yMm, measuredMm, wantedMm },
  }));
  return { findings, thinnestMm };
}

/** How far is looked beyond the gap that is wanted, so that the smallest can be told. */
const LOOK_FACTOR = 4;

function checkGaps(pieces: readonly OwnedPiece[], wantedMm: number) {
  const joins = pieces.some((p) => p.shape.placed.block.joined);
  const lookMm = Math.max(wantedMm * LOOK_FACTOR, mostEm(pieces) * (joins ? 1 : LOOK_EM));
  const gaps = findGaps(pieces, lookMm).filter((g) => !lieOnOneAnother(pieces[g.a]!, pieces[g.b]!));
  return {
    findings: gaps.flatMap((gap) => tellGap(pieces[gap.a]!, pieces[gap.b]!, gap, wantedMm)),
    smallestMm: least(gaps.map((g) => g.distanceMm)),
  };
}
const mostEm = (pieces: readonly OwnedPiece[]) => Math.max(0, ...pieces.map((p) => p.shape.placed.emMm));

/** Blocks may be laid over one another, in colours of their own. */
const lieOnOneAnother = (a: OwnedPiece, b: OwnedPiece) =>
  a.shape !== b.shape && doBoxesMeet(a.box, b.box) && intersectPolygons(contoursOf([a]), contoursOf([b])).length > 0;

function tellGap(a: OwnedPiece, b: OwnedPiece, { from, to, distanceMm }: Gap, wantedMm: number): Finding[] {
  const at = { xMm: (from.xMm + to.xMm) / 2, yMm: (from.yMm + to.yMm) / 2 };
  const blockId = a.shape.placed.block.id;
  const apart = a.shape === b.shape && a.shape.placed.block.joined ? neighboursOf(a, b) : null;
  if (apart) return [{ kind: "apart", blockId, letters: apart, ...at, measuredMm: distanceMm }];
  if (distanceMm >= wantedMm) return [];
  const letters = a.shape === b.shape ? [...new Set([...a.letters, ...b.letters])].sort((x, y) => x - y) : a.letters;
  return [{ kind: "gap", blockId, letters, ...at, measuredMm: distanceMm, wantedMm }];
}

/** Two letters of a word, one in each piece, that follow one another; null where the pieces are not neighbours. */
function neighboursOf(a: OwnedPiece, b: OwnedPiece): number[] | null {
  for (const first of a.letters)
    for (const second of b.letters) {
      const isShared = a.letters.includes(second) || b.letters.includes(first);
      if (Math.abs(first - second) === 1 && !isShared) return [first, second].sort((x, y) => x - y);
    }
  return null;
}

/** Letters that lie on one another without being joined: they would be cut into each other. */
function checkOverlaps({ placed: { block }, letters, whole }: BlockShape): Finding[] {
  if (whole && block.joined) return [];
  const boxes = letters.map((l) => boundsOf(l.polygons)!);
  return letters.flatMap((a, i) =>
    letters.slice(i + 1).flatMap((b, k): Finding[] => {
      if (!doBoxesMeet(boxes[i]!, boxes[i + 1 + k]!)) return [];
      const shared = intersectPolygons(a.polygons, b.polygons);
      const largest = shared.reduce((most, p) => (areaOf(p) > areaOf(most) ? p : most), new Float64Array(0));
      if (areaOf(largest) < LEAST_OVERLAP_MM2) return [];
      return [{ kind: "overlap", blockId: block.id, letters: [a.letter.at, b.letter.at], ...placeOf(largest) }];
    }),
  );
}

function checkCounters({ placed: { block }, letters, whole }: BlockShape): Finding[] {
  if (!whole || !block.joined || block.keepsCounters) return [];
  return findFilledCounters(letters).map(({ at, by, counter }) => ({
    kind: "filled-counter",
    blockId: block.id,
    letters: [at, ...by],
    ...placeOf(counter),
  }));
}

/** The middle of a contour's box. */
function placeOf(p: Float64Array): Place {
  const { x, y } = middleOf(boundsOf([p])!);
  return { xMm: x, yMm: y };
}

/** Of a stencil every counter falls out; elsewhere only those too small to be weeded are told. */
function checkIslands({ counters, shape }: OwnedPiece, { isStencil, minPieceMm2 = 0, minGapMm }: Material): Finding[] {
  // A counter that no circle as wide as the gap fits into.
  const tooSmall = Math.max(minPieceMm2, (Math.PI / 4) * minGapMm ** 2);
  return counters
    .filter((c) => isStencil || Math.abs(areaOf(c)) < tooSmall)
    .map((c) => ({
      kind: "island",
      blockId: shape.placed.block.id,
      letters: lettersAt(shape, placeOf(c)),
      ...placeOf(c),
    }));
}

const checkPieces = (pieces: readonly OwnedPiece[], leastMm2: number): Finding[] =>
  pieces
    .filter((piece) => contoursOf([piece]).reduce((sum, p) => sum + areaOf(p), 0) < leastMm2)
    .map(({ shape, letters, edge }) => ({
      kind: "small-piece",
      blockId: shape.placed.block.id,
      letters,
      ...placeOf(edge),
    }));
