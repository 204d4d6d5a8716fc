// A sheet as large as its lettering: blocks are moved so that the ink stands within a margin.
import type { InkBox, LetteringDocument } from "@/contracts/lettering";

/** Left around the ink: enough to take hold of the sheet, in parts of its longer side. */
const MARGIN_SHARE = 0.04;
export const marginFor = (longestMm: number) => Math.max(1, Math.round(longestMm * MARGIN_SHARE));

/** @param ink - boxes of all blocks that are drawn. @returns the document as it is where nothing is drawn. */
export function fitSheet(document: LetteringDocument, ink: readonly InkBox[], marginMm: number): LetteringDocument {
  if (!ink.length) return document;
  const [left, top] = [Math.min(...ink.map((b) => b.xMm)), Math.min(...ink.map((b) => b.yMm))];
  const right = Math.max(...ink.map((b) => b.xMm + b.widthMm));
  const bottom = Math.max(...ink.map((b) => b.yMm + b.heightMm));
  const [dx, dy] = [marginMm - left, marginMm - top];
  const tenth = (v: number) => Math.round(v * 10) / 10;
  return {
    ...document,
    sheet: {
      ...document.sheet,
      widthMm: tenth(right - left + 2 * marginMm),
      heightMm: tenth(bottom - top + 2 * marginMm),
    },
    blocks: document.blocks.map((b) => ({ ...b, at: { xMm: tenth(b.at.xMm + dx), yMm: tenth(b.at.yMm + dy) } })),
  };
}
