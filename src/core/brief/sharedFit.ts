// One factor for all samples that stand together: faces are judged by how they look at one size, so none is made smaller alone.
import type { LevelBy } from "@/contracts/brief";
import type { Traits } from "@/contracts/traits";
import { levelFactor } from "./level";

/** Widths of characters beside the mean lowercase advance, over usual text faces. */
const SHARE = { upper: 1.28, figure: 1.1, space: 0.5, other: 0.75 };

/** How wide a line is about, in em of a face of this mean lowercase advance. */
export function estimateLineEm(text: string, widthEm: number): number {
  let units = 0;
  for (const c of text.normalize("NFC"))
    units += /\s/.test(c)
      ? SHARE.space
      : /\p{Lu}/u.test(c)
        ? SHARE.upper
        : /\p{N}/u.test(c)
          ? SHARE.figure
          : /\p{L}/u.test(c)
            ? 1
            : SHARE.other;
  return units * widthEm;
}

/** So many of the faces are shown whole; wider ones are cut at the edge. */
const SHOWN_WHOLE = 0.85;
/** Less is no sample: a long line is cut instead. */
const MIN_FIT = 0.42;

/**
 * @param faces - those that stand together; at least the first screen.
 * @returns 1 where the line fits nearly every face, else the factor by which all are set smaller. The same faces give the same factor.
 */
export function sharedFit(
  faces: readonly { traits: Pick<Traits, "widthEm" | "xHeightEm" | "capHeightEm" | "cases"> }[],
  text: string,
  { basePx, levelBy, roomPx }: { basePx: number; levelBy: LevelBy; roomPx: number },
): number {
  if (!faces.length || roomPx <= 0) return 1;
  const needs = faces
    .map(({ traits }) => estimateLineEm(text, traits.widthEm ?? 0.5) * basePx * levelFactor(traits, levelBy))
    .sort((a, b) => a - b);
  const need = needs[Math.min(needs.length - 1, Math.floor(needs.length * SHOWN_WHOLE))]!;
  const fit = need > roomPx ? Math.max(MIN_FIT, roomPx / need) : 1;
  // In steps, so that a face more or less on the wall changes nothing.
  return fit > 0.97 ? 1 : Math.floor(fit * 50) / 50;
}
