// Blocks that are dragged come to rest on baselines, edges, middles and margins; beyond reach they stay where the hand is.
import { describe, expect, test } from "@jest/globals";
import type { Block, LetteringDocument } from "@/contracts/lettering";
import type { LaidBlock } from "./letterTasks";
import { bendTo } from "./SheetHandles";
import { snapMove } from "./snapMove";

const blockOf = (id: string, xMm: number, yMm: number): Block => ({
  ...{ id, text: "Wren", styleId: "s_aaaaaaaaaaaa" as Block["styleId"], size: { emMm: 50 } },
  ...{ at: { xMm, yMm }, fill: "#20262b" },
});
const laidOf = (id: string, xMin: number, yMin: number, xMax: number, yMax: number): LaidBlock => ({
  ...{ id, emMm: 50, missing: [], letters: [], parts: [], points: null },
  ink: { xMin, yMin, xMax, yMax },
});
const blocks = [blockOf("a", 20, 80), blockOf("b", 160, 130)];
const laid = [laidOf("a", 20, 45, 120, 82), laidOf("b", 160, 95, 260, 132)];
const document: LetteringDocument = { sheet: { widthMm: 300, heightMm: 160, ground: null }, blocks };
const snap = (dxMm: number, dyMm: number) => snapMove(document, laid, blocks[1]!, { dxMm, dyMm }, 3, 10);

describe("a block that is dragged", () => {
  test("stands on the baseline of another", () => {
    expect(snap(0, -48.5)).toMatchObject({ dyMm: -50, guides: [{ yMm: 80 }] });
  });
  test("lines up with the left edge, the middle, the right edge of another", () => {
    expect(snap(-138, 0).dxMm).toBe(-140);
    expect(snap(-140 + 2, 0).guides).toContainEqual({ xMm: 20 });
    expect(snap(-90.5, 0)).toMatchObject({ dxMm: -90, guides: [{ xMm: 70 }] });
  });
  test("rests on margins and middles of the sheet", () => {
    expect(snap(29, 0)).toMatchObject({ dxMm: 30, guides: [{ xMm: 290 }] });
    expect(snap(-61, 0)).toMatchObject({ dxMm: -60, guides: [{ xMm: 150 }] });
    expect(snap(0, 19)).toMatchObject({ dyMm: 18, guides: [{ yMm: 150 }] });
  });
  test("stays where the hand is where nothing is near, and where it has no ink", () => {
    expect(snap(7.3, 7.1)).toEqual({ dxMm: 7.3, dyMm: 7.1, guides: [] });
    const empty = snapMove(document, [{ ...laid[1]!, ink: null }], blocks[1]!, { dxMm: 1, dyMm: 1 }, 3, 10);
    expect(empty).toEqual({ dxMm: 1, dyMm: 1, guides: [] });
  });
});

describe("the handle of a path", () => {
  test("of an arc is its middle: radius and place on the circle follow, inside stays inside", () => {
    expect(bendTo({ kind: "arc", radiusMm: 100, startDeg: -90 }, 0, 150)).toEqual({
      ...{ kind: "arc", radiusMm: 150, startDeg: -90 },
    });
    expect(bendTo({ kind: "arc", radiusMm: -100, startDeg: -90 }, 0, -120)).toEqual({
      ...{ kind: "arc", radiusMm: -120, startDeg: -90 },
    });
    expect(bendTo({ kind: "arc", radiusMm: 100, startDeg: -90 }, -80, 0)).toMatchObject({ radiusMm: 80, startDeg: 0 });
  });
  test("of a wave is its first crest", () => {
    expect(bendTo({ kind: "wave", heightMm: 10, lengthMm: 100 }, 30, -12)).toEqual({
      ...{ kind: "wave", heightMm: 24, lengthMm: 120 },
    });
  });
});
