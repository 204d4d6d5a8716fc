// When nothing is all that was asked: what comes nearest, and what each part of the question costs.
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
const MOST_PARTS = 31;
const OUT = 255;

/**
 * @param tests - those that say what they are of may be given up; the others stop for good.
 * @returns null when nothing is left to give up.
 */
export function findNearest(count: number, tests: readonly Test[]): Nearest | null {
  const lacks = new Uint8Array(count);
  const missing = new Uint32Array(count);
  const parts = tests.filter((t) => t.of).slice(0, MOST_PARTS);
  if (!parts.length) return null;
  for (const test of tests) if (!test.of) markStopped(test.passes, count, (i) => (lacks[i] = OUT));
  parts.forEach(({ passes }, k) =>
    markStopped(passes, count, (i) => {
      if (lacks[i] === OUT) return;
      lacks[i]!++;
      missing[i]! |= 1 << k;
    }),
  );
  const least = lacks.reduce((a, b) => Math.min(a, b), OUT);
  if (least === OUT) return null;
  const rows: number[] = [];
  const counts = new Map<number, number>();
  for (let i = 0; i < count; i++) {
    if (lacks[i] !== least) continue;
    rows.push(i);
    counts.set(missing[i]!, (counts.get(missing[i]!) ?? 0) + 1);
  }
  const without = [...counts]
    .sort((a, b) => b[1] - a[1])
    .slice(0, MOST_TOLD)
    .map(([mask, n]) => ({
      parts: parts.flatMap(({ of, facet }, k) => ((mask >> k) & 1 ? [{ ...of!, facet }] : [])),
      count: n,
    }));
  return { rows: Int32Array.from(rows), lacks: least, without };
}

function markStopped(passes: Passes, count: number, mark: (i: number) => void) {
  const isGood = goodOf(passes);
  for (let i = 0; i < count; i++) if (!isGood(i)) mark(i);
}

function goodOf(passes: Passes): (i: number) => boolean {
  if (passes.by === "row") return passes.passes;
  if (passes.by === "range") return (i) => passes.high[i]! >= passes.min && passes.low[i]! <= passes.max;
  return (i) => passes.good[passes.of[i]!] === 1;
}
