// Edits of a block: what was done to its letters stays with them, and what is as it comes leaves no trace.
import { describe, expect, test } from "@jest/globals";
import type { Block } from "@/contracts/lettering";
import { blockOf } from "../../../tests/fixtures/lettering";
import { backToText, editLetter, editPair, editText, withField } from "./editBlock";
import { fitSheet } from "./fitSheet";
import { startLettering } from "./startLettering";

describe("a letter", () => {
  test("is edited beside the others, in their order", () => {
    const once = editLetter(blockOf("Wren"), 2, { turnDeg: 4 });
    const twice = editLetter(once, 0, { dxMm: 1.5 });
    expect(twice.letters).toEqual([
      { at: 0, dxMm: 1.5 },
      { at: 2, turnDeg: 4 },
    ]);
    expect(editLetter(twice, 2, { scale: 1.2 }).letters![1]).toEqual({ at: 2, turnDeg: 4, scale: 1.2 });
  });

  test("that is as it comes again is not listed, and the last one takes the list with it", () => {
    const block = editLetter(blockOf("Wren"), 1, { dxMm: 2, turnDeg: 3 });
    expect(editLetter(block, 1, { turnDeg: 0 }).letters).toEqual([{ at: 1, dxMm: 2 }]);
    expect(editLetter(block, 1, { dxMm: 0, turnDeg: 0, scale: 1, fills: [], glyphId: undefined })).toEqual(
      blockOf("Wren"),
    );
    expect(JSON.stringify(editLetter(block, 1, { dxMm: 0, turnDeg: 0 }))).toBe(JSON.stringify(blockOf("Wren")));
  });

  test("a pair of nothing is removed", () => {
    const block = editPair(editPair(blockOf("Wren"), 2, -0.03), 0, 0.01);
    expect(block.pairs).toEqual([
      { at: 0, shiftEm: 0.01 },
      { at: 2, shiftEm: -0.03 },
    ]);
    expect(editPair(editPair(block, 0, 0), 2, 0)).toEqual(blockOf("Wren"));
  });
});

describe("another text", () => {
  const block: Block = blockOf("Wren & Tern", {
    pairs: [
      { at: 0, shiftEm: -0.01 },
      { at: 9, shiftEm: 0.02 },
    ],
    letters: [
      { at: 1, turnDeg: 5 },
      { at: 5, scale: 1.5 },
      { at: 10, dyMm: 2 },
    ],
    bridges: [
      { at: 0, to: 1, widthMm: 2 },
      { at: 8, to: 9, widthMm: 2 },
    ],
  });

  test("words put in leave what stands before and behind them as it was", () => {
    const longer = editText(block, "Wren & the Tern");
    expect(longer.text).toBe("Wren & the Tern");
    expect(longer.letters!.map((l) => l.at)).toEqual([1, 5, 14]);
    expect(longer.pairs!.map((p) => p.at)).toEqual([0, 13]);
    expect(longer.bridges!.map((b) => [b.at, b.to])).toEqual([
      [0, 1],
      [12, 13],
    ]);
  });

  test("what was done to letters that are gone goes with them", () => {
    const shorter = editText(block, "Wren Tern");
    expect(shorter.letters!.map((l) => l.at)).toEqual([1, 8]);
    expect(editText(block, "").letters).toBeUndefined();
    expect(editText(block, "").bridges).toBeUndefined();
  });

  test("the same text changes nothing, and line ends are no letters", () => {
    expect(editText(block, block.text)).toEqual(block);
    expect(editText(block, "Wren &\n Tern").letters!.map((l) => l.at)).toEqual([1, 5, 10]);
  });
});

test("back to text takes all shaping with it and leaves how the line is set", () => {
  const shaped = blockOf("Wren", {
    trackingEm: 0.02,
    joined: true,
    keepsCounters: true,
    growMm: 0.4,
    letters: [{ at: 0, dxMm: 3 }],
    bridges: [{ at: 0, to: 1, widthMm: 2 }],
    outline: { widthMm: 1, colour: "#a8431a" },
  });
  expect(backToText(shaped)).toEqual(blockOf("Wren", { trackingEm: 0.02, outline: { widthMm: 1, colour: "#a8431a" } }));
});

test("a field without a value is left out", () => {
  expect(Object.keys(withField(blockOf("Wren", { joined: true }), "joined", undefined))).not.toContain("joined");
  expect(withField(blockOf("Wren"), "turnDeg", 4).turnDeg).toBe(4);
});

describe("the first document of a brief", () => {
  const lines = [
    { id: "l_a", text: "Wren & Tern", role: "title" },
    { id: "l_b", text: "  ", role: "text" },
    { id: "l_c", text: "No. 7", role: "second" },
  ];
  const face = { styleId: blockOf("").styleId, coordinates: { wght: 650 }, features: {} };

  test("has a block for every line with words, at the brief's size, the title largest", () => {
    const { blocks, sheet } = startLettering(lines, face, { sizeMm: 120, isByCapitals: true, ink: "#1C6B74" });
    expect(blocks.map((b) => [b.id, b.text, b.size])).toEqual([
      ["l_a", "Wren & Tern", { capHeightMm: 120 }],
      ["l_c", "No. 7", { capHeightMm: 72 }],
    ]);
    expect(blocks[0]).toMatchObject({ coordinates: { wght: 650 }, fill: "#1c6b74", align: "centre" });
    expect(blocks[0]!.features).toBeUndefined();
    expect(blocks[1]!.at.yMm).toBeGreaterThan(blocks[0]!.at.yMm + 72);
    for (const { at } of blocks) {
      expect(at.xMm).toBe(sheet.widthMm / 2);
      expect(at.yMm).toBeLessThan(sheet.heightMm);
    }
    expect(sheet.ground).toBeNull();
  });

  test("is sized by the em where capitals are not what matches", () => {
    const { blocks } = startLettering(lines, face, { sizeMm: 20, isByCapitals: false, ink: "#20262b" });
    expect(blocks.map((b) => b.size)).toEqual([{ emMm: 20 }, { emMm: 12 }]);
  });
});

test("a sheet is fitted around its ink, and what stands on it moves along", () => {
  const document = {
    sheet: { widthMm: 900, heightMm: 700, ground: null },
    blocks: [blockOf("Wren", { at: { xMm: 300, yMm: 200 } })],
  };
  const fitted = fitSheet(document, [{ xMm: 302, yMm: 150, widthMm: 180, heightMm: 52 }], 10);
  expect(fitted.sheet).toEqual({ widthMm: 200, heightMm: 72, ground: null });
  expect(fitted.blocks[0]!.at).toEqual({ xMm: 8, yMm: 60 });
  expect(fitSheet(document, [], 10)).toBe(document);
});
