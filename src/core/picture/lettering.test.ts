import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { readDemo } from "../../../tests/fixtures/demoFont";
import type { OpenFace } from "../outlines/openFace";
import { findAreas } from "./areas";
import type { RgbaPicture } from "./ink";
import { findLettering } from "./lettering";

let face: OpenFace;
beforeAll(async () => {
  face = (await readDemo("work-sans", 600)).face;
});

type Rgb = readonly [number, number, number];
/** A word on a board of one colour, the board on a wall of another. */
function onBoard(words: string, ink: Rgb, board: Rgb, wall: Rgb): RgbaPicture & { at: { x: number; y: number } } {
  const line = drawLine(face, words, { sizePx: 54 });
  const [w, h, x0, y0] = [900, 600, 330, 240];
  const rgba = new Uint8Array(4 * w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const isBoard = x > x0 - 90 && x < x0 + line.widthPx + 60 && y > y0 - 60 && y < y0 + line.heightPx + 70;
      const [i, j] = [x - x0, y - y0];
      const inside = i >= 0 && j >= 0 && i < line.widthPx && j < line.heightPx;
      const a = inside ? 1 - line.rgba[4 * (j * line.widthPx + i)]! / 255 : 0;
      const under = isBoard ? board : wall;
      for (let c = 0; c < 3; c++) rgba[4 * (y * w + x) + c] = Math.round(ink[c]! * a + under[c]! * (1 - a));
      rgba[4 * (y * w + x) + 3] = 255;
    }
  return { widthPx: w, heightPx: h, rgba, at: { x: x0, y: y0 } };
}
const isAround = (
  a: { x: number; y: number; width: number; height: number } | undefined,
  at: { x: number; y: number },
) => a !== undefined && Math.abs(a.x - at.x) < 40 && Math.abs(a.y - at.y) < 40 && a.height < 110;

describe("lettering on things", () => {
  test("is found on a board that stands out more than its letters do", () => {
    const picture = onBoard("Lamp Oil", [240, 230, 200], [30, 80, 66], [190, 184, 170]);
    expect(isAround(findLettering(picture)[0], picture.at)).toBe(true);
    const { areas, isPlain } = findAreas(picture);
    expect(isPlain).toBe(false);
    expect(isAround(areas[0], picture.at)).toBe(true);
  });

  test("is found by hue alone", () => {
    // As light as its ground.
    const picture = onBoard("Wick Trim", [214, 60, 60], [60, 136, 60], [120, 120, 122]);
    expect(isAround(findLettering(picture)[0], picture.at)).toBe(true);
  });

  test("of a large picture is given in its own pixels", () => {
    const line = drawLine(face, "Tide Bell", { sizePx: 190 });
    const [found] = findLettering(line);
    expect(found!.width).toBeGreaterThan(0.7 * line.widthPx);
    expect(found!.x + found!.width).toBeLessThanOrEqual(line.widthPx);
  });

  test("is none in blobs, in grain, in nothing", () => {
    const [w, h] = [400, 300];
    const picture = (at: (x: number, y: number) => number): RgbaPicture => {
      const rgba = new Uint8Array(4 * w * h).fill(255);
      for (let i = 0; i < w * h; i++) rgba.fill(at(i % w, Math.floor(i / w)), 4 * i, 4 * i + 3);
      return { widthPx: w, heightPx: h, rgba };
    };
    expect(findLettering(picture(() => 200))).toEqual([]);
    expect(findLettering(picture((x, y) => (Math.hypot(x - 200, y - 150) < 70 ? 30 : 220)))).toEqual([]);
    expect(findLettering(picture((x, y) => 120 + ((x * 7919 + y * 104_729) % 31)))).toEqual([]);
  });
});
