// Equal optical size: the factor by which a face's size is changed so that all look equally large.
import type { LevelBy } from "@/contracts/brief";
import type { Traits } from "@/contracts/traits";

/** What a usual text face has; a face with just this is left as it is. */
const USUAL = { xHeightEm: 0.5, capHeightEm: 0.7 };

/**
 * @returns size factor, 1 for point size. x-height: so that lower case is equally tall (capitals where there is no lower
 *   case); capitals: so that capitals are; line width depends on the words: whoever sets them sees to it, here it is 1. Kept within 0.4–2.5. Measured, never read from the font's own statement.
 */
export function levelFactor(traits: Pick<Traits, "xHeightEm" | "capHeightEm" | "cases">, by: LevelBy): number {
  const { xHeightEm, capHeightEm } = traits;
  const byCapitals = capHeightEm ? USUAL.capHeightEm / capHeightEm : null;
  const byXHeight = xHeightEm && traits.cases === "both" ? USUAL.xHeightEm / xHeightEm : byCapitals;
  const factor = by === "point-size" || by === "line-width" ? 1 : by === "capitals" ? byCapitals : byXHeight;
  return Math.min(2.5, Math.max(0.4, factor ?? 1));
}

/** How far letters reach beyond the heights that are measured on plain ones: scripts swing out. */
const REACH = { script: 1.35, plain: 1.08 };
/** Room of a strip over and under the baseline, in sizes of its samples. */
const ROOM = { over: 1.16, under: 0.5 };

/**
 * @param sizePx - of a face as it is. @param basePx - that the room of the strip follows.
 * @returns the largest factor at which nothing of a line is cut at the top or the bottom.
 */
export function roomFactor(
  { ascenderEm, capHeightEm, descenderEm }: Pick<Traits, "ascenderEm" | "capHeightEm" | "descenderEm">,
  isScript: boolean,
  sizePx: number,
  basePx: number,
): number {
  const reach = isScript ? REACH.script : REACH.plain;
  const over = Math.max(ascenderEm ?? 0, capHeightEm ?? 0) * reach * sizePx;
  const under = Math.abs(descenderEm ?? 0) * reach * sizePx;
  return Math.min(over ? (ROOM.over * basePx) / over : Infinity, under ? (ROOM.under * basePx) / under : Infinity);
}
