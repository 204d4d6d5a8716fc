// Counts of the sieve: for each of its parts what would be there if that part's own filter were off.
import type { Facets } from "@/contracts/styles";
import { KINDS, SIEVE_TRAITS, TREATMENTS, VERDICTS } from "@/contracts/traits";
import { FAMILY_STEPS, hasBit, HISTOGRAM_BINS, type FindIndex, type Shared } from "./findIndex";
import type { Asked } from "./passes";
import type { Candidates } from "./sift";

/** Prices that the sieve counts up to. */
export const PRICE_STEPS_CENTS = [0, 2000, 4000, 6000, 10000];

// Two plain loops, one a kind of array: a loop that meets both is several times slower, and they run over many rows for
// every part of the sieve.
function addUp(counts: Uint32Array, rows: Int32Array, of: Uint8Array | Uint32Array, by: 1 | -1) {
  if (of instanceof Uint8Array) addBytes(counts, rows, of, by);
  else addWords(counts, rows, of, by);
}
/** Four counters a value, in turn: two equal values in a row would wait for each other at one. */
const lanes = new Uint32Array(4 * 256);
function addBytes(counts: Uint32Array, rows: Int32Array, of: Uint8Array, by: number) {
  lanes.fill(0);
  const whole = rows.length & ~3;
  for (let k = 0; k < whole; k += 4) {
    lanes[of[rows[k]!]!]!++;
    lanes[256 | of[rows[k + 1]!]!]!++;
    lanes[512 | of[rows[k + 2]!]!]!++;
    lanes[768 | of[rows[k + 3]!]!]!++;
  }
  for (let k = whole; k < rows.length; k++) lanes[of[rows[k]!]!]!++;
  for (let v = 0; v < counts.length; v++)
    counts[v]! += by * (lanes[v]! + lanes[256 | v]! + lanes[512 | v]! + lanes[768 | v]!);
}
function addWords(counts: Uint32Array, rows: Int32Array, of: Uint32Array, by: number) {
  for (let k = 0; k < rows.length; k++) counts[of[rows[k]!]!]! += by;
}

const totals = new WeakMap<Uint8Array | Uint32Array, Uint32Array>();
/** Counts over the whole index, made once for each of its columns. */
export function totalsOf(index: FindIndex, of: Uint8Array | Uint32Array, size: number): Uint32Array {
  let counts = totals.get(of);
  if (!counts) {
    counts = new Uint32Array(size);
    for (let i = 0; i < index.rows.length; i++) counts[of[i]!]!++;
    totals.set(of, counts);
  }
  return counts;
}

export function countFacets(asked: Asked, rows: Candidates, languages: readonly string[]): Facets {
  const { index } = asked;
  const stopped = rows.all.length > index.rows.length / 2 ? rows.stopped() : null;
  /**
   * How many rows have each id. Of the two, what passes and what is stopped, the fewer are counted: totals are known.
   * @param isOfBrief - the ids change with the brief, so their totals are counted each time.
   */
  const tally = (facet: string, of: Uint8Array | Uint32Array, size: number, isOfBrief = false): Uint32Array => {
    const fromTotals = stopped && !isOfBrief;
    const counts = fromTotals ? totalsOf(index, of, size).slice() : new Uint32Array(size);
    if (fromTotals) addUp(counts, stopped, of, -1);
    else addUp(counts, rows.all, of, 1);
    const more = rows.onlyStoppedBy.get(facet);
    if (more) addUp(counts, more, of, 1);
    return counts;
  };
  const spread = <T>(facet: string, shared: Shared<T>, keysOf: (v: T) => readonly string[]) => {
    const counts = tally(facet, shared.of, shared.list.length);
    const out: Record<string, number> = {};
    shared.list.forEach((value, id) => {
      if (counts[id]) for (const key of keysOf(value)) out[key] = (out[key] ?? 0) + counts[id]!;
    });
    return out;
  };
  /** Rows whose family has at least 1, 2, 4 … of something: each row knows how many of the steps it reaches. */
  const atLeast = (facet: string, of: Uint8Array) => {
    const counts = tally(facet, of, FAMILY_STEPS.length + 1);
    return FAMILY_STEPS.map((_, step) => counts.subarray(step + 1).reduce((a, b) => a + b, 0));
  };
  const traits: Facets["traits"] = {};
  for (const trait of SIEVE_TRAITS) {
    const { bins, range } = index.traits[trait];
    traits[trait] = { range, bins: [...tally(trait, bins, HISTOGRAM_BINS + 1).subarray(0, HISTOGRAM_BINS)] };
  }
  const verdicts = tally("verdicts", asked.verdictOf, VERDICTS.length, true);
  const coverage = tally("languages", index.coverage.of, index.coverage.list.length);
  const pictures = tally("pictures", index.pictures, 2);
  const owned = tally("owned", index.owned, 2);
  return {
    traits,
    kinds: spread("kinds", index.kinds, (m) => KINDS.filter((k) => hasBit(KINDS, m, k))),
    treatments: spread("treatments", index.treatments, (m) => TREATMENTS.filter((t) => hasBit(TREATMENTS, m, t))),
    moods: spread("moods", index.moods, (list) => list),
    vox: spread("vox", index.vox, (v) => (v ? [v] : [])),
    verdicts: Object.fromEntries(VERDICTS.map((v, k) => [v, verdicts[k]!]).filter(([, n]) => n)),
    features: spread("features", index.features, (list) => list),
    axes: spread("axes", index.axes, (list) => (list.length ? ["any", ...list] : [])),
    formats: spread("formats", index.formats, (f) => [f]),
    health: spread("health", index.health, (h) => [h]),
    libraries: spread("libraries", index.libraries, (l) => [l]),
    figures: spread("figures", index.figures, (f) => f),
    cases: spread("cases", index.cases, (c) => [c]),
    languages: countLanguages(asked, coverage, languages),
    styles: atLeast("styles", index.styleSteps),
    weights: atLeast("weights", index.weightSteps),
    italics: tally("italics", index.italics, 2)[1]!,
    price: countPrices(asked, rows),
    pictures: { in: pictures[1]!, out: pictures[0]! },
    complete: tally("complete", asked.missingOf, 256, true)[0]!,
    owned: { here: owned[1]!, toBuy: owned[0]! },
  };
}

const countLanguages = (asked: Asked, coverage: Uint32Array, languages: readonly string[]) =>
  Object.fromEntries(
    languages.map((code) => {
      const speaks = asked.speaks(code);
      let n = 0;
      for (let id = 0; id < coverage.length; id++) if (speaks[id]) n += coverage[id]!;
      return [code, n];
    }),
  );

/** Rows that cost at most 0, 20, 40 …; what is not known is in none. */
function countPrices({ priceOf }: Asked, rows: Candidates): number[] {
  const counts = PRICE_STEPS_CENTS.map(() => 0);
  let free = 0;
  for (const list of [rows.all, rows.onlyStoppedBy.get("price") ?? []])
    for (let k = 0; k < list.length; k++) {
      const price = priceOf[list[k]!]!;
      if (price === 0) free++;
      else for (let step = 0; step < counts.length; step++) if (price <= PRICE_STEPS_CENTS[step]!) counts[step]!++;
    }
  return counts.map((n) => n + free);
}
