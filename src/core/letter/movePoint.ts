// One point of a letter's outline moved by hand: what must follow so that the contour stays as smooth as it was. A corner stays a corner.
import type { Letter } from "@/contracts/lettering";
import { ARITY, type Outline } from "../geometry/outline";

type Moved = NonNullable<Letter["points"]>;
type Point = { x: number; y: number };
/** One place of a contour: the points of the outline that lie on it (its first and last one may), and whether the contour runs through it. */
type Knot = { points: number[]; isOn: boolean };

const { abs, hypot } = Math;

/** A joint whose two sides lie within this of one line is smooth: the sine of about three degrees. */
const SMOOTH_SINE = 0.05;
const NEAR = 1e-6;
/** Moved by less than this is not moved. */
const LEAST_EM = 1e-5;

/**
 * @param outline - of the glyph as the face draws it, font units, y up. @param moved - what was moved already.
 * @param point - counted over the whole outline. @param dxEm, dyEm - to the right and downward.
 * @returns all points that differ from the face's own, in their order.
 */
export function movePoint(
  outline: Outline,
  unitsPerEm: number,
  moved: Moved | undefined,
  point: number,
  { dxEm, dyEm }: { dxEm: number; dyEm: number },
): Moved {
  const before = placesOf(applyPoints(outline, moved ?? [], unitsPerEm), unitsPerEm);
  const now = before.map((p) => ({ ...p }));
  const contour = contoursOf(outline).find((knots) => knots.some((k) => k.points.includes(point)));
  if (contour) moveIn(contour, before, now, point, { x: dxEm, y: dyEm });
  const own = placesOf(outline, unitsPerEm);
  return now.flatMap((p, i) => {
    const [dx, dy] = [p.x - own[i]!.x, p.y - own[i]!.y];
    return hypot(dx, dy) < LEAST_EM ? [] : [{ point: i, dxEm: toMillionths(dx), dyEm: toMillionths(dy) }];
  });
}
const toMillionths = (v: number) => Math.round(v * 1e6) / 1e6;

/** An outline with its moved points where they were moved to. */
export function applyPoints({ verbs, coords }: Outline, moved: Moved, unitsPerEm: number): Outline {
  const places = Float64Array.from(coords);
  for (const { point, dxEm, dyEm } of moved) {
    if (2 * point + 1 >= places.length) continue;
    places[2 * point]! += dxEm * unitsPerEm;
    places[2 * point + 1]! -= dyEm * unitsPerEm;
  }
  return { verbs, coords: places };
}

/** Where the points of an outline lie, in em, y downward as on the sheet. */
const placesOf = ({ coords }: Outline, unitsPerEm: number): Point[] =>
  Array.from({ length: coords.length / 2 }, (_, i) => ({
    x: coords[2 * i]! / unitsPerEm,
    y: -coords[2 * i + 1]! / unitsPerEm,
  }));

/** Which points the contours of an outline run through, and which only pull at them. */
export function contoursOf({ verbs, coords }: Outline): Knot[][] {
  const contours: Knot[][] = [];
  let at = 0;
  for (const verb of verbs) {
    if (verb === "M") contours.push([]);
    const contour = contours[contours.length - 1];
    const count = ARITY[verb]! / 2;
    for (let i = 0; i < count; i++) contour?.push({ points: [at + i], isOn: i === count - 1 });
    at += count;
  }
  for (const contour of contours) {
    const [first, last] = [contour[0]!, contour[contour.length - 1]!];
    if (contour.length < 3) continue;
    const [a, b] = [first.points[0]!, last.points[0]!];
    const meet = abs(coords[2 * a]! - coords[2 * b]!) < NEAR && abs(coords[2 * a + 1]! - coords[2 * b + 1]!) < NEAR;
    // A contour is closed where it began: both are one place.
    if (last.isOn && meet) {
      first.points.push(b);
      contour.pop();
    }
  }
  return contours.filter((c) => c.length > 2);
}

function moveIn(contour: Knot[], before: readonly Point[], now: Point[], point: number, by: Point) {
  const n = contour.length;
  const i = contour.findIndex((k) => k.points.includes(point));
  const knot = (k: number) => contour[(i + k + 2 * n) % n]!;
  const put = (k: Knot, p: Point) => k.points.forEach((id) => (now[id] = p));
  const was = (k: Knot) => before[k.points[0]!]!;
  const at = (k: Knot) => now[k.points[0]!]!;
  const shift = (k: Knot) => put(k, { x: was(k).x + by.x, y: was(k).y + by.y });
  /** What pulls at a joint from its other side, or the joint itself, follows. @param pull - moved. @param far - on the other side. */
  const keepSmooth = (pull: Knot, joint: Knot, far: Knot) => {
    if (!joint.isOn || !isSmooth(was(pull), was(joint), was(far))) return;
    if (isQuadratic(contour, pull)) put(joint, between(at(pull), at(far), shareOf(was(pull), was(joint), was(far))));
    else if (!far.isOn) put(far, turnedTo(at(joint), at(pull), was(joint), was(far)));
    else put(pull, onLine(at(pull), at(joint), was(far)));
  };
  shift(knot(0));
  if (!knot(0).isOn) {
    keepSmooth(knot(0), knot(1), knot(2));
    keepSmooth(knot(0), knot(-1), knot(-2));
    return;
  }
  // What pulls at a joint goes with it, so that the curve keeps its form there; beyond it the next joint stays smooth.
  for (const side of [1, -1]) {
    const pull = knot(side);
    if (pull.isOn) continue;
    shift(pull);
    if (isQuadratic(contour, pull)) keepSmooth(pull, knot(2 * side), knot(3 * side));
  }
}

/** Whether a point pulls alone: the contour runs through both of its neighbours. */
function isQuadratic(contour: readonly Knot[], pull: Knot): boolean {
  const n = contour.length;
  const i = contour.indexOf(pull);
  return contour[(i + 1) % n]!.isOn && contour[(i + n - 1) % n]!.isOn;
}

function isSmooth(a: Point, joint: Point, b: Point): boolean {
  const [ax, ay, bx, by] = [joint.x - a.x, joint.y - a.y, b.x - joint.x, b.y - joint.y];
  const [la, lb] = [hypot(ax, ay), hypot(bx, by)];
  if (la < NEAR || lb < NEAR) return false;
  return ax * bx + ay * by > 0 && abs(ax * by - ay * bx) / (la * lb) < SMOOTH_SINE;
}

/** How far along from one point to another a third lies. */
function shareOf(from: Point, p: Point, to: Point): number {
  return hypot(p.x - from.x, p.y - from.y) / hypot(to.x - from.x, to.y - from.y);
}
const between = (from: Point, to: Point, share: number): Point => ({
  x: from.x + share * (to.x - from.x),
  y: from.y + share * (to.y - from.y),
});

/** As far from the joint as it was, straight across from what pulls on the other side. */
function turnedTo(joint: Point, pull: Point, jointWas: Point, farWas: Point): Point {
  const length = hypot(farWas.x - jointWas.x, farWas.y - jointWas.y);
  const [dx, dy] = [joint.x - pull.x, joint.y - pull.y];
  const reach = hypot(dx, dy);
  return reach < NEAR ? farWas : { x: joint.x + (dx / reach) * length, y: joint.y + (dy / reach) * length };
}

/** The nearest place on the line through the joint that goes straight on from a straight side. */
function onLine(pull: Point, joint: Point, far: Point): Point {
  const [ux, uy] = [joint.x - far.x, joint.y - far.y];
  const length = hypot(ux, uy);
  const along = Math.max(NEAR, ((pull.x - joint.x) * ux + (pull.y - joint.y) * uy) / length);
  return { x: joint.x + (ux / length) * along, y: joint.y + (uy / length) * along };
}
