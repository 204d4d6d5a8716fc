// What somebody keeps and sets aside → how likely each style is to be kept: logistic regression over what is measured, with how near a style
// is to those kept. Learnt from the marks of one brief, in milliseconds; nothing of it is stored.
import { KINDS, SIEVE_TRAITS, TREATMENTS, type SieveTrait } from "@/contracts/traits";
import type { FindIndex } from "./findIndex";
import { memoizeRecent } from "./lately";

/** Fewer marks say nothing. */
export const TASTE_FROM_MARKS = 5;
/**
 * @property chances - of each row to be kept, 0–1; Float32Array, shape [rows].
 * @property rows - that were marked.
 * @property says - what the kept have in common against the rest, largest first: "narrow", "heavy".
 */
export type Taste = { chances: Float32Array; says: string[]; marks: number; rows: readonly number[] };

/** Rows that stand for all others: nobody has said anything of them, so each counts little. */
const BACKGROUND = 160;
const BACKGROUND_WEIGHT = 0.12;
/** How strongly weights are held towards zero, and how a step of descent is scaled. */
const RIDGE = 0.35;
const STEPS = 250;
const RATE = 0.5;
/** Standard deviations beyond which a value counts no more. */
const CLIP = 3;
/** How far likeness to a kept style reaches, in features; and its share beside the regression. */
const REACH = 3.2;
const NEAR_SHARE = 0.45;
const MASK_SCALE = 1.5;

/** @param kept, aside - rows. @returns null while there are too few marks, or none that was kept. */
export const learnTaste = (index: FindIndex, kept: readonly number[], aside: readonly number[]): Taste | null =>
  !kept.length || kept.length + aside.length < TASTE_FROM_MARKS
    ? null
    : tastesLately(index, `${kept.join(" ")} / ${aside.join(" ")}`, () => learn(index, kept, aside));
/** The same marks are asked for with every move of the sieve, and every page. */
const TASTES_KEPT = 2;
const tastesLately = memoizeRecent<FindIndex, Taste>(TASTES_KEPT);

function learn(index: FindIndex, kept: readonly number[], aside: readonly number[]): Taste {
  const features = featuresOf(index);
  const examples = [
    ...kept.map((row) => ({ row, isKept: 1, weight: 1 / kept.length })),
    ...aside.map((row) => ({ row, isKept: 0, weight: (1 - BACKGROUND_WEIGHT) / aside.length })),
    ...background(index, new Set([...kept, ...aside])).map((row, _, all) => ({
      row,
      isKept: 0,
      weight: (aside.length ? BACKGROUND_WEIGHT : 1) / all.length,
    })),
  ];
  const { weights, bias } = fitLogistic(features, examples);
  const chances = new Float32Array(index.rows.length).fill(bias);
  // Column by column: each is gone through once, in the order in which it lies.
  features.forEach((column, k) => {
    const weight = weights[k]!;
    for (let i = 0; i < chances.length; i++) chances[i]! += weight * column[i]!;
  });
  addNearness(chances, features, kept);
  for (let i = 0; i < chances.length; i++) chances[i] = 1 / (1 + Math.exp(-chances[i]!));
  return {
    chances,
    says: describeTaste(index, features, kept),
    marks: kept.length + aside.length,
    rows: [...kept, ...aside],
  };
}

/** One column a feature; those of SIEVE_TRAITS stand first, in their order. */
type Features = readonly Float32Array[];
const featuresLately = new WeakMap<FindIndex, Features>();

/** Traits in standard deviations from the library's mean, 0 where not measured; then kinds and treatments. Made once for an index. */
function featuresOf(index: FindIndex): Features {
  let features = featuresLately.get(index);
  if (!features) {
    const bits = (shared: { of: Uint8Array | Uint32Array; list: number[] }, count: number) =>
      Array.from({ length: count }, (_, bit) => {
        const values = shared.list.map((mask) => MASK_SCALE * ((mask >> bit) & 1));
        return Float32Array.from(shared.of, (at) => values[at]!);
      });
    features = [
      ...SIEVE_TRAITS.map((t) => standardize(index.traits[t].values)),
      ...bits(index.kinds, KINDS.length),
      ...bits(index.treatments, TREATMENTS.length),
    ];
    featuresLately.set(index, features);
  }
  return features;
}

function standardize(values: Float32Array): Float32Array {
  let [sum, squares, n] = [0, 0, 0];
  for (const v of values)
    if (v === v) {
      sum += v;
      squares += v * v;
      n++;
    }
  const mean = n ? sum / n : 0;
  const deviation = Math.sqrt(Math.max(1e-9, squares / Math.max(1, n) - mean * mean));
  return values.map((v) => (v === v ? Math.max(-CLIP, Math.min(CLIP, (v - mean) / deviation)) : 0));
}

/** Rows at even distances in the order of names. */
function background(index: FindIndex, marked: ReadonlySet<number>): number[] {
  const stride = Math.max(1, Math.floor(index.rows.length / BACKGROUND));
  const rows: number[] = [];
  for (let row = 0; row < index.rows.length; row += stride) rows.push(row);
  return rows.filter((row) => !marked.has(row));
}

type Example = { row: number; isKept: number; weight: number };

/** Weighted logistic regression with a ridge, by gradient descent from zero: the same for the same marks. */
function fitLogistic(columns: Features, examples: readonly Example[]) {
  const weights = new Float64Array(columns.length);
  let bias = 0;
  const total = examples.reduce((sum, e) => sum + e.weight, 0);
  for (let step = 0; step < STEPS; step++) {
    const slope = new Float64Array(columns.length);
    let biasSlope = 0;
    for (const { row, isKept, weight } of examples) {
      let sum = bias;
      for (let k = 0; k < weights.length; k++) sum += weights[k]! * columns[k]![row]!;
      const off = (weight * (1 / (1 + Math.exp(-sum)) - isKept)) / total;
      biasSlope += off;
      for (let k = 0; k < weights.length; k++) slope[k]! += off * columns[k]![row]!;
    }
    bias -= RATE * biasSlope;
    for (let k = 0; k < weights.length; k++) weights[k]! -= RATE * (slope[k]! + (RIDGE / columns.length) * weights[k]!);
  }
  return { weights, bias };
}

/** Adds how near each row is to the nearest kept one: what no rule over measures says is often next to what was kept. */
function addNearness(scores: Float32Array, columns: Features, kept: readonly number[]) {
  const spread = Math.max(1e-6, deviationOf(scores));
  const nearest = new Float32Array(scores.length).fill(Infinity);
  const squares = new Float32Array(scores.length);
  for (const row of kept) {
    squares.fill(0);
    for (const column of columns) {
      const own = column[row]!;
      for (let i = 0; i < squares.length; i++) squares[i]! += (column[i]! - own) * (column[i]! - own);
    }
    for (let i = 0; i < squares.length; i++) if (squares[i]! < nearest[i]!) nearest[i] = squares[i]!;
  }
  for (let i = 0; i < scores.length; i++)
    scores[i]! += (NEAR_SHARE / (1 - NEAR_SHARE)) * spread * 2 * Math.exp(-nearest[i]! / (2 * REACH * REACH));
}

function deviationOf(values: Float32Array): number {
  let [sum, squares] = [0, 0];
  for (const v of values) {
    sum += v;
    squares += v * v;
  }
  return Math.sqrt(Math.max(0, squares / values.length - (sum / values.length) ** 2));
}

/** What is said of kept faces that have less, and more, of a trait than the library. */
// oxfmt-ignore
const SAID: Partial<Record<SieveTrait, [string, string]>> = {
  weight: ["light", "heavy"], width: ["narrow", "wide"], contrast: ["even strokes", "high contrast"], xHeightEm: ["small x-height", "large x-height"],
  slantDeg: ["upright", "slanted"], roundness: ["angular", "round"], serif: ["without serifs", "with serifs"], roughness: ["clean", "rough"],
  connected: ["unjoined", "joined"], aperture: ["closed forms", "open forms"], evenness: ["uneven", "even grey"],
};
const SAID_FROM = 0.6;
const MOST_SAID = 3;

function describeTaste(index: FindIndex, columns: Features, kept: readonly number[]): string[] {
  return SIEVE_TRAITS.flatMap((trait, k) => {
    const words = SAID[trait];
    const known = kept.filter((row) => index.traits[trait].values[row] === index.traits[trait].values[row]);
    if (!words || known.length < kept.length / 2) return [];
    const mean = known.reduce((sum, row) => sum + columns[k]![row]!, 0) / known.length;
    // What they agree in says more than what they are only on average.
    const apart = Math.sqrt(known.reduce((sum, row) => sum + (columns[k]![row]! - mean) ** 2, 0) / known.length);
    return [{ says: words[mean > 0 ? 1 : 0], by: Math.abs(mean) / (0.5 + apart) }];
  })
    .filter(({ by }) => by >= SAID_FROM)
    .sort((a, b) => b.by - a.by)
    .slice(0, MOST_SAID)
    .map(({ says }) => says);
}
