import { describe, expect, test } from "@jest/globals";
import { familyIdOf, styleIdOf } from "./storeReading";
import { FamilyId, StyleId } from "@/contracts/ids";

describe("ids", () => {
  test("a style's id is the beginning of its file's hash", () => {
    const id = styleIdOf("ab".repeat(32));
    expect(id).toBe(`s_${"ab".repeat(10)}`);
    expect(StyleId.safeParse(id).success).toBe(true);
  });

  test.each([
    ["Lora", "f_lora"],
    ["IM Fell English", "f_im-fell-english"],
    ["Größe & Älter", "f_gro-e-alter"],
    ["日本", "f_u-65e5-672c"],
    ["<b>", "f_b"],
    ["x".repeat(300), `f_${"x".repeat(70)}`],
  ])("the family of %s", (family, id) => {
    expect(familyIdOf(family)).toBe(id);
    expect(FamilyId.safeParse(id).success).toBe(true);
  });
});
