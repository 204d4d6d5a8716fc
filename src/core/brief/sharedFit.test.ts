import { describe, expect, test } from "@jest/globals";
import { openFace } from "../outlines/openFace";
import { openFont } from "../open/openFont";
import { typesetLine } from "../typeset/typesetText";
import { readDemo, demoBytes } from "../../../tests/fixtures/demoFont";
import { estimateLineEm, sharedFit } from "./sharedFit";

const face = (widthEm: number, xHeightEm = 0.5) => ({
  traits: { widthEm, xHeightEm, capHeightEm: 0.7, cases: "both" as const },
});
const at = { basePx: 40, levelBy: "point-size" as const, roomPx: 400 };

describe("one factor for all", () => {
  test("a line that fits is set at full size, one that does not at one smaller size for every face", () => {
    const faces = [face(0.4), face(0.5), face(0.6)];
    expect(sharedFit(faces, "Open Night", at)).toBe(1);
    const fit = sharedFit(faces, "Skerrow Light and Open Night", at);
    expect(fit).toBeLessThan(1);
    expect(fit).toBeCloseTo(400 / (estimateLineEm("Skerrow Light and Open Night", 0.6) * 40), 1);
  });

  test("a single very wide face does not make all the others small", () => {
    const usual = Array.from({ length: 30 }, () => face(0.5));
    const words = "12 lamps & one tide";
    expect(sharedFit([...usual, face(2)], words, at)).toBe(sharedFit(usual, words, at));
  });

  test("a very long line is cut rather than made tiny; no room, or no face, changes nothing", () => {
    expect(sharedFit([face(0.5)], "x".repeat(400), at)).toBeGreaterThanOrEqual(0.4);
    expect(sharedFit([], "a", at)).toBe(1);
    expect(sharedFit([face(0.5)], "a", { ...at, roomPx: 0 })).toBe(1);
  });

  test("levelled faces are measured as they are levelled", () => {
    const words = "Keepers of the Lamp, Part 3";
    const level = { ...at, levelBy: "x-height" as const };
    expect(sharedFit([face(0.5, 0.25)], words, level)).toBeLessThan(sharedFit([face(0.5, 0.5)], words, level));
  });
});

test.each(["lora", "oswald", "pacifico", "space-mono", "krona-one"])(
  "%s: the estimate is within a fifth",
  async (id) => {
    const { traits } = await readDemo(id);
    const shaper = openFace((await openFont(demoBytes(id))).sfnt);
    for (const words of ["Skerrow Light", "12 lamps & one tide", "Keepers of the Lamp"]) {
      const real = typesetLine(shaper, words).widthFu / shaper.unitsPerEm;
      expect(Math.abs(estimateLineEm(words, traits.widthEm!) / real - 1)).toBeLessThan(0.2);
    }
  },
);
