// What a hand draws over a picture, thinned and written as paths.
import { describe, expect, test } from "@jest/globals";
import { FrontShape, Scene } from "@/contracts/brief";
import { pathOfShape, thinPoints } from "./scene";

describe("a hand's way", () => {
  test("points that are hardly apart are dropped, the first and the last stay", () => {
    const way = Array.from({ length: 300 }, (_, i): [number, number] => [0.1 + i / 3000, 0.5]);
    const thin = thinPoints(way, 1.5);
    expect(thin.length).toBeLessThan(30);
    expect(thin[0]).toEqual([0.1, 0.5]);
    expect(thin[thin.length - 1]![0]).toBeCloseTo(way[299]![0], 4);
  });

  test("what is apart by its height alone stays in a picture that is lower than wide", () => {
    expect(thinPoints([[0.5, 0.5], [0.5, 0.51]], 0.5)).toHaveLength(2); // oxfmt-ignore
  });

  test("never more than a shape may have", () => {
    const way = Array.from({ length: 9000 }, (_, i): [number, number] => [
      Math.sin(i) / 2 + 0.5,
      Math.cos(i * 1.7) / 2 + 0.5,
    ]);
    const thin = thinPoints(way, 1);
    expect(thin.length).toBeLessThanOrEqual(500);
    expect(FrontShape.safeParse({ kind: "brush", points: thin }).success).toBe(true);
  });
});

describe("paths", () => {
  const size = { width: 1000, height: 500 };
  test("an outline is closed, a brush is not", () => {
    const points: [number, number][] = [[0, 0], [1, 0], [0.5, 1]]; // oxfmt-ignore
    expect(pathOfShape({ kind: "outline", points }, size)).toBe("M0.0 0.0L1000.0 0.0L500.0 500.0Z");
    expect(pathOfShape({ kind: "brush", points }, size)).toBe("M0.0 0.0L1000.0 0.0L500.0 500.0");
  });
  test("a single dab of the brush is drawn, too", () => {
    expect(pathOfShape({ kind: "brush", points: [[0.5, 0.5]] }, size)).toBe("M500.0 250.0L500.0 250.0");
  });
});

test("a brief that was never set on its picture begins with the words below its middle", () => {
  expect(Scene.parse({})).toMatchObject({ front: [], isInPaper: true });
});
