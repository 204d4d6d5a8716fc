// Polygons against each other: areas, counters, growing, what lies in what, and which edge is nearest.
import { describe, expect, test } from "@jest/globals";
import { seededRandom } from "./numbers";
import { areaOf, boundsOf, flattenOutline, type Outline } from "./outline";
import {
  contains,
  growPolygons,
  intersectPolygons,
  nestContours,
  piecesOf,
  subtractPolygons,
  unitePolygons,
} from "./polygons";
import { indexEdges, nearestOn } from "./segmentIndex";
import { fromPolygons, uniteOutlines } from "./unitePaths";

const rectangle = (x: number, y: number, w: number, h: number) =>
  Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h);
const turnedOver = (p: Float64Array) => {
  const out = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 2) [out[i], out[i + 1]] = [p[p.length - 2 - i]!, p[p.length - 1 - i]!];
  return out;
};
const area = (polygons: readonly Float64Array[]) => polygons.reduce((sum, p) => sum + areaOf(p), 0);

describe("unions", () => {
  test("count what is shared once, whichever way contours turn", () => {
    for (const second of [rectangle(5, 5, 10, 10), turnedOver(rectangle(5, 5, 10, 10))]) {
      const united = unitePolygons([[rectangle(0, 0, 10, 10)], [second]]);
      expect(united).toHaveLength(1);
      expect(area(united)).toBeCloseTo(175, 6);
    }
  });

  test("keep counters, and pieces within counters as pieces of their own", () => {
    const ring = [rectangle(0, 0, 30, 30), turnedOver(rectangle(5, 5, 20, 20))];
    const pieces = piecesOf([ring, [rectangle(12, 12, 6, 6)], [rectangle(50, 0, 5, 5)]]);
    expect(pieces.map((p) => p.counters.length).sort()).toEqual([0, 0, 1]);
    expect(area(unitePolygons([ring]))).toBeCloseTo(500, 6);
  });

  test("are the same whether shapes are given together or one by one", () => {
    const random = seededRandom(7);
    const shapes = Array.from({ length: 40 }, () => [
      rectangle(100 * random(), 100 * random(), 4 + 12 * random(), 4 + 12 * random()),
    ]);
    const together = unitePolygons(shapes);
    let oneByOne = [] as Float64Array[];
    for (const shape of shapes) oneByOne = unitePolygons([oneByOne, shape]);
    expect(area(oneByOne)).toBeCloseTo(area(together), 2);
    expect(oneByOne.length).toBe(together.length);
  });
});

test("differences and intersections are parts of one another", () => {
  const [a, b] = [[rectangle(0, 0, 10, 10)], [rectangle(6, 2, 10, 4)]];
  expect(area(subtractPolygons(a, b))).toBeCloseTo(84, 6);
  expect(area(intersectPolygons(a, b))).toBeCloseTo(16, 6);
  expect(intersectPolygons(a, [rectangle(40, 40, 5, 5)])).toEqual([]);
  expect(area(subtractPolygons(a, [rectangle(40, 40, 5, 5)]))).toBeCloseTo(100, 6);
});

test("what is grown has round corners; what is shrunk comes back smaller, or not at all", () => {
  const square = [rectangle(0, 0, 20, 20)];
  expect(area(growPolygons(square, 2))).toBeCloseTo(400 + 4 * 20 * 2 + Math.PI * 4, 1);
  expect(area(growPolygons(square, -2))).toBeCloseTo(256, 3);
  expect(growPolygons(square, -11)).toEqual([]);
  // Two that come to meet are one.
  expect(growPolygons([rectangle(0, 0, 10, 10), rectangle(12, 0, 10, 10)], 1.5)).toHaveLength(1);
});

test("places on an edge are within, places beside it are not", () => {
  const p = rectangle(0, 0, 10, 10);
  expect([contains(p, 5, 5), contains(p, 10, 5), contains(p, 10.01, 5), contains(p, -1, -1)]).toEqual([
    true,
    true,
    false,
    false,
  ]);
  expect(contains(turnedOver(p), 5, 5)).toBe(true);
});

describe("the nearest edge", () => {
  test("is the one that a look at all of them finds", () => {
    const random = seededRandom(11);
    const polygons = Array.from({ length: 30 }, () =>
      rectangle(200 * random(), 200 * random(), 20 * random() + 0.1, 20 * random() + 0.1),
    );
    const { edges, nearest } = indexEdges(polygons, 4);
    expect(edges.count).toBe(120);
    for (let i = 0; i < 300; i++) {
      const [x, y] = [240 * random() - 20, 240 * random() - 20];
      const within = random() < 0.5 ? 1000 : 15;
      const all = Array.from({ length: edges.count }, (_, e) => nearestOn(edges, e, x, y).distanceMm);
      const least = Math.min(...all);
      const found = nearest(x, y, within);
      if (least > within) expect(found).toBeNull();
      else expect(found!.distanceMm).toBeCloseTo(least, 9);
    }
  });

  test("leaves out the edge that is named", () => {
    const { nearest } = indexEdges([rectangle(0, 0, 10, 10)], 2);
    const first = nearest(5, 0.5, 20)!;
    expect(first.distanceMm).toBeCloseTo(0.5, 9);
    expect(nearest(5, 0.5, 20, first.edge)!.distanceMm).toBeCloseTo(5, 9);
  });
});

describe("unions of outlines", () => {
  /** A circle of four cubic curves. */
  function circle(x: number, y: number, r: number, isTurned = false): Outline {
    const k = 0.5522847498 * r;
    const coords = [x + r, y, x + r, y + k, x + k, y + r, x, y + r, x - k, y + r, x - r, y + k, x - r, y];
    coords.push(x - r, y - k, x - k, y - r, x, y - r, x + k, y - r, x + r, y - k, x + r, y);
    const points = isTurned ? turnedOver(Float64Array.from(coords)) : Float64Array.from(coords);
    return { verbs: "MCCCCZ", coords: points };
  }

  test.each([false, true])("keep curves, whichever way letters turn (%s)", (isTurned) => {
    const { outline, isFlattened } = uniteOutlines([circle(0, 0, 10), circle(12, 0, 10, isTurned)]);
    expect(isFlattened).toBe(false);
    expect(outline.verbs.match(/M/g)).toHaveLength(1);
    expect(outline.verbs).toMatch(/C/);
    const lens = 2 * 100 * Math.acos(0.6) - 6 * Math.sqrt(400 - 144);
    expect(area(flattenOutline(outline, 0.0005))).toBeCloseTo(2 * Math.PI * 100 - lens, 0);
    const box = boundsOf(flattenOutline(outline, 0.0005))!;
    expect(box.xMax - box.xMin).toBeCloseTo(32, 3);
  });

  test("cut out what is to be left open", () => {
    const { outline } = uniteOutlines([circle(0, 0, 10)], [circle(0, 0, 4)]);
    expect(outline.verbs.match(/M/g)).toHaveLength(2);
    expect(area(flattenOutline(outline, 0.0005))).toBeCloseTo(Math.PI * 84, 0);
  });

  test("of what touches nothing are the outlines themselves; of nothing, nothing", () => {
    const { outline } = uniteOutlines([circle(0, 0, 5), circle(50, 0, 5)]);
    expect(outline.verbs.match(/M/g)).toHaveLength(2);
    expect(uniteOutlines([])).toEqual({ outline: { verbs: "", coords: new Float64Array(0) }, isFlattened: false });
    expect(fromPolygons([rectangle(0, 0, 2, 1)]).verbs).toBe("MLLLZ");
  });

  test("that lie exactly on one another come out as one", () => {
    const { outline } = uniteOutlines([circle(0, 0, 10), circle(0, 0, 10)]);
    expect(outline.verbs.match(/M/g)).toHaveLength(1);
    expect(area(flattenOutline(outline, 0.0005))).toBeCloseTo(Math.PI * 100, 0);
  });
});

describe("contours of a union", () => {
  test("are nested as the union's own tree has them: islands within counters are pieces", () => {
    const ring = (x: number, y: number, size: number, isCounter: boolean) =>
      isCounter ? turnedOver(rectangle(x, y, size, size)) : rectangle(x, y, size, size);
    const contours = [
      ring(30, 30, 10, false),
      ring(0, 0, 100, false),
      ring(20, 20, 30, true),
      ring(60, 60, 10, true),
      ring(200, 0, 20, false),
      ring(33, 33, 3, true),
    ];
    const sorted = (pieces: { edge: Float64Array; counters: Float64Array[] }[]) =>
      pieces.map((p) => [Math.round(areaOf(p.edge)), p.counters.length]).sort((a, b) => a[0]! - b[0]!);
    const nested = nestContours(contours);
    expect(sorted(nested)).toEqual([
      [100, 1],
      [400, 0],
      [10_000, 2],
    ]);
    expect(sorted(piecesOf([contours]))).toEqual(sorted(nested));
  });
});
