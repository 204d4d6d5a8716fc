// Outlines that overlap → one outline that does not, with its curves kept. By a package for arithmetic of curves; what it gives is held
// against the same union of polygons, and where the two differ it is tried again, in the end with the polygons themselves.
import { areaOf, flattenOutline, type Outline } from "./outline";
import { paper } from "./paperScope";
import { SLIVER_MM2, subtractPolygons, unitePolygons } from "./polygons";

/** `isFlattened`: curves could not be kept. */
type United = { outline: Outline; isFlattened: boolean };

/** The package's tolerances are made for hundreds of units, not for a few millimetres. */
const UNITS_PER_MM = 100;
/** Curves are taken apart to this when areas are compared. */
const FLAT_MM = 0.002;
/** Areas of the two ways may differ by so much of the whole. */
const AREA_SHARE = 2e-4;
/** Edges that lie exactly on one another are the hard case of this arithmetic: letters are moved by less than any plotter resolves. */
const NUDGES_MM = [0, 0.0007, 0.0023];

/**
 * @param outlines - one per letter, closed, millimetres, y down; each filled by its winding. Not modified.
 * @param less - what is cut out of the whole.
 * @returns outer contours clockwise as seen on the sheet, inner ones the other way.
 */
export function uniteOutlines(outlines: readonly Outline[], less: readonly Outline[] = []): United {
  const drawn = outlines.filter((o) => o.verbs);
  if (!drawn.length) return { outline: { verbs: "", coords: new Float64Array(0) }, isFlattened: false };
  const flat = (o: Outline) => flattenOutline(o, FLAT_MM);
  const solid = unitePolygons(drawn.map(flat));
  const polygons = less.length ? subtractPolygons(solid, unitePolygons(less.map(flat))) : solid;
  const area = polygons.reduce((sum, p) => sum + areaOf(p), 0);
  for (const nudge of NUDGES_MM) {
    const outline = uniteCurves(drawn, less, nudge);
    if (outline && isSame(outline, area, polygons.length)) return { outline, isFlattened: false };
  }
  return { outline: fromPolygons(polygons), isFlattened: true };
}

function isSame(outline: Outline, area: number, count: number): boolean {
  const own = flattenOutline(outline, FLAT_MM).filter((p) => Math.abs(areaOf(p)) >= SLIVER_MM2);
  const ownArea = own.reduce((sum, p) => sum + areaOf(p), 0);
  return own.length === count && Math.abs(ownArea - area) <= AREA_SHARE * area + 1e-4;
}

/** @returns null where the package fails. */
function uniteCurves(outlines: readonly Outline[], less: readonly Outline[], nudgeMm: number): Outline | null {
  try {
    let united = unite(outlines, nudgeMm);
    if (less.length) united = united.subtract(unite(less, nudgeMm), { insert: false });
    united.reorient(true, true);
    const paths = "children" in united && united.children?.length ? (united.children as paper.Path[]) : [united];
    return fromPaths(paths as paper.Path[]);
  } catch {
    return null;
  }
}

function unite(outlines: readonly Outline[], nudgeMm: number): paper.PathItem {
  const children = outlines.flatMap((o, i) => toPaths(o, nudgeMm * ((i % 5) - 2), nudgeMm * (((i * 3) % 5) - 2)));
  const whole = new paper.CompoundPath({ children, fillRule: "nonzero", insert: false });
  return whole.unite(undefined as never, { insert: false });
}

/** Contours of one letter, its outer ones clockwise: where letters lie on one another, both wind the same way. */
function toPaths({ verbs, coords }: Outline, dxMm: number, dyMm: number): paper.Path[] {
  const paths: paper.Path[] = [];
  let path: paper.Path | null = null;
  let at = 0;
  const next = () => {
    const point = new paper.Point((coords[at]! + dxMm) * UNITS_PER_MM, (coords[at + 1]! + dyMm) * UNITS_PER_MM);
    at += 2;
    return point;
  };
  for (const verb of verbs) {
    if (verb === "M") {
      path = new paper.Path({ insert: false });
      paths.push(path);
      path.moveTo(next());
    } else if (verb === "L") path?.lineTo(next());
    else if (verb === "Q") path?.quadraticCurveTo(next(), next());
    else if (verb === "C") path?.cubicCurveTo(next(), next(), next());
    else path?.closePath();
  }
  const closed = paths.filter((p) => p.segments.length > 1);
  for (const p of closed) p.closed = true;
  if (closed.reduce((sum, p) => sum + p.area, 0) < 0) for (const p of closed) p.reverse();
  return closed;
}

function fromPaths(paths: readonly paper.Path[]): Outline {
  let verbs = "";
  const coords: number[] = [];
  const put = (p: paper.Point) => coords.push(p.x / UNITS_PER_MM, p.y / UNITS_PER_MM);
  for (const path of paths) {
    if (path.segments.length < 2 || Math.abs(path.area) < SLIVER_MM2 * UNITS_PER_MM ** 2) continue;
    verbs += "M";
    put(path.firstSegment.point);
    for (const curve of path.curves) {
      if (curve.isStraight()) {
        verbs += "L";
        put(curve.point2);
        continue;
      }
      verbs += "C";
      put(curve.point1.add(curve.handle1));
      put(curve.point2.add(curve.handle2));
      put(curve.point2);
    }
    verbs += "Z";
  }
  return { verbs, coords: Float64Array.from(coords) };
}

/** Polygons as an outline of straight lines. */
export function fromPolygons(polygons: readonly Float64Array[]): Outline {
  return {
    verbs: polygons.map((p) => `M${"L".repeat(p.length / 2 - 1)}Z`).join(""),
    coords: Float64Array.from(polygons.flatMap((p) => [...p])),
  };
}
