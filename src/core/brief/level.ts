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
