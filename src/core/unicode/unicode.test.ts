import { describe, expect, test } from "@jest/globals";
import { writeCodePoint } from "./codePoint";
import { nameCharacter } from "./names";
import { blockOf, describeCoverage, hasCodePoint, toRanges } from "./blocks";
import { splitScripts } from "./scripts";

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

  test("leave out controls, wherever a range touches them", () => {
    const { count, blocks } = describeCoverage([
      [0, 0],
      [0xd, 0xd],
      [0x1e, 0x85],
      [0x9f, 0xa2],
    ]);
    expect(blocks).toEqual([
      { name: "Basic Latin", have: 95, of: 95 },
      { name: "Latin-1 Supplement", have: 3, of: 96 },
    ]);
    expect(count).toBe(98);
  });

  test("blocks by code point", () => {
    expect(blockOf(0x26)).toBe("Basic Latin");
    expect(blockOf(0xe001)).toBe("Private Use Area");
    expect(blockOf(0x5b57)).toBe("CJK Unified Ideographs");
    expect(blockOf(0x2fe5)).toBe("Other");
  });
});

describe("names of characters", () => {
  test.each([
    ["&", "ampersand"],
    ["+", "plus sign"],
    ["é", "latin small letter e with acute"],
    ["·", "middle dot"],
    ["€", "euro sign"],
    ["Ж", "cyrillic capital letter zhe"],
    ["字", "cjk unified ideograph-5b57"],
    ["한", "hangul syllable han"],
    ["😀", "grinning face"],
  ])("%s is %s", (char, name) => expect(nameCharacter(char.codePointAt(0)!)).toBe(name));

  test("private use and unnamed ones are given their code point", () => {
    expect(nameCharacter(0xe000)).toBe("private use U+E000");
    expect(nameCharacter(0x10ffff)).toBe("private use U+10FFFF");
    expect(nameCharacter(0x0378)).toBe("U+0378");
    expect(writeCodePoint(0x26)).toBe("U+0026");
  });
});

describe("scripts of a text", () => {
  test.each([
    ["Lighthouse, 9", [[0, 13, "Latn"]]],
    [
      "Quay набережная",
      [
        [0, 5, "Latn"],
        [5, 15, "Cyrl"],
      ],
    ],
    ["“שלום”", [[0, 6, "Hebr"]]],
    [
      "e\u0301а",
      [
        [0, 2, "Latn"],
        [2, 3, "Cyrl"],
      ],
    ],
    ["12 – 14", [[0, 7, "Zyyy"]]],
    [
      "𐐀a",
      [
        [0, 2, "Dsrt"],
        [2, 3, "Latn"],
      ],
    ],
    ["", []],
  ])("%s", (text, runs) => expect(splitScripts(text).map((r) => [r.from, r.to, r.script])).toEqual(runs));
});
