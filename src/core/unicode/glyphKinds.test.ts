import { describe, expect, test } from "@jest/globals";
import { kindsOfGlyph } from "./glyphKinds";

const glyph = (name: string, codePoints: number[] = [], features: string[] = []) =>
  kindsOfGlyph({ name, codePoints, features });

describe("kinds of glyphs", () => {
  test.each([
    ["A", [0x41], [], ["capitals"]],
    ["a", [0x61], [], ["lowercase"]],
    ["one", [0x31], [], ["figures"]],
    ["ampersand", [0x26], [], ["punctuation"]],
    ["plus", [0x2b], [], ["symbols"]],
    ["heart", [0x2665], [], ["pictures"]],
    ["uniE001", [0xe001], [], ["private use"]],
    ["fi", [0xfb01], [], ["ligatures"]],
    ["a.swsh", [], [], ["unencoded", "swashes"]],
    ["g77", [], ["swsh"], ["unencoded", "swashes"]],
    ["a.sc", [], [], ["unencoded", "small capitals"]],
    ["f_f_i", [], ["liga"], ["unencoded", "ligatures"]],
    ["R.ss01", [], ["ss01"], ["unencoded", "alternates"]],
  ])("%s", (name, codePoints, features, kinds) =>
    expect(glyph(name, codePoints as number[], features as string[])).toEqual(kinds),
  );
});
