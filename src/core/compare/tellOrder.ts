// Why an order is as it is: the measures that rise or fall with it. Stands at the end of two by two.
import type { Traits } from "@/contracts/traits";
import { COMPARED } from "./steps";
import { tellOnce } from "./compareTraits";

/** A measure is told when it goes with the order so far (Spearman's rank correlation), and hardly by chance. */
const TOLD_FROM = 0.5;
const CHANCE_T = 1.9;
/** Of fewer faces any measure may seem to be the reason. */
const FROM_FACES = 5;
const MOST = 3;

const WORDS: Partial<Record<(typeof COMPARED)[number]["trait"], [more: string, less: string]>> = {
  weight: ["heavier", "lighter"],
  stemEm: ["heavier", "lighter"],
  widthEm: ["wider", "narrower"],
  width: ["wider", "narrower"],
  contrast: ["with more contrast", "with less contrast"],
  xHeightEm: ["with a larger x-height", "with a smaller x-height"],
  slantDeg: ["more slanted", "more upright"],
  serif: ["with serifs", "without serifs"],
  serifThickness: ["with heavier serifs", "with finer serifs"],
  stressDeg: ["with a more oblique stress", "with a more upright stress"],
  roundness: ["rounder", "sharper"],
  roundEnds: ["with rounder ends", "with squarer ends"],
  roughness: ["rougher", "cleaner"],
  connected: ["with joined letters", "with separate letters"],
  aperture: ["with wider openings", "with tighter openings"],
  evenness: ["of a more even grey", "of a less even grey"],
};

/**
 * @param faces - the strongest first. @returns what was preferred, by measures, the clearest first; empty where nothing goes with the order.
 */
export function tellOrder(
  faces: readonly { traits: Traits }[],
): { trait: string; correlation: number; says: string }[] {
  if (faces.length < FROM_FACES) return [];
  const told = COMPARED.flatMap(({ trait, subject, step }) => {
    const words = WORDS[trait];
    const known = faces.flatMap(({ traits }, place) => {
      const value = traits[trait];
      return value === null || value === undefined ? [] : [{ value, place }];
    });
    const values = known.map((k) => k.value);
    if (!words || known.length < FROM_FACES || Math.max(...values) - Math.min(...values) < step) return [];
    const correlation = rankCorrelation(
      values,
      known.map((k) => -k.place),
    );
    const t = Math.abs(correlation) * Math.sqrt((known.length - 2) / Math.max(1e-9, 1 - correlation ** 2));
    if (Math.abs(correlation) < TOLD_FROM || t < CHANCE_T) return [];
    return [{ trait, subject, correlation, says: words[correlation > 0 ? 0 : 1] }];
  }).sort((a, b) => Math.abs(b.correlation) - Math.abs(a.correlation));
  return tellOnce(told)
    .slice(0, MOST)
    .map(({ trait, correlation, says }) => ({ trait, correlation: Number(correlation.toFixed(2)), says }));
}

/** Spearman's rho: Pearson's correlation of the ranks, equal values sharing theirs. */
export function rankCorrelation(a: readonly number[], b: readonly number[]): number {
  const [x, y] = [ranksOf(a), ranksOf(b)];
  const mean = (a.length - 1) / 2;
  let [both, left, right] = [0, 0, 0];
  for (let i = 0; i < a.length; i++) {
    both += (x[i]! - mean) * (y[i]! - mean);
    left += (x[i]! - mean) ** 2;
    right += (y[i]! - mean) ** 2;
  }
  return left && right ? both / Math.sqrt(left * right) : 0;
}

function ranksOf(values: readonly number[]): number[] {
  const order = values.map((_, i) => i).sort((p, q) => values[p]! - values[q]!);
  const ranks = new Array<number>(values.length);
  for (let from = 0; from < order.length;) {
    let to = from;
    while (to + 1 < order.length && values[order[to + 1]!] === values[order[from]!]) to++;
    for (let k = from; k <= to; k++) ranks[order[k]!] = (from + to) / 2;
    from = to + 1;
  }
  return ranks;
}
