// Rows of ink: what is picked of a picture, and that rows are sharpest where they run as the ink does.
import { describe, expect, test } from "@jest/globals";
import { pickInk, sharpnessOf } from "./rows";

/** Two bars across, each `rise` pixels higher at its right end. */
function bars(rise: number) {
  const [w, h] = [120, 60];
  const ink = new Float32Array(w * h);
  for (let x = 0; x < w; x++)
    for (const top of [15, 35]) {
      const at = Math.round(top - (rise * x) / w);
      for (let y = at; y < at + 6; y++) ink[y * w + x] = 1;
    }
  return { widthPx: w, heightPx: h, ink };
}

describe("rows", () => {
  test("points are of the ink alone, and about as many as were asked for", () => {
    const all = pickInk(bars(0), 120 * 60);
    expect([all.stepPx, all.vs.length]).toEqual([1, 2 * 6 * 120]);
    expect(all.ys.every((y) => (y >= 15 && y < 21) || (y >= 35 && y < 41))).toBe(true);
    const few = pickInk(bars(0), 1800);
    expect(few.stepPx).toBe(2);
    expect(few.vs.length).toBeLessThan(all.vs.length / 3);
    expect(pickInk({ widthPx: 9, heightPx: 9, ink: new Float32Array(81) }, 100).vs).toEqual([]);
  });

  test.each([-9, 0, 12])("bars that rise by %d are sharpest along themselves", (rise) => {
    const { xs, ys, vs } = pickInk(bars(rise), 1e6);
    const rows = new Float64Array(140);
    const under = (r: number) => sharpnessOf(vs, (i) => ys[i]! + (r * xs[i]!) / 120 + 40, rows);
    const tried = [-20, -15, -12, -9, -5, 0, 5, 9, 12, 16];
    const best = tried.reduce((a, b) => (under(b) > under(a) ? b : a));
    expect(best).toBe(rise);
  });

  test("what falls outside of the rows does not count", () => {
    expect(sharpnessOf([1, 1], (i) => (i ? 3 : -5), new Float64Array(6))).toBe(2);
    expect(sharpnessOf([1], () => 99, new Float64Array(6))).toBe(0);
  });
});
