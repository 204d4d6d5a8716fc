// From costs to chances: how sure may one be of each match, and that it is none of them.

/** Fitted on evaluation pictures of families kept apart (scripts/eval): see docs/IDENTIFICATION.md. */
const TEMPERATURE = 0.022;
const NONE_MIDDLE = 0.3;
const NONE_WIDTH = 0.045;
const NEVER_SURER_THAN = 0.97;

/**
 * @param ranked - costs, best first. @param letterCount - few letters tell less, so the chances are spread wider.
 * @returns a chance per entry and that for "none of these"; together at most 1.
 */
export function chancesOf(
  ranked: { cost: number; family: string }[],
  letterCount: number,
): { chances: number[]; none: number } {
  const best = ranked[0]?.cost ?? 1;
  const none = Math.max(0.02, 1 / (1 + Math.exp(-(best - NONE_MIDDLE) / NONE_WIDTH)));
  const temperature = TEMPERATURE * Math.sqrt(8 / Math.max(2, Math.min(letterCount, 14)));
  const weights = ranked.map((r) => Math.exp(-(r.cost - best) / temperature));
  const sum = weights.reduce((a, b) => a + b, 0) || 1;
  return { chances: weights.map((w) => Math.min(NEVER_SURER_THAN, (w / sum) * (1 - none))), none };
}
