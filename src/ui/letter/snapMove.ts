// Where a block that is dragged comes to rest: on the baselines of others, by their edges and middles, on the sheet's margins and middle.
import type { Block, LetteringDocument } from "@/contracts/lettering";
import { middleOf, type Bounds } from "@/core/geometry/outline";
import type { LaidBlock } from "./letterTasks";

/** A line across the whole sheet that a block rests on: x of an upright one, y of a level one. */
export type Guide = { xMm: number } | { yMm: number };
type Snapped = { dxMm: number; dyMm: number; guides: Guide[] };

/** @param reachMm - how near it has to be. @param marginMm - of the sheet. */
export function snapMove(
  { sheet, blocks }: LetteringDocument,
  laid: readonly LaidBlock[],
  block: Block,
  { dxMm, dyMm }: { dxMm: number; dyMm: number },
  reachMm: number,
  marginMm: number,
): Snapped {
  const own = laid.find((b) => b.id === block.id)?.ink;
  if (!own) return { dxMm, dyMm, guides: [] };
  const others = laid.flatMap((b) => (b.id !== block.id && b.ink ? [b.ink] : []));
  const baselines = blocks.filter((b) => b.id !== block.id).map((b) => b.at.yMm);
  const x = nearest(
    threeOf(own, "x").map((v) => v + dxMm),
    [...others.flatMap((b) => threeOf(b, "x")), marginMm, sheet.widthMm / 2, sheet.widthMm - marginMm],
    reachMm,
  );
  const byBaseline = nearest([block.at.yMm + dyMm], baselines, reachMm);
  const y =
    byBaseline ??
    nearest(
      threeOf(own, "y").map((v) => v + dyMm),
      [marginMm, sheet.heightMm / 2, sheet.heightMm - marginMm],
      reachMm,
    );
  return {
    dxMm: dxMm + (x?.by ?? 0),
    dyMm: dyMm + (y?.by ?? 0),
    guides: [...(x ? [{ xMm: x.line }] : []), ...(y ? [{ yMm: y.line }] : [])],
  };
}

/** Both edges and the middle. */
const threeOf = (b: Bounds, axis: "x" | "y"): number[] => {
  const { x, y } = middleOf(b);
  return axis === "x" ? [b.xMin, x, b.xMax] : [b.yMin, y, b.yMax];
};

/** @returns the line that needs the least move; null where none is within reach. */
function nearest(places: readonly number[], lines: readonly number[], reach: number) {
  let best: { line: number; by: number } | null = null;
  for (const line of lines)
    for (const place of places) {
      const by = line - place;
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by))) best = { line, by };
    }
  return best;
}
