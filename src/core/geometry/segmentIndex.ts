// Straight edges in a grid: which edge is nearest to a place. What thicknesses and gaps are measured by.
import { boundsOf, type Polygons } from "./outline";

const { ceil, floor, hypot, max, min, sqrt } = Math;

/** Edge `i` runs from (x0, y0) to (x1, y1) and belongs to contour `contour[i]`. */
export type Edges = {
  count: number;
  x0: Float64Array;
  y0: Float64Array;
  x1: Float64Array;
  y1: Float64Array;
  contour: Int32Array;
};
export type Nearest = { edge: number; xMm: number; yMm: number; distanceMm: number };
export type SegmentIndex = {
  edges: Edges;
  /**
   * @param withinMm - nothing further away is looked for. @param skipped - an edge that does not count.
   * @returns null when nothing is as near.
   */
  nearest(xMm: number, yMm: number, withinMm: number, skipped?: number): Nearest | null;
};

/** Edges of closed polygons, in their order; those without length are left out. */
function edgesOf(polygons: Polygons): Edges {
  const most = polygons.reduce((sum, p) => sum + p.length / 2, 0);
  const edges: Edges = {
    count: 0,
    x0: new Float64Array(most),
    y0: new Float64Array(most),
    x1: new Float64Array(most),
    y1: new Float64Array(most),
    contour: new Int32Array(most),
  };
  polygons.forEach((p, contour) => {
    for (let i = 0; i < p.length; i += 2) {
      const next = i + 2 < p.length ? i + 2 : 0;
      if (p[i] === p[next] && p[i + 1] === p[next + 1]) continue;
      const k = edges.count++;
      edges.x0[k] = p[i]!;
      edges.y0[k] = p[i + 1]!;
      edges.x1[k] = p[next]!;
      edges.y1[k] = p[next + 1]!;
      edges.contour[k] = contour;
    }
  });
  return edges;
}

/** Cells are bounded, however large the sheet is. */
const MOST_CELLS = 1_000_000;

/** @param cellMm - about as far as is usually looked. */
export function indexEdges(polygons: Polygons, cellMm: number): SegmentIndex {
  const edges = edgesOf(polygons);
  const box = boundsOf(polygons) ?? { xMin: 0, yMin: 0, xMax: 1, yMax: 1 };
  const [width, height] = [max(box.xMax - box.xMin, 1e-6), max(box.yMax - box.yMin, 1e-6)];
  const cell = max(cellMm, sqrt((width * height) / MOST_CELLS), max(width, height) / 4096);
  const [columns, rows] = [ceil(width / cell) + 1, ceil(height / cell) + 1];
  const column = (x: number) => max(0, min(columns - 1, floor((x - box.xMin) / cell)));
  const row = (y: number) => max(0, min(rows - 1, floor((y - box.yMin) / cell)));
  const { starts, members } = fillCells(edges, columns, rows, column, row);

  const nearest: SegmentIndex["nearest"] = (x, y, within, skipped = -1) => {
    let best = -1;
    let reach2 = within * within;
    const rings = ceil(within / cell) + 1;
    const [cx, cy] = [floor((x - box.xMin) / cell), floor((y - box.yMin) / cell)];
    for (let ring = 0; ring <= rings; ring++) {
      // Whatever lies in this ring is at least so far away.
      const least = (ring - 1) * cell;
      if (ring > 1 && least * least > reach2) break;
      const [firstRow, lastRow] = [max(0, cy - ring), min(rows - 1, cy + ring)];
      for (let r = firstRow; r <= lastRow; r++) {
        const isEdgeRow = r === cy - ring || r === cy + ring;
        const step = isEdgeRow ? 1 : max(1, 2 * ring);
        for (let c = cx - ring; c <= cx + ring; c += step) {
          if (c < 0 || c >= columns) continue;
          const at = r * columns + c;
          for (let m = starts[at]!; m < starts[at + 1]!; m++) {
            const edge = members[m]!;
            if (edge === skipped) continue;
            const d2 = distance2(edges, edge, x, y);
            if (d2 <= reach2) {
              reach2 = d2;
              best = edge;
            }
          }
        }
      }
    }
    return best < 0 ? null : nearestOn(edges, best, x, y);
  };
  return { edges, nearest };
}

/** Square of the distance to an edge: millions are asked, so nothing is made for the answer. */
function distance2({ x0, y0, x1, y1 }: Edges, edge: number, x: number, y: number): number {
  const ax = x0[edge]!;
  const ay = y0[edge]!;
  const dx = x1[edge]! - ax;
  const dy = y1[edge]! - ay;
  const t = max(0, min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
  const ox = x - ax - t * dx;
  const oy = y - ay - t * dy;
  return ox * ox + oy * oy;
}

/** Which edges touch a cell: the members of cell i stand from starts[i] to starts[i + 1]. */
function fillCells(
  { count, x0, y0, x1, y1 }: Edges,
  columns: number,
  rows: number,
  column: (x: number) => number,
  row: (y: number) => number,
) {
  const starts = new Int32Array(columns * rows + 1);
  const visit = (put: (cell: number, edge: number) => void) => {
    for (let i = 0; i < count; i++) {
      const [ca, cb] = [column(min(x0[i]!, x1[i]!)), column(max(x0[i]!, x1[i]!))];
      const [ra, rb] = [row(min(y0[i]!, y1[i]!)), row(max(y0[i]!, y1[i]!))];
      for (let r = ra; r <= rb; r++) for (let c = ca; c <= cb; c++) put(r * columns + c, i);
    }
  };
  visit((cell) => starts[cell + 1]!++);
  for (let i = 0; i < columns * rows; i++) starts[i + 1]! += starts[i]!;
  const members = new Int32Array(starts[columns * rows]!);
  const next = starts.slice();
  visit((cell, edge) => (members[next[cell]!++] = edge));
  return { starts, members };
}

/** The place on an edge that is nearest. */
export function nearestOn({ x0, y0, x1, y1 }: Edges, edge: number, x: number, y: number): Nearest {
  const [ax, ay] = [x0[edge]!, y0[edge]!];
  const [dx, dy] = [x1[edge]! - ax, y1[edge]! - ay];
  const t = max(0, min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
  const [xMm, yMm] = [ax + t * dx, ay + t * dy];
  return { edge, xMm, yMm, distanceMm: hypot(x - xMm, y - yMm) };
}
