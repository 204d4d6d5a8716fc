// From costs to chances: how sure may one be of each match, and that it is none of them.

/** What is known of an answer beside its order: what the chance of "none of these" is told from. */
export type AnswerEvidence = {
  /** Cost of the best match, and of the best one of another family. */
  cost: number;
  nextFamilyCost: number;
  letterCount: number;
  /** Blur of the picture in pixels of the strip, and whether it has grain. */
  blurPx: number;
  noisy: boolean;
  /** The worst fifth of the letters of the best match: 1 = all agree. */
  worstAgreement: number;
  /** Length of the edges of the best match against its ink, a pixel: thin and torn letters are mostly edge, where pictures differ most. */
  edge: number;
  /** How far its letters stand from where the face sets them, em; and how much it had to be stretched and slanted to lie there. */
  spacingEm: number;
  warp: number;
  /** Its ink, or where it was seen from, was assumed: faces come less near then, right or wrong. */
  isAssumed: boolean;
  /** In how much of the other ink that was looked at the same family came nearest, 0–1; 0 where the picture left no doubt of its ink. */
  agreed: number;
};

/**
 * Fitted by `npm run fit:chance` on evaluation pictures whose families were in the index or kept out of it; the report is on others.
 * See docs/IDENTIFICATION.md.
 */
export const CHANCE = {
  temperature: 0.0235,
  none: {
    bias: -4.15,
    cost: 1.41,
    ratio: 4.0,
    gap: -2.58,
    depth: 1.12,
    letters: 0.2,
    blur: -1.21,
    noisy: -0.41,
    worst: 1.36,
    edge: 0.34,
    fine: 0.78,
    spacing: 0.42,
    warp: 0.87,
    assumed: 0.39,
    assumedDepth: -1.86,
    assumedGap: 0.61,
    agreed: 0.01,
    agreedDepth: 0.06,
    agreedGap: -0.1,
  },
};
const NEVER_SURER_THAN = 0.985;

/** The numbers that the fit weighs, each about between −1 and 1. */
export function termsOf(e: AnswerEvidence) {
  const assumed = e.isAssumed ? 1 : 0;
  const gap = Math.min(1, 4 * Math.max(0, e.nextFamilyCost - e.cost));
  const depth = Math.log(Math.max(0.01, e.cost) / 0.12);
  return {
    bias: 1,
    cost: Math.min(1, e.cost),
    ratio: Math.min(1, e.cost / Math.max(1e-3, e.nextFamilyCost)),
    gap,
    depth,
    letters: Math.log(Math.max(1, e.letterCount) / 9),
    blur: Math.min(1, e.blurPx / 2.5),
    noisy: e.noisy ? 1 : 0,
    worst: 1 - e.worstAgreement,
    edge: Math.log(Math.max(0.02, e.edge) / 0.3),
    fine: Math.log((Math.max(0.01, e.cost) * 0.3) / (0.12 * Math.max(0.02, e.edge))),
    spacing: Math.log((e.spacingEm + 0.002) / 0.008),
    warp: Math.min(1, 8 * e.warp),
    assumed,
    assumedDepth: assumed * depth,
    assumedGap: assumed * gap,
    agreed: e.agreed,
    agreedDepth: e.agreed * depth,
    agreedGap: e.agreed * gap,
  };
}

/** Chance that the picture shows none of the faces. */
export function noneChanceOf(evidence: AnswerEvidence, weights = CHANCE.none): number {
  const terms = termsOf(evidence);
  let sum = 0;
  for (const key of Object.keys(terms) as (keyof typeof terms)[]) sum += weights[key] * terms[key];
  return Math.min(0.99, Math.max(0.01, 1 / (1 + Math.exp(-sum))));
}

/**
 * How the rest is shared among the matches.
 * @param costs - best first. @param evidence - few letters tell less, and so do thin ones, whose costs lie further apart.
 */
export function sharesOf(
  costs: readonly number[],
  { letterCount, edge }: Pick<AnswerEvidence, "letterCount" | "edge">,
  temperature = CHANCE.temperature,
): number[] {
  const best = costs[0] ?? 1;
  const letters = Math.sqrt(8 / Math.max(2, Math.min(letterCount, 14)));
  const width = temperature * letters * Math.sqrt(Math.max(0.1, edge) / 0.3);
  const weights = costs.map((c) => Math.exp(-(c - best) / width));
  const sum = weights.reduce((a, b) => a + b, 0) || 1;
  return weights.map((w) => w / sum);
}

/** @returns a chance per entry and that for "none of these"; together at most 1. */
export function chancesOf(costs: readonly number[], evidence: AnswerEvidence): { chances: number[]; none: number } {
  const none = noneChanceOf(evidence);
  const shares = sharesOf(costs, evidence);
  return { chances: shares.map((s) => Math.min(NEVER_SURER_THAN, s * (1 - none))), none };
}
