// Filters, counts and ranks all styles for one question. Pure: index and question in, an order and counts out.
import type { BriefFields } from "@/contracts/brief";
import type { Facets, StyleQuery, Understood } from "@/contracts/styles";
import { SLANTED_FROM_DEG, VERDICTS, type Verdict } from "@/contracts/traits";
import { charactersOf, findMissing } from "../brief/characters";
import { strictestVerdict } from "../rights/verdicts";
import { nearnessTo } from "./alike";
import { countFacets } from "./facets";
import type { FindIndex, FindRow } from "./findIndex";
import { memoizeRecent } from "./lately";
import {
  bestOfFamilies,
  foldFamilies,
  inOrder,
  orderAlong,
  orderBy,
  sortValues,
  unfold,
  valuesOf,
  type Ordered,
} from "./order";
import { filterRows } from "./filterRows";
import { findNearest, type Nearest } from "./nearest";
import { nameBeside, wholeNamed } from "./named";
import { orderByRange } from "./range";
import {
  degreeOfAll,
  describeFit,
  scoreCalled,
  scoreRows,
  scorersOf,
  scoreTaste,
  type Fit,
  type Scorer,
} from "./score";
import { orderWithUnfamiliar } from "./explore";
import { learnTaste, type Taste } from "./taste";
import { parseWords, type Lexicon } from "./parseWords";
import {
  fullNameRows,
  isCleared,
  rangeOfThan,
  rangesOf,
  sieveTests,
  constraintTest,
  type Asked,
  type Test,
  type WantedRange,
} from "./predicates";
import { listLooks } from "../theme/readTheme";

export type FindBrief = Pick<BriefFields, "lines" | "wanted" | "uses"> & {
  setAside: readonly string[];
  kept?: readonly { styleId: string }[];
};
export type FoundRow = {
  row: FindRow;
  verdict: Verdict;
  missing: string[];
  priceCents: number | null;
  stylesFound: number;
  /** How well it fits the words, 0–1, and what of it does; null where the words only let pass or stop. */
  fit: Fit | null;
};
export type Found = {
  /** How many rows pass. */
  total: number;
  /** Rows that pass, best first: worked out when it is first read. */
  readonly order: Uint32Array;
  /** What was learnt from the brief's marks, when it was asked for. */
  taste: Pick<Taste, "says" | "marks"> | null;
  /** How many families they are of. */
  families: number;
  /** Styles, one a family, whose names have a word that was read as something else. */
  named: Uint32Array;
  facets: Facets;
  understood: Understood;
  /** Trait constraints that a variable font may answer by its axes. */
  wanted: WantedRange[];
  /** How well a row fits the words, 0–1; null where they only let pass or stop. */
  fitOf: (row: number) => number | null;
  /** Languages that were asked for (BCP 47), in words or in the sieve. */
  languages: readonly string[];
  /** One row of the order with what the brief says of it. The first places are had without the whole order. */
  at: (place: number) => FoundRow;
};

/** What the server knows beside the rows: one object for one index, as long as nothing in it changes. */
export type FindSurroundings = {
  lexicon?: Pick<Lexicon, "tags" | "languages" | "places" | "words" | "corrections">;
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
  const asked = ask(index, brief, around, wholeNamed(index, query.q ?? ""));
  const like = constraints.find((w) => w.type === "like");
  const reference = query.near ? (index.rowOf.get(query.near) ?? null) : like ? plainestOf(index, like.family) : null;
  const near = reference === null ? null : nearnessTo(index, reference, true);
  const tests = [
    ...sieveTests(query, asked),
    ...parsed.constraints.flatMap(({ constraint, from }): Test[] => {
      const passes = constraintTest(constraint, asked, reference, near);
      return passes ? [{ facet: "", passes, of: { label: constraint.label, from } }] : [];
    }),
  ];
  const candidates = filterRows(index.rows.length, tests);
  const nearest = query.nearest && !candidates.all.length ? findNearest(index.rows.length, tests) : null;
  const rows = nearest?.rows ?? candidates.all;
  const facets = countFacets(asked, candidates, around.languages ?? []);
  const taste = query.learn && brief ? tasteOf(index, brief) : null;
  const scored = [
    ...scorersOf(index, constraints),
    ...(asked.called !== null && constraints.some((c) => c.type === "theme") ? [scoreCalled(index, asked.called)] : []),
    ...(taste ? [scoreTaste(taste)] : []),
  ];
  // Names stand as they are, and what was learnt; what is alike is ordered by nearness.
  const hasRange = !near && !taste && !constraints.some((w) => w.type === "name");
  const marked = taste?.rows ?? null;
  const { shown, families, count, isUnfamiliar } = arrange(query, asked, { rows, scored, near, hasRange, marked });
  const see = seenBy(index, brief);
  const rowAt = (place: number) => {
    const first = shown.first();
    return place < first.length ? first[place]! : shown.all()[place]!;
  };
  const fitOf = (i: number) => {
    const fit = describeFit(scored, i);
    return fit && isUnfamiliar(i) ? { ...fit, because: [UNFAMILIAR] } : fit;
  };
  return {
    total: shown.length,
    taste: taste && { says: taste.says, marks: taste.marks },
    named: nameBeside(index, query.q ?? "", constraints),
    get order() {
      return shown.all();
    },
    families,
    facets,
    understood: sayUnderstood(parsed, nearest),
    wanted: [
      ...constraints.flatMap((w) =>
        w.type === "trait" ? [w] : w.type === "than" ? [rangeOfThan(index, w, reference)] : [],
      ),
      ...rangesOf(query),
    ],
    fitOf: (row) => degreeOfAll(scored, row),
    languages: [...constraints.flatMap((c) => (c.type === "language" ? c.language : [])), ...(query.languages ?? [])],
    at: (place) => {
      const i = rowAt(place);
      return { ...see(i), stylesFound: count?.[index.family[i]!] ?? 1, fit: fitOf(i) };
    },
  };
}

/** Why a face stands among those that are like what is kept. */
const UNFAMILIAR = "unlike all you have marked";

const familiesIn = (ids: readonly string[] | undefined, index: FindIndex) =>
  new Set(
    ids?.length ? index.rows.flatMap((r, i) => ((ids as string[]).includes(r.familyId) ? [index.family[i]!] : [])) : [],
  );

const sayUnderstood = ({ constraints, ignored }: Parsed, nearest: Nearest | null): Understood => ({
  words: constraints.map(({ constraint, from }) => ({
    label: constraint.label,
    from,
    ...(constraint.type === "theme" && { theme: { phrase: constraint.phrase, ...listLooks(constraint) } }),
  })),
  ignored,
  ...(nearest && { nearest: { total: nearest.rows.length, lacks: nearest.lacks, without: nearest.without } }),
});

type Arranged = {
  shown: Ordered;
  families: number;
  /** Of each family, how many of its styles pass; null where all are shown. */
  count: Uint32Array | null;
  /** Whether a row stands where it does to be learnt from. */
  isUnfamiliar: (row: number) => boolean;
};
type Passing = {
  rows: Int32Array;
  scored: readonly Scorer[];
  /** Distance of every row to the face that is asked for. */
  near: Float32Array | null;
  /** Where the best fitting come first: whether the first of them span what there is. */
  hasRange: boolean;
  /** Rows that the order was learnt from; null where nothing was learnt. */
  marked: readonly number[] | null;
};

/** What passes as it is shown: all of it, or one style per family, with the others behind it where a family is opened. */
function arrange(query: Partial<StyleQuery>, asked: Asked & OfBrief, passing: Passing): Arranged {
  const { index } = asked;
  const { rows, scored, near, hasRange, marked } = passing;
  const sort = query.sort ?? "fit";
  const scores = scoreRows(rows, asked.fitOf, scored, near);
  let isUnfamiliar = (_row: number) => false;
  const order = (some: Int32Array) => {
    // Of their own from here on: an order is worked out further when scores are of another question already.
    const fits = valuesOf(some, scores);
    const byValue =
      sort === "fit" && scores === asked.fitOf
        ? orderAlong(some, asked.byFit())
        : orderBy(some, sortValues(sort, some, fits, index, near));
    if (sort !== "fit") return byValue;
    if (hasRange) return orderByRange(byValue, some, fits, index);
    if (!marked || near) return byValue;
    const explored = orderWithUnfamiliar(byValue, some, fits, marked, index);
    isUnfamiliar = explored.isUnfamiliar;
    return explored.shown;
  };
  if (!query.fold) return { shown: order(rows), families: countDistinct(rows, index), count: null, isUnfamiliar };
  const open = familiesIn(query.open, index);
  const openIn = (shown: Ordered, others: () => Uint32Array) =>
    open.size ? inOrder(unfold(shown.all(), others(), index, open)) : shown;
  if (sort === "fit" && !near) {
    // One is chosen before anything is ordered.
    const best = bestOfFamilies(rows, index, scores);
    const shown = order(best.rows);
    const named = () => orderBy(rows, null).all();
    return { shown: openIn(shown, named), families: best.rows.length, count: best.count, isUnfamiliar };
  }
  const all = order(rows).all();
  const folded = foldFamilies(all, rows, index, scores);
  return {
    shown: openIn(inOrder(folded.order), () => all),
    families: folded.order.length,
    count: folded.count,
    isUnfamiliar,
  };
}

/** What the marks of a brief say of every row; null while they are too few. */
function tasteOf(index: FindIndex, { kept, setAside }: FindBrief): Taste | null {
  const rows = (ids: readonly string[]) => [...new Set(ids)].flatMap((id) => index.rowOf.get(id) ?? []);
  return learnTaste(index, rows((kept ?? []).map((k) => k.styleId)), rows(setAside));
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
      fit: null,
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
  places: around.lexicon?.places,
  words: around.lexicon?.words,
  corrections: around.lexicon?.corrections,
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

function ask(
  index: FindIndex,
  brief: FindBrief | null,
  around: FindSurroundings,
  called: number | null,
): Asked & OfBrief {
  const none = new Uint8Array(index.coverage.list.length);
  return {
    index,
    called,
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
  return { verdictOf, missingOf, priceOf, fitOf, byFit: () => (byFit ??= standByFit(fitOf)) };
}

/** Few values, so the rows of each are taken in the order of their names. */
function standByFit(fitOf: Float32Array): Uint32Array {
  const values = [...new Set(fitOf)].sort((a, b) => b - a);
  const placeOf = new Map(values.map((v, place) => [v, place]));
  const starts = new Uint32Array(values.length + 1);
  for (const v of fitOf) starts[placeOf.get(v)! + 1]!++;
  for (let p = 1; p < starts.length; p++) starts[p]! += starts[p - 1]!;
  const out = new Uint32Array(fitOf.length);
  for (let i = 0; i < out.length; i++) out[starts[placeOf.get(fitOf[i]!)!]!++] = i;
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
