// Corrections of ink as the tools make them.
import { describe, expect, test } from "@jest/globals";
import { applyTool, lettersOf, takeLetters } from "./ink";

describe("ink by hand", () => {
  test("a click adds a colour, a drag a stroke", () => {
    const picked = applyTool(null, "letter", [{ x: 5, y: 6 }], 8);
    expect(picked).toMatchObject({ letters: "found", letterAt: [{ x: 5, y: 6 }], strokes: [] });
    const also = applyTool(picked, "ground", [{ x: 1, y: 1 }], 8);
    expect(also.groundAt).toEqual([{ x: 1, y: 1 }]);
    const along = Array.from({ length: 100 }, (_, x) => ({ x, y: 0 }));
    const { strokes } = applyTool(also, "rub-out", along, 9);
    expect(strokes[0]).toMatchObject({ rubsOut: true, radiusPx: 9 });
    // Points nearer to each other than the brush can show are left out; the ends stay.
    expect(strokes[0]!.points.length).toBeLessThan(40);
    expect(strokes[0]!.points.at(-1)).toEqual({ x: 99, y: 0 });
  });

  test("no more colours than are taken", () => {
    let ink = applyTool(null, "letter", [{ x: 0, y: 0 }], 1);
    for (let x = 1; x < 20; x++) ink = applyTool(ink, "letter", [{ x, y: 0 }], 1);
    expect(ink.letterAt).toHaveLength(12);
    expect(ink.letterAt.at(-1)).toEqual({ x: 19, y: 0 });
  });

  test("choosing what the letters are lets picked colours go; what stands out is no correction", () => {
    const picked = applyTool(null, "letter", [{ x: 5, y: 6 }], 8);
    expect(takeLetters(picked, "dark")).toMatchObject({ letters: "dark", letterAt: [] });
    expect(takeLetters(picked, "found")).toBeNull();
    expect(lettersOf(null)).toBe("found");
  });
});
