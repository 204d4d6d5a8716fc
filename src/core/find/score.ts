// How well a row fits the words: a degree 0–1 for each part that ranks, with what of the row it rests on.
import { LOOKS } from "../theme/looks";
import type { FindIndex } from "./findIndex";
import { nameScores, themeFits } from "./predicates";
import { memoizeRecent } from "./lately";
import type { Taste } from "./taste";
import type { Constraint } from "./vocabulary";

/** @property because - what of a row answers, in words. */
export type Scorer = {
  /** Orders, and says nothing of how well a row fits the words. */
  isBeside?: boolean;
  weight: number;
  degree: (i: number) => number;
  because: (i: number) => string[];
};
/** @property degree - 0–1. */
export type Fit = { degree: number; because: string[] };

/** A whole name before all else; a theme before what the brief says of a face. */
const WEIGHTS = { name: 4, theme: 2, kind: 1, treatment: 1, mood: 1, trait: 0.5, than: 0.5 };
/** A variable font that only its axes bring there comes a little behind. */
const BY_AXES = 0.8;
const MOST_REASONS = 3;

/** One scorer for each constraint that ranks what passes; the others only let pass or stop. */
export const scorersOf = (index: FindIndex, constraints: readonly Constraint[]): Scorer[] =>
  constraints.flatMap((c) => scorerOf(index, c) ?? []);

/** A family that is called just so stands before all that only fits. */
export const scoreCalled = (index: FindIndex, called: number): Scorer => ({
  weight: WEIGHTS.name,
  degree: (i) => (index.family[i] === called ? 1 : 0),
  because: (i) => (index.family[i] === called ? ["its name"] : []),
  isBeside: true,
});

/** What was learnt from marks ranks beside the words. */
export const scoreTaste = ({ chances }: Taste): Scorer => ({
  weight: TASTE_WEIGHT,
  degree: (i) => chances[i]!,
  because: (i) => (chances[i]! >= 0.5 ? ["like what you keep"] : []),
});
const TASTE_WEIGHT = 2;

/** Scores of all rows; those that are not asked for are of an earlier question. Scratch that grows with the library. */
let scores = new Float32Array(0);

/**
 * How good each row is, higher is better: what the brief says of it, the words, and how near it is.
 * @returns one score a row of the index, true for the rows that were asked for until the next question is asked.
 */
export function scoreRows(
  rows: Int32Array,
  fitOf: Float32Array,
  scorers: readonly Scorer[],
  near: Float32Array | null,
): Float32Array {
  if (!near && !scorers.length) return fitOf;
  if (scores.length !== fitOf.length) scores = new Float32Array(fitOf.length);
  const own = scores;
  for (let k = 0; k < rows.length; k++) own[rows[k]!] = fitOf[rows[k]!]! - (near ? near[rows[k]!]! : 0);
  for (const { weight, degree } of scorers)
    for (let k = 0; k < rows.length; k++) own[rows[k]!]! += weight * degree(rows[k]!);
  return own;
}

/** The degree of all parts together, by their weights; null where the words only let pass or stop. */
export function degreeOfAll(scorers: readonly Scorer[], i: number): number | null {
  if (!scorers.length) return null;
  let [sum, weights] = [0, 0];
  for (const { weight, degree, isBeside } of scorers) {
    if (isBeside && !degree(i)) continue;
    sum += weight * degree(i);
    weights += weight;
  }
  return Number((sum / weights).toFixed(3));
}

/** The same with what of the row it rests on. */
export function describeFit(scorers: readonly Scorer[], i: number): Fit | null {
  const degree = degreeOfAll(scorers, i);
  if (degree === null) return null;
  return { degree, because: [...new Set(scorers.flatMap((s) => s.because(i)))].slice(0, MOST_REASONS) };
}

function scorerOf(index: FindIndex, constraint: Constraint): Scorer | null {
  if ("not" in constraint && constraint.not) return null;
  const degree = degreeOf(index, constraint);
  if (!degree) return null;
  const { type } = constraint;
  return {
    weight: WEIGHTS[type as keyof typeof WEIGHTS],
    degree,
    because:
      constraint.type === "theme"
        ? (i) => [...tagOf(index, constraint.tag, i), ...looksOf(index, constraint.weights, i)]
        : (i) => (degree(i) > 0 && type !== "name" ? [constraint.label] : []),
  };
}

function degreeOf(index: FindIndex, constraint: Constraint): Scorer["degree"] | null {
  switch (constraint.type) {
    case "name":
      return nameScores(index, constraint.words).of;
    case "kind":
      return inColumn(confidencesIn(index, "kinds", constraint.kind));
    case "treatment":
      return inColumn(confidencesIn(index, "treatments", constraint.treatment));
    case "mood": {
      const columns = constraint.moods.map((mood) => confidencesIn(index, "moods", mood));
      return (i) => columns.reduce((most, column) => Math.max(most, column[i]!), 0);
    }
    case "theme": {
      const fits = themeFits(index, constraint);
      return (i) => fits[i]!;
    }
    case "trait": {
      const { values, low, high } = index.traits[constraint.trait];
      return (i) => {
        const v = values[i]!;
        const inside = v >= (constraint.min ?? -Infinity) && v <= (constraint.max ?? Infinity);
        return inside
          ? depthIn(constraint, v)
          : BY_AXES * depthIn(constraint, constraint.min !== undefined ? high[i]! : low[i]!) - (1 - BY_AXES);
      };
    }
    case "than": {
      const { values, range } = index.traits[constraint.trait];
      const middle = (range[0] + range[1]) / 2;
      return (i) =>
        Math.max(-1, Math.min(1, (constraint.way * ((values[i]! || middle) - middle)) / (range[1] - middle)));
    }
    default:
      return null;
  }
}

const tagOf = (index: FindIndex, tag: string | undefined, i: number): string[] =>
  tag !== undefined && index.rows[i]!.moods?.some((m) => m.value === tag) ? [`tagged ${tag}`] : [];

/** The looks of a theme that a row has, what weighs most first. */
function looksOf(index: FindIndex, weights: Float32Array, i: number): string[] {
  const looks = index.looks();
  return LOOKS.map(({ name }, k) => ({ name, of: (weights[k]! * looks[i * LOOKS.length + k]!) / 255 }))
    .filter((l) => l.of >= 0.25)
    .sort((a, b) => b.of - a.of)
    .map((l) => l.name);
}

type Guessed = "kinds" | "treatments" | "moods";
/** Kept at a time, for a library of a hundred thousand 0.4 MB each. */
const COLUMNS_KEPT = 24;
const columnsLately = memoizeRecent<FindIndex, Float32Array>(COLUMNS_KEPT);
/**
 * How sure each row is of a kind, a treatment or a mood, 0 where nothing is said of it. Gathered once for each that is asked for: going
 * through the lists of a hundred thousand rows takes ten times as long as a column.
 */
const confidencesIn = (index: FindIndex, of: Guessed, value: string): Float32Array =>
  columnsLately(index, `${of} ${value}`, () =>
    Float32Array.from(index.rows, (row) => row[of]?.find((g) => g.value === value)?.confidence ?? 0),
  );
const inColumn = (column: Float32Array) => (i: number) => column[i]!;

/** How far inside an open-ended range a value lies, 0–1: "heavy" ranks the heavier first, but not the absurd. */
function depthIn(constraint: { min?: number; max?: number }, value: number): number {
  if (constraint.min !== undefined && constraint.max !== undefined) return 0.5;
  if (constraint.min !== undefined)
    return Math.min(1, (value - constraint.min) / Math.max(1e-6, Math.abs(constraint.min) * 0.5));
  if (constraint.max !== undefined)
    return Math.min(1, (constraint.max - value) / Math.max(1e-6, Math.abs(constraint.max) * 0.5));
  return 0;
}
