// What mends a finding by itself, and what is left to people.
import { describe, expect, test } from "@jest/globals";
import type { Finding } from "@/contracts/lettering";
import { blockOf } from "../../../tests/fixtures/lettering";
import { mendOf } from "./mends";
import { moveBy } from "./moveBy";

const finding = (more: Partial<Finding>): Finding => ({
  ...{ kind: "thin", blockId: "line-1", letters: [0], xMm: 0, yMm: 0 },
  ...more,
});

describe("mends", () => {
  test("thin strokes are grown by half of what they lack to either side, on top of what they were grown", () => {
    const lacking = finding({ measuredMm: 0.6, wantedMm: 1 });
    expect(mendOf(blockOf("Wren"), lacking)!.block.growMm).toBeCloseTo(0.22, 6);
    expect(mendOf(blockOf("Wren", { growMm: 0.1 }), lacking)!.block.growMm).toBeCloseTo(0.32, 6);
    // Half of what is wanted is enough for any stroke: it is not grown beyond that.
    expect(mendOf(blockOf("Wren", { growMm: 0.5 }), lacking)!.block.growMm).toBeCloseTo(0.52, 6);
    expect(mendOf(blockOf("Wren", { growMm: 0.52 }), lacking)).toBeNull();
  });

  test("what overlaps is joined, what does not meet bridged, filled counters kept open", () => {
    expect(mendOf(blockOf("Wren"), finding({ kind: "overlap", letters: [0, 1] }))!.block.joined).toBe(true);
    const apart = finding({ kind: "apart", letters: [1, 2], measuredMm: 6 });
    expect(mendOf(blockOf("Wren", { joined: true }), apart)!.block.bridges).toEqual([{ at: 1, to: 2, widthMm: 2 }]);
    expect(mendOf(blockOf("Wren"), finding({ kind: "filled-counter" }))!.block.keepsCounters).toBe(true);
  });

  test("an enclosed part is opened by one strip a letter", () => {
    const island = finding({ kind: "island", letters: [2] });
    const opened = mendOf(blockOf("Wren"), island)!.block;
    expect(opened.bridges).toEqual([{ at: 2, widthMm: 2 }]);
    expect(mendOf(opened, island)).toBeNull();
  });

  test("bridges and strips are as wide as was chosen", () => {
    const apart = finding({ kind: "apart", letters: [1, 2], measuredMm: 6 });
    expect(mendOf(blockOf("Wren", { joined: true }), apart, 4.5)!.block.bridges![0]!.widthMm).toBe(4.5);
    expect(mendOf(blockOf("Wren"), finding({ kind: "island", letters: [2] }), 3)!.block.bridges![0]!.widthMm).toBe(3);
  });

  test("gaps and small pieces are for people to decide", () => {
    for (const kind of ["gap", "small-piece"] as const) expect(mendOf(blockOf("Wren"), finding({ kind }))).toBeNull();
  });
});

describe("moving by hand", () => {
  test("a block goes where the hand goes", () => {
    expect(moveBy(blockOf("Wren"), null, 3.004, -2).at).toEqual({ xMm: 23, yMm: 78 });
  });

  test("a letter of a turned line is moved as it is seen on the sheet", () => {
    const turned = blockOf("Wren", { turnDeg: 90 });
    expect(moveBy(turned, 1, 5, 0).letters).toEqual([{ at: 1, dyMm: -5 }]);
    expect(moveBy(blockOf("Wren", { letters: [{ at: 1, dxMm: 2 }] }), 1, 1, 4).letters).toEqual([
      { at: 1, dxMm: 3, dyMm: 4 },
    ]);
  });
});
