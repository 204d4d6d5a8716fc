// Lays what was read on the film: each contour with what it encloses is one piece, pieces are packed to save film, groups of pieces that
// are kept together move as one.
import { areaOf, boundsOf, isInside, type Bounds } from "../../src/core/geometry/outline";
import type { Piece } from "../../src/core/geometry/polygons";
import type { CutLine } from "./cutFile";

export const BORDER_MM = 10;
const GAP_MM = 4;

type Unit = { pieces: Piece[]; isGroup: boolean; box: Bounds };
type LaidFilm = { pieces: Piece[]; groups: number; movedPieces: number; widthMm: number; heightMm: number };

/** @returns null where something is higher than the film is wide. */
export function layOnFilm(lines: readonly CutLine[], filmWidthMm: number): LaidFilm | null {
  const units = unitsOf(lines);
  // The highest first, down the film and then along it.
  const order = [...units].sort((a, b) => heightOf(b.box) - heightOf(a.box));
  const laid: { unit: Unit; dx: number; dy: number }[] = [];
  let [x, y, columnMm] = [BORDER_MM, BORDER_MM, 0];
  for (const unit of order) {
    const [w, h] = [unit.box.xMax - unit.box.xMin, heightOf(unit.box)];
    if (h + 2 * BORDER_MM > filmWidthMm) return null;
    if (y + h + BORDER_MM > filmWidthMm) [x, y, columnMm] = [x + columnMm + GAP_MM, BORDER_MM, 0];
    laid.push({ unit, dx: x - unit.box.xMin, dy: y - unit.box.yMin });
    y += h + GAP_MM;
    columnMm = Math.max(columnMm, w);
  }
  const pieces = laid.flatMap(({ unit, dx, dy }) => unit.pieces.map((p) => movePiece(p, dx, dy)));
  const box = boundsOf(pieces.map((p) => p.edge));
  return {
    pieces,
    groups: units.filter((u) => u.isGroup).length,
    movedPieces: countMoved(laid),
    widthMm: (box?.xMax ?? 0) + BORDER_MM,
    heightMm: filmWidthMm,
  };
}

const heightOf = (b: Bounds) => b.yMax - b.yMin;
const SAME_MM = 0.01;

/** Pieces that went another way than the first one. */
function countMoved(laid: readonly { unit: Unit; dx: number; dy: number }[]): number {
  const first = laid[0];
  const moved = laid.filter((l) => Math.hypot(l.dx - first!.dx, l.dy - first!.dy) > SAME_MM);
  return moved.reduce((sum, l) => sum + l.unit.pieces.length, 0);
}

function unitsOf(lines: readonly CutLine[]): Unit[] {
  const groups = new Map<string, CutLine[]>();
  const alone: CutLine[] = [];
  for (const line of lines) {
    if (line.group === null) alone.push(line);
    else groups.set(line.group, [...(groups.get(line.group) ?? []), line]);
  }
  const boxOf = (pieces: Piece[]) => boundsOf(pieces.map((p) => p.edge))!;
  return [
    ...nest(alone).map((p) => ({ pieces: [p], isGroup: false, box: boxOf([p]) })),
    ...[...groups.values()].map(nest).map((pieces) => ({ pieces, isGroup: true, box: boxOf(pieces) })),
  ];
}

/** Contours within contours: those at every other depth are what is cut out of the ones around them. */
function nest(lines: readonly CutLine[]): Piece[] {
  const contours = lines.map(({ points }) => {
    const polygon = Float64Array.from(points);
    return { polygon, area: Math.abs(areaOf(polygon)), box: boundsOf([polygon])! };
  });
  const holds = (outer: (typeof contours)[number], inner: (typeof contours)[number]) =>
    outer !== inner &&
    outer.area > inner.area &&
    outer.box.xMin <= inner.box.xMin &&
    outer.box.xMax >= inner.box.xMax &&
    outer.box.yMin <= inner.box.yMin &&
    outer.box.yMax >= inner.box.yMax &&
    isInside(outer.polygon, inner.polygon[0]!, inner.polygon[1]!);
  const around = contours.map((c) => contours.filter((o) => holds(o, c)).sort((a, b) => a.area - b.area));
  const pieces = new Map<(typeof contours)[number], Piece>();
  contours.forEach((c, i) => {
    if (around[i]!.length % 2 === 0) pieces.set(c, { edge: c.polygon, counters: [] });
  });
  contours.forEach((c, i) => {
    if (around[i]!.length % 2) pieces.get(around[i]![0]!)?.counters.push(c.polygon);
  });
  return [...pieces.values()];
}

function movePiece({ edge, counters }: Piece, dx: number, dy: number): Piece {
  const move = (p: Float64Array) => p.map((v, i) => v + (i % 2 ? dy : dx));
  return { edge: move(edge), counters: counters.map(move) };
}
