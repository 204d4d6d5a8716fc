import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine, type DrawOptions } from "../../../tests/fixtures/drawLine";
import { readDemo } from "../../../tests/fixtures/demoFont";
import type { OpenFace } from "../outlines/openFace";
import { blurInk, otsu } from "./ink";
import { readPicture } from "./readPicture";
import { cropPicture, findSlopeDeg, straightenCorners } from "./straighten";

let face: OpenFace;
beforeAll(async () => {
  face = (await readDemo("work-sans", 600)).face;
});
const read = (text: string, options: DrawOptions = {}) => readPicture(drawLine(face, text, options))!.plain;

describe("a line in a picture", () => {
  test.each([
    ["dark on light", {}],
    ["light on dark", { ink: [245, 240, 230], paper: [30, 40, 60] }],
    ["colour on colour of like lightness", { ink: [200, 60, 40], paper: [60, 130, 70] }],
    ["uneven light", { shade: 0.5 }],
    ["noise", { noise: 50 }],
    ["blur", { blurPx: 1.6 }],
    ["small", { sizePx: 22, blurPx: 0.3 }],
    ["huge", { sizePx: 240 }],
  ] as [string, DrawOptions][])("is cut into its letters: %s", (_what, options) => {
    const line = read("Harbour", { trackingPx: 1, ...options });
    expect(line.letters).toHaveLength(7);
    const lefts = line.letters.map((b) => b.left);
    expect(lefts).toEqual([...lefts].sort((a, b) => a - b));
  });

  test("dots belong to their letters", () => expect(read("ijij!?").letters).toHaveLength(6));

  test("ink is soft coverage between 0 and 1, paper is 0", () => {
    const { strip } = read("Quay");
    expect(Math.max(...strip.ink)).toBeCloseTo(1, 1);
    expect(Math.min(...strip.ink)).toBe(0);
    expect(strip.ink.slice(0, strip.widthPx * 3).every((v) => v === 0)).toBe(true);
  });

  test.each([-9, -4, 3, 8])("turned by %i degrees it is made level", (deg) => {
    const line = read("Evening watch", { turnDeg: deg });
    expect(line.slopeDeg).toBeCloseTo(deg, 0);
    const bottoms = line.letters.map((b) => b.bottom).sort((a, b) => a - b);
    expect(bottoms[8]! - bottoms[3]!).toBeLessThan(3);
  });

  test("edges of letters lie where the outline says, within a third of a pixel", () => {
    const line = read("HI", { sizePx: 64, blurPx: 0, trackingPx: 4 });
    const [h, i] = line.letters;
    const expected = face.unitsPerEm / 64;
    const capital = (h!.bottom - h!.top) * expected;
    expect(Math.abs(capital - 660) / expected).toBeLessThan(0.7);
    expect(i!.right - i!.left).toBeLessThan(h!.right - h!.left);
  });

  test("of two lines the heavier is read", () => {
    const upper = drawLine(face, "small", { sizePx: 24 });
    const lower = drawLine(face, "LARGER", { sizePx: 70, trackingPx: 2 });
    const w = Math.max(upper.widthPx, lower.widthPx);
    const both = {
      widthPx: w,
      heightPx: upper.heightPx + lower.heightPx,
      rgba: new Uint8Array(4 * w * (upper.heightPx + lower.heightPx)).fill(250),
    };
    for (const [p, top] of [
      [upper, 0],
      [lower, upper.heightPx],
    ] as const)
      for (let y = 0; y < p.heightPx; y++)
        both.rgba.set(p.rgba.subarray(4 * y * p.widthPx, 4 * (y + 1) * p.widthPx), 4 * (y + top) * w);
    expect(readPicture(both)!.plain.letters).toHaveLength(6);
  });
});

describe("frames", () => {
  test("a box cuts out a part", () => {
    const picture = drawLine(face, "AB", { trackingPx: 60 });
    const half = readPicture(picture, {
      box: { x: 0, y: 0, width: picture.widthPx / 2, height: picture.heightPx },
    })!.plain;
    expect(half.letters).toHaveLength(1);
  });

  test("four corners undo a slant", () => {
    const picture = drawLine(face, "Quay", {});
    const { widthPx: w, heightPx: h } = picture;
    const straight = straightenCorners(
      picture,
      [
        { x: 0, y: 0 },
        { x: w, y: 0 },
        { x: w, y: h },
        { x: 0, y: h },
      ],
      2000,
    )!;
    expect([straight.widthPx, straight.heightPx]).toEqual([w, h]);
    expect(Math.abs(straight.rgba[4 * (20 * w + 30)]! - picture.rgba[4 * (20 * w + 30)]!)).toBeLessThan(3);
  });

  test("a frame outside, or without area, reads nothing", () => {
    const picture = drawLine(face, "Quay");
    expect(cropPicture(picture, { x: 9000, y: 0, width: 50, height: 50 })).toBeNull();
    expect(readPicture(picture, { box: { x: 9000, y: 0, width: 50, height: 50 } })).toBeNull();
    expect(
      straightenCorners(
        picture,
        [
          { x: 0, y: 0 },
          { x: 0, y: 0 },
          { x: 0, y: 0 },
          { x: 0, y: 0 },
        ],
        500,
      ),
    ).toBeNull();
  });
});

describe("nothing to read", () => {
  const flat = (value: number) => ({ widthPx: 200, heightPx: 80, rgba: new Uint8Array(4 * 200 * 80).fill(value) });
  test("an even area", () => {
    expect(readPicture(flat(255))).toBeNull();
    expect(readPicture(flat(90))).toBeNull();
  });

  test("a gradient alone", () => {
    const p = flat(0);
    for (let i = 0; i < 200 * 80; i++) p.rgba.fill(40 + (i % 200), 4 * i, 4 * i + 4);
    expect(readPicture(p)).toBeNull();
  });
});

describe("tools", () => {
  test("blur keeps the ink and spreads it", () => {
    const ink = new Float32Array(41 * 41);
    ink[20 * 41 + 20] = 1;
    const out = blurInk({ widthPx: 41, heightPx: 41, ink }, 2);
    expect(out.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 4);
    expect(out[20 * 41 + 20]).toBeLessThan(0.06);
    expect(out[20 * 41 + 23]).toBeCloseTo(out[23 * 41 + 20]!, 6);
  });

  test("Otsu parts two heaps", () => {
    const t = otsu(Float32Array.from({ length: 300 }, (_, i) => (i % 3 ? 10 + (i % 5) : 200 + (i % 7))));
    expect(t).toBeGreaterThan(14);
    expect(t).toBeLessThan(200);
  });

  test("a level line has no slope", () => {
    const picture = drawLine(face, "level", {});
    const ink = Float32Array.from(
      { length: picture.widthPx * picture.heightPx },
      (_, i) => 1 - picture.rgba[4 * i]! / 255,
    );
    expect(findSlopeDeg({ widthPx: picture.widthPx, heightPx: picture.heightPx, ink })).toBe(0);
  });
});
