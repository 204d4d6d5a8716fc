import { describe, expect, test } from "@jest/globals";
import { clamp, interpolate, median, quantile } from "./numbers";
import { areaOf, boundsOf, flattenOutline, writePath } from "./outline";
import { parsePath } from "../../../tests/fixtures/parsePath";
import { cellsOf, fillPolygons, rasterOutline, sumInk } from "./raster";
import { spansAlong, spansAtX, spansAtY } from "./rays";

const square = (x0: number, y0: number, x1: number, y1: number) => Float64Array.from([x0, y0, x1, y0, x1, y1, x0, y1]);
const sum = (ink: Float32Array) => ink.reduce((a, b) => a + b, 0);
const same = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

describe("outlines", () => {
  test("a path is read and written back", () => {
    const path = "M10,20L30,40Q50,60 70,80C1,2 3,4 5,6Z";
    expect(writePath(parsePath(path), same)).toBe(path);
  });

  test("numbers with an exponent are read, as varied points have them", () => {
    expect([...parsePath("M1e-7,2L-3.5e-05,4Z").coords]).toEqual([1e-7, 2, -3.5e-5, 4]);
  });

  test("an unknown command is refused", () => {
    expect(() => parsePath("M0,0A1,1 0 0 1 2,2Z")).toThrow(RangeError);
  });

  test("writing maps points", () => {
    expect(writePath(parsePath("M10,20L30,40Z"), { a: 0.5, b: 0, c: 0, d: -1, e: 1, f: 100 })).toBe("M6,80L16,60Z");
  });

  test("a circle of four curves is flattened to its area within a thousandth", () => {
    const k = 55.2285;
    const circle = parsePath(
      `M100,0C100,${k} ${k},100 0,100C${-k},100 -100,${k} -100,0C-100,${-k} ${-k},-100 0,-100C${k},-100 100,${-k} 100,0Z`,
    );
    const [ring] = flattenOutline(circle, 0.02);
    expect(Math.abs(areaOf(ring!)) / (Math.PI * 10000)).toBeCloseTo(1, 3);
    expect(boundsOf([ring!])).toEqual({
      xMin: -100,
      xMax: 100,
      yMin: expect.closeTo(-100, 6),
      yMax: expect.closeTo(100, 6),
    });
  });

  test("no points, no bounds", () => expect(boundsOf([])).toBeNull());
});

describe("filling", () => {
  test("covers exactly the share of each pixel", () => {
    const ink = fillPolygons([square(1, 1, 2.5, 2.25)], 4, 4);
    expect(ink[1 * 4 + 1]).toBeCloseTo(1, 6);
    expect(ink[1 * 4 + 2]).toBeCloseTo(0.5, 6);
    expect(ink[2 * 4 + 1]).toBeCloseTo(0.25, 6);
    expect(ink[2 * 4 + 2]).toBeCloseTo(0.125, 6);
    expect(sum(ink)).toBeCloseTo(1.5 * 1.25, 5);
  });

  test("keeps the area of slanted shapes", () => {
    const triangle = Float64Array.from([3.3, 2.1, 27.9, 8.4, 11.2, 25.7]);
    expect(sum(fillPolygons([triangle], 32, 32))).toBeCloseTo(Math.abs(areaOf(triangle)), 3);
  });

  test("a hole removes ink, an overlap does not count twice", () => {
    const hole = Float64Array.from([...square(4, 4, 8, 8)].reverse());
    for (let i = 0; i < hole.length; i += 2) [hole[i], hole[i + 1]] = [hole[i + 1]!, hole[i]!];
    expect(sum(fillPolygons([square(0, 0, 10, 10), hole], 12, 12))).toBeCloseTo(100 - 16, 4);
    expect(sum(fillPolygons([square(0, 0, 6, 6), square(3, 0, 9, 6)], 12, 12))).toBeCloseTo(54, 4);
  });

  test("what lies outside is clipped", () => {
    expect(sum(fillPolygons([square(-5, -5, 3, 3)], 8, 8))).toBeCloseTo(9, 4);
    expect(sum(fillPolygons([square(20, 20, 30, 30)], 8, 8))).toBe(0);
    expect(sum(fillPolygons([square(5, 2, 50, 4)], 8, 8))).toBeCloseTo(6, 4);
  });

  test("an outline is drawn through its map", () => {
    const { ink } = rasterOutline(
      parsePath("M0,0L1000,0L1000,500L0,500Z"),
      { a: 0.01, b: 0, c: 0, d: -0.01, e: 0, f: 10 },
      10,
      10,
    );
    expect(sum(ink)).toBeCloseTo(50, 3);
    expect(ink[0]).toBe(0);
    expect(ink[99]).toBeCloseTo(1, 5);
  });
});

describe("cells", () => {
  const picture = { widthPx: 8, heightPx: 8, ink: fillPolygons([square(0, 0, 4, 8)], 8, 8) };

  test("are the mean ink of their part", () => {
    const cells = cellsOf(sumInk(picture), { left: 0, top: 0, right: 8, bottom: 8 }, 4);
    expect([...cells].map((c) => Math.round(c * 1000) / 1000)).toEqual([
      1, 1, 0, 0, 1, 1, 0, 0, 1, 1, 0, 0, 1, 1, 0, 0,
    ]);
  });

  test("fractional boxes take shares, outside is paper", () => {
    const [left] = cellsOf(sumInk(picture), { left: 3, top: 0, right: 5, bottom: 8 }, 1);
    expect(left).toBeCloseTo(0.5, 5);
    const [out] = cellsOf(sumInk(picture), { left: -4, top: 0, right: 4, bottom: 8 }, 1);
    expect(out).toBeCloseTo(0.5, 5);
  });
});

describe("rays", () => {
  const ring = [square(0, 0, 100, 100), Float64Array.from([20, 20, 20, 80, 80, 80, 80, 20])];

  test("go through ink and counter", () => {
    expect(spansAtY(ring, 50)).toEqual([
      { from: 0, to: 20 },
      { from: 80, to: 100 },
    ]);
    expect(spansAtX(ring, 10)).toEqual([{ from: 0, to: 100 }]);
    expect(spansAtY(ring, 150)).toEqual([]);
  });

  test("overlapping contours are one stretch", () => {
    expect(spansAtY([square(0, 0, 60, 10), square(40, 0, 90, 10)], 5)).toEqual([{ from: 0, to: 90 }]);
  });

  test("from the middle outward at any angle", () => {
    const [first] = spansAlong(ring, 50, 50, Math.PI / 4);
    expect(first!.from).toBeCloseTo(30 * Math.SQRT2, 6);
    expect(first!.to).toBeCloseTo(50 * Math.SQRT2, 6);
  });
});

describe("numbers", () => {
  test("median and quantile", () => {
    expect(median([3, 1, 2])).toBe(2);
    expect(median([4, 1, 2, 3])).toBe(2.5);
    expect(median([])).toBeNull();
    expect(quantile([0, 10], 0.25)).toBe(2.5);
  });

  test("interpolation is flat beyond its ends", () => {
    const points = [
      [0, 10],
      [1, 20],
      [2, 0],
    ] as const;
    expect([-1, 0.5, 1.5, 9].map((x) => interpolate(points, x))).toEqual([10, 15, 10, 0]);
    expect(clamp(5, 0, 3)).toBe(3);
  });
});
