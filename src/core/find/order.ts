// The order of what was found: by a value and then by name, families folded to one style each.
import { SLANTED_FROM_DEG, type SieveTrait } from "@/contracts/traits";
import type { FindIndex } from "./findIndex";

/** What rows are ordered by, least first; NaN comes last. Null: by name alone. */
export function sortKey(
  sort: string,
  index: FindIndex,
  score: (i: number) => number,
  near: Float32Array | null,
): ((i: number) => number) | null {
  const down = sort.startsWith("-");
  const by = down ? sort.slice(1) : sort;
  const { rows } = index;
  if (by === "name") return null;
  if (by === "fit") return (i) => -score(i);
  if (by === "near" && near) return (i) => near[i]!;
  if (by === "newest") return (i) => -Date.parse(rows[i]!.addedAt);
  if (by === "popular") return (i) => -(rows[i]!.popularity ?? 0);
  if (by === "styles") return (i) => -index.families[index.family[i]!]!.styles;
  const column = index.traits[by as SieveTrait];
  if (column) return (i) => (down ? -column.values[i]! : column.values[i]!);
  return (i) => -score(i);
}

/** Steps that sort values are told apart by, over the range that a result has. */
const KEY_STEPS = 65_535;

/**
 * Sorts by value, then by name: values are counted into steps, rows taken in the order of names. Time grows with the rows
 * alone, and nothing is compared. NaN and infinite values come last.
 */
export function orderBy(rows: Int32Array, value: ((i: number) => number) | null, index: FindIndex): Uint32Array {
  const named = inNameOrder(rows, index);
  if (!value) return named;
  const values = new Float64Array(named.length);
  let [low, high] = [Infinity, -Infinity];
  for (let k = 0; k < named.length; k++) {
    const v = value(named[k]!);
    values[k] = v;
    if (v < low && v > -Infinity) low = v;
    if (v > high && v < Infinity) high = v;
  }
  const scale = high > low ? (KEY_STEPS - 1) / (high - low) : 0;
  const steps = new Uint16Array(named.length);
  const starts = new Uint32Array(KEY_STEPS + 2);
  for (let k = 0; k < named.length; k++) {
    const v = values[k]!;
    const step = v === v && v < Infinity ? Math.round((v - low) * scale) : KEY_STEPS;
    steps[k] = step;
    starts[step + 1]!++;
  }
  for (let s = 1; s < starts.length; s++) starts[s]! += starts[s - 1]!;
  const order = new Uint32Array(named.length);
  for (let k = 0; k < named.length; k++) order[starts[steps[k]!]!++] = named[k]!;
  return order;
}

function inNameOrder(rows: Int32Array, index: FindIndex): Uint32Array {
  if (rows.length === index.rows.length) return index.byName.slice();
  const named = new Uint32Array(rows.length);
  if (rows.length < index.rows.length / 40) {
    for (let k = 0; k < rows.length; k++) named[k] = index.nameRank[rows[k]!]!;
    named.sort();
    for (let k = 0; k < named.length; k++) named[k] = index.byName[named[k]!]!;
    return named;
  }
  const isIn = new Uint8Array(index.rows.length);
  for (let k = 0; k < rows.length; k++) isIn[rows[k]!] = 1;
  let n = 0;
  for (let k = 0; k < index.byName.length; k++) if (isIn[index.byName[k]!]) named[n++] = index.byName[k]!;
  return named;
}

/** One row a family, at the place of its first: the best scored, then the plainest. */
export function foldFamilies(order: Uint32Array, index: FindIndex, score: (i: number) => number) {
  const places = new Map<number, { row: number; score: number; plain: number }>();
  const count = new Map<number, number>();
  for (const i of order) {
    const family = index.family[i]!;
    count.set(family, (count.get(family) ?? 0) + 1);
    const { traits } = index.rows[i]!;
    const own = {
      row: i,
      score: Math.round(score(i) * 5),
      plain: Math.abs((traits.weight ?? 900) - 400) + (Math.abs(traits.slantDeg ?? 0) > SLANTED_FROM_DEG ? 200 : 0),
    };
    const best = places.get(family);
    if (!best) places.set(family, own);
    else if (own.score > best.score || (own.score === best.score && own.plain < best.plain)) Object.assign(best, own);
  }
  return { order: Uint32Array.from([...places.values()], (p) => p.row), count };
}
