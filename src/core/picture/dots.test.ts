// Lettering of dots is told from lettering of letters, and its dots are taken together.
import { describe, expect, test } from "@jest/globals";
import type { InkPicture } from "../geometry/raster";
import { drawIn, findDotReach, spreadInk } from "./dots";
import { findPieces, type Piece } from "./pieces";
import { readPicture } from "./readPicture";

const LETTERS = [
  ["#...#", "#...#", "#...#", "#####", "#...#", "#...#", "#...#"],
  ["#####", "..#..", "..#..", "..#..", "..#..", "..#..", "#####"],
  ["#....", "#....", "#....", "#....", "#....", "#....", "#####"],
];
/** "HIL" of square dots. @param stepPx - from dot to dot. */
function dotted(dotPx: number, stepPx: number): InkPicture {
  const [widthPx, heightPx] = [20 * stepPx, 11 * stepPx];
  const ink = new Float32Array(widthPx * heightPx);
  LETTERS.forEach((rows, n) =>
    rows.forEach((row, r) =>
      [...row].forEach((c, k) => {
        if (c !== "#") return;
        const [x0, y0] = [(1 + n * 6 + k) * stepPx, (2 + r) * stepPx];
        for (let y = y0; y < y0 + dotPx; y++) for (let x = x0; x < x0 + dotPx; x++) ink[y * widthPx + x] = 1;
      }),
    ),
  );
  return { widthPx, heightPx, ink };
}
const piecesOf = (p: InkPicture) => findPieces(p, 0.25).pieces;

describe("dots", () => {
  test("are told by their number, their one size and their rows", () => {
    const reach = findDotReach(piecesOf(dotted(4, 8)));
    expect(reach).toBeGreaterThanOrEqual(2);
    expect(reach).toBeLessThanOrEqual(3);
    // Far apart they are stars, few are letters.
    expect(findDotReach(piecesOf(dotted(2, 14)))).toBe(0);
    expect(findDotReach(piecesOf(dotted(4, 8)).slice(0, 10))).toBe(0);
  });

  test("a line of many letters is none, however alike they are", () => {
    const letters = Array.from({ length: 24 }, (_, i): Piece => ({
      left: i * 12,
      right: i * 12 + 8,
      top: 0,
      bottom: 14,
      area: 60,
      peak: 1,
      label: i + 1,
    }));
    expect(findDotReach(letters)).toBe(0);
  });

  test("spread they become letters, drawn in again they are as large as before", () => {
    const picture = dotted(4, 8);
    const reach = findDotReach(piecesOf(picture));
    const spread = piecesOf(spreadInk(picture, reach));
    expect(spread).toHaveLength(3);
    expect(drawIn(spread[0]!, reach)).toMatchObject({ left: 8, right: 44, top: 16, bottom: 68 });
  });

  test("a picture of dotted lettering is read as so many letters", () => {
    const { widthPx, heightPx, ink } = dotted(4, 8);
    const rgba = new Uint8Array(widthPx * heightPx * 4);
    ink.forEach((v, i) => rgba.set([255 - 235 * v, 255 - 235 * v, 255 - 235 * v, 255], 4 * i));
    const line = readPicture({ widthPx, heightPx, rgba })!.plain;
    expect(line.letters).toHaveLength(3);
  });
});
