// When nothing is all that was asked: what comes nearest, and what each part of the question costs.
import { isWithin } from "./filterRows";
import type { Passes, Test } from "./predicates";

type Part = { label: string; from: string; facet: string };
export type Nearest = {
  rows: Int32Array;
  /** How many parts of the question each of them lacks. */
  lacks: number;
  /** Which parts can be given up together, and how many rows there are then; the most first. */
  without: { parts: Part[]; count: number }[];
};
const MOST_TOLD = 6;
/** Further parts of a question that long are passed over: each has a bit of its own. */
const MOST_PARTS = 30;
/** The bit of what may not be given up. */
const STOPPED = 1 << 30;

/** For each row the bits of the tests that stop it. Scratch that grows with the library. */
let stops = new Int32Array(0);

/**
 * @param tests - those that say what they are of may be given up; the others stop for good.
 * @returns null when nothing is left to give up.
 */
export function findNearest(count: number, tests: readonly Test[]): Nearest | null {
  const parts = tests.filter((t) => t.of).slice(0, MOST_PARTS);
  if (!parts.length) return null;
  if (stops.length < count) stops = new Int32Array(count);
  stops.fill(0, 0, count);
  for (const test of tests) if (!test.of) markStopped(test.passes, count, STOPPED);
  parts.forEach(({ passes }, k) => markStopped(passes, count, 1 << k));
  const { rows, lacks } = leastStopped(count);
  if (!rows.length) return null;
  const without = countStops(rows).map(([mask, n]) => ({
    parts: parts.flatMap(({ of, facet }, k) => ((mask >> k) & 1 ? [{ ...of!, facet }] : [])),
    count: n,
  }));
  return { rows, lacks, without };
}

/** The rows that the fewest parts of the question stop, and how many that are. */
function leastStopped(count: number): { rows: Int32Array; lacks: number } {
  const marks = stops;
  const most = MOST_PARTS + 1;
  const sizes = new Uint32Array(most);
  for (let i = 0; i < count; i++) if (marks[i]! < STOPPED) sizes[bitsIn(marks[i]!)]!++;
  const lacks = sizes.findIndex((n) => n > 0);
  const rows = new Int32Array(lacks < 0 ? 0 : sizes[lacks]!);
  let n = 0;
  for (let i = 0; n < rows.length; i++) if (marks[i]! < STOPPED && bitsIn(marks[i]!) === lacks) rows[n++] = i;
  return { rows, lacks };
}

/** What stops some rows, and how many of them; the most first. */
function countStops(rows: Int32Array): [number, number][] {
  const counts = new Map<number, number>();
  const marks = stops;
  // Neighbours are mostly stopped by the same.
  for (let from = 0, to = 0; from < rows.length; from = to) {
    const mask = marks[rows[from]!]!;
    while (to < rows.length && marks[rows[to]!] === mask) to++;
    counts.set(mask, (counts.get(mask) ?? 0) + to - from);
  }
  return [...counts].sort((a, b) => b[1] - a[1]).slice(0, MOST_TOLD);
}

/** Pairs of bits are summed, then fours, then bytes: the same steps for every mask. */
function bitsIn(mask: number): number {
  const pairs = mask - ((mask >>> 1) & 0x55555555);
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333);
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

// One loop a kind of test, as where rows are filtered.
function markStopped(passes: Passes, count: number, bit: number) {
  const marks = stops;
  if (passes.by === "row") {
    for (let i = 0; i < count; i++) if (!passes.passes(i)) marks[i]! |= bit;
  } else if (passes.by === "range") {
    const { low, high, min, max } = passes;
    for (let i = 0; i < count; i++) marks[i]! |= bit * (1 - isWithin(low[i]!, high[i]!, min, max));
  } else if (passes.of instanceof Uint8Array) markBytes(passes.of, passes.good, count, bit);
  else markWords(passes.of, passes.good, count, bit);
}
function markBytes(of: Uint8Array, good: Uint8Array, count: number, bit: number) {
  const marks = stops;
  for (let i = 0; i < count; i++) marks[i]! |= bit * (1 - good[of[i]!]!);
}
function markWords(of: Uint32Array, good: Uint8Array, count: number, bit: number) {
  const marks = stops;
  for (let i = 0; i < count; i++) marks[i]! |= bit * (1 - good[of[i]!]!);
}
