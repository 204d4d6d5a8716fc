import { describe, expect, test } from "@jest/globals";
import { toRanges } from "../unicode/blocks";
import { findOwnWords, lineFor } from "./ownWords";

const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);
const LATIN = range(0x20, 0x17f);
const THAI = toRanges([0x20, ...range(0xe01, 0xe4e)]);
const ARABIC = toRanges([0x20, ...range(0x600, 0x6ff)]);
const GREEK_AND_LATIN = toRanges([...LATIN, ...range(0x370, 0x3ff)]);

describe("words of a face's own script", () => {
  test.each([
    ["Thai", THAI, /^[\u0e00-\u0e7f ]+$/],
    ["Arabic", ARABIC, /العربية/],
    ["Hebrew", toRanges([0x20, ...range(0x5d0, 0x5ea)]), /עברית/],
    ["Cyrillic", toRanges([0x20, ...range(0x410, 0x44f)]), /русский/],
    ["Hangul", toRanges([0x20, ...range(0xac00, 0xd7a3)]), /한국어/],
    ["Han", toRanges([0x20, ...range(0x4e00, 0x9fff)]), /中文/],
    ["Devanagari", toRanges([0x20, ...range(0x900, 0x97f)]), /हिन्दी/],
  ])("%s: only what it covers", (script, coverage, like) => {
    const own = findOwnWords(coverage, null)!;
    expect(own).toMatchObject({ isAsked: false });
    expect(own.script.split(" ")[0]).toMatch(new RegExp(script === "Han" ? "Han" : script));
    expect(own.text).toMatch(like);
  });

  test("the first letters where no word can be set", () => {
    const own = findOwnWords(toRanges(range(0x16a0, 0x16a8)), null)!;
    expect(own).toMatchObject({ script: "Runic", scripts: ["Runr"] });
    expect([...own.text]).toHaveLength(9);
  });

  test("a face with the alphabet needs none; nor does one of signs alone", () => {
    expect(findOwnWords(GREEK_AND_LATIN, null)).toBeNull();
    expect(findOwnWords(toRanges(range(0x2190, 0x21ff)), null)).toBeNull();
  });

  test("a language that is asked for is shown in its words; one in Latin letters is not", () => {
    expect(findOwnWords(GREEK_AND_LATIN, "el")).toMatchObject({ isAsked: true, scripts: ["Grek"], script: "Greek" });
    expect(findOwnWords(GREEK_AND_LATIN, "pl")).toBeNull();
  });
});

describe("the line as a face is to set it", () => {
  const thai = findOwnWords(THAI, null);
  const greek = findOwnWords(GREEK_AND_LATIN, "el");
  test.each([
    ["no letter of it", "Skerrow", THAI, thai, true],
    ["one letter of it is enough", "Skerrow ก", THAI, thai, false],
    ["no letters at all", "— …", THAI, thai, false],
    ["asked for, and not written in it", "Skerrow", GREEK_AND_LATIN, greek, true],
    ["asked for, and written in it", "Skerrow Φάρος", GREEK_AND_LATIN, greek, false],
    ["nothing of its own", "Skerrow", THAI, null, false],
  ])("%s", (_, text, coverage, own, isOwn) => {
    const line = lineFor(text, coverage, own);
    expect(line.isOwn).toBe(isOwn);
    expect(line.text).toBe(isOwn ? own!.text : text);
  });
});
