import { beforeAll, describe, expect, test } from "@jest/globals";
import { allOf } from "../../../tests/fixtures/allOf";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { readDemo } from "../../../tests/fixtures/demoFont";
import type { OpenFace } from "../outlines/openFace";
import { drawStrokes, type HandInk } from "./handInk";
import type { RgbaPicture } from "./ink";
import { readPicture, type InkLine } from "./readPicture";

let face: OpenFace;
beforeAll(async () => {
  face = (await readDemo("work-sans", 700)).face;
});
const AS_FOUND: HandInk = { letters: "found", letterAt: [], groundAt: [], strokes: [] };

/** Orange letters with a dark rim three pixels wide, on a ground of blue and white stripes. */
function rimmed(text: string): RgbaPicture & { inside: { x: number; y: number } } {
  const line = drawLine(face, text, { sizePx: 70, trackingPx: 8 });
  const { widthPx: w, heightPx: h } = line;
  const cover = (x: number, y: number) =>
    x < 0 || y < 0 || x >= w || y >= h ? 0 : 1 - line.rgba[4 * (y * w + x)]! / 255;
  const rgba = new Uint8Array(4 * w * h);
  let inside = { x: 0, y: 0 };
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let rim = 0;
      for (let j = -3; j <= 3; j++)
        for (let i = -3; i <= 3; i++) if (i * i + j * j <= 9) rim = Math.max(rim, cover(x + i, y + j));
      const a = cover(x, y);
      if (a > 0.9 && cover(x - 4, y) > 0.9 && cover(x + 4, y) > 0.9) inside = { x, y };
      const ground = x % 14 < 7 ? [70, 110, 190] : [235, 235, 240];
      for (let c = 0; c < 3; c++)
        rgba[4 * (y * w + x) + c] = Math.round(
          [240, 140, 20][c]! * a + (1 - a) * ([30, 25, 20][c]! * rim + ground[c]! * (1 - rim)),
        );
      rgba[4 * (y * w + x) + 3] = 255;
    }
  return { widthPx: w, heightPx: h, rgba, inside };
}
const amount = ({ strip }: InkLine) => strip.ink.reduce((sum, v) => sum + v, 0);

describe("ink by hand", () => {
  test("a click on a letter gives its colour, without its rim and its ground", async () => {
    const picture = rimmed("QUAY");
    const plainly = readPicture(drawLine(face, "QUAY", { sizePx: 70, trackingPx: 8 }))!.plain;
    const picked = readPicture(picture, {}, { ...AS_FOUND, letterAt: [picture.inside] })!;
    expect(picked.plain.letters).toHaveLength(4);
    expect(amount(picked.plain) / amount(plainly)).toBeGreaterThan(0.92);
    expect(amount(picked.plain) / amount(plainly)).toBeLessThan(1.08);
    expect((await allOf(picked.others())).map((l) => l.reading)).not.toContain("first colour");
    // Not by itself.
    expect(readPicture(picture)?.plain.letters.length).not.toBe(4);
  });

  test("a colour that is none of the letters is left out", () => {
    const picture = rimmed("QUAY");
    const both = {
      ...AS_FOUND,
      letterAt: [picture.inside],
      groundAt: [
        { x: 2, y: 2 },
        { x: 9, y: 2 },
      ],
    };
    expect(readPicture(picture, {}, both)!.plain.letters).toHaveLength(4);
  });

  test("the light parts of dark on light are the ground", () => {
    const line = drawLine(face, "Harbour", { sizePx: 60 });
    const dark = readPicture(line, {}, { ...AS_FOUND, letters: "dark" })!.plain;
    expect(dark.letters).toHaveLength(7);
    const light = readPicture(line, {}, { ...AS_FOUND, letters: "light" })?.plain;
    expect(light?.letters.length ?? 0).toBeLessThan(7);
    const reversed = { ...line, rgba: line.rgba.map((v, i) => (i % 4 === 3 ? v : 255 - v)) };
    expect(readPicture(reversed, {}, { ...AS_FOUND, letters: "light" })!.plain.letters).toHaveLength(7);
  });

  test("what is rubbed out is gone, what is painted in is there, in the frame too", () => {
    const line = drawLine(face, "Quay", { sizePx: 60, trackingPx: 8 });
    const { plain } = readPicture(line)!;
    expect(plain.letters).toHaveLength(4);
    const across = (x: number) => [
      { x, y: 0 },
      { x, y: line.heightPx },
    ];
    // The line stands with a margin around it: the last letter is rubbed out where it stands in the picture.
    const last = plain.letters[3]!;
    const offset = { x: last.left + 14, y: 0 };
    const rubbed = readPicture(
      line,
      {},
      {
        ...AS_FOUND,
        strokes: [{ rubsOut: true, radiusPx: 26, points: across(offset.x + 12) }],
      },
    )!;
    expect(rubbed.plain.letters).toHaveLength(3);
    const stroke = { rubsOut: false, radiusPx: 4, points: across(6).map((p) => ({ ...p, y: 20 + p.y / 3 })) };
    const box = { x: 0, y: 0, width: line.widthPx, height: line.heightPx };
    const painted = readPicture(line, { box }, { ...AS_FOUND, strokes: [stroke] })!;
    expect(painted.plain.letters).toHaveLength(5);
    expect(readPicture(line)!.plain.letters).toHaveLength(4);
  });

  test("the later stroke goes over the earlier", () => {
    const points = [{ x: 5, y: 5 }];
    const { rgba } = drawStrokes(
      [
        { rubsOut: false, radiusPx: 3, points },
        { rubsOut: true, radiusPx: 2, points },
      ],
      { widthPx: 10, heightPx: 10 },
    );
    const at = (x: number, y: number) => [rgba[4 * (y * 10 + x)], rgba[4 * (y * 10 + x) + 1]];
    expect(at(5, 5)).toEqual([0, 255]);
    expect(at(7, 5)).toEqual([255, 0]);
    expect(at(9, 9)).toEqual([0, 0]);
  });

  test("nothing of the kind is no line", () => {
    const blank = { widthPx: 40, heightPx: 30, rgba: new Uint8Array(4 * 40 * 30).fill(255) };
    expect(readPicture(blank, {}, { ...AS_FOUND, letters: "dark" })).toBeNull();
    expect(readPicture(blank, {}, { ...AS_FOUND, letters: "outlines" })).toBeNull();
    expect(readPicture(blank, {}, { ...AS_FOUND, letterAt: [{ x: 900, y: -4 }] })).toBeNull();
  });
});
