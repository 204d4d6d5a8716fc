// The way of a knife through pieces: what is cut after what, how far it travels between with its tool up, and how long that takes.
import type { Piece } from "../geometry/polygons";

/** How fast a machine works. `liftSeconds`: the tool up and down again, once. */
type Pace = { cutMmPerS: number; travelMmPerS: number; liftSeconds: number };
/** One contour as it is cut: from `start` (a corner) round to it again. `piece`: index of the piece it belongs to. */
type Cut = { piece: number; polygon: Float64Array; start: number };
/** @property toolUps - moves with the tool up, the first from the corner of the sheet. */
type CutPlan = { cuts: Cut[]; toolUps: number; cutMm: number; travelMm: number; seconds: number };

const { hypot } = Math;

/**
 * Cuts what lies within before what lies around it, so that nothing is cut in a piece that has come loose; then the nearest piece.
 * @param from - where the tool stands first.
 */
export function planCut(pieces: readonly Piece[], pace: Pace, from = { x: 0, y: 0 }): CutPlan {
  const cuts: Cut[] = [];
  let [x, y, travelMm] = [from.x, from.y, 0];
  const go = (piece: number, polygon: Float64Array) => {
    const start = nearestCorner(polygon, x, y);
    travelMm += hypot(polygon[2 * start]! - x, polygon[2 * start + 1]! - y);
    [x, y] = [polygon[2 * start]!, polygon[2 * start + 1]!];
    cuts.push({ piece, polygon, start });
  };
  const left = new Set(pieces.keys());
  while (left.size) {
    const next = takeNearest(left, (i) => awayFrom(pieces[i]!.edge, x, y));
    const { edge, counters } = pieces[next]!;
    const inner = new Set(counters.keys());
    while (inner.size) go(next, counters[takeNearest(inner, (k) => awayFrom(counters[k]!, x, y))]!);
    go(next, edge);
  }
  const cutMm = cuts.reduce((sum, c) => sum + lengthOf(c.polygon), 0);
  const seconds = cutMm / pace.cutMmPerS + travelMm / pace.travelMmPerS + cuts.length * pace.liftSeconds;
  return { cuts, toolUps: cuts.length, cutMm, travelMm, seconds };
}

function takeNearest(left: Set<number>, away: (i: number) => number): number {
  let [best, least] = [-1, Infinity];
  for (const i of left) {
    const d = away(i);
    if (best < 0 || d < least) [best, least] = [i, d];
  }
  left.delete(best);
  return best;
}

/** By its first corner: which corner it is begun at is chosen when the tool goes there. */
const awayFrom = (p: Float64Array, x: number, y: number) => hypot(p[0]! - x, p[1]! - y);

function nearestCorner(p: Float64Array, x: number, y: number): number {
  let [best, least] = [0, Infinity];
  for (let i = 0; i < p.length; i += 2) {
    const d = hypot(p[i]! - x, p[i + 1]! - y);
    if (d < least) [best, least] = [i / 2, d];
  }
  return best;
}

/** Length round a closed polygon. */
function lengthOf(p: Float64Array): number {
  let sum = 0;
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) sum += hypot(p[i]! - p[j]!, p[i + 1]! - p[j + 1]!);
  return sum;
}
