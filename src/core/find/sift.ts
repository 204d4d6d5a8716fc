// Runs tests over all rows: those that pass all, and those that the tests of one facet alone stop.
import type { Passes, Test } from "./passes";

/** Rows that count for a facet: those that pass all, and those that only its own filter stops. Rows ascend. */
export type Candidates = {
  all: Int32Array;
  /** Every other row. */
  stopped: () => Int32Array;
  onlyStoppedBy: ReadonlyMap<string, Int32Array>;
};

/** In the marks: stopped by tests of several facets. */
const SEVERAL = 255;

// Scratch that grows with the library: the marks are of no use once the rows are parted.
let marks = new Uint8Array(0);
let places = new Int32Array(0);

/**
 * @param count - rows, of which each is tested by its position.
 * @param tests - a facet's tests stop rows for its own counts only; facet "" has no counts: what it stops is gone.
 */
export function sift(count: number, tests: readonly Test[]): Candidates {
  if (marks.length < count) [marks, places] = [new Uint8Array(count), new Int32Array(count)];
  const counted = tests.filter((t) => t.facet);
  const facets = [...new Set(counted.map((t) => t.facet))];
  const alive = survivors(
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

/** Rows that pass every one of some tests; each test looks at what the ones before left. A view of scratch. */
function survivors(count: number, tests: readonly Test[]): Int32Array {
  let n = count;
  for (let i = 0; i < count; i++) places[i] = i;
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
  let kept = 0;
  for (let k = 0; k < n; k++) {
    const i = places[k]!;
    places[kept] = i;
    kept += good[of[i]!]!;
  }
  return kept;
}
function keepWords(n: number, of: Uint32Array, good: Uint8Array): number {
  let kept = 0;
  for (let k = 0; k < n; k++) {
    const i = places[k]!;
    places[kept] = i;
    kept += good[of[i]!]!;
  }
  return kept;
}
function keepRange(n: number, { low, high, min, max }: Extract<Passes, { by: "range" }>): number {
  let kept = 0;
  for (let k = 0; k < n; k++) {
    const i = places[k]!;
    places[kept] = i;
    // Not measured is NaN, which is neither above nor below: written so that it is stopped.
    kept += high[i]! >= min && low[i]! <= max ? 1 : 0;
  }
  return kept;
}
function keepRows(n: number, passes: (i: number) => boolean): number {
  let kept = 0;
  for (let k = 0; k < n; k++) {
    const i = places[k]!;
    if (passes(i)) places[kept++] = i;
  }
  return kept;
}

/** Marks what a facet's test stops: a row that others stop too is of no facet's counts. */
function sweep(alive: Int32Array, mark: number, passes: Passes) {
  const next = new Uint8Array(256).fill(SEVERAL);
  next[0] = mark;
  next[mark] = mark;
  if (passes.by === "range") sweepRange(alive, next, passes);
  else if (passes.by === "row") sweepRows(alive, next, passes.passes);
  else if (passes.of instanceof Uint8Array) sweepBytes(alive, next, passes.of, passes.good);
  else sweepWords(alive, next, passes.of, passes.good);
}
function sweepBytes(alive: Int32Array, next: Uint8Array, of: Uint8Array, good: Uint8Array) {
  for (let k = 0; k < alive.length; k++) if (!good[of[alive[k]!]!]) marks[k] = next[marks[k]!]!;
}
function sweepWords(alive: Int32Array, next: Uint8Array, of: Uint32Array, good: Uint8Array) {
  for (let k = 0; k < alive.length; k++) if (!good[of[alive[k]!]!]) marks[k] = next[marks[k]!]!;
}
function sweepRange(alive: Int32Array, next: Uint8Array, { low, high, min, max }: Extract<Passes, { by: "range" }>) {
  for (let k = 0; k < alive.length; k++) {
    const i = alive[k]!;
    if (!(high[i]! >= min && low[i]! <= max)) marks[k] = next[marks[k]!]!;
  }
}
function sweepRows(alive: Int32Array, next: Uint8Array, passes: (i: number) => boolean) {
  for (let k = 0; k < alive.length; k++) {
    const now = marks[k]!;
    if (next[now] !== now && !passes(alive[k]!)) marks[k] = next[now]!;
  }
}

/** Rows by their mark: counted first, so that each list is made once and as long as it must be. */
function partition(alive: Int32Array, facets: number): { all: Int32Array; lists: Int32Array[] } {
  const sizes = new Uint32Array(256);
  for (let k = 0; k < alive.length; k++) if (marks[k]) sizes[marks[k]!]!++;
  sizes[0] = alive.length - sizes.reduce((a, n) => a + n, 0);
  const all = new Int32Array(sizes[0]!);
  const lists = Array.from({ length: facets }, (_, f) => new Int32Array(sizes[f + 1]!));
  const filled = new Uint32Array(facets);
  let passed = 0;
  for (let k = 0; k < alive.length; k++) {
    const mark = marks[k]!;
    if (mark === 0) all[passed++] = alive[k]!;
    else if (mark !== SEVERAL) lists[mark - 1]![filled[mark - 1]!++] = alive[k]!;
  }
  return { all, lists };
}

function othersThan(all: Int32Array, count: number): Int32Array {
  const out = new Int32Array(count - all.length);
  let [n, k] = [0, 0];
  for (let i = 0; i < count; i++)
    if (all[k] === i) k++;
    else out[n++] = i;
  return out;
}
