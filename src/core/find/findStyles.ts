// Filters, counts and ranks all styles for one question. Pure: index and question in, an order and counts out.
import type { BriefFields } from "@/contracts/brief";
import type { Facets, StyleQuery, Understood } from "@/contracts/styles";
import { SLANTED_FROM_DEG, VERDICTS, type Verdict } from "@/contracts/traits";
import { charactersOf, findMissing } from "../brief/checkBrief";
import { strictestVerdict } from "../rights/verdicts";
import { nearnessTo } from "./alike";
import { countFacets, type Candidates } from "./facets";
import type { FindIndex, FindRow } from "./findIndex";
import { foldFamilies, orderBy, sortKey } from "./order";
import { parseWords, type Lexicon } from "./parseWords";
import {
  fullNameRows,
  isCleared,
  nameScores,
  rangeOfThan,
  rangesOf,
  sieveTests,
  wishTest,
  type Asked,
  type Passes,
  type Test,
  type WantedRange,
} from "./passes";
import type { Wish } from "./vocabulary";

export type FindBrief = Pick<BriefFields, "lines" | "wanted" | "uses"> & { setAside: readonly string[] };
export type FoundRow = {
  row: FindRow;
  verdict: Verdict;
  missing: string[];
  priceCents: number | null;
  stylesFound: number;
};
export type Found = {
  /** Rows that pass, best first. */
  order: Uint32Array;
  /** How many families they are of. */
  families: number;
  facets: Facets;
  understood: Understood;
  /** Trait wishes that a variable font may answer by its axes. */
  wanted: WantedRange[];
  /** One row of the order with what the brief says of it. */
  at: (place: number) => FoundRow;
};

/** What the server knows beside the rows. */
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
  const parsed = parseWords(query.q ?? "", lexiconOf(index, around));
  const wishes = parsed.wishes.map((w) => w.wish);
  const asked = ask(index, brief, around);
  const like = wishes.find((w) => w.type === "like");
  const reference = query.near ? (index.rowOf.get(query.near) ?? null) : like ? plainestOf(index, like.family) : null;
  const near = reference === null ? null : nearnessTo(index, reference, true);
  const tests = [
    ...sieveTests(query, asked),
    ...wishes.flatMap((w): Test[] => {
      const passes = wishTest(w, asked, reference, near);
      return passes ? [{ facet: "", passes }] : [];
    }),
  ];
  const candidates = sift(index.rows.length, tests);
  const score = scorer(asked, wishes, like || query.near ? near : null);
  const keyOf = sortKey(query.sort ?? "fit", index, score, near);
  const ordered = orderBy(candidates.all, keyOf, index);
  const folded = query.fold ? foldFamilies(ordered, index, score) : null;
  const see = seenBy(index, brief);
  const order = folded?.order ?? ordered;
  return {
    order,
    families: folded ? order.length : countDistinct(ordered, index),
    facets: countFacets(asked, candidates, around.languages ?? []),
    understood: {
      words: parsed.wishes.map(({ wish, from }) => ({ label: wish.label, from })),
      ignored: parsed.ignored,
    },
    wanted: [
      ...wishes.flatMap((w) =>
        w.type === "trait" ? [w] : w.type === "than" ? [rangeOfThan(index, w, reference)] : [],
      ),
      ...rangesOf(query),
    ],
    at: (place) => ({ ...see(order[place]!), stylesFound: folded?.count.get(index.family[order[place]!]!) ?? 1 }),
  };
}

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

function countDistinct(order: Uint32Array, index: FindIndex): number {
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

type OfBrief = Pick<Asked, "verdictOf" | "missingOf" | "priceOf">;
const lastOfBrief = new WeakMap<FindIndex, { key: string; columns: OfBrief }>();

/** What the brief says of every row, kept for its next question. */
function ofBrief(index: FindIndex, brief: FindBrief | null): OfBrief {
  const key = JSON.stringify(brief && [brief.lines, brief.wanted, brief.uses]);
  const last = lastOfBrief.get(index);
  if (last?.key === key) return last.columns;
  const columns = readBrief(index, brief);
  lastOfBrief.set(index, { key, columns });
  return columns;
}

function ask(index: FindIndex, brief: FindBrief | null, around: FindSurroundings): Asked {
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
  return { verdictOf, missingOf, priceOf };
}

/** NaN where one of the uses is not sold. No uses: what the cheapest use costs. */
function sumPrices(price: FindRow["price"], uses: readonly string[]): number {
  if (!price) return NaN;
  const asked = uses.map((u) => price.pricesCents[u]);
  if (!asked.length) return Math.min(...Object.values(price.pricesCents), Infinity);
  return asked.every((c) => c !== undefined) ? asked.reduce((a, c) => a! + c!, 0)! : NaN;
}

/** In the marks of `sift`: stopped by tests of several facets, or by one that has no counts. */
const SEVERAL = 255;

// One loop a kind of test, so that none of them calls a function for each row unless it must.
function sweep(stoppedBy: Uint8Array, mark: number, passes: Passes) {
  if (passes.by === "range") sweepRange(stoppedBy, mark, passes);
  else if (passes.by === "row") sweepRows(stoppedBy, mark, passes.passes);
  else if (passes.of instanceof Uint8Array) sweepBytes(stoppedBy, mark, passes.of, passes.good);
  else sweepWords(stoppedBy, mark, passes.of, passes.good);
}
function stop(stoppedBy: Uint8Array, mark: number, i: number) {
  const now = stoppedBy[i]!;
  stoppedBy[i] = now === 0 ? mark : now === mark ? mark : SEVERAL;
}
function sweepBytes(stoppedBy: Uint8Array, mark: number, of: Uint8Array, good: Uint8Array) {
  for (let i = 0; i < stoppedBy.length; i++) if (!good[of[i]!]) stop(stoppedBy, mark, i);
}
function sweepWords(stoppedBy: Uint8Array, mark: number, of: Uint32Array, good: Uint8Array) {
  for (let i = 0; i < stoppedBy.length; i++) if (!good[of[i]!]) stop(stoppedBy, mark, i);
}
function sweepRange(stoppedBy: Uint8Array, mark: number, { low, high, min, max }: Extract<Passes, { by: "range" }>) {
  // Not measured is NaN, which is neither above nor below: written so that it is stopped.
  for (let i = 0; i < stoppedBy.length; i++) if (!(high[i]! >= min && low[i]! <= max)) stop(stoppedBy, mark, i);
}
function sweepRows(stoppedBy: Uint8Array, mark: number, passes: (i: number) => boolean) {
  for (let i = 0; i < stoppedBy.length; i++)
    if (stoppedBy[i] !== SEVERAL && stoppedBy[i] !== mark && !passes(i)) stop(stoppedBy, mark, i);
}

/** Rows that pass all tests, and those that tests of one facet alone stop. */
function sift(count: number, tests: readonly Test[]): Candidates {
  const facets = [...new Set(tests.map((t) => t.facet))];
  const stoppedBy = new Uint8Array(count);
  for (const { facet, passes } of tests)
    // Facet "" has no counts of its own: what it stops is gone.
    sweep(stoppedBy, facet ? facets.indexOf(facet) + 1 : SEVERAL, passes);
  return partition(stoppedBy, facets);
}

/** Rows by their mark: counted first, so that each list is made once and as long as it must be. */
function partition(stoppedBy: Uint8Array, facets: readonly string[]): Candidates {
  const sizes = new Uint32Array(256);
  for (let i = 0; i < stoppedBy.length; i++) sizes[stoppedBy[i]!]!++;
  const all = new Int32Array(sizes[0]!);
  const stopped = new Int32Array(stoppedBy.length - sizes[0]!);
  const lists = facets.map((_, k) => new Int32Array(sizes[k + 1]!));
  const filled = new Uint32Array(facets.length);
  let [passed, held] = [0, 0];
  for (let i = 0; i < stoppedBy.length; i++) {
    const s = stoppedBy[i]!;
    if (s === 0) all[passed++] = i;
    else {
      stopped[held++] = i;
      if (s !== SEVERAL) lists[s - 1]![filled[s - 1]!++] = i;
    }
  }
  return { all, stopped, onlyStoppedBy: new Map(facets.map((f, k) => [f, lists[k]!])) };
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

/** How well a row fits the words and the brief; higher is better. */
function scorer({ index, verdictOf, missingOf }: Asked, wishes: Wish[], near: Float32Array | null) {
  const parts: ((i: number) => number)[] = wishes.flatMap((wish) => scorePart(index, wish) ?? []);
  const clearedBonus = VERDICTS.map((v) => (isCleared(v) ? (v === "cleared" ? 0.15 : 0.1) : 0));
  const { pictures, owned } = index;
  return (i: number) => {
    let score = near ? -near[i]! : 0;
    for (let k = 0; k < parts.length; k++) score += parts[k]!(i);
    if (!missingOf[i]) score += 0.3;
    score += clearedBonus[verdictOf[i]!]!;
    score -= pictures[i]!;
    // What is at hand comes before what would have to be bought.
    if (!owned[i]) score -= 0.2;
    return score;
  };
}

function confidenceIn(guesses: readonly { value: string; confidence: number }[], value: string): number {
  for (const g of guesses) if (g.value === value) return g.confidence;
  return 0;
}

function scorePart(index: FindIndex, wish: Wish): ((i: number) => number) | null {
  const { rows } = index;
  switch (wish.type) {
    case "name": {
      const scores = nameScores(index, wish.words);
      return (i) => 4 * scores.of(i);
    }
    case "kind":
      return wish.not ? null : (i) => confidenceIn(rows[i]!.kinds, wish.kind);
    case "treatment":
      return wish.not ? null : (i) => confidenceIn(rows[i]!.treatments, wish.treatment);
    case "mood":
      return wish.not ? null : (i) => rows[i]!.moods?.find((m) => wish.moods.includes(m.value))?.confidence ?? 0;
    case "trait": {
      const { values, low, high } = index.traits[wish.trait];
      return (i) => {
        const v = values[i]!;
        const inside = v >= (wish.min ?? -Infinity) && v <= (wish.max ?? Infinity);
        // A variable font that only its axes bring there comes a little behind.
        return inside ? 0.5 * depthIn(wish, v) : 0.4 * depthIn(wish, wish.min !== undefined ? high[i]! : low[i]!) - 0.1;
      };
    }
    case "than": {
      const { values, range } = index.traits[wish.trait];
      const middle = (range[0] + range[1]) / 2;
      return (i) =>
        0.5 * Math.max(-1, Math.min(1, (wish.way * ((values[i]! || middle) - middle)) / (range[1] - middle)));
    }
    default:
      return null;
  }
}

/** How far inside an open-ended range a value lies, 0–1: "heavy" ranks the heavier first, but not the absurd. */
function depthIn(wish: { min?: number; max?: number }, value: number): number {
  if (wish.min !== undefined && wish.max !== undefined) return 0.5;
  if (wish.min !== undefined) return Math.min(1, (value - wish.min) / Math.max(1e-6, Math.abs(wish.min) * 0.5));
  if (wish.max !== undefined) return Math.min(1, (wish.max - value) / Math.max(1e-6, Math.abs(wish.max) * 0.5));
  return 0;
}
