// The first screen shows what there is: among faces that fit alike, one style per family, each as far as can be from those before it.
import { WALL_PAGE } from "@/contracts/styles";
import { distancesIn } from "./alike";
import type { FindIndex } from "./findIndex";
import { rearrange, type Ordered } from "./order";

/** Places that are chosen for their range; the rest follow by their fit. */
const PLACES = WALL_PAGE;
/** Fits that differ by less count as equal. */
const FIT_STEP = 0.1;
/** Families that are looked at for one screen: of very many alike, every so many-th. */
const CANDIDATES = 400;

type Candidate = { row: number; step: number };

/**
 * An order whose first places span what fits best.
 * @param ordered - the order by fit alone. @param rows - all rows of it, ascending. @param fits - one a row of `rows`; higher is better.
 */
export function orderByRange(ordered: Ordered, rows: Int32Array, fits: Float32Array, index: FindIndex): Ordered {
  let chosen: number[] | null = null;
  const choose = () => (chosen ??= spread(chooseCandidates(rows, fits, index), index));
  return rearrange(ordered, (list) => {
    const own = new Set(choose());
    const out = new Uint32Array(list.length);
    let n = 0;
    for (const row of choose()) if (n < out.length) out[n++] = row;
    for (const row of list) if (n < out.length && !own.has(row)) out[n++] = row;
    return out;
  });
}

/** The style of each family that fits best, the plainest among equals: families of the best steps, the best first, no more than are looked at. */
function chooseCandidates(rows: Int32Array, fits: Float32Array, index: FindIndex): Candidate[] {
  const { best, steps, families } = bestByStep(rows, fits, index);
  const sizes = countSteps(steps.subarray(0, families));
  const out: Candidate[] = [];
  for (const [step, size] of [...sizes].sort((a, b) => b[0] - a[0])) {
    const stride = Math.max(1, Math.ceil(size / CANDIDATES));
    let n = 0;
    for (let f = 0; f < families; f++) if (steps[f] === step && n++ % stride === 0) out.push({ row: best[f]!, step });
    if (out.length >= PLACES) break;
  }
  return out;
}

/** How many there are of each step. */
function countSteps(steps: Int32Array): Map<number, number> {
  const sizes = new Map<number, number>();
  for (let from = 0, to = 0; from < steps.length; from = to) {
    while (to < steps.length && steps[to] === steps[from]) to++;
    sizes.set(steps[from]!, (sizes.get(steps[from]!) ?? 0) + to - from);
  }
  return sizes;
}

/** The row that stands for each family that is asked for, in the order of names, and the step of its fit. */
function bestByStep(rows: Int32Array, fits: Float32Array, { family, plainness }: FindIndex) {
  const best = new Int32Array(rows.length);
  const steps = new Int32Array(rows.length);
  return { best, steps, families: chooseByStep(rows, fits, family, plainness, best, steps) };
}
// With nothing behind its loop, as in order.ts.
function chooseByStep(
  rows: Int32Array,
  fits: Float32Array,
  family: Uint32Array,
  plainness: Float32Array,
  best: Int32Array,
  steps: Int32Array,
): number {
  let families = 0;
  let last = -1;
  for (let k = 0; k < rows.length; k++) {
    const row = rows[k]!;
    const step = Math.round(fits[k]! / FIT_STEP);
    const held = families - 1;
    if (family[row] !== last) families++;
    else if (step < steps[held]! || (step === steps[held]! && plainness[row]! >= plainness[best[held]!]!)) continue;
    best[families - 1] = row;
    steps[families - 1] = step;
    last = family[row]!;
  }
  return families;
}

/** Farthest first, step by step of fit: the first is the plainest of the best step. */
function spread(candidates: Candidate[], index: FindIndex): number[] {
  const rows = candidates.map((c) => c.row);
  const distance = distancesIn(index, rows);
  /** At most so far from what is chosen: known of the first so many of them, and less as more are looked at. */
  const atMost = new Float64Array(rows.length).fill(Infinity);
  const known = new Uint8Array(rows.length);
  const isTaken = new Uint8Array(rows.length);
  const chosen: number[] = [];
  const choose = (place: number) => {
    isTaken[place] = 1;
    chosen.push(place);
  };
  for (let from = 0; from < rows.length && chosen.length < PLACES;) {
    let to = from;
    while (to < rows.length && candidates[to]!.step === candidates[from]!.step) to++;
    if (!chosen.length) choose(plainest(from, to));
    for (let next = 0; next >= 0 && chosen.length < PLACES;) {
      next = farthest(from, to);
      if (next >= 0) choose(next);
    }
    from = to;
  }
  return chosen.map((place) => rows[place]!);

  function plainest(from: number, to: number): number {
    let held = from;
    for (let k = from; k < to; k++) if (index.plainness[rows[k]!]! < index.plainness[rows[held]!]!) held = k;
    return held;
  }

  /** The candidate farthest from all that is chosen, of equals the first. Only one that may be farther than the best so far is measured. */
  function farthest(from: number, to: number): number {
    let best = -1;
    let held = -1;
    for (let k = from; k < to; k++) {
      if (isTaken[k] || atMost[k]! <= held) continue;
      let most = atMost[k]!;
      let n = known[k]!;
      for (; n < chosen.length && most > held; n++) most = Math.min(most, distance(chosen[n]!, k, most));
      atMost[k] = most;
      known[k] = n;
      if (most > held) [best, held] = [k, most];
    }
    return best;
  }
}
