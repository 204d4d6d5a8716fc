import { describe, expect, test } from "@jest/globals";
import { readFamilyAndStyle } from "./names";

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
