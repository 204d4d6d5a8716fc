// Runs tests over all rows: those that pass all, and those that the tests of one facet alone stop.
import type { Passes, Test } from "./predicates";

/** Rows that count for a facet: those that pass all, and those that only its own filter stops. Rows ascend. */
export type Candidates = {
  all: Int32Array;
  /** Every other row. */
  stopped: () => Int32Array;
  onlyStoppedBy: ReadonlyMap<string, Int32Array>;
};

/** In the marks: stopped by tests of several facets. */
const SEVERAL = 255;

// Scratch that grows with the library: marks, places and the parted rows are of no use once a question is answered. Loops name
// them themselves first, so that they need not be looked up again at every row.
let marks = new Uint8Array(0);
let places = new Int32Array(0);
let parted = new Int32Array(0);
/** 0, 1, 2 …: every row, where nothing stops any for good. Never written to. */
let everyRow = new Int32Array(0);

function makeRoom(count: number) {
  if (marks.length >= count) return;
  [marks, places, parted] = [new Uint8Array(count), new Int32Array(count), new Int32Array(count)];
  everyRow = Int32Array.from({ length: count }, (_, i) => i);
}

/**
 * @param count - rows, of which each is tested by its position.
 * @param tests - a facet's tests stop rows for its own counts only; facet "" has no counts: what it stops is gone.
 */
export function filterRows(count: number, tests: readonly Test[]): Candidates {
  makeRoom(count);
  const counted = tests.filter((t) => t.facet);
  const facets = [...new Set(counted.map((t) => t.facet))];
  const alive = matching(
    count,
    tests.filter((t) => !t.facet),
  );
  marks.fill(0, 0, alive.length);
  for (const { facet, passes } of counted) sweep(alive, facets.indexOf(facet) + 1, passes);
  const { all, lists } = partition(alive, facets.length);
  return {
    all,
    stopped: () => othersThan(all, count),
    onlyStoppedBy: new Map(facets.map((f, k) => [f, lists[k]!])),
  };
}

/** Rows that pass every one of some tests; each test looks at what the ones before left. A view, valid until the next question. */
function matching(count: number, tests: readonly Test[]): Int32Array {
  if (!tests.length) return everyRow.subarray(0, count);
  let n = count;
  places.set(everyRow.subarray(0, count));
  for (const { passes } of tests) n = keep(n, passes);
  return places.subarray(0, n);
}

// One loop a kind of test, so that none of them calls a function for each row unless it must.
function keep(n: number, passes: Passes): number {
  if (passes.by === "range") return keepRange(n, passes);
  if (passes.by === "row") return keepRows(n, passes.passes);
  return passes.of instanceof Uint8Array ? keepBytes(n, passes.of, passes.good) : keepWords(n, passes.of, passes.good);
}
function keepBytes(n: number, of: Uint8Array, good: Uint8Array): number {
  const left = places;
  let kept = 0;
  for (let k = 0; k < n; k++) {
    const i = left[k]!;
    left[kept] = i;
    kept += good[of[i]!]!;
  }
  return kept;
}
function keepWords(n: number, of: Uint32Array, good: Uint8Array): number {
  const left = places;
  let kept = 0;
  for (let k = 0; k < n; k++) {
    const i = left[k]!;
    left[kept] = i;
    kept += good[of[i]!]!;
  }
  return kept;
}
function keepRange(n: number, { low, high, min, max }: Extract<Passes, { by: "range" }>): number {
  const left = places;
  let kept = 0;
  for (let k = 0; k < n; k++) {
    const i = left[k]!;
    left[kept] = i;
    kept += isWithin(low[i]!, high[i]!, min, max);
  }
  return kept;
}
function keepRows(n: number, passes: (i: number) => boolean): number {
  const left = places;
  let kept = 0;
  for (let k = 0; k < n; k++) {
    const i = left[k]!;
    if (passes(i)) left[kept++] = i;
  }
  return kept;
}

/**
 * 1 where a range reaches into another, else 0: as numbers, so that nothing is guessed. Not measured is NaN, which is neither above nor
 * below: it is never within.
 */
export const isWithin = (low: number, high: number, min: number, max: number) =>
  Number(high >= min) & Number(low <= max);

/** Marks what a facet's test stops: a row that others stop too is of no facet's counts. */
function sweep(alive: Int32Array, mark: number, passes: Passes) {
  const after = marksAfter(mark);
  if (passes.by === "range") sweepRange(alive, after, passes);
  else if (passes.by === "row") sweepRows(alive, after, passes.passes);
  else if (passes.of instanceof Uint8Array) sweepBytes(alive, after, passes.of, passes.good);
  else sweepWords(alive, after, passes.of, passes.good);
}

/**
 * The mark of a row after a test: at `mark` where the test stops it, at `PASSED | mark` where it passes. Looked up either way: half of all
 * rows are stopped, and no guess would be right more often.
 */
function marksAfter(own: number): Uint8Array {
  const after = new Uint8Array(2 * PASSED).fill(SEVERAL);
  after[0] = own;
  after[own] = own;
  for (let mark = 0; mark < PASSED; mark++) after[PASSED | mark] = mark;
  return after;
}
const PASSED = 256;
const PASSED_BIT = 8;

function sweepBytes(alive: Int32Array, after: Uint8Array, of: Uint8Array, good: Uint8Array) {
  const mark = marks;
  for (let k = 0; k < alive.length; k++) mark[k] = after[(good[of[alive[k]!]!]! << PASSED_BIT) | mark[k]!]!;
}
function sweepWords(alive: Int32Array, after: Uint8Array, of: Uint32Array, good: Uint8Array) {
  const mark = marks;
  for (let k = 0; k < alive.length; k++) mark[k] = after[(good[of[alive[k]!]!]! << PASSED_BIT) | mark[k]!]!;
}
function sweepRange(alive: Int32Array, after: Uint8Array, range: Extract<Passes, { by: "range" }>) {
  const mark = marks;
  const { low, high, min, max } = range;
  for (let k = 0; k < alive.length; k++) {
    const i = alive[k]!;
    mark[k] = after[(isWithin(low[i]!, high[i]!, min, max) << PASSED_BIT) | mark[k]!]!;
  }
}
function sweepRows(alive: Int32Array, after: Uint8Array, passes: (i: number) => boolean) {
  const mark = marks;
  for (let k = 0; k < alive.length; k++) {
    const now = mark[k]!;
    if (after[now] !== now && !passes(alive[k]!)) mark[k] = after[now]!;
  }
}

/** Rows by their mark: counted first, so that each finds its place at once. */
function partition(alive: Int32Array, facets: number): { all: Int32Array; lists: Int32Array[] } {
  const [mark, out] = [marks, parted];
  const sizes = new Uint32Array(256);
  countBytes(sizes, mark.subarray(0, alive.length));
  const starts = new Uint32Array(256);
  for (let m = 1; m < 256; m++) starts[m] = starts[m - 1]! + sizes[m - 1]!;
  const next = starts.slice();
  for (let k = 0; k < alive.length; k++) out[next[mark[k]!]!++] = alive[k]!;
  const rowsOf = (m: number) => out.slice(starts[m], starts[m]! + sizes[m]!);
  return { all: rowsOf(0), lists: Array.from({ length: facets }, (_, f) => rowsOf(f + 1)) };
}

function countBytes(counts: Uint32Array, bytes: Uint8Array) {
  // Two counters in turn: equal bytes in a row would wait for each other at one.
  const other = new Uint32Array(256);
  let k = 0;
  for (; k + 1 < bytes.length; k += 2) {
    counts[bytes[k]!]!++;
    other[bytes[k + 1]!]!++;
  }
  if (k < bytes.length) counts[bytes[k]!]!++;
  for (let v = 0; v < 256; v++) counts[v]! += other[v]!;
}

function othersThan(all: Int32Array, count: number): Int32Array {
  const out = new Int32Array(count - all.length);
  let [n, k] = [0, 0];
  for (let i = 0; i < count; i++)
    if (all[k] === i) k++;
    else out[n++] = i;
  return out;
}
