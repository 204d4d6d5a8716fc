// A face found by questions: answers weigh every style, the next question is the one that tells most. See README for the method.
import { QUESTIONS, type Described, type Question } from "./questions";

export type DescribedStyle = Described & {
  styleId: string;
  family: string;
  /** Its file is here, so that it can show what an answer means. */
  isHere?: boolean;
};
export type GivenAnswer = { questionId: string; answerId: string };
type Description = {
  /** Null when nothing that is left to ask would tell more. */
  next: Question | null;
  /** Families that are still likely: two to the power of their entropy. */
  remaining: number;
  /** One style per family, likeliest first. */
  matches: { styleId: string; family: string; chance: number }[];
};

/** Share of answers that are wrong, spread over all: what lets the right face survive one. */
const ERROR_SHARE = 0.07;
/** A question that is expected to tell less than this is not worth asking, bits. */
const MIN_BITS = 0.03;

/** Likelihoods of every answer for every style, made once for a library. */
export type AskedLibrary = {
  styles: readonly DescribedStyle[];
  familyOf: Uint16Array;
  families: readonly string[];
  /** One an answer of a question: Float32Array, shape [styles]. */
  fits: ReadonlyMap<string, readonly Float32Array[]>;
};

/** Rows of a library as questions need them. Picture fonts have no letters to ask about. */
export const listToAsk = (
  rows: readonly (Omit<DescribedStyle, "treatments" | "isHere"> & {
    treatments: readonly { value: DescribedStyle["treatments"][number] }[];
    owned: boolean;
  })[],
): DescribedStyle[] =>
  rows
    .filter((r) => !r.traits.picture)
    .map(({ styleId, family, traits, treatments, owned }) => ({
      styleId,
      family,
      traits,
      treatments: treatments.map((t) => t.value),
      isHere: owned,
    }));

export function readyToAsk(styles: readonly DescribedStyle[]): AskedLibrary {
  const families = [...new Set(styles.map((s) => s.family))];
  const at = new Map(families.map((f, i) => [f, i]));
  const fits = new Map(
    QUESTIONS.map((q) => {
      const columns = q.answers.map(() => new Float32Array(styles.length));
      styles.forEach((s, i) => q.fits(s).forEach((v, a) => (columns[a]![i] = v)));
      return [q.questionId, columns] as const;
    }),
  );
  return { styles, families, familyOf: Uint16Array.from(styles, (s) => at.get(s.family)!), fits };
}

/**
 * @param answers - in any order; a question that is answered twice counts with its last answer, one that does not exist not at all.
 * @param skipped - ids of questions that could not be told: they are not asked again.
 */
export function describe(
  library: AskedLibrary,
  answers: readonly GivenAnswer[],
  skipped: readonly string[] = [],
  limit = 12,
): Description {
  const { styles, families, familyOf, fits } = library;
  const weights = startWeights(library);
  const given = new Map(answers.map((a) => [a.questionId, a.answerId]));
  for (const [questionId, answerId] of given) {
    const question = QUESTIONS.find((q) => q.questionId === questionId);
    const k = question?.answers.findIndex((a) => a.answerId === answerId) ?? -1;
    if (!question || k < 0) continue;
    const column = fits.get(questionId)![k]!;
    const slip = ERROR_SHARE / question.answers.length;
    for (let i = 0; i < weights.length; i++) weights[i]! *= (1 - ERROR_SHARE) * column[i]! + slip;
  }
  normalize(weights);
  const byFamily = new Float64Array(families.length);
  for (let i = 0; i < weights.length; i++) byFamily[familyOf[i]!]! += weights[i]!;
  const done = new Set([...given.keys(), ...skipped]);
  let next: { question: Question; bits: number } | null = null;
  for (const question of QUESTIONS) {
    if (done.has(question.questionId)) continue;
    const bits = bitsOf(question, library, weights, byFamily);
    if (bits > MIN_BITS && (!next || bits > next.bits)) next = { question, bits };
  }
  const best = new Map<string, { styleId: string; weight: number }>();
  styles.forEach((s, i) => {
    const known = best.get(s.family);
    if (!known || weights[i]! > known.weight) best.set(s.family, { styleId: s.styleId, weight: weights[i]! });
  });
  const matches = families
    .map((family, f) => ({ styleId: best.get(family)!.styleId, family, chance: byFamily[f]! }))
    .sort((a, b) => b.chance - a.chance)
    .slice(0, limit);
  return { next: next?.question ?? null, remaining: 2 ** entropy(byFamily), matches };
}

/** Every family is as likely as another at first, however many styles it has. */
function startWeights({ styles, families, familyOf }: AskedLibrary): Float64Array {
  const count = new Uint32Array(families.length);
  for (const f of familyOf) count[f]!++;
  return Float64Array.from(styles, (_, i) => 1 / (count[familyOf[i]!]! * families.length));
}

function normalize(weights: Float64Array) {
  const sum = weights.reduce((a, b) => a + b, 0) || 1;
  for (let i = 0; i < weights.length; i++) weights[i]! /= sum;
}

/** Entropy in bits of weights that add up to `total`. */
function entropy(weights: Float64Array, total = 1): number {
  let sum = 0;
  for (const w of weights) if (w > 0) sum -= (w / total) * Math.log2(w / total);
  return sum;
}

/** By how many bits the answer to a question is expected to narrow the families. */
function bitsOf(
  question: Question,
  { familyOf, families, fits }: AskedLibrary,
  weights: Float64Array,
  byFamily: Float64Array,
): number {
  let after = 0;
  const slip = ERROR_SHARE / question.answers.length;
  for (const column of fits.get(question.questionId)!) {
    const own = new Float64Array(families.length);
    let total = 0;
    for (let i = 0; i < weights.length; i++) {
      const w = weights[i]! * ((1 - ERROR_SHARE) * column[i]! + slip);
      own[familyOf[i]!]! += w;
      total += w;
    }
    if (total > 0) after += total * entropy(own, total);
  }
  return entropy(byFamily) - after;
}

/** How much being unusual in other ways speaks against an example. */
const PLAIN_SHARE = 0.15;

/**
 * A style whose letters show an answer: it fits this one clearly and is usual in all else, so that nothing else catches the eye.
 * @returns null where no style fits.
 */
export function exampleOf(library: AskedLibrary, question: Question, answer: number): string | null {
  const column = library.fits.get(question.questionId)![answer]!;
  let best: { styleId: string; score: number } | null = null;
  library.styles.forEach((s, i) => {
    if (s.isHere === false || column[i]! < 0.5) return;
    const usual = usualness(library, question, i);
    const score = column[i]! + PLAIN_SHARE * usual;
    if (!best || score > best.score) best = { styleId: s.styleId, score };
  });
  return (best as { styleId: string; score: number } | null)?.styleId ?? null;
}

const shares = new WeakMap<AskedLibrary, Map<string, number[]>>();

/** Mean, over the other questions, of how many styles would be answered like this one. */
function usualness(library: AskedLibrary, apartFrom: Question, style: number): number {
  let known = shares.get(library);
  if (!known) {
    known = new Map(
      [...library.fits].map(([id, columns]) => [
        id,
        columns.map((c) => c.reduce((a, b) => a + b, 0) / Math.max(1, c.length)),
      ]),
    );
    shares.set(library, known);
  }
  let sum = 0;
  for (const [id, columns] of library.fits)
    if (id !== apartFrom.questionId)
      columns.forEach((c, k) => {
        sum += c[style]! * known.get(id)![k]!;
      });
  return sum;
}
