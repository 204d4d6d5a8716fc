// What is moved by hand or by keys on the sheet: a block to another place, or one letter of it.
import type { KeyboardEvent } from "react";
import type { Block } from "@/contracts/lettering";
import { editLetter } from "@/core/letter/editBlock";

/** Hundredths of a millimetre are as fine as any hand. */
const round = (v: number) => Math.round(v * 100) / 100;

/** Millimetres of the sheet are turned back into the block's own for a letter. @param at - null: the whole block. */
export function moveBy(block: Block, at: number | null, dxMm: number, dyMm: number): Block {
  if (at === null) return { ...block, at: { xMm: round(block.at.xMm + dxMm), yMm: round(block.at.yMm + dyMm) } };
  const turn = (-(block.turnDeg ?? 0) * Math.PI) / 180;
  const letter = block.letters?.find((l) => l.at === at);
  return editLetter(block, at, {
    dxMm: round((letter?.dxMm ?? 0) + dxMm * Math.cos(turn) - dyMm * Math.sin(turn)),
    dyMm: round((letter?.dyMm ?? 0) + dxMm * Math.sin(turn) + dyMm * Math.cos(turn)),
  });
}

const STEP_MM = 1;
/** Arrow keys move by a millimetre, with Shift by ten, with Alt by a tenth. */
export function nudgeOf({ key, shiftKey, altKey }: KeyboardEvent): [number, number] | null {
  const step = STEP_MM * (shiftKey ? 10 : altKey ? 0.1 : 1);
  if (key === "ArrowLeft") return [-step, 0];
  if (key === "ArrowRight") return [step, 0];
  if (key === "ArrowUp") return [0, -step];
  return key === "ArrowDown" ? [0, step] : null;
}
