// A line cut by hand: only the ink in the boxes is left, each box tight around it.
import { expect, test } from "@jest/globals";
import type { InkLine } from "./readPicture";
import { cutByHand } from "./cutByHand";

/** Two bars of ink, 3–5 and 10–14, in a strip 20 × 8. */
function line(): InkLine {
  const ink = new Float32Array(20 * 8);
  for (let y = 2; y < 6; y++) for (const x of [3, 4, 10, 11, 12, 13]) ink[y * 20 + x] = 1;
  return {
    strip: { widthPx: 20, heightPx: 8, ink },
    letters: [],
    slopeDeg: 0,
    reading: "plain",
    noisy: false,
    contrast: 1,
  };
}

test("boxes are drawn tight, in order, and ink outside of them goes", () => {
  const cut = cutByHand(line(), [
    { left: 9, top: 0, right: 12, bottom: 8 },
    { left: 1, top: 0, right: 7, bottom: 8 },
  ])!;
  expect(cut.letters).toEqual([
    { left: 3, top: 2, right: 5, bottom: 6 },
    { left: 10, top: 2, right: 12, bottom: 6 },
  ]);
  expect(cut.strip.ink.reduce((a, b) => a + b, 0)).toBe(16);
});

test("a box without ink is none; no ink at all is no line; what is given stays as it is", () => {
  const given = line();
  expect(cutByHand(given, [{ left: 15, top: 0, right: 19, bottom: 8 }])).toBeNull();
  expect(cutByHand(given, [{ left: -5, top: -5, right: 60, bottom: 60 }])!.letters).toHaveLength(1);
  expect(given.strip.ink.reduce((a, b) => a + b, 0)).toBe(24);
});
