// Cutting by hand: what each change does to boxes and reading.
import { describe, expect, test } from "@jest/globals";
import { cutsOf, dropCut, mergeCuts, moveCut, nameCut, readingOf, splitCut, type Cut } from "./cuts";

const cut = (char: string, left: number, right: number): Cut => ({ char, left, right, top: 0, bottom: 10 });
const three = [cut("F", 0, 10), cut("o", 10, 20), cut("g", 25, 35)];

describe("cuts", () => {
  test("come from the letters that were read", () => {
    const box = { x: 2, y: 3, width: 4, height: 5 };
    expect(cutsOf([{ char: "a", box, confidence: 1 }])).toEqual([{ char: "a", left: 2, right: 6, top: 3, bottom: 8 }]);
  });
  test("split in the middle; the second half is not named", () => {
    expect(splitCut(three, 0).map((c) => [c.char, c.left, c.right])).toEqual([
      ["F", 0, 5],
      ["", 5, 10],
      ["o", 10, 20],
      ["g", 25, 35],
    ]);
    expect(splitCut([cut("i", 0, 4)], 0)).toHaveLength(1);
  });
  test("merge with the next, the last with none", () => {
    expect(mergeCuts(three, 1).map((c) => [c.char, c.left, c.right])).toEqual([
      ["F", 0, 10],
      ["o", 10, 35],
    ]);
    expect(mergeCuts(three, 2)).toEqual(three);
  });
  test("are dropped and named", () => {
    expect(dropCut(three, 1).map((c) => c.char)).toEqual(["F", "g"]);
    expect(nameCut(three, 2, "9").map((c) => c.char)).toEqual(["F", "o", "9"]);
  });
  test("a mark that two letters share moves both, and never past either", () => {
    expect(moveCut(three, 1, 14).map((c) => [c.left, c.right])).toEqual([
      [0, 14],
      [14, 20],
      [25, 35],
    ]);
    expect(moveCut(three, 1, 99)[1]!.left).toBe(17);
    expect(moveCut(three, 1, -99)[1]!.left).toBe(3);
    // Letters that do not touch: the other stays.
    expect(moveCut(three, 2, 5).map((c) => [c.left, c.right])).toEqual([
      [0, 10],
      [10, 20],
      [20, 35],
    ]);
  });
  test("the reading keeps its words while letters are as many", () => {
    expect(readingOf([cut("a", 0, 1), cut("b", 1, 2), cut("c", 2, 3)], "ab c")).toBe("ab c");
    expect(readingOf([cut("a", 0, 1), cut("", 1, 2)], "ab c")).toBe("a?");
  });
});
