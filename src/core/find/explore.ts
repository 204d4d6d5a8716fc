// A little of what nothing is known of, among what was learnt: every twelfth place of the first ones shows a face that is still likely but
// unlike all that was marked. Whether it is kept teaches more than another one of the same.
import { distancesIn } from "./alike";
import type { FindIndex } from "./findIndex";
import { rearrange, type Ordered } from "./order";

/** Every so many-th place, as far as the first screens go. */
const EVERY = 12;
const PLACES = 4;
/** Rows looked at; of very many every so many-th. */
const CANDIDATES = 400;

/**
 * @param ordered - best first. @param rows - all rows of it. @param fits - one a row of `rows`; higher is better.
 * @param marked - rows that were kept or set aside.
 * @returns the order with the unfamiliar ones brought forward, and which these are.
 */
export function orderWithUnfamiliar(
  ordered: Ordered,
  rows: Int32Array,
  fits: Float32Array,
  marked: readonly number[],
  index: FindIndex,
): { shown: Ordered; isUnfamiliar: (row: number) => boolean } {
  let chosen: number[] | null = null;
  const choose = () => (chosen ??= chooseUnfamiliar(rows, fits, marked, index));
  const shown = rearrange(ordered, (list) => {
    const own = new Set(choose());
    const waiting = [...choose()];
    const out = new Uint32Array(list.length);
    let n = 0;
    for (const row of list) {
      if (n % EVERY === EVERY - 1 && waiting.length) out[n++] = waiting.shift()!;
      if (n < out.length && !own.has(row)) out[n++] = row;
    }
    // Those that did not reach their places stand at the end.
    for (const row of waiting) if (n < out.length) out[n++] = row;
    return out;
  });
  return { shown, isUnfamiliar: (row) => choose().includes(row) };
}

/** Of the better half, those farthest from all that was marked, and from each other. */
function chooseUnfamiliar(rows: Int32Array, fits: Float32Array, marked: readonly number[], index: FindIndex): number[] {
  // Fewer than two screens are seen anyway.
  if (rows.length < 2 * EVERY || !marked.length) return [];
  const isMarked = new Set(marked);
  const stride = Math.max(1, Math.ceil(rows.length / CANDIDATES));
  const some: { row: number; fit: number }[] = [];
  for (let k = 0; k < rows.length; k += stride)
    if (!isMarked.has(rows[k]!)) some.push({ row: rows[k]!, fit: fits[k]! });
  some.sort((a, b) => b.fit - a.fit || a.row - b.row);
  const likely = some.slice(0, Math.ceil(some.length / 2)).map((s) => s.row);
  const distance = distancesIn(index, [...likely, ...marked]);
  const nearest = likely.map((_, k) => Math.min(...marked.map((__, m) => distance(k, likely.length + m))));
  const out: number[] = [];
  while (out.length < Math.min(PLACES, likely.length)) {
    const next = nearest.indexOf(Math.max(...nearest));
    out.push(likely[next]!);
    nearest.forEach((d, k) => (nearest[k] = k === next ? -1 : Math.min(d, distance(next, k))));
  }
  return out;
}
