// Where strokes are narrow: circles that touch the edge on two opposite sides. Each place of the edge has one largest circle that touches
// it from within; its diameter is the stroke's thickness there where the other side lies opposite. Ends and corners are left out.
import type { Polygons } from "../geometry/outline";
import { indexEdges, nearestOn, type SegmentIndex } from "../geometry/segmentIndex";

const { PI, acos, hypot, max, min } = Math;

/** A stroke narrower than was asked for, at its narrowest. */
type ThinStroke = { xMm: number; yMm: number; measuredMm: number };

/** Sides count as opposite from this angle on, seen from the middle of the circle. */
const OPPOSITE_RAD = (150 * PI) / 180;
/** Sides that run into one another by more than this make a taper. */
const TAPER_RAD = (4 * PI) / 180;
/** So near to where it runs out, in widths that are wanted, a taper is an end. */
const END_WIDTHS = 8;

/** A circle at a place of the edge: `along` is the place's length on its contour, `across` of the place it touches opposite. */
type Circle = {
  xMm: number;
  yMm: number;
  diameterMm: number;
  contour: number;
  along: number;
  opposite: { contour: number; along: number };
  touches: [Touch, Touch];
  tapersRad: number;
};
type Touch = { xMm: number; yMm: number };

/**
 * @param polygons - a union: edges and counters, material on the right hand of each edge as it is walked with y down.
 * @param wantedMm - narrower strokes are told.
 * @returns one place per narrow stroke, and the narrowest of all strokes up to `lookMm`; null where there is none.
 */
export function findThinStrokes(
  polygons: Polygons,
  wantedMm: number,
  lookMm: number,
): { thin: ThinStroke[]; thinnestMm: number | null } {
  const index = indexEdges(polygons, max(wantedMm / 2, lookMm / 12));
  const { lengths, starts } = measureEdges(index);
  const stepMm = max(min(wantedMm, lookMm / 4) / 3, 0.05);
  const circles = walkEdges(index, lengths.ofEdge, stepMm, (edge, share, guessMm) =>
    circleAt(index, starts, edge, share, guessMm, lookMm / 2),
  ).filter((circle) => !isEnd(index, lengths.ofContour, circle, wantedMm));
  const narrowest = (list: readonly Circle[]) => list.reduce((a, b) => (b.diameterMm < a.diameterMm ? b : a));
  const refine = (list: readonly Circle[]) => refineCircle(index, narrowest(list), stepMm);
  const groups = groupNear(
    circles.filter((c) => c.diameterMm < wantedMm * NEAR_WANTED),
    wantedMm,
  );
  return {
    thin: groups.map(refine).filter((t) => t.measuredMm < wantedMm),
    thinnestMm: circles.length ? refine(circles).measuredMm : null,
  };
}

/** Places are looked at as far apart as this part of the stroke's thickness, but never closer than the step. */
const STEP_SHARE = 1 / 6;
/** A circle in a tip says nothing of the next one. */
const GUESS_STEPS = 6;
/** At inner corners beyond this a stroke may be nicked: both edges are looked at close to them. */
const NICK_RAD = (15 * PI) / 180;
const BESIDE_CORNER = 0.02;

/** Walks along all edges and looks where a stroke's thickness may have changed. */
function walkEdges(
  { edges }: SegmentIndex,
  edgeLengths: Float64Array,
  stepMm: number,
  look: (edge: number, share: number, guessMm: number) => Circle | null,
): Circle[] {
  const circles: Circle[] = [];
  let guessMm = Infinity;
  let step = stepMm;
  let walkedMm = Infinity;
  const lookAt = (edge: number, share: number) => {
    const circle = look(edge, share, guessMm);
    // The next circle is about as large as this one; where there was none, the places are close to one another.
    if (circle) guessMm = max(circle.diameterMm, GUESS_STEPS * stepMm);
    step = circle ? max(stepMm, circle.diameterMm * STEP_SHARE) : stepMm;
    if (circle) circles.push(circle);
  };
  for (let edge = 0; edge < edges.count; edge++) {
    const length = edgeLengths[edge]!;
    if (isNick(edges, edge - 1, edge)) lookAt(edge, BESIDE_CORNER);
    for (let from = 0; from < length;) {
      const next = from + max(0, step - walkedMm);
      if (next >= length) {
        walkedMm += length - from;
        break;
      }
      lookAt(edge, next === from ? min(0.5, step / 2 / length) : next / length);
      walkedMm = 0;
      from = max(next, from + 1e-9);
    }
    if (isNick(edges, edge, edge + 1)) lookAt(edge, 1 - BESIDE_CORNER);
  }
  return circles;
}

/** Whether the edge turns outward between two edges that follow one another: the material has an inner corner there. */
function isNick({ x0, y0, x1, y1, contour, count }: SegmentIndex["edges"], a: number, b: number): boolean {
  if (a < 0 || b >= count || contour[a] !== contour[b]) return false;
  const turn = Math.atan2(y1[b]! - y0[b]!, x1[b]! - x0[b]!) - Math.atan2(y1[a]! - y0[a]!, x1[a]! - x0[a]!);
  const left = ((turn + 3 * PI) % (2 * PI)) - PI;
  return left < -NICK_RAD;
}

/** Circles stand some way from one another: between two of them the stroke may be narrower by so much. */
const NEAR_WANTED = 1.1;
/** Each side is moved to where it is nearest to the other, in turn. */
const REFINE_STEPS = 12;

/** The shortest way across the stroke near a circle: what lies between the places that were looked at, and at inner corners. */
function refineCircle({ edges }: SegmentIndex, circle: Circle, stepMm: number): ThinStroke {
  const { touches } = circle;
  const near = touches.map(({ xMm, yMm }) => {
    const list: number[] = [];
    for (let e = 0; e < edges.count; e++) if (nearestOn(edges, e, xMm, yMm).distanceMm <= stepMm) list.push(e);
    return list;
  });
  let [p, q] = touches;
  const nearestOf = (list: readonly number[], to: Touch, home: Touch): Touch =>
    list
      .map((e) => nearestOn(edges, e, to.xMm, to.yMm))
      .filter((n) => hypot(n.xMm - home.xMm, n.yMm - home.yMm) <= stepMm)
      .reduce<Touch & { distanceMm: number }>((a, b) => (b.distanceMm < a.distanceMm ? b : a), {
        ...home,
        distanceMm: hypot(home.xMm - to.xMm, home.yMm - to.yMm),
      });
  for (let i = 0; i < REFINE_STEPS; i++) {
    q = nearestOf(near[1]!, p, touches[1]);
    p = nearestOf(near[0]!, q, touches[0]);
  }
  const measuredMm = min(circle.diameterMm, hypot(p.xMm - q.xMm, p.yMm - q.yMm));
  return { xMm: (p.xMm + q.xMm) / 2, yMm: (p.yMm + q.yMm) / 2, measuredMm };
}

/** Lengths of edges and contours, and how far along its contour each edge begins. */
function measureEdges({ edges }: SegmentIndex) {
  const ofEdge = new Float64Array(edges.count);
  const starts = new Float64Array(edges.count);
  const ofContour: number[] = [];
  for (let i = 0; i < edges.count; i++) {
    const contour = edges.contour[i]!;
    ofEdge[i] = hypot(edges.x1[i]! - edges.x0[i]!, edges.y1[i]! - edges.y0[i]!);
    starts[i] = ofContour[contour] ?? 0;
    ofContour[contour] = starts[i]! + ofEdge[i]!;
  }
  return { lengths: { ofEdge, ofContour }, starts };
}

/** Circles are shrunk until nothing lies within; few steps do, more are rounding. */
const MOST_STEPS = 60;
/** The first radius that is tried, in parts of the diameter at the place before. */
const GUESS_SHARE = 0.6;
/** Touching, in mm. */
const TOUCH_MM = 1e-6;

/**
 * The largest circle that touches an edge at a place from within.
 * @returns null when it is larger than is looked for, or touches only to one side (corners, ends).
 */
function circleAt(
  { edges, nearest }: SegmentIndex,
  starts: Float64Array,
  edge: number,
  share: number,
  guessMm: number,
  mostMm: number,
): Circle | null {
  const [x0, y0] = [edges.x0[edge]!, edges.y0[edge]!];
  const [dx, dy] = [edges.x1[edge]! - x0, edges.y1[edge]! - y0];
  const length = hypot(dx, dy);
  // Material lies to the right of the way, which with y down is at (-dy, dx).
  const [nx, ny] = [-dy / length, dx / length];
  const [px, py] = [x0 + dx * share, y0 + dy * share];
  let radius = min(guessMm * GUESS_SHARE, mostMm);
  let touched: { edge: number; xMm: number; yMm: number } | null = null;
  for (let step = 0; step < MOST_STEPS; step++) {
    const [cx, cy] = [px + nx * radius, py + ny * radius];
    const near = nearest(cx, cy, radius - TOUCH_MM, edge);
    if (!near && !touched && radius < mostMm) {
      // Guessed too small.
      radius = min(mostMm, radius * 2);
      continue;
    }
    if (!near) break;
    const [qx, qy] = [near.xMm - px, near.yMm - py];
    const across = 2 * (qx * nx + qy * ny);
    const next = across > 1e-9 ? (qx * qx + qy * qy) / across : 0;
    if (!(next > 1e-6)) return null;
    touched = near;
    if (next >= radius - TOUCH_MM / 10) break;
    radius = next;
  }
  if (!touched) return null;
  const [xMm, yMm] = [px + nx * radius, py + ny * radius];
  const facing = acos(max(-1, min(1, dot(px - xMm, py - yMm, touched.xMm - xMm, touched.yMm - yMm))));
  if (facing < OPPOSITE_RAD) return null;
  const other = touched.edge;
  const onOther = hypot(touched.xMm - edges.x0[other]!, touched.yMm - edges.y0[other]!);
  return {
    ...{ xMm, yMm, diameterMm: 2 * radius },
    contour: edges.contour[edge]!,
    along: starts[edge]! + length * share,
    opposite: { contour: edges.contour[other]!, along: starts[other]! + onOther },
    touches: [{ xMm: px, yMm: py }, touched],
    tapersRad: PI - facing,
  };
}

/** Cosine of the angle between two directions. */
const dot = (ax: number, ay: number, bx: number, by: number) => (ax * bx + ay * by) / (hypot(ax, ay) * hypot(bx, by));

/**
 * Whether a circle lies in a taper that runs out: the edge comes round to the opposite side within a short way, and the stroke gets
 * narrower towards there.
 */
function isEnd(index: SegmentIndex, lengths: number[], circle: Circle, wantedMm: number): boolean {
  const { contour, along, opposite, diameterMm, tapersRad, touches } = circle;
  if (contour !== opposite.contour || tapersRad < TAPER_RAD) return false;
  const whole = lengths[contour]!;
  const direct = Math.abs(along - opposite.along);
  const round = min(direct, whole - direct);
  if ((round - diameterMm) / 2 >= END_WIDTHS * wantedMm) return false;
  const first = direct === round ? min(along, opposite.along) : max(along, opposite.along);
  const tip = pointAlong(index, contour, (first + round / 2) % whole);
  // The middle of the circle lies off the line between its two sides, to where the stroke gets wider.
  const [p, q] = touches;
  const [wx, wy] = [circle.xMm - (p.xMm + q.xMm) / 2, circle.yMm - (p.yMm + q.yMm) / 2];
  return wx * (tip.xMm - circle.xMm) + wy * (tip.yMm - circle.yMm) < 0;
}

/** A place by its length on a contour. */
function pointAlong({ edges }: SegmentIndex, contour: number, along: number): Touch {
  let left = along;
  for (let e = edges.contour.indexOf(contour); e < edges.count; e++) {
    const length = hypot(edges.x1[e]! - edges.x0[e]!, edges.y1[e]! - edges.y0[e]!);
    if (left <= length) {
      const t = left / length;
      return {
        xMm: edges.x0[e]! + t * (edges.x1[e]! - edges.x0[e]!),
        yMm: edges.y0[e]! + t * (edges.y1[e]! - edges.y0[e]!),
      };
    }
    left -= length;
  }
  return { xMm: edges.x1[edges.count - 1]!, yMm: edges.y1[edges.count - 1]! };
}

/** Circles within reach of one another are one stroke. */
function groupNear(circles: readonly Circle[], reachMm: number): Circle[][] {
  const cells = new Map<string, number[]>();
  const cellOf = (v: number) => Math.floor(v / reachMm);
  circles.forEach((c, i) => {
    const key = `${cellOf(c.xMm)},${cellOf(c.yMm)}`;
    const cell = cells.get(key);
    if (cell) cell.push(i);
    else cells.set(key, [i]);
  });
  const groups: Circle[][] = [];
  const left = new Set(circles.keys());
  for (const first of circles.keys()) {
    if (!left.delete(first)) continue;
    const group = [first];
    for (let k = 0; k < group.length; k++) {
      const c = circles[group[k]!]!;
      for (let dx = -1; dx <= 1; dx++)
        for (let dy = -1; dy <= 1; dy++)
          for (const i of cells.get(`${cellOf(c.xMm) + dx},${cellOf(c.yMm) + dy}`) ?? [])
            if (left.has(i) && hypot(circles[i]!.xMm - c.xMm, circles[i]!.yMm - c.yMm) <= reachMm) {
              left.delete(i);
              group.push(i);
            }
    }
    groups.push(group.map((i) => circles[i]!));
  }
  return groups;
}
