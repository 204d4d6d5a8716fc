// Counts of the sieve: for each of its parts what would be there if that part's own filter were off.
import type { Facets } from "@/contracts/styles";
import { KINDS, SIEVE_TRAITS, TREATMENTS, VERDICTS } from "@/contracts/traits";
import { FAMILY_STEPS, hasBit, HISTOGRAM_BINS, type Column, type FindIndex, type Shared } from "./findIndex";
import type { Asked } from "./predicates";
import type { Candidates } from "./filterRows";

/** Prices that the sieve counts up to. */
const PRICE_STEPS_CENTS = [0, 2000, 4000, 6000, 10000];

/** Four counters a value, in turn: two equal values in a row would wait for each other at one. Scratch that grows. */
let lanes = new Uint32Array(4 * 2048);

/** How often each value stands in some rows of a column. */
function countRows(rows: Int32Array, of: Uint8Array | Uint16Array | Uint32Array, size: number): Uint32Array {
  if (lanes.length < 4 * size) lanes = new Uint32Array(4 * size);
  lanes.fill(0, 0, 4 * size);
  if (of instanceof Uint8Array) runBytes(rows, of, size, lanes);
  else if (of instanceof Uint16Array) runPacked(rows, of, size, lanes);
  else runWords(rows, of, size, lanes);
  const counts = new Uint32Array(size);
  for (let v = 0; v < size; v++) counts[v] = lanes[v]! + lanes[size + v]! + lanes[2 * size + v]! + lanes[3 * size + v]!;
  return counts;
}
// One loop a kind of array: a loop that meets several is a few times slower.
function runBytes(rows: Int32Array, of: Uint8Array, size: number, seen: Uint32Array) {
  const whole = rows.length & ~3;
  const [second, third, fourth] = [size, 2 * size, 3 * size];
  for (let k = 0; k < whole; k += 4) {
    seen[of[rows[k]!]!]!++;
    seen[second + of[rows[k + 1]!]!]!++;
    seen[third + of[rows[k + 2]!]!]!++;
    seen[fourth + of[rows[k + 3]!]!]!++;
  }
  for (let k = whole; k < rows.length; k++) seen[of[rows[k]!]!]!++;
}
function runPacked(rows: Int32Array, of: Uint16Array, size: number, seen: Uint32Array) {
  const whole = rows.length & ~3;
  const [second, third, fourth] = [size, 2 * size, 3 * size];
  for (let k = 0; k < whole; k += 4) {
    seen[of[rows[k]!]!]!++;
    seen[second + of[rows[k + 1]!]!]!++;
    seen[third + of[rows[k + 2]!]!]!++;
    seen[fourth + of[rows[k + 3]!]!]!++;
  }
  for (let k = whole; k < rows.length; k++) seen[of[rows[k]!]!]!++;
}
function runWords(rows: Int32Array, of: Uint32Array, size: number, seen: Uint32Array) {
  for (let k = 0; k < rows.length; k++) seen[of[rows[k]!]!]!++;
}

const totals = new WeakMap<Uint8Array | Uint16Array, Uint32Array>();
/** How often each value stands in a whole column, made once. */
export function totalsOf(of: Uint8Array | Uint16Array, size: number): Uint32Array {
  let counts = totals.get(of);
  if (!counts) {
    counts = new Uint32Array(size);
    for (let i = 0; i < of.length; i++) counts[of[i]!]!++;
    totals.set(of, counts);
  }
  return counts;
}

/** Of all rows, fewer than one in so many are counted column by column. */
const FEW_ROWS_SHARE = 20;

/**
 * How many of the rows that pass have each value, for every packed column. Of the two, what passes and what is stopped, the fewer
 * are counted: totals are known.
 */
function countPacked(index: FindIndex, rows: Candidates): Map<Column, Uint32Array> {
  const isMost = rows.all.length > index.rows.length / 2;
  const counted = isMost ? rows.stopped() : rows.all;
  const out = new Map<Column, Uint32Array>();
  // A few rows are counted sooner column by column.
  if (counted.length < index.rows.length / FEW_ROWS_SHARE) return out;
  for (const packed of index.packed) {
    const { of, size, columns, parts } = packed;
    const counts = countRows(counted, of, size);
    if (isMost) {
      const total = totalsOf(of, size);
      for (let v = 0; v < size; v++) counts[v] = total[v]! - counts[v]!;
    }
    columns.forEach((column, c) => {
      const part = parts[c]!;
      const own = new Uint32Array(packed.values[c]!);
      for (let v = 0; v < size; v++) if (counts[v]) own[part[v]!]! += counts[v]!;
      out.set(column, own);
    });
  }
  return out;
}
export function countFacets(asked: Asked, rows: Candidates, languages: readonly string[]): Facets {
  const { index } = asked;
  const known = countPacked(index, rows);
  /** How many rows have each value of a column: those that pass, and those that only the facet's own filter stops. */
  const tally = (facet: string, of: Column, size: number): Uint32Array => {
    const counts = new Uint32Array(size);
    counts.set((known.get(of) ?? countRows(rows.all, of, size)).subarray(0, size));
    const more = rows.onlyStoppedBy.get(facet);
    if (more?.length) countRows(more, of, size).forEach((n, v) => (counts[v]! += n));
    return counts;
  };
  const spread = <T>(facet: string, shared: Shared<T>, keysOf: (v: T) => readonly string[]) => {
    const counts = tally(facet, shared.of, shared.list.length);
    const out: Record<string, number> = {};
    shared.list.forEach((value, id) => {
      if (counts[id]) for (const key of keysOf(value)) out[key] = (out[key] ?? 0) + counts[id];
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
  const verdicts = tally("verdicts", asked.verdictOf, VERDICTS.length);
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
    complete: tally("complete", asked.missingOf, 256)[0]!,
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

/** Rows that cost at most 0, 20, 40 …; what is not known is in none. Only what is to be bought has a price other than nothing. */
function countPrices({ index, priceOf }: Asked, rows: Candidates): number[] {
  const counts = PRICE_STEPS_CENTS.map(() => 0);
  let free = 0;
  for (const list of [rows.all, rows.onlyStoppedBy.get("price") ?? NO_ROWS]) {
    free += list.length;
    for (const i of index.toBuy) {
      if (!holds(list, i)) continue;
      free--;
      const price = priceOf[i]!;
      for (let step = 0; step < counts.length; step++) if (price <= PRICE_STEPS_CENTS[step]!) counts[step]!++;
    }
  }
  return counts.map((n) => n + free);
}
const NO_ROWS = new Int32Array(0);

/** @param rows - ascending. */
function holds(rows: Int32Array, row: number): boolean {
  let [low, high] = [0, rows.length - 1];
  while (low <= high) {
    const middle = (low + high) >>> 1;
    const at = rows[middle]!;
    if (at === row) return true;
    if (at < row) low = middle + 1;
    else high = middle - 1;
  }
  return false;
}
