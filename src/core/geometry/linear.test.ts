import { describe, expect, test } from "@jest/globals";
import { mainDirection, solveLinear, solveSymmetric3 } from "./linear";

describe("linear equations", () => {
  test("of any size are solved, in whatever order their rows stand", () => {
    expect(
      solveLinear([
        [0, 1, 2],
        [1, 0, 3],
      ]),
    ).toEqual([3, 2]);
    const solved = solveLinear([
      [2, 1, -1, 8],
      [-3, -1, 2, -11],
      [-2, 1, 2, -3],
    ])!;
    [2, 3, -1].forEach((x, i) => expect(solved[i]).toBeCloseTo(x, 10));
  });

  test("that contradict or repeat one another have no answer", () => {
    expect(
      solveLinear([
        [1, 1, 2],
        [2, 2, 4],
      ]),
    ).toBeNull();
    expect(solveSymmetric3(1, 2, 3, 4, 6, 9, [1, 2, 3])).toBeNull();
  });

  test("three, symmetric, are solved as the general way does", () => {
    const [a, b, c, d, e, f] = [4, 1, -2, 7, 0.5, 3] as const;
    const v = [3, -1, 8];
    const general = solveLinear([
      [a, b, c, v[0]!],
      [b, d, e, v[1]!],
      [c, e, f, v[2]!],
    ])!;
    solveSymmetric3(a, b, c, d, e, f, v)!.forEach((x, i) => expect(x).toBeCloseTo(general[i]!, 10));
  });
});

test("the main direction of points along a line is that line's", () => {
  const points = Float32Array.from({ length: 30 }, (_, i) => (Math.floor(i / 3) - 4.5) * [2, -1, 2][i % 3]!);
  const [x, y, z] = mainDirection(points, 10);
  expect(Math.abs(x)).toBeCloseTo(2 / 3, 5);
  expect(y / x).toBeCloseTo(-0.5, 5);
  expect(z / x).toBeCloseTo(1, 5);
});
