import { describe, expect, test } from "@jest/globals";
import { groupLines, type LineAnswer } from "./groupLines";

/** @param faces - "name score chance", the nearest first. */
const line = (noneChance: number, ...faces: [string, number, number][]): LineAnswer => ({
  matches: faces.map(([styleId, score, chance]) => ({ styleId, score, chance })),
  noneChance,
});

describe("lines of one picture", () => {
  test("in one face are answered together, surer than each alone", () => {
    const groups = groupLines([
      line(0.1, ["lora", 0.9, 0.5], ["gelasio", 0.89, 0.4]),
      line(0.1, ["gelasio", 0.91, 0.45], ["lora", 0.9, 0.44]),
      line(0.1, ["lora", 0.93, 0.7], ["gelasio", 0.9, 0.2]),
    ]);
    expect(groups).toHaveLength(1);
    expect(groups[0]!.lines).toEqual([0, 1, 2]);
    expect(groups[0]!.matches[0]!.styleId).toBe("lora");
    expect(groups[0]!.matches[0]!.chance).toBeGreaterThan(0.7);
    const sum = groups[0]!.matches.reduce((s, m) => s + m.chance, groups[0]!.noneChance);
    expect(sum).toBeCloseTo(1, 6);
  });

  test("in different faces stay apart, wherever they stand", () => {
    const title = line(0.02, ["anton", 0.92, 0.95], ["oswald", 0.8, 0.02]);
    const text = line(0.05, ["lora", 0.9, 0.8], ["gelasio", 0.85, 0.1]);
    expect(groupLines([title, text, title]).map((g) => g.lines)).toEqual([[0, 2], [1]]);
  });

  test("a weight that all but fits is not taken for another that fits", () => {
    const bold = line(0.02, ["bold", 0.93, 0.9], ["regular", 0.8, 0.05]);
    const regular = line(0.02, ["regular", 0.92, 0.9], ["bold", 0.79, 0.05]);
    expect(groupLines([bold, regular])).toHaveLength(2);
  });

  test("three that lie between two others do not draw those together", () => {
    const a = line(0.1, ["a", 0.9, 0.6], ["b", 0.87, 0.3], ["c", 0.7, 0.01]);
    const b = line(0.1, ["b", 0.9, 0.6], ["a", 0.87, 0.2], ["c", 0.87, 0.2]);
    const c = line(0.1, ["c", 0.9, 0.6], ["b", 0.87, 0.3], ["a", 0.7, 0.01]);
    const groups = groupLines([a, b, c]);
    // b suits all three.
    expect(groups.map((g) => g.lines)).toEqual([[0, 1, 2]]);
    expect(groups[0]!.matches[0]!.styleId).toBe("b");
  });

  test("what could not be read is in no group", () => {
    expect(groupLines([line(1), line(0.1, ["lora", 0.9, 0.9])]).map((g) => g.lines)).toEqual([[1]]);
    expect(groupLines([])).toEqual([]);
  });
});
