// What is on the sheet follows from what was done and not taken back.
import { describe, expect, test } from "@jest/globals";
import { CommandStack } from "../bench/commands";
import { strokesOf, type SketchChange, type Stroke } from "./strokes";

const stroke = (widthPx: number): Stroke => ({ widthPx, points: [[1, 2]] });
const widths = (stack: CommandStack<SketchChange>) => strokesOf(stack.list().done).map((s) => s.widthPx);
const begin = () => {
  const stack = new CommandStack<SketchChange>(null, 100);
  const run = (change: SketchChange) => stack.push({ summary: "", forward: change, backward: change });
  return {
    stack,
    draw: (widthPx: number) => run({ type: "draw", stroke: stroke(widthPx) }),
    clear: () => run({ type: "clear" }),
  };
};

describe("a drawing", () => {
  test("each stroke can be taken back and drawn again", () => {
    const { stack, draw } = begin();
    draw(6);
    draw(14);
    stack.takeBack();
    expect(widths(stack)).toEqual([6]);
    stack.takeAgain();
    expect(widths(stack)).toEqual([6, 14]);
  });

  test("a cleared sheet is empty, and taking that back brings all strokes again", () => {
    const { stack, draw, clear } = begin();
    draw(6);
    draw(14);
    clear();
    expect(widths(stack)).toEqual([]);
    draw(30);
    expect(widths(stack)).toEqual([30]);
    stack.takeBack();
    stack.takeBack();
    expect(widths(stack)).toEqual([6, 14]);
  });
});
