// Which styles of its family stand to a face as its bold and its italic.
export type Member = { styleId: string; weight: number; isSlanted: boolean; isVariable: boolean; width: number | null };

/** A bold is heavier than its regular by this much at least; the one nearest this weight is taken. */
const HEAVIER = 150;
const BOLD = 700;
/** Weights, and widths in classes, that count as the same. */
const SAME_WEIGHT = 60;
const SAME_WIDTH = 0.75;

/**
 * Finds the bold of the same slope, and the italic (of an italic: the upright) of the same weight.
 * @param family - all its styles; those of another width, and variable ones, are passed over. @returns null where there is none.
 */
export function findBoldAndItalic(
  own: Member,
  family: readonly Member[],
): { bold: string | null; italic: string | null } {
  const near = family.filter(
    (m) => m.styleId !== own.styleId && !m.isVariable && Math.abs((m.width ?? 5) - (own.width ?? 5)) <= SAME_WIDTH,
  );
  const byDistance = (list: Member[], distance: (m: Member) => number) =>
    [...list].sort((a, b) => distance(a) - distance(b) || (a.styleId < b.styleId ? -1 : 1))[0]?.styleId ?? null;
  const bolder = near.filter((m) => m.isSlanted === own.isSlanted && m.weight >= own.weight + HEAVIER);
  const other = near.filter((m) => m.isSlanted !== own.isSlanted && Math.abs(m.weight - own.weight) <= SAME_WEIGHT);
  return {
    bold: byDistance(bolder, (m) => Math.abs(m.weight - Math.max(BOLD, own.weight + HEAVIER))),
    italic: byDistance(other, (m) => Math.abs(m.weight - own.weight)),
  };
}
