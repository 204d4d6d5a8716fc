// A few rows of the index exchanged for others that differ in little: tags, verdicts, health. What a person just said is found at once,
// however large the library is; whatever changes more waits until the whole index is made again.
import {
  COUNTED_SHARED,
  MAX_COMBINATIONS,
  type Column,
  type FindIndex,
  type FindRow,
  type Packed,
  type Shared,
} from "./findIndex";

/** The columns that may change, with what a row has in each. */
const CHANGING = {
  moods: (r: FindRow) => (r.moods ?? []).map((m) => m.value),
  verdicts: (r: FindRow) => r.verdicts,
  health: (r: FindRow) => r.health,
} as const;
type Changing = keyof typeof CHANGING;
const NAMES = Object.keys(CHANGING) as Changing[];

/** Whether two rows of one style differ in nothing but tags, verdicts and health. */
export function differsLittle(a: FindRow, b: FindRow): boolean {
  const rest = ({ moods: _m, verdicts: _v, health: _h, ...others }: FindRow) => JSON.stringify(others);
  return a.coverage === b.coverage && a.features === b.features && rest(a) === rest(b);
}

/**
 * @param changed - place in the index → the row that takes it. Each differs little from the one that is there.
 * @returns a new index that shares all else with the old one; null when it has to be made again.
 */
export function replaceRows(index: FindIndex, changed: ReadonlyMap<number, FindRow>): FindIndex | null {
  const rows = index.rows.slice();
  for (const [at, row] of changed) rows[at] = row;
  const next = { ...index, rows };
  for (const name of NAMES) {
    const before = index[name] as Shared<unknown>;
    const after = replaceShared(before, changed, CHANGING[name]);
    if (!after) return null;
    if (after === before) continue;
    Object.assign(next, { [name]: after });
    const counted = (COUNTED_SHARED as readonly string[]).includes(name);
    const packed =
      counted && next.packed.length ? replacePacked(next.packed, before.of, after.of, changed) : next.packed;
    if (!packed) return null;
    next.packed = packed;
  }
  return next;
}

function replaceShared<T>(
  shared: Shared<T>,
  changed: ReadonlyMap<number, FindRow>,
  valueOf: (row: FindRow) => T,
): Shared<T> | null {
  const idOf = new Map(shared.list.map((v, id) => [JSON.stringify(v), id]));
  const list = [...shared.list];
  const ids = new Map<number, number>();
  for (const [at, row] of changed) {
    const value = valueOf(row);
    const key = JSON.stringify(value);
    let id = idOf.get(key);
    if (id === undefined) {
      idOf.set(key, (id = list.length));
      list.push(value);
    }
    if (shared.of[at] !== id) ids.set(at, id);
  }
  if (!ids.size) return shared;
  const isWide = list.length > 256 && shared.of instanceof Uint8Array;
  const of = isWide ? Uint32Array.from(shared.of) : shared.of.slice();
  for (const [at, id] of ids) of[at] = id;
  return { of, list };
}

/** The combinations that the changed rows have now, in the one pack that counts the column. */
function replacePacked(
  packed: readonly Packed[],
  before: Column,
  after: Column,
  changed: ReadonlyMap<number, FindRow>,
): Packed[] | null {
  const which = packed.findIndex((p) => p.columns.includes(before));
  if (which < 0) return null;
  const old = packed[which]!;
  const place = old.columns.indexOf(before);
  const parts = old.parts.map((p) => [...p]);
  const keyOf = (combination: number, value = parts[place]![combination]!) =>
    parts.map((p, c) => (c === place ? value : p[combination]!)).join();
  const at = new Map(parts[0]!.map((_, combination) => [keyOf(combination), combination]));
  const of = old.of.slice();
  for (const row of changed.keys()) {
    const was = of[row]!;
    const value = after[row]!;
    const key = keyOf(was, value);
    let combination = at.get(key);
    if (combination === undefined) {
      combination = parts[0]!.length;
      if (combination >= MAX_COMBINATIONS) return null;
      parts.forEach((p, c) => p.push(c === place ? value : p[was]!));
      at.set(key, combination);
    }
    of[row] = combination;
  }
  const next: Packed = {
    of,
    size: parts[0]!.length,
    columns: old.columns.map((c) => (c === before ? after : c)),
    parts: parts.map((p) => Uint32Array.from(p)),
    values: old.values.map((most, c) => Math.max(most, ...parts[c]!.slice(old.size).map((v) => v + 1))),
  };
  return packed.map((p, i) => (i === which ? next : p));
}
