// The order of what was found: by a value and then by name, families folded to one style each.
import type { SieveTrait } from "@/contracts/traits";
import type { FindIndex } from "./findIndex";

/**
 * What rows are ordered by, least first; NaN comes last.
 * @param fit - how well each row of `rows` fits; higher is better.
 * @returns one value a row, or null: by name alone.
 */
export function sortValues(
  sort: string,
  rows: Int32Array,
  fit: Float32Array,
  index: FindIndex,
  near: Float32Array | null,
): Float64Array | null {
  const down = sort.startsWith("-");
  const by = down ? sort.slice(1) : sort;
  if (by === "name") return null;
  const out = new Float64Array(rows.length);
  const fill = (valueOf: (i: number) => number) => {
    for (let k = 0; k < rows.length; k++) out[k] = valueOf(rows[k]!);
    return out;
  };
  if (by === "near" && near) return fill((i) => near[i]!);
  if (by === "newest") return fill((i) => -Date.parse(index.rows[i]!.addedAt));
  if (by === "popular") return fill((i) => -(index.rows[i]!.popularity ?? 0));
  if (by === "styles") return fill((i) => -index.families[index.family[i]!]!.styles);
  const column = index.traits[by as SieveTrait];
  if (column) return fill((i) => (down ? -column.values[i]! : column.values[i]!));
  for (let k = 0; k < rows.length; k++) out[k] = -fit[k]!;
  return out;
}

/** Steps that sort values are told apart by, over the range that a result has. */
const KEY_STEPS = 65_535;
/** Rows that can be had without sorting all: more than a page that a wall asks for. */
const FIRST_ROWS = 240;

/** Rows in an order that is only worked out as far as it is asked for. */
export type Ordered = {
  length: number;
  /** The first rows, at most FIRST_ROWS of them, without sorting the rest. */
  first: () => Uint32Array;
  all: () => Uint32Array;
};

/**
 * Sorts by value, then by name. NaN and infinite values come last.
 * @param rows - ascending, which is by name. @param values - one a row of `rows`, or null for the order of names alone. Neither is
 *   changed; both are kept.
 */
export function orderBy(rows: Int32Array, values: Float64Array | null): Ordered {
  if (!values) return inOrder(Uint32Array.from(rows));
  const steps = stepsOf(values);
  let first: Uint32Array | null = null;
  let all: Uint32Array | null = null;
  return {
    length: rows.length,
    first: () => (first ??= all ? all.subarray(0, FIRST_ROWS) : pickFirst(rows, steps)),
    all: () => (all ??= countInto(rows, steps)),
  };
}

/** Values as steps of their range, so that the order can be counted out instead of compared. */
function stepsOf(values: Float64Array): Uint16Array {
  let [low, high] = [Infinity, -Infinity];
  for (let k = 0; k < values.length; k++) {
    const v = values[k]!;
    if (v < low && v > -Infinity) low = v;
    if (v > high && v < Infinity) high = v;
  }
  const scale = high > low ? (KEY_STEPS - 1) / (high - low) : 0;
  const steps = new Uint16Array(values.length);
  for (let k = 0; k < values.length; k++) {
    const v = values[k]!;
    steps[k] = v === v && v < Infinity ? Math.round((v - low) * scale) : KEY_STEPS;
  }
  return steps;
}

/** The first rows by a heap whose top is the worst of them: nearly every row is passed over at one look. */
function pickFirst(rows: Int32Array, steps: Uint16Array): Uint32Array {
  // Steps and rows as one number, least first: both together stay below 2^53.
  const keyOf = (k: number) => steps[k]! * 4_294_967_296 + rows[k]!;
  const size = Math.min(FIRST_ROWS, rows.length);
  const heap = new Float64Array(size);
  const sink = (from: number, key: number) => {
    let at = from;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= size) break;
      if (child + 1 < size && heap[child + 1]! > heap[child]!) child++;
      if (heap[child]! <= key) break;
      heap[at] = heap[child]!;
      at = child;
    }
    heap[at] = key;
  };
  for (let k = 0; k < size; k++) heap[k] = keyOf(k);
  for (let at = (size >> 1) - 1; at >= 0; at--) sink(at, heap[at]!);
  for (let k = size; k < rows.length; k++) {
    const key = keyOf(k);
    if (key < heap[0]!) sink(0, key);
  }
  return Uint32Array.from(heap.sort(), (key) => key % 4_294_967_296);
}

/** The values of some rows, as an array of their own. */
export function valuesOf(rows: Int32Array, values: Float32Array): Float32Array {
  const out = new Float32Array(rows.length);
  for (let k = 0; k < rows.length; k++) out[k] = values[rows[k]!]!;
  return out;
}

/** Values are counted into steps, rows taken in their order: time grows with the rows alone. */
function countInto(rows: Int32Array, steps: Uint16Array): Uint32Array {
  const starts = new Uint32Array(KEY_STEPS + 2);
  for (let k = 0; k < steps.length; k++) starts[steps[k]! + 1]!++;
  for (let s = 1; s < starts.length; s++) starts[s]! += starts[s - 1]!;
  const order = new Uint32Array(rows.length);
  for (let k = 0; k < rows.length; k++) order[starts[steps[k]!]!++] = rows[k]!;
  return order;
}

/** Rows in the order that all rows stand in. @param most - no more than the first so many. */
function among(rows: Int32Array, standing: Uint32Array, most = rows.length): Uint32Array {
  const size = Math.min(most, rows.length);
  if (rows.length === standing.length) return standing.slice(0, size);
  const isIn = new Uint8Array(standing.length);
  for (let k = 0; k < rows.length; k++) isIn[rows[k]!] = 1;
  const out = new Uint32Array(size);
  let n = 0;
  for (let k = 0; n < size; k++) if (isIn[standing[k]!]) out[n++] = standing[k]!;
  return out;
}

/** An order with its rows in other places. @param arrange - of the first rows, or of all: as many as it was given. */
export function rearrange(ordered: Ordered, arrange: (list: Uint32Array) => Uint32Array): Ordered {
  let first: Uint32Array | null = null;
  let all: Uint32Array | null = null;
  return {
    length: ordered.length,
    first: () => (first ??= arrange(ordered.first())),
    all: () => (all ??= arrange(ordered.all())),
  };
}

/** A list that is in order already. */
export const inOrder = (list: Uint32Array): Ordered => ({ length: list.length, first: () => list, all: () => list });

/** Rows in an order that all rows stand in once and for all: nothing is compared. */
export function orderAlong(rows: Int32Array, standing: Uint32Array): Ordered {
  let first: Uint32Array | null = null;
  let all: Uint32Array | null = null;
  return {
    length: rows.length,
    first: () => (first ??= among(rows, standing, FIRST_ROWS)),
    all: () => (all ??= among(rows, standing)),
  };
}

/**
 * The style of each family that fits best, the plainest of those that fit alike: what stands for it where the best fitting come first.
 * @param rows - ascending, so that those of a family follow each other. @param scores - one a row of the index.
 * @returns one row per family, ascending, and how many rows each family has.
 */
export function bestOfFamilies(rows: Int32Array, index: FindIndex, scores: Float32Array) {
  const count = new Uint32Array(index.families.length);
  const best = new Int32Array(Math.min(rows.length, index.families.length));
  const families = chooseBest(rows, index.family, index.plainness, scores, count, best);
  return { rows: best.subarray(0, families), count };
}
// A loop over all rows is a function of its own with nothing behind it: V8 drops the compiled loop of one that goes on, at every call.
function chooseBest(
  rows: Int32Array,
  family: Uint32Array,
  plainness: Float32Array,
  scores: Float32Array,
  count: Uint32Array,
  best: Int32Array,
): number {
  let families = 0;
  let last = -1;
  let score = 0;
  for (let k = 0; k < rows.length; k++) {
    const i = rows[k]!;
    const own = Math.round(scores[i]! * SCORE_STEPS);
    const of = family[i]!;
    count[of]!++;
    if (of !== last) families++;
    else if (own < score || (own === score && plainness[i]! >= plainness[best[families - 1]!]!)) continue;
    best[families - 1] = i;
    last = of;
    score = own;
  }
  return families;
}
/** Scores that differ by less count as equal within a family. */
const SCORE_STEPS = 5;

/**
 * One row per family, at the place of its first.
 * @param order - rows in any order. @param rows - the same ascending. @param scores - one a row of the index.
 */
export function foldFamilies(order: Uint32Array, rows: Int32Array, index: FindIndex, scores: Float32Array) {
  const { rows: best, count } = bestOfFamilies(rows, index, scores);
  const bestOf = new Int32Array(index.families.length).fill(-1);
  for (const row of best) bestOf[index.family[row]!] = row;
  const folded = new Uint32Array(best.length);
  let n = 0;
  for (let k = 0; k < order.length; k++) {
    const of = index.family[order[k]!]!;
    if (bestOf[of]! >= 0) folded[n++] = bestOf[of]!;
    bestOf[of] = -1;
  }
  return { order: folded, count };
}

/** Shows the other styles of some families behind the one that stands for each. */
export function unfold(
  folded: Uint32Array,
  order: Uint32Array,
  index: FindIndex,
  open: ReadonlySet<number>,
): Uint32Array {
  const others = new Map([...open].map((family) => [family, [] as number[]]));
  const shown = new Set(folded);
  for (const i of order) if (!shown.has(i)) others.get(index.family[i]!)?.push(i);
  return Uint32Array.from([...folded].flatMap((i) => [i, ...(others.get(index.family[i]!) ?? [])]));
}
