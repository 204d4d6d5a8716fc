import { describe, expect, test } from "@jest/globals";
import { nameCharacter, writeCodePoint } from "./characterNames";
import { readFamilyAndStyle } from "./tables/names";
import { blockOf, describeCoverage, hasCodePoint, toRanges } from "./unicodeBlocks";

describe("ranges of code points", () => {
  test("are joined, sorted and searched", () => {
    const ranges = toRanges([67, 65, 66, 200, 66, 201]);
    expect(ranges).toEqual([
      [65, 67],
      [200, 201],
    ]);
    expect(hasCodePoint(ranges, 66)).toBe(true);
    expect(hasCodePoint(ranges, 68)).toBe(false);
    expect(toRanges([])).toEqual([]);
  });

  test("say how much of each block is covered", () => {
    const { count, blocks } = describeCoverage([
      [0x41, 0x5a],
      [0x20ac, 0x20ac],
    ]);
    expect(count).toBe(27);
    expect(blocks).toContainEqual({ name: "Basic Latin", have: 26, of: 95 });
    const currency = blocks.find((b) => b.name === "Currency Symbols")!;
    expect(currency.have).toBe(1);
    expect(currency.of).toBeGreaterThan(30);
  });

  test("blocks by code point", () => {
    expect(blockOf(0x26)).toBe("Basic Latin");
    expect(blockOf(0xe001)).toBe("Private Use Area");
    expect(blockOf(0x10ffff)).toBe("Other");
  });
});

describe("names of characters", () => {
  test.each([
    ["&", "ampersand"],
    ["+", "plus sign"],
    ["é", "latin small letter e with acute"],
    ["·", "middle dot"],
    ["€", "euro sign"],
  ])("%s is %s", (char, name) => expect(nameCharacter(char.codePointAt(0)!)).toBe(name));

  test("private use and unnamed ones are given their code point", () => {
    expect(nameCharacter(0xe000)).toBe("private use U+E000");
    expect(nameCharacter(0x1f600)).toBe("U+1F600");
    expect(writeCodePoint(0x26)).toBe("U+0026");
  });
});

describe("family and style from name strings", () => {
  test.each([
    [{ 16: "Quay", 17: "Thin Italic", 1: "Quay Thin", 2: "Italic" }, 100, "Quay", "Thin Italic"],
    [{ 1: "Quay Medium", 2: "Italic" }, 500, "Quay", "Medium Italic"],
    [{ 1: "Quay Medium", 2: "Regular" }, 500, "Quay", "Medium"],
    [{ 1: "Quay", 2: "Bold" }, 700, "Quay", "Bold"],
    [{ 1: "Quay", 2: "Regular" }, 400, "Quay", "Regular"],
    [{ 1: "Quay" }, null, "Quay", "Regular"],
    [{ 1: "Into Light", 2: "Regular" }, 400, "Into Light", "Regular"],
    [{ 1: "Quay Black", 2: "Italic" }, 900, "Quay", "Black Italic"],
    [{}, 400, null, "Regular"],
  ] as const)("%j at %s is %s, %s", (names, weight, family, style) => {
    expect(readFamilyAndStyle(names, weight)).toEqual({ family, style });
  });
});
