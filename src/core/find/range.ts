// The first screen shows what there is: among faces that fit alike, one style per family, each as far as can be from those before it.
import { distancesIn } from "./alike";
import type { FindIndex } from "./findIndex";
import { rearrange, type Ordered } from "./order";

/** Places that are chosen for their range; the rest follow by their fit. */
const PLACES = 48;
/** Fits that differ by less count as equal. */
const FIT_STEP = 0.1;
/** Families that are looked at for one screen: of very many alike, every so many-th. */
const CANDIDATES = 400;

type Candidate = { row: number; step: number };

/**
 * An order whose first places span what fits best.
 * @param ordered - the order by fit alone. @param rows - all rows of it. @param fitOf - of a row of the index; higher is better.
 */
export function orderByRange(
  ordered: Ordered,
  rows: Int32Array,
  fitOf: (row: number) => number,
  index: FindIndex,
): Ordered {
  let chosen: number[] | null = null;
  const choose = () => (chosen ??= spread(chooseCandidates(rows, fitOf, index), index));
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
function chooseCandidates(rows: Int32Array, fitOf: (row: number) => number, index: FindIndex): Candidate[] {
  const best = new Int32Array(index.families.length).fill(-1);
  const steps = new Int32Array(index.families.length);
  for (const row of rows) {
    const family = index.family[row]!;
    const step = Math.round(fitOf(row) / FIT_STEP);
    const held = best[family]!;
    if (
      held < 0 ||
      step > steps[family]! ||
      (step === steps[family]! && index.plainness[row]! < index.plainness[held]!)
    ) {
      best[family] = row;
      steps[family] = step;
    }
  }
  const byStep = new Map<number, number[]>();
  best.forEach((row, family) => {
    if (row < 0) return;
    const list = byStep.get(steps[family]!);
    if (list) list.push(row);
    else byStep.set(steps[family]!, [row]);
  });
  const out: Candidate[] = [];
  for (const [step, list] of [...byStep].sort((a, b) => b[0] - a[0])) {
    const named = Uint32Array.from(list, (row) => index.nameRank[row]!).sort();
    const stride = Math.max(1, Math.ceil(named.length / CANDIDATES));
    for (let k = 0; k < named.length; k += stride) out.push({ row: index.byName[named[k]!]!, step });
    if (out.length >= PLACES) break;
  }
  return out;
}

/** Farthest first, step by step of fit: the first is the plainest of the best step. */
function spread(candidates: Candidate[], index: FindIndex): number[] {
  const chosen: number[] = [];
  const distance = distancesIn(
    index,
    candidates.map((c) => c.row),
  );
  const nearest = new Float64Array(candidates.length).fill(Infinity);
  const isTaken = new Uint8Array(candidates.length);
  for (let from = 0; from < candidates.length && chosen.length < PLACES;) {
    let to = from;
    while (to < candidates.length && candidates[to]!.step === candidates[from]!.step) to++;
    for (let n = from; n < to && chosen.length < PLACES; n++) {
      let next = -1;
      for (let k = from; k < to; k++) if (!isTaken[k] && (next < 0 || comesBefore(k, next))) next = k;
      isTaken[next] = 1;
      const { row } = candidates[next]!;
      chosen.push(row);
      for (let k = from; k < candidates.length; k++)
        if (!isTaken[k]) nearest[k] = Math.min(nearest[k]!, distance(next, k, nearest[k]));
    }
    from = to;
  }
  return chosen;

  function comesBefore(k: number, held: number): boolean {
    if (nearest[k]! !== nearest[held]!) return nearest[k]! > nearest[held]!;
    return !chosen.length && index.plainness[candidates[k]!.row]! < index.plainness[candidates[held]!.row]!;
  }
}
