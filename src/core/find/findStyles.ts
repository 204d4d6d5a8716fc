// Filters, counts and ranks all styles for one question. Pure: index and question in, an order and counts out.
import type { BriefFields } from "@/contracts/brief";
import type { Facets, StyleQuery, Understood } from "@/contracts/styles";
import { SLANTED_FROM_DEG, VERDICTS, type Verdict } from "@/contracts/traits";
import { charactersOf, findMissing } from "../brief/checkBrief";
import { strictestVerdict } from "../rights/verdicts";
import { nearnessTo } from "./alike";
import { countFacets } from "./facets";
import type { FindIndex, FindRow } from "./findIndex";
import { memoizeRecent } from "./lately";
import { foldFamilies, orderAlong, orderBy, sortValues } from "./order";
import { filterRows } from "./filterRows";
import { parseWords, type Lexicon } from "./parseWords";
import {
  fullNameRows,
  isCleared,
  nameScores,
  rangeOfThan,
  rangesOf,
  sieveTests,
  constraintTest,
  type Asked,
  type Test,
  type WantedRange,
} from "./predicates";
import type { Constraint } from "./vocabulary";

export type FindBrief = Pick<BriefFields, "lines" | "wanted" | "uses"> & { setAside: readonly string[] };
export type FoundRow = {
  row: FindRow;
  verdict: Verdict;
  missing: string[];
  priceCents: number | null;
  stylesFound: number;
};
export type Found = {
  /** How many rows pass. */
  total: number;
  /** Rows that pass, best first: worked out when it is first read. */
  readonly order: Uint32Array;
  /** How many families they are of. */
  families: number;
  facets: Facets;
  understood: Understood;
  /** Trait constraints that a variable font may answer by its axes. */
  wanted: WantedRange[];
  /** One row of the order with what the brief says of it. The first places are had without the whole order. */
  at: (place: number) => FoundRow;
};

/** What the server knows beside the rows: one object for one index, as long as nothing in it changes. */
export type FindSurroundings = {
  lexicon?: Pick<Lexicon, "tags" | "languages">;
  /** Language code → whether each coverage of the index sets it. */
  speaks?: (language: string) => Uint8Array;
  /** Languages that the sieve counts. */
  languages?: readonly string[];
};

/**
 * Answers one question.
 * @param brief - the brief in view or null: private use, no characters needed.
 * @returns all rows that pass, best first; facets count what would pass if that facet's own filter were off.
 */
export function findStyles(
  index: FindIndex,
  query: Partial<StyleQuery>,
  brief: FindBrief | null,
  around: FindSurroundings = {},
): Found {
  const parsed = parse(query.q ?? "", index, around);
  const constraints = parsed.constraints.map((w) => w.constraint);
  const asked = ask(index, brief, around);
  const like = constraints.find((w) => w.type === "like");
  const reference = query.near ? (index.rowOf.get(query.near) ?? null) : like ? plainestOf(index, like.family) : null;
  const near = reference === null ? null : nearnessTo(index, reference, true);
  const tests = [
    ...sieveTests(query, asked),
    ...constraints.flatMap((w): Test[] => {
      const passes = constraintTest(w, asked, reference, near);
      return passes ? [{ facet: "", passes }] : [];
    }),
  ];
  const candidates = filterRows(index.rows.length, tests);
  const rows = candidates.all;
  const sort = query.sort ?? "fit";
  const isPlain = sort === "fit" && !like && !query.near && !constraints.some((w) => isScored(w));
  const fit = isPlain ? null : scoreRows(rows, asked, constraints, like || query.near ? near : null);
  const ordered = fit
    ? orderBy(rows, sortValues(sort, rows, fit, index, near), index)
    : orderAlong(rows, asked.byFit());
  const facets = countFacets(asked, candidates, around.languages ?? []);
  const folded = query.fold
    ? foldFamilies(ordered.all(), index, fit ? scoreByRow(rows, fit, index) : (i) => asked.fitOf[i]!)
    : null;
  const see = seenBy(index, brief);
  const rowAt = (place: number) => {
    if (folded) return folded.order[place]!;
    const first = ordered.first();
    return place < first.length ? first[place]! : ordered.all()[place]!;
  };
  return {
    total: folded ? folded.order.length : ordered.length,
    get order() {
      return folded ? folded.order : ordered.all();
    },
    families: folded ? folded.order.length : countDistinct(rows, index),
    facets,
    understood: {
      words: parsed.constraints.map(({ constraint, from }) => ({ label: constraint.label, from })),
      ignored: parsed.ignored,
    },
    wanted: [
      ...constraints.flatMap((w) =>
        w.type === "trait" ? [w] : w.type === "than" ? [rangeOfThan(index, w, reference)] : [],
      ),
      ...rangesOf(query),
    ],
    at: (place) => {
      const i = rowAt(place);
      return { ...see(i), stylesFound: folded?.count[index.family[i]!] ?? 1 };
    },
  };
}

/** Scores looked up by row. */
function scoreByRow(rows: Int32Array, fit: Float64Array, index: FindIndex): (i: number) => number {
  const by = new Float64Array(index.rows.length);
  for (let k = 0; k < rows.length; k++) by[rows[k]!] = fit[k]!;
  return (i) => by[i]!;
}

type Parsed = ReturnType<typeof parseWords>;
const PARSED_KEPT = 24;
const parsedLately = memoizeRecent<FindSurroundings, Parsed>(PARSED_KEPT);

/** The words are read once while the sieve beside them is moved, and as long as the surroundings are the same. */
const parse = (words: string, index: FindIndex, around: FindSurroundings): Parsed =>
  parsedLately(around, words, () => parseWords(words, lexiconOf(index, around)));

/** Rows as the brief sees them, without any question: verdict, missing characters, price. */
export function seenBy(index: FindIndex, brief: FindBrief | null): (i: number) => FoundRow {
  const { verdictOf, missingOf, priceOf } = ofBrief(index, brief);
  const needed = brief ? charactersOf(brief) : [];
  return (i) => {
    const row = index.rows[i]!;
    const price = priceOf[i]!;
    return {
      row,
      verdict: VERDICTS[verdictOf[i]!]!,
      missing: missingOf[i] ? findMissing(needed, row.coverage) : [],
      priceCents: Number.isNaN(price) ? null : price,
      stylesFound: 1,
    };
  };
}

function countDistinct(order: Int32Array, index: FindIndex): number {
  const seen = new Uint8Array(index.families.length);
  let n = 0;
  for (let k = 0; k < order.length; k++) {
    const family = index.family[order[k]!]!;
    if (!seen[family]) n++;
    seen[family] = 1;
  }
  return n;
}

const lexiconOf = (index: FindIndex, around: FindSurroundings): Lexicon => ({
  families: index.names,
  foundries: index.foundries,
  isFullName: (squashed) => fullNameRows(index, squashed).length > 0,
  tags: around.lexicon?.tags ?? new Set(),
  languages: around.lexicon?.languages ?? new Map(),
});

type OfBrief = Pick<Asked, "verdictOf" | "missingOf" | "priceOf"> & {
  /** How well each row fits the brief, whatever is asked. */
  fitOf: Float32Array;
  /** All rows, the best fitting first. */
  byFit: () => Uint32Array;
};
/** Briefs that are asked in turn, and none at all: what is like a face is often asked beside a wall. */
const BRIEFS_KEPT = 4;
const briefsLately = memoizeRecent<FindIndex, OfBrief>(BRIEFS_KEPT);

/** What the brief says of every row, kept for its next question. */
const ofBrief = (index: FindIndex, brief: FindBrief | null): OfBrief =>
  briefsLately(index, JSON.stringify(brief && [brief.lines, brief.wanted, brief.uses]), () => readBrief(index, brief));

function ask(index: FindIndex, brief: FindBrief | null, around: FindSurroundings): Asked & OfBrief {
  const none = new Uint8Array(index.coverage.list.length);
  return {
    index,
    setAside: new Set(brief?.setAside ?? []),
    ...ofBrief(index, brief),
    speaks: around.speaks ?? (() => none),
  };
}

/** Verdicts, missing characters and prices: once for each shared value, not for each row. */
function readBrief(index: FindIndex, brief: FindBrief | null): OfBrief {
  const uses = brief?.uses ?? [];
  const needed = brief ? charactersOf(brief) : [];
  const verdicts = index.verdicts.list.map((v) => VERDICTS.indexOf(strictestVerdict(v, uses)));
  const missing = index.coverage.list.map((c) => Math.min(255, findMissing(needed, c).length));
  const verdictOf = new Uint8Array(index.rows.length);
  const missingOf = new Uint8Array(index.rows.length);
  const priceOf = new Float64Array(index.rows.length);
  for (let i = 0; i < verdictOf.length; i++) {
    verdictOf[i] = verdicts[index.verdicts.of[i]!]!;
    missingOf[i] = missing[index.coverage.of[i]!]!;
  }
  for (const i of index.toBuy) priceOf[i] = sumPrices(index.rows[i]!.price, uses);
  const clearedBonus = VERDICTS.map((v) => (isCleared(v) ? (v === "cleared" ? 0.15 : 0.1) : 0));
  const fitOf = Float32Array.from(
    verdictOf,
    (verdict, i) =>
      (missingOf[i] ? 0 : 0.3) +
      clearedBonus[verdict]! -
      index.pictures[i]! -
      // What is at hand comes before what would have to be bought.
      (index.owned[i] ? 0 : 0.2),
  );
  let byFit: Uint32Array | null = null;
  return { verdictOf, missingOf, priceOf, fitOf, byFit: () => (byFit ??= standByFit(fitOf, index)) };
}

/** Few values, so the rows of each are taken in the order of their names. */
function standByFit(fitOf: Float32Array, index: FindIndex): Uint32Array {
  const values = [...new Set(fitOf)].sort((a, b) => b - a);
  const placeOf = new Map(values.map((v, place) => [v, place]));
  const starts = new Uint32Array(values.length + 1);
  for (const v of fitOf) starts[placeOf.get(v)! + 1]!++;
  for (let p = 1; p < starts.length; p++) starts[p]! += starts[p - 1]!;
  const out = new Uint32Array(fitOf.length);
  for (const i of index.byName) out[starts[placeOf.get(fitOf[i]!)!]!++] = i;
  return out;
}

/** NaN where one of the uses is not sold. No uses: what the cheapest use costs. */
function sumPrices(price: FindRow["price"], uses: readonly string[]): number {
  if (!price) return NaN;
  const asked = uses.map((u) => price.pricesCents[u]);
  if (!asked.length) return Math.min(...Object.values(price.pricesCents), Infinity);
  return asked.every((c) => c !== undefined) ? asked.reduce((a, c) => a + c, 0) : NaN;
}

/** The upright style of a family that is nearest to a usual text weight. */
export function plainestOf(index: FindIndex, family: number): number {
  const plain = (i: number) => {
    const { traits, axes } = index.rows[i]!;
    return (
      Math.abs((traits.weight ?? 900) - 400) +
      (Math.abs(traits.slantDeg ?? 0) > SLANTED_FROM_DEG ? 300 : 0) +
      (Object.keys(axes).length ? 40 : 0)
    );
  };
  return index.families[family]!.rows.reduce((a, b) => (plain(b) < plain(a) ? b : a));
}

/** How well each row fits the words and the brief; higher is better. */
function scoreRows(
  rows: Int32Array,
  { index, fitOf }: Asked & OfBrief,
  constraints: Constraint[],
  near: Float32Array | null,
): Float64Array {
  const fit = new Float64Array(rows.length);
  for (let k = 0; k < rows.length; k++) fit[k] = fitOf[rows[k]!]!;
  if (near) for (let k = 0; k < rows.length; k++) fit[k]! -= near[rows[k]!]!;
  for (const constraint of constraints) {
    const part = scorePart(index, constraint);
    if (part) for (let k = 0; k < rows.length; k++) fit[k]! += part(rows[k]!);
  }
  return fit;
}

function confidenceIn(guesses: readonly { value: string; confidence: number }[], value: string): number {
  for (const g of guesses) if (g.value === value) return g.confidence;
  return 0;
}

/** Whether a constraint ranks what passes; others only let pass or stop. */
function isScored(constraint: Constraint): boolean {
  if (constraint.type === "kind" || constraint.type === "treatment" || constraint.type === "mood")
    return !constraint.not;
  return constraint.type === "name" || constraint.type === "trait" || constraint.type === "than";
}

function scorePart(index: FindIndex, constraint: Constraint): ((i: number) => number) | null {
  const { rows } = index;
  switch (constraint.type) {
    case "name": {
      const scores = nameScores(index, constraint.words);
      return (i) => 4 * scores.of(i);
    }
    case "kind":
      return constraint.not ? null : (i) => confidenceIn(rows[i]!.kinds, constraint.kind);
    case "treatment":
      return constraint.not ? null : (i) => confidenceIn(rows[i]!.treatments, constraint.treatment);
    case "mood":
      return constraint.not
        ? null
        : (i) => rows[i]!.moods?.find((m) => constraint.moods.includes(m.value))?.confidence ?? 0;
    case "trait": {
      const { values, low, high } = index.traits[constraint.trait];
      return (i) => {
        const v = values[i]!;
        const inside = v >= (constraint.min ?? -Infinity) && v <= (constraint.max ?? Infinity);
        // A variable font that only its axes bring there comes a little behind.
        return inside
          ? 0.5 * depthIn(constraint, v)
          : 0.4 * depthIn(constraint, constraint.min !== undefined ? high[i]! : low[i]!) - 0.1;
      };
    }
    case "than": {
      const { values, range } = index.traits[constraint.trait];
      const middle = (range[0] + range[1]) / 2;
      return (i) =>
        0.5 * Math.max(-1, Math.min(1, (constraint.way * ((values[i]! || middle) - middle)) / (range[1] - middle)));
    }
    default:
      return null;
  }
}

/** How far inside an open-ended range a value lies, 0–1: "heavy" ranks the heavier first, but not the absurd. */
function depthIn(constraint: { min?: number; max?: number }, value: number): number {
  if (constraint.min !== undefined && constraint.max !== undefined) return 0.5;
  if (constraint.min !== undefined)
    return Math.min(1, (value - constraint.min) / Math.max(1e-6, Math.abs(constraint.min) * 0.5));
  if (constraint.max !== undefined)
    return Math.min(1, (constraint.max - value) / Math.max(1e-6, Math.abs(constraint.max) * 0.5));
  return 0;
}
