// Points moved by hand: the contour stays closed, and as smooth as it was, in outlines of cubic and quadratic curves.
import { beforeAll, describe, expect, test } from "@jest/globals";
import type { Outline } from "@/core/geometry/outline";
import type { OpenFace } from "@/core/outlines/openFace";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { openForLettering } from "../../../tests/fixtures/lettering";
import { applyPoints, contoursOf, movePoint } from "./movePoint";

const EM = 1000;
type Point = { x: number; y: number };

const placeOf = ({ coords }: Outline, i: number): Point => ({ x: coords[2 * i]!, y: coords[2 * i + 1]! });
/** Sine of the angle at each joint; null where a side has no length. */
function bendsOf(outline: Outline): (number | null)[] {
  return contoursOf(outline).flatMap((knots) =>
    knots.map((k, i) => {
      if (!k.isOn) return null;
      const [a, b] = [knots[(i + knots.length - 1) % knots.length]!, knots[(i + 1) % knots.length]!];
      const [p, q, r] = [a, k, b].map((x) => placeOf(outline, x.points[0]!)) as [Point, Point, Point];
      const [ux, uy, vx, vy] = [q.x - p.x, q.y - p.y, r.x - q.x, r.y - q.y];
      const lengths = Math.hypot(ux, uy) * Math.hypot(vx, vy);
      if (lengths < 1e-9 || ux * vx + uy * vy <= 0) return null;
      return Math.abs(ux * vy - uy * vx) / lengths;
    }),
  );
}

/** A circle of four cubics, and a square. */
const CIRCLE: Outline = {
  verbs: "MCCCCZ",
  coords: Float64Array.of(
    ...[0, 500, 0, 776, 224, 1000, 500, 1000, 776, 1000, 1000, 776, 1000, 500],
    ...[1000, 224, 776, 0, 500, 0, 224, 0, 0, 224, 0, 500],
  ),
};
const SQUARE: Outline = { verbs: "MLLLZ", coords: Float64Array.of(0, 0, 0, 500, 500, 500, 500, 0) };

describe("a point", () => {
  test("takes what pulls at it along, and the end with the beginning", () => {
    const moved = movePoint(CIRCLE, EM, undefined, 0, { dxEm: -0.1, dyEm: 0 });
    expect(moved).toEqual([
      { point: 0, dxEm: -0.1, dyEm: 0 },
      { point: 1, dxEm: -0.1, dyEm: 0 },
      { point: 11, dxEm: -0.1, dyEm: 0 },
      { point: 12, dxEm: -0.1, dyEm: 0 },
    ]);
  });

  test("that pulls turns the one across its joint, which keeps its length", () => {
    const moved = movePoint(CIRCLE, EM, undefined, 2, { dxEm: 0, dyEm: -0.1 });
    const next = applyPoints(CIRCLE, moved, EM);
    expect(Math.max(...bendsOf(next).map((b) => b ?? 0))).toBeLessThan(1e-5);
    const [joint, across] = [placeOf(next, 3), placeOf(next, 4)];
    expect(Math.hypot(across.x - joint.x, across.y - joint.y)).toBeCloseTo(276, 3);
    // The joint itself stays.
    expect(joint).toEqual({ x: 500, y: 1000 });
  });

  test("of a corner moves alone; moved back, nothing is left of it", () => {
    const moved = movePoint(SQUARE, EM, undefined, 2, { dxEm: 0.02, dyEm: 0.03 });
    expect(moved).toEqual([{ point: 2, dxEm: 0.02, dyEm: 0.03 }]);
    expect(movePoint(SQUARE, EM, moved, 2, { dxEm: -0.02, dyEm: -0.03 })).toEqual([]);
  });

  test("that is no point of the outline moves nothing", () => {
    expect(movePoint(SQUARE, EM, undefined, 99, { dxEm: 1, dyEm: 1 })).toEqual([]);
  });
});

describe.each([
  ["cubic curves", "kaushan-script"],
  ["quadratic curves", "abril-fatface"],
])("letters of %s", (_, name) => {
  let face: OpenFace;
  beforeAll(async () => {
    face = (await openForLettering(demoBytes(name))).faceOf({});
  });

  test("stay closed and as smooth as they were, whichever point is moved", () => {
    let [tried, smooth] = [0, 0];
    for (const letter of "Wrengo&7S") {
      const outline = face.outline(face.glyphOf(letter.codePointAt(0)!)!);
      const bends = bendsOf(outline);
      const points = outline.coords.length / 2;
      for (let point = 0; point < points; point++) {
        const by = { dxEm: 0.004 * ((point % 5) - 2), dyEm: 0.003 * ((point % 3) - 1) };
        if (!by.dxEm && !by.dyEm) continue;
        const next = applyPoints(outline, movePoint(outline, face.unitsPerEm, undefined, point, by), face.unitsPerEm);
        expect(contoursOf(next)).toHaveLength(contoursOf(outline).length);
        const after = bendsOf(next);
        bends.forEach((bend, i) => {
          if (bend === null || bend > 0.02) return;
          tried++;
          // A joint between two straight lines has nothing that could follow.
          if ((after[i] ?? 1) < 0.06) smooth++;
        });
      }
    }
    expect(tried).toBeGreaterThan(2000);
    expect(smooth / tried).toBeGreaterThan(0.995);
  });
});
