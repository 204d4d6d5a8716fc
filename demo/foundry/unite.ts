// Many overlapping strokes → one clean outline, by a package for path arithmetic. Also what treatments remove.
import paper from "paper/dist/paper-core.js";
import type { Contour, Point } from "./pen";

let isReady = false;
function scope() {
  if (!isReady) paper.setup(new paper.Size(1000, 1000));
  isReady = true;
  return paper;
}

/** Edges that lie exactly on one another are the hard case of path arithmetic: each contour is nudged by less than rounding removes. */
const NUDGE = 0.031;

function toPath({ start, curves }: Contour, index: number) {
  const path = new (scope().Path)({ insert: false });
  const [dx, dy] = [NUDGE * ((index % 7) - 3), NUDGE * (((index * 3) % 7) - 3)];
  const at = (p: Point) => new paper.Point(p.x + dx, p.y + dy);
  path.moveTo(at(start));
  for (const [a, b, c] of curves) path.cubicCurveTo(at(a), at(b), at(c));
  path.closePath();
  return path;
}

const isClockwise = (c: Contour) => {
  let sum = 0;
  let from = c.start;
  for (const [a, b, to] of c.curves)
    for (const p of [a, b, to]) {
      sum += from.x * p.y - p.x * from.y;
      from = p;
    }
  return sum < 0;
};
const reverse = ({ start, curves }: Contour): Contour => {
  const points = [start, ...curves.map((c) => c[2])];
  return {
    start: points[points.length - 1]!,
    curves: curves.map(([a, b], i): [Point, Point, Point] => [b, a, points[i]!]).reverse(),
  };
};
/** Solid parts turned the way strokes turn. */
export const clockwise = (c: Contour): Contour => (isClockwise(c) ? c : reverse(c));

/**
 * Unites contours by their winding, then takes `less` away.
 * @returns outlines without overlaps, outer ones clockwise (as TrueType wants), inner ones the other way.
 */
export function unite(contours: Contour[], less: Contour[] = []): Contour[] {
  if (!contours.length) return [];
  const make = (list: Contour[]) =>
    new (scope().CompoundPath)({ children: list.map(toPath), fillRule: "nonzero", insert: false });
  let shape = make(contours).unite(undefined as never, { insert: false });
  if (less.length)
    shape = shape.subtract(make(less).unite(undefined as never, { insert: false }), {
      insert: false,
    });
  shape.reorient(true, false);
  const paths =
    "children" in shape && shape.children?.length ? (shape.children as paper.Path[]) : [shape as paper.Path];
  return paths.map(fromPath).filter((c): c is Contour => c !== null);
}

/** Null for slivers that are nothing but rounding. */
function fromPath(path: paper.Path): Contour | null {
  if (!path.segments?.length || Math.abs(path.area) < 40) return null;
  const curves = path.curves.filter((c) => c.length > 0.8);
  if (curves.length < 2) return null;
  const plain = (p: paper.Point): Point => ({ x: p.x, y: p.y });
  const out: [Point, Point, Point][] = curves.map((c, i) => {
    // Where a sliver was left out, the curve begins where the last one ended.
    const from = curves[(i + curves.length - 1) % curves.length]!.point2;
    return [plain(from.add(c.handle1)), plain(c.point2.add(c.handle2)), plain(c.point2)];
  });
  return { start: plain(curves[curves.length - 1]!.point2), curves: out };
}
