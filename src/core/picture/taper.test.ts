// Lines seen from the side: how much they grow is found, and they are drawn as seen from the front. Checked by warping even lines.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { readDemo } from "../../../tests/fixtures/demoFont";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { samplePicture } from "./straighten";
import { seeAround, seeFromSide } from "../../../tests/fixtures/seenFromSide";
import type { InkPicture } from "../geometry/raster";
import type { OpenFace } from "../outlines/openFace";
import { readPicture, type InkLine } from "./readPicture";
import { evenInk, findTaper } from "./taper";

const faces = new Map<string, OpenFace>();
beforeAll(async () => {
  for (const id of ["work-sans", "zilla-slab", "great-vibes", "lora"]) faces.set(id, (await readDemo(id)).face);
});
const draw = (id: string, text: string) => drawLine(faces.get(id)!, text, { sizePx: 80, marginPx: 60 });

const seenFromSide = (id: string, text: string, left: number, right: number) =>
  seeFromSide(draw(id, text), left, right);

describe("how much a line grows", () => {
  test.each([
    ["work-sans", "Harbour Light", 0.66, 1],
    ["work-sans", "Harbour Light", 1, 0.7],
    ["zilla-slab", "BRASS LANTERN", 0.7, 1],
    ["lora", "Keepers of the Lamp", 1, 0.62],
  ])("%s “%s”, ends %d and %d", (id, text, left, right) => {
    const line = readPicture(seenFromSide(id, text, left, right))!.plain;
    const taper = findTaper(line.strip)!;
    const growth = (right - left) / (right + left);
    // Lettering begins and ends within the picture: it grows less than that.
    expect(Math.abs(taper.growth - growth)).toBeLessThan(0.06);
  });

  test.each([
    ["work-sans", "Harbour Light"],
    ["zilla-slab", "BRASS LANTERN"],
    ["lora", "15:30"],
    ["lora", "Jetty"],
  ])("%s “%s” is even as it is", (id, text) => {
    expect(findTaper(readPicture(draw(id, text))!.plain.strip)).toBeNull();
  });

  test("paper has none", () => {
    const blank: InkPicture = { widthPx: 80, heightPx: 30, ink: new Float32Array(2400) };
    expect(findTaper(blank)).toBeNull();
  });
});

describe("seen from the front", () => {
  test("first and last letter are as high as each other", () => {
    const { plain, evened: even } = readPicture(seenFromSide("work-sans", "HARBOUR LIGHT", 0.66, 1))!;
    const heights = (letters: { top: number; bottom: number }[]) =>
      [letters[0]!, letters[letters.length - 1]!].map((b) => b.bottom - b.top) as [number, number];
    const [first, last] = heights(plain.letters);
    expect(first / last).toBeLessThan(0.8);
    const evened = even(plain)[0]!;
    const [evenFirst, evenLast] = heights(evened.letters);
    expect(Math.abs(evenFirst / evenLast - 1)).toBeLessThan(0.06);
    expect(evened.letters).toHaveLength(12);
  });

  test("letters that stand upright on a falling line stand upright in one of the ways", () => {
    const level = draw("work-sans", "IIIIIIII");
    const fall = 0.15;
    const falling = samplePicture(level, level.widthPx, Math.round(level.heightPx + fall * level.widthPx), (x, y) => ({
      x,
      y: y - fall * x,
    }));
    const lines = readPicture(falling)!;
    const turned = lines.plain;
    const upright = lines.evened(turned).find((line) => line.reading === "evened, upright")!;
    const widest = ({ letters }: InkLine) => Math.max(...letters.map((b) => b.right - b.left));
    expect(widest(upright)).toBeLessThan(0.75 * widest(turned));
  });

  test("letters keep their proportions: the far ones were narrower too", () => {
    const widthsOf = (letters: { left: number; right: number }[]) => letters.map((b) => b.right - b.left);
    const { plain, evened: even } = readPicture(seenFromSide("work-sans", "NNNNNNNN", 0.66, 1))!;
    const evened = even(plain)[0]!;
    const widths = widthsOf(evened.letters);
    expect(widths).toHaveLength(8);
    expect(Math.max(...widths) / Math.min(...widths)).toBeLessThan(1.12);
  });

  test("nothing is lost of the ink's edges", () => {
    const line = readPicture(seenFromSide("lora", "Quay", 0.7, 1))!.plain;
    const even = evenInk(line.strip, { growth: 0.18, rise: 0, bow: 0 })!;
    const border = [...even.ink.subarray(0, even.widthPx), ...even.ink.subarray(-even.widthPx)];
    expect(Math.max(...border)).toBeLessThan(0.2);
  });
});

describe("around a cylinder", () => {
  test.each([
    [100, 0, 14],
    [120, 0, 8],
    [110, 14, 18],
  ])(
    "%d° of it, turned by %d°, from %d° above: one of a few ways has all letters about as wide as each other",
    (arc, turn, down) => {
      const { plain, further } = readPicture(seeAround(draw("work-sans", "NNNNNNNNN"), arc, turn, down))!;
      const unevenness = ({ letters }: InkLine) => {
        const widths = letters.map((b) => b.right - b.left);
        return letters.length === 9 ? Math.max(...widths) / Math.min(...widths) : Infinity;
      };
      expect(unevenness(plain)).toBeGreaterThan(1.3);
      expect(Math.min(...further(plain).map(unevenness))).toBeLessThan(1.25);
    },
  );
});
