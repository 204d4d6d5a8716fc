// Looks put on lines of any size, and read from them again.
import { describe, expect, test } from "@jest/globals";
import { Block } from "@/contracts/lettering";
import { blockOf } from "../../../tests/fixtures/lettering";
import { applyLook, LOOKS, readLook, wears } from "./looks";

describe("looks", () => {
  test.each(LOOKS.map((l) => [l.name, l] as const))("%s: a valid block at every size, known again", (_, look) => {
    for (const emMm of [4, 50, 900]) {
      const worn = applyLook(blockOf("Wren", { growMm: 1 }), look, emMm);
      expect(() => Block.parse(worn)).not.toThrow();
      expect(worn.growMm).toBe(1);
      expect(wears(worn, look, emMm)).toBe(true);
      expect(LOOKS.filter((l) => wears(worn, l, emMm)).map((l) => l.name)).toEqual([look.name]);
    }
  });

  test("outlines and shadows grow with the letters; those of the look before are gone", () => {
    const hull = LOOKS.find((l) => l.name === "Painted hull")!;
    const [small, large] = [50, 500].map((emMm) => applyLook(blockOf("Wren"), hull, emMm));
    expect(large!.outline!.widthMm).toBe(10 * small!.outline!.widthMm);
    expect(large!.shadow!.dxMm).toBe(10 * small!.shadow!.dxMm);
    const plain = applyLook(large!, LOOKS[0]!, 500);
    expect([plain.outline, plain.shadow, plain.fill]).toEqual([undefined, undefined, "#20262b"]);
  });

  test("one's own is read from a line and put on one of another size", () => {
    const own = blockOf("Wren", {
      fill: { from: "#20262b", to: "#1c6b74", angleDeg: 30 },
      outline: { widthMm: 2, colour: "#a8431a", side: "outside" },
      shadow: { dxMm: 1, dyMm: 2, blurMm: 3, colour: "#00000080" },
    });
    const look = readLook(own, 100, "Mine");
    expect(applyLook(blockOf("Tern"), look, 50)).toMatchObject({
      fill: own.fill,
      outline: { widthMm: 1, colour: "#a8431a", side: "outside" },
      shadow: { dxMm: 0.5, dyMm: 1, blurMm: 1.5, colour: "#00000080" },
    });
    expect(wears(own, look, 100)).toBe(true);
    expect(wears({ ...own, fill: "#000000" }, look, 100)).toBe(false);
  });
});
