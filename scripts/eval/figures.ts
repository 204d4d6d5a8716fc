// Figures that several evaluations give: how well two heaps are told apart, and how far chances are from what happened.

/** Area under the ROC curve: how often a member of the one heap scores above one of the other. NaN where a heap is empty. */
export function areaUnderRoc(positives: readonly number[], negatives: readonly number[]): number {
  let wins = 0;
  for (const p of positives) for (const n of negatives) wins += p > n ? 1 : p === n ? 0.5 : 0;
  return wins / (positives.length * negatives.length);
}

export type Said = { chance: number; isRight: boolean };
export type Bin = { said: number; right: number; count: number };
const BINS = 10;

/** Chances in ten bins: what was said in the mean, and how often it was right. Empty bins are left out. */
export function binChances(list: readonly Said[]): Bin[] {
  return Array.from({ length: BINS }, (_, b) =>
    list.filter((s) => Math.min(BINS - 1, Math.floor(s.chance * BINS)) === b),
  )
    .filter((inside) => inside.length)
    .map((inside) => ({
      said: inside.reduce((sum, s) => sum + s.chance, 0) / inside.length,
      right: inside.filter((s) => s.isRight).length / inside.length,
      count: inside.length,
    }));
}

/** Expected calibration error: the mean distance of said and right, weighed by how often. */
export function calibrationError(bins: readonly Bin[]): number {
  const all = bins.reduce((sum, b) => sum + b.count, 0);
  return bins.reduce((sum, b) => sum + (b.count / all) * Math.abs(b.said - b.right), 0);
}
