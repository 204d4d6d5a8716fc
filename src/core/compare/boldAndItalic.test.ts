import { describe, expect, test } from "@jest/globals";
import { findBoldAndItalic, type Member } from "./boldAndItalic";

const member = (styleId: string, weight: number, isSlanted = false, more: Partial<Member> = {}): Member => ({
  styleId,
  weight,
  isSlanted,
  isVariable: false,
  width: 5,
  ...more,
});
const FAMILY = [
  member("light", 300),
  member("regular", 400),
  member("italic", 400, true),
  member("medium", 500),
  member("bold", 700),
  member("bold italic", 700, true),
  member("black", 900),
  member("condensed bold", 700, false, { width: 3 }),
  member("variable", 400, false, { isVariable: true }),
];
const of = (id: string, family = FAMILY) =>
  findBoldAndItalic(
    FAMILY.find((m) => m.styleId === id)!,
    family,
  );

describe("bold and italic of a face", () => {
  test.each([
    ["regular", "bold", "italic"],
    ["light", "bold", null],
    ["italic", "bold italic", "regular"],
    ["bold", "black", "bold italic"],
    ["black", null, null],
    ["bold italic", null, "bold"],
    ["condensed bold", null, null],
  ])("%s: %s, %s", (id, bold, italic) => {
    expect(of(id)).toEqual({ bold, italic });
  });

  test("a face alone has neither", () => {
    expect(of("regular", [FAMILY[1]!])).toEqual({ bold: null, italic: null });
  });
});
