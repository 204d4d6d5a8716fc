// Arithmetic of polygons in millimetres: union, difference, intersection, growing; and which contour lies in which. By a package that
// computes in whole numbers, here micrometres, so that no answer depends on rounding.
import {
  ClipType,
  Clipper64,
  EndType,
  FillRule,
  inflatePaths,
  JoinType,
  PolyTree64,
  type Path64,
  type Paths64,
  type PolyPath64,
} from "@countertype/clipper2-ts";
import { areaOf, boundsOf, isInside, type Polygons } from "./outline";

const UNITS_PER_MM = 1000;

/** One piece of material: its edge and the counters cut out of it. Edges turn clockwise on the sheet (y down), counters the other way. */
export type Piece = { edge: Float64Array; counters: Float64Array[] };

const toPath = (p: Float64Array): Path64 => {
  const path: Path64 = [];
  for (let i = 0; i < p.length; i += 2)
    path.push({ x: Math.round(p[i]! * UNITS_PER_MM), y: Math.round(p[i + 1]! * UNITS_PER_MM) });
  return path;
};
const fromPath = (path: Path64): Float64Array => {
  const p = new Float64Array(path.length * 2);
  path.forEach(({ x, y }, i) => {
    p[2 * i] = x / UNITS_PER_MM;
    p[2 * i + 1] = y / UNITS_PER_MM;
  });
  return p;
};

type Shape = readonly Float64Array[];
const toPaths = (shape: Shape): Paths64 => shape.map(toPath);

function combine(type: ClipType, subject: Paths64, clip: Paths64 | null): Paths64 {
  const clipper = new Clipper64();
  clipper.addSubject(subject);
  if (clip?.length) clipper.addClip(clip);
  const solution: Paths64 = [];
  clipper.execute(type, FillRule.NonZero, solution);
  return solution;
}

/** One letter's contours by their winding, so that letters of either turning can be joined. */
const clean = (shape: Shape): Paths64 =>
  groupNear(toPaths(shape), 0).flatMap((group) => combine(ClipType.Union, group, null));

/** Less than this is what rounding leaves between edges, in square millimetres. */
export const SLIVER_MM2 = 1e-4;
const withoutSlivers = (paths: Paths64): Polygons =>
  paths.map(fromPath).filter((p) => Math.abs(areaOf(p)) >= SLIVER_MM2);

/** Contours that may touch one another, by their boxes: what lies apart is worked on apart, which takes a fraction of the time. */
function groupNear(paths: readonly Path64[], margin: number): Path64[][] {
  const boxes = paths.map(boxOf);
  const groupOf = paths.map((_, i) => i);
  const find = (i: number): number => (groupOf[i] === i ? i : (groupOf[i] = find(groupOf[i]!)));
  const order = [...paths.keys()].sort((i, k) => boxes[i]!.left - boxes[k]!.left);
  order.forEach((i, at) => {
    const own = boxes[i]!;
    for (let k = at + 1; k < order.length; k++) {
      const other = boxes[order[k]!]!;
      if (other.left - margin > own.right) break;
      if (other.top - margin <= own.bottom && own.top - margin <= other.bottom) groupOf[find(order[k]!)] = find(i);
    }
  });
  const groups = new Map<number, Path64[]>();
  paths.forEach((path, i) => {
    const group = groups.get(find(i));
    if (group) group.push(path);
    else groups.set(find(i), [path]);
  });
  return [...groups.values()];
}

function boxOf(path: Path64) {
  const box = { left: Infinity, right: -Infinity, top: Infinity, bottom: -Infinity };
  for (const { x, y } of path) {
    if (x < box.left) box.left = x;
    if (x > box.right) box.right = x;
    if (y < box.top) box.top = y;
    if (y > box.bottom) box.bottom = y;
  }
  return box;
}

/** @param shapes - polygons of one letter each. @returns contours that do not cross: edges of positive area, counters negative. */
export const unitePolygons = (shapes: readonly Shape[]): Polygons =>
  withoutSlivers(
    groupNear(shapes.flatMap(clean), 0).flatMap((group) =>
      group.length > 1 ? combine(ClipType.Union, group, null) : group,
    ),
  );

/** Works out two shapes against each other, group by group. */
function combineNear(type: ClipType, a: Shape, b: Shape): Polygons {
  const [first, second] = [clean(a), clean(b)];
  const ofSecond = new Set(second);
  return withoutSlivers(
    groupNear([...first, ...second], 0).flatMap((group) => {
      const clip = group.filter((p) => ofSecond.has(p));
      const subject = group.filter((p) => !ofSecond.has(p));
      if (clip.length && subject.length) return combine(type, subject, clip);
      return type === ClipType.Difference ? subject : [];
    }),
  );
}
export const subtractPolygons = (shape: Shape, less: Shape): Polygons => combineNear(ClipType.Difference, shape, less);
export const intersectPolygons = (a: Shape, b: Shape): Polygons => combineNear(ClipType.Intersection, a, b);

/** Moves all edges outward, or inward below zero, with round corners. @param arcMm - how far corners may lie from a true arc. */
export const growPolygons = (shape: Shape, byMm: number, arcMm = 0.005): Polygons => {
  const by = byMm * UNITS_PER_MM;
  return groupNear(clean(shape), 2 * Math.max(0, by)).flatMap((group) =>
    inflatePaths(group, by, JoinType.Round, EndType.Polygon, 2, arcMm * UNITS_PER_MM).map(fromPath),
  );
};

/** Pieces with the counters that each encloses; a piece within a counter is a piece of its own. */
export function piecesOf(shapes: readonly Shape[]): Piece[] {
  const pieces: Piece[] = [];
  const walk = (parent: PolyPath64) => {
    for (let i = 0; i < parent.count; i++) {
      const node = parent.child(i);
      const counters: PolyPath64[] = [];
      for (let k = 0; k < node.count; k++) counters.push(node.child(k));
      const [edge] = withoutSlivers([node.polygon ?? []]);
      if (edge) pieces.push({ edge, counters: withoutSlivers(counters.map((c) => c.polygon ?? [])) });
      for (const c of counters) walk(c);
    }
  };
  for (const group of groupNear(shapes.flatMap(clean), 0)) {
    const clipper = new Clipper64();
    clipper.addSubject(group);
    const tree = new PolyTree64();
    clipper.execute(ClipType.Union, FillRule.NonZero, tree);
    walk(tree);
  }
  return pieces;
}

/** The same of contours that are a union already: those that turn one way are edges, the others counters of the nearest edge around. */
export function nestContours(contours: Polygons): Piece[] {
  const solid = contours.filter((p) => Math.abs(areaOf(p)) >= SLIVER_MM2);
  const pieces = solid
    .filter((p) => areaOf(p) > 0)
    .sort((a, b) => areaOf(a) - areaOf(b))
    .map((edge): Piece => ({ edge, counters: [] }));
  const boxes = pieces.map((p) => boundsOf([p.edge])!);
  for (const counter of solid.filter((p) => areaOf(p) < 0)) {
    const own = boundsOf([counter])!;
    const around = pieces.find(
      (p, i) =>
        boxes[i]!.xMin <= own.xMin &&
        boxes[i]!.xMax >= own.xMax &&
        boxes[i]!.yMin <= own.yMin &&
        boxes[i]!.yMax >= own.yMax &&
        isInside(p.edge, counter[0]!, counter[1]!),
    );
    around?.counters.push(counter);
  }
  return pieces;
}

/** Whether a place lies within a contour or on its edge (to rounding), however it turns. */
export function contains(p: Float64Array, xMm: number, yMm: number): boolean {
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2)
    if (isOn(p[i]!, p[i + 1]!, p[j]!, p[j + 1]!, xMm, yMm)) return true;
  return isInside(p, xMm, yMm);
}

/** Two micrometres either way are rounding. */
const ON_MM = 2 / UNITS_PER_MM;
function isOn(ax: number, ay: number, bx: number, by: number, x: number, y: number): boolean {
  const [dx, dy] = [bx - ax, by - ay];
  const length2 = dx * dx + dy * dy;
  const t = length2 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / length2)) : 0;
  return Math.hypot(x - ax - t * dx, y - ay - t * dy) <= ON_MM;
}
