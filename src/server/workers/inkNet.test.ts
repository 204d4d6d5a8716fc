// The fitted net on pictures that it has never seen: letters that are not simply darker or lighter than their ground.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { allOf } from "../../../tests/fixtures/allOf";
import { readPhotograph } from "@/core/picture/readPicture";
import type { RgbaPicture } from "@/core/picture/ink";
import type { OpenFace } from "@/core/outlines/openFace";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { readDemo } from "../../../tests/fixtures/demoFont";
import { inkNet, warmInkNet } from "./inkNet";

let face: OpenFace;
beforeAll(async () => {
  face = (await readDemo("zilla-slab", 700)).face;
  await warmInkNet();
});

type Rgb = [number, number, number];
/** A word as coverage, drawn again pixel by pixel. @param paint - colour of a place, by how much letter and how much rim there is. */
function painted(words: string, paint: (letter: number, rim: number, x: number, y: number) => Rgb): RgbaPicture {
  const line = drawLine(face, words, { sizePx: 60, trackingPx: 6 });
  const { widthPx: w, heightPx: h } = line;
  const cover = (x: number, y: number) =>
    x < 0 || y < 0 || x >= w || y >= h ? 0 : Math.max(0, 1 - line.rgba[4 * (y * w + x)]! / 250);
  const rgba = new Uint8Array(4 * w * h).fill(255);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let rim = 0;
      for (let j = -4; j <= 4; j++)
        for (let i = -4; i <= 4; i++) if (i * i + j * j <= 14) rim = Math.max(rim, cover(x + i, y + j));
      rgba.set(
        paint(cover(x, y), rim, x, y).map((v) => Math.max(0, Math.min(255, Math.round(v)))),
        4 * (y * w + x),
      );
    }
  return { widthPx: w, heightPx: h, rgba };
}
const mix = (a: Rgb, b: Rgb, t: number): Rgb => [0, 1, 2].map((c) => a[c]! * (1 - t) + b[c]! * t) as Rgb;
const readingsOf = async (picture: RgbaPicture) => {
  const lines = (await readPhotograph(picture, {}, null, inkNet))!;
  return [lines.plain, ...(await allOf(lines.others()))];
};

describe("ink that a net sees", () => {
  test("letters with a dark rim over stripes", async () => {
    const picture = painted("Harbour", (letter, rim, x, y) => {
      const ground: Rgb = (x + y) % 34 < 17 ? [60, 100, 160] : [220, 215, 190];
      return mix(mix(ground, [30, 20, 15], rim), [235, 170, 60], letter);
    });
    const [plain, ...others] = await readingsOf(picture);
    expect(plain!.letters.length).not.toBe(7);
    expect(others.some((l) => l.reading.startsWith("learned") && l.letters.length === 7)).toBe(true);
  });

  test("letters raised from their ground, told by light alone", async () => {
    const line = drawLine(face, "Quay", { sizePx: 80, trackingPx: 10 });
    const { widthPx: w, heightPx: h } = line;
    const height = (x: number, y: number) => {
      let sum = 0;
      for (let j = -2; j <= 2; j++)
        for (let i = -2; i <= 2; i++) {
          const [cx, cy] = [Math.min(w - 1, Math.max(0, x + i)), Math.min(h - 1, Math.max(0, y + j))];
          sum += 1 - line.rgba[4 * (cy * w + cx)]! / 255;
        }
      return sum / 25;
    };
    const rgba = new Uint8Array(4 * w * h).fill(255);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const lit = height(x - 1, y - 1) - height(x + 1, y + 1);
        rgba.set(
          [150, 140, 128].map((v) => Math.max(0, Math.min(255, Math.round(v * (1 - 1.3 * lit))))),
          4 * (y * w + x),
        );
      }
    const all = await readingsOf({ widthPx: w, heightPx: h, rgba });
    const learned = all.find((l) => l.reading === "learned");
    expect(learned).toBeDefined();
    // Faces, not edges: a stem is one stroke. As much ink as the letters have, about.
    const ink = learned!.strip.ink.reduce((sum, v) => sum + v, 0) / learned!.strip.heightPx ** 2;
    const [plainly] = await readingsOf(line);
    const wanted = plainly!.strip.ink.reduce((sum, v) => sum + v, 0) / plainly!.strip.heightPx ** 2;
    expect(ink / wanted).toBeGreaterThan(0.7);
    expect(ink / wanted).toBeLessThan(1.4);
  });
});
