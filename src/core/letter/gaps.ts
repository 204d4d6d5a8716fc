// How near pieces come to one another: the shortest distance between their edges, and where.
import { boundsOf, type Bounds } from "../geometry/outline";
import { indexEdges } from "../geometry/segmentIndex";
import type { Piece } from "../geometry/polygons";

/** `a`, `b`: places in the list of pieces. From a point of one edge to one of the other. */
export type Gap = {
  a: number;
  b: number;
  distanceMm: number;
  from: { xMm: number; yMm: number };
  to: { xMm: number; yMm: number };
};

/** Cells of the index: what is looked for further away is found ring by ring. */
const MOST_CELL_MM = 5;

const awayFrom = (b: Bounds, x: number, y: number) =>
  Math.hypot(Math.max(0, b.xMin - x, x - b.xMax), Math.max(0, b.yMin - y, y - b.yMax));

/** The space between two boxes; 0 where they meet. */
const between = (a: Bounds, b: Bounds) =>
  Math.hypot(Math.max(0, a.xMin - b.xMax, b.xMin - a.xMax), Math.max(0, a.yMin - b.yMax, b.yMin - a.yMax));

/**
 * @param withinMm - pairs that are further apart are left out.
 * @returns every pair of pieces that comes as near, the nearest first.
 */
export function findGaps(pieces: readonly Piece[], withinMm: number): Gap[] {
  const boxes = pieces.map((p) => boundsOf([p.edge])!);
  const gaps: Gap[] = [];
  pieces.forEach((_, a) => {
    const box = boxes[a]!;
    const near = pieces.flatMap((__, b) => (b !== a && between(box, boxes[b]!) <= withinMm ? [b] : []));
    if (!near.length) return;
    const index = indexEdges(
      [pieces[a]!.edge, ...pieces[a]!.counters],
      Math.min(Math.max(withinMm / 2, 0.1), MOST_CELL_MM),
    );
    for (const b of near) {
      const gap = nearestCorner(index, box, [pieces[b]!.edge, ...pieces[b]!.counters], withinMm);
      if (gap) gaps.push({ a, b, ...gap });
    }
  });
  return keepShortest(gaps);
}

/** Two edges that do not cross are nearest at a corner of one of them: each side is asked with the other's corners. */
function nearestCorner(
  index: ReturnType<typeof indexEdges>,
  box: Bounds,
  contours: readonly Float64Array[],
  withinMm: number,
) {
  let best: Omit<Gap, "a" | "b"> | null = null;
  for (const p of contours)
    for (let i = 0; i < p.length; i += 2) {
      const [x, y] = [p[i]!, p[i + 1]!];
      const reach = best?.distanceMm ?? withinMm;
      // No nearer than the box around all edges.
      if (awayFrom(box, x, y) >= reach) continue;
      const near = index.nearest(x, y, reach);
      if (!near || (best && near.distanceMm >= best.distanceMm)) continue;
      const { xMm, yMm, distanceMm } = near;
      best = { distanceMm, from: { xMm, yMm }, to: { xMm: x, yMm: y } };
    }
  return best;
}

function keepShortest(gaps: readonly Gap[]): Gap[] {
  const shortest = new Map<string, Gap>();
  for (const gap of gaps) {
    const key = gap.a < gap.b ? `${gap.a} ${gap.b}` : `${gap.b} ${gap.a}`;
    const known = shortest.get(key);
    if (!known || gap.distanceMm < known.distanceMm) shortest.set(key, gap);
  }
  return [...shortest.values()].sort((x, y) => x.distanceMm - y.distanceMm);
}
