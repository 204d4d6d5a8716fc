// Whether the contours of a letter cross: one another or themselves. Touching in a point, or along an edge, is no crossing.
// One sweep from the lowest edge up: an edge is compared with those alone that reach its height.
import { areaOf, boundsOf, isInside, type Bounds, type Polygons } from "../geometry/outline";

type Edge = { contour: number; index: number; last: number; ax: number; ay: number; bx: number; by: number };

/**
 * Counts crossings, up to two: more does not matter.
 * @param touchFu - ends nearer than this to the other edge's line touch it; font units.
 */
export function countCrossings(polygons: Polygons, touchFu: number): number {
  const edges = edgesOf(polygons);
  let active: Edge[] = [];
  let found = 0;
  for (const e of edges) {
    const low = Math.min(e.ay, e.by);
    const [x0, x1] = [Math.min(e.ax, e.bx), Math.max(e.ax, e.bx)];
    const still: Edge[] = [];
    for (const f of active) {
      if (Math.max(f.ay, f.by) <= low) continue;
      still.push(f);
      if (Math.max(f.ax, f.bx) <= x0 || Math.min(f.ax, f.bx) >= x1 || areNeighbours(e, f)) continue;
      if (crosses(e, f, touchFu) && ++found >= 2) return found;
    }
    still.push(e);
    active = still;
  }
  return found || countInside(polygons, touchFu);
}

/** Contours turning the same way of which one reaches into the other along shared edges, or lies in it whole. */
function countInside(polygons: Polygons, touchFu: number): number {
  const turns = polygons.map(areaOf);
  const boxes = polygons.map((p) => boundsOf([p]));
  let found = 0;
  for (let a = 0; a < polygons.length; a++)
    for (let b = 0; b < polygons.length; b++) {
      const [p, q] = [boxes[a], boxes[b]];
      if (a === b || !p || !q || turns[a]! * turns[b]! <= 0) continue;
      if (p.xMin >= q.xMax || q.xMin >= p.xMax || p.yMin >= q.yMax || q.yMin >= p.yMax) continue;
      // Rings in rings (an inline) turn the same way at every second step: a hole between them parts them.
      if (
        polygons.some(
          (h, c) => turns[c]! * turns[a]! < 0 && boxes[c] && (holds(boxes[c], p) || holds(boxes[c], q)) && h.length,
        )
      )
        continue;
      if (reachesInto(polygons[a]!, polygons[b]!, touchFu) && ++found >= 2) return found;
    }
  return found;
}
const holds = (outer: Bounds, inner: Bounds) =>
  outer.xMin <= inner.xMin && outer.xMax >= inner.xMax && outer.yMin <= inner.yMin && outer.yMax >= inner.yMax;

/** Whether the middle of any edge of p lies clearly inside q. */
function reachesInto(p: Float64Array, q: Float64Array, touchFu: number): boolean {
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) {
    const [x, y] = [(p[i]! + p[j]!) / 2, (p[i + 1]! + p[j + 1]!) / 2];
    const around = [
      [0, 0],
      [touchFu, 0],
      [-touchFu, 0],
      [0, touchFu],
      [0, -touchFu],
    ] as const;
    if (around.every(([dx, dy]) => isInside(q, x + dx, y + dy))) return true;
  }
  return false;
}
function edgesOf(polygons: Polygons): Edge[] {
  const out: Edge[] = [];
  polygons.forEach((p, contour) => {
    const n = p.length / 2;
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      out.push({ contour, index: i, last: n - 1, ax: p[2 * i]!, ay: p[2 * i + 1]!, bx: p[2 * j]!, by: p[2 * j + 1]! });
    }
  });
  return out.sort((e, f) => Math.min(e.ay, e.by) - Math.min(f.ay, f.by));
}

function areNeighbours(e: Edge, f: Edge): boolean {
  if (e.contour !== f.contour) return false;
  const apart = Math.abs(e.index - f.index);
  return apart < 2 || apart === e.last;
}

const crosses = (e: Edge, f: Edge, touchFu: number) =>
  isBetween(e, f.ax, f.ay, f.bx, f.by, touchFu) && isBetween(f, e.ax, e.ay, e.bx, e.by, touchFu);

/** Whether two points lie on different sides of an edge's line, both clearly off it. */
function isBetween(e: Edge, x0: number, y0: number, x1: number, y1: number, touchFu: number): boolean {
  const [dx, dy] = [e.bx - e.ax, e.by - e.ay];
  const length = Math.hypot(dx, dy);
  if (!length) return false;
  const a = (dx * (y0 - e.ay) - dy * (x0 - e.ax)) / length;
  const b = (dx * (y1 - e.ay) - dy * (x1 - e.ax)) / length;
  return (a > touchFu && b < -touchFu) || (a < -touchFu && b > touchFu);
}
