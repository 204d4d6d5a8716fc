import { beforeAll, describe, expect, test } from "@jest/globals";
import { allOf } from "../../../tests/fixtures/allOf";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { readDemo } from "../../../tests/fixtures/demoFont";
import type { InkPicture } from "../geometry/raster";
import type { OpenFace } from "../outlines/openFace";
import { findInk, type RgbaPicture } from "./ink";
import { fillOutlines, proposeInks } from "./inks";
import { dropBorder } from "./pieces";
import { readPicture } from "./readPicture";

/** A ring of strokes: outside 40 wide, hole 20 wide, stroke `by` pixels. */
function ring(by: number): InkPicture {
  const ink = new Float32Array(60 * 60);
  const box = (from: number, to: number) => {
    for (let y = from; y < to; y++)
      for (let x = from; x < to; x++)
        if (x < from + by || x >= to - by || y < from + by || y >= to - by) ink[y * 60 + x] = 1;
  };
  box(10, 50);
  box(20, 40);
  return { widthPx: 60, heightPx: 60, ink };
}
let face: OpenFace;
beforeAll(async () => {
  face = (await readDemo("work-sans", 700)).face;
});

describe("letters drawn as outlines", () => {
  test("are filled between their strokes, counters stay open", () => {
    const filled = fillOutlines(ring(2))!;
    const at = (x: number, y: number) => filled.ink[y * 60 + x]!;
    expect(at(15, 30)).toBe(1);
    expect(at(30, 30)).toBe(0);
    expect(at(5, 5)).toBe(0);
    // The edge runs along the middle of the stroke.
    expect(at(10, 30)).toBeLessThan(0.5);
    expect(at(11, 30)).toBeGreaterThanOrEqual(0.5);
  });
  test("solid letters are none", () => {
    const solid = new Float32Array(60 * 60);
    for (let y = 10; y < 50; y++) for (let x = 10; x < 50; x++) solid[y * 60 + x] = 1;
    expect(fillOutlines({ widthPx: 60, heightPx: 60, ink: solid })).toBeNull();
  });
});

describe("two colours", () => {
  const inked = (text: string, shadow: readonly [number, number, number]): RgbaPicture => {
    const top = drawLine(face, text, { sizePx: 60, trackingPx: 4 });
    const { widthPx: w, heightPx: h } = top;
    const rgba = new Uint8Array(4 * w * h);
    const inkAt = (x: number, y: number) => (x < 0 || y < 0 ? 0 : 1 - top.rgba[4 * (y * w + x)]! / 255);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const a = inkAt(x, y);
        const b = inkAt(x - 6, y - 5) * (1 - a);
        const letter = [30, 60, 160] as const;
        for (let c = 0; c < 3; c++)
          rgba[4 * (y * w + x) + c] = Math.round(250 * (1 - a - b) + letter[c]! * a + shadow[c]! * b);
        rgba[4 * (y * w + x) + 3] = 255;
      }
    return { widthPx: w, heightPx: h, rgba };
  };
  test("a shadow of another colour is parted from its letters", async () => {
    const others = await allOf(readPicture(inked("Lamp", [220, 120, 40]))!.others());
    const colours = others.filter((l) => l.reading.endsWith("colour"));
    expect(colours).toHaveLength(2);
    expect(colours.some((l) => l.letters.length === 4)).toBe(true);
  });
  test("plain lettering assumes no second colour", () => {
    const found = findInk(drawLine(face, "Lamp", {}))!;
    expect(proposeInks(found).filter((s) => s.reading.endsWith("colour"))).toEqual([]);
  });
});

test("a line along the picture's border is no lettering", () => {
  const ink = new Float32Array(80 * 40);
  for (let y = 0; y < 40; y++) ink[y * 80 + 79] = 1;
  for (let x = 0; x < 80; x++) ink[39 * 80 + x] = 1;
  for (let y = 10; y < 30; y++) for (let x = 20; x < 26; x++) ink[y * 80 + x] = 1;
  const out = dropBorder({ widthPx: 80, heightPx: 40, ink });
  expect(out.ink[20 * 80 + 79]).toBe(0);
  expect(out.ink[20 * 80 + 22]).toBe(1);
});
