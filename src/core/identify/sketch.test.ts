// A sketch: letters of one thickness, as a pen draws them. The nearest face is the one of the same build, whatever its weight.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { readDemo } from "../../../tests/fixtures/demoFont";
import { describeFaces, type DescribedFaces } from "../../../tests/fixtures/describedFaces";
import type { OpenFace } from "../outlines/openFace";
import { readPicture } from "../picture/readPicture";
import { nearestToSketch } from "./sketch";

const HEAVY = [
  ["work-sans", 800],
  ["oswald", 700],
  ["zilla-slab", 700],
  ["lora", 700],
  ["josefin-sans", 700],
  ["playfair-display", 900],
  ["space-mono", 700],
] as const;
let { index, load }: DescribedFaces = {} as DescribedFaces;
const drawn = new Map<string, OpenFace>();
beforeAll(async () => {
  ({ index, load } = await describeFaces(HEAVY));
  for (const [id, weight] of [
    ["work-sans", 200],
    ["oswald", 200],
    ["zilla-slab", 300],
    ["josefin-sans", 100],
  ] as const)
    drawn.set(id, (await readDemo(id, weight)).face);
});
const nearest = (id: string, text: string, more = {}) =>
  nearestToSketch(readPicture(drawLine(drawn.get(id)!, text, more))!, text, index, load, 7);

describe("letters as thin as a pen", () => {
  test.each(["work-sans", "oswald", "zilla-slab", "josefin-sans"])(
    "of the build of %s are nearest to its heavy style",
    (id) => {
      const { matches } = nearest(id, "Hagen Quart");
      expect(matches.slice(0, 2).map((m) => m.styleId)).toContain(id);
    },
  );

  test("likeness falls from match to match, no chance is claimed, and a drawing lies over the sketch", () => {
    const { matches, noneChance } = nearest("oswald", "Harbour");
    const scores = matches.map((m) => m.score);
    expect(scores).toEqual([...scores].sort((a, b) => b - a));
    expect(scores[0]).toBeGreaterThan(0.4);
    expect(scores[scores.length - 1]).toBeLessThan(scores[0]! - 0.1);
    expect(matches.every((m) => m.chance === 0)).toBe(true);
    expect(noneChance).toBe(1);
    expect(matches[0]!.overlayPath).toMatch(/^M/);
    expect(matches[0]!.letters.map((l) => l.char).join("")).toBe("Harbour");
  });

  test("letters that run into each other are compared all the same", () => {
    const { matches } = nearest("oswald", "Harbour", { trackingPx: -5 });
    expect(matches.slice(0, 3).map((m) => m.styleId)).toContain("oswald");
  });

  test("one match a family", () => {
    const { matches } = nearest("oswald", "Harbour");
    expect(new Set(matches.map((m) => m.family)).size).toBe(matches.length);
  });
});
