// Names looked up by their beginning, a part, or with slips: fast enough for tens of thousands at every key press.
const { abs, min } = Math;

/**
 * A name by its letters and digits alone, in whatever script: "IM Fell" and "imfell" are one, "Größe" and "grosse" are not.
 * @returns lower case, without accents on Latin, Greek and Cyrillic letters, without spaces and signs. Empty only where there is no letter.
 */
export const squash = (s: string) =>
  s
    .normalize("NFKD")
    .replace(/[\u0300-\u036f]/g, "")
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{N}]/gu, "");

/** One Latin letter names nothing; one sign of another script may. */
export const isTooShort = (squashed: string) => squashed.length < 2 && /^[a-z0-9]*$/.test(squashed);

/** Another name of what stands at a position of the list. */
export type OtherName = { name: string; of: number };
export type NameIndex = {
  /** As given, without repeats. */
  names: readonly string[];
  /** Of the names, and behind them of what else they are called. */
  squashed: readonly string[];
  /** Position among the names, of each squashed one. */
  of: Int32Array;
  /** Squashed name → position. */
  at: ReadonlyMap<string, number>;
  /** One bit a letter that occurs: names that differ in many letters are passed over without counting edits. */
  letters: Int32Array;
  /** First letter → positions: a slip in the first letter is a swap with the second, or it is not forgiven. */
  byFirst: ReadonlyMap<string, Int32Array>;
};

/**
 * @param isListed - positions matter: names that occur twice stay twice.
 * @param others - what they are called besides; a name that is some other's own stays that one's.
 */
export function indexNames(names: Iterable<string>, isListed = false, others: readonly OtherName[] = []): NameIndex {
  const list = isListed ? [...names] : [...new Set(names)];
  const squashed = [...list, ...others.map((o) => o.name)].map(squash);
  const of = Int32Array.from([...list.keys(), ...others.map((o) => o.of)]);
  const at = new Map<string, number>();
  squashed.forEach((s, i) => s && !at.has(s) && at.set(s, of[i]!));
  const first = new Map<string, number[]>();
  squashed.forEach((s, i) => {
    const key = s[0] ?? "";
    const known = first.get(key);
    if (known) known.push(i);
    else first.set(key, [i]);
  });
  const byFirst = new Map([...first].map(([key, positions]) => [key, Int32Array.from(positions)]));
  return { names: list, squashed, of, at, letters: Int32Array.from(squashed, lettersOf), byFirst };
}

function lettersOf(s: string): number {
  let bits = 0;
  for (let i = 0; i < s.length; i++) {
    const c = s.charCodeAt(i);
    if (c >= 97 && c <= 122) bits |= 1 << (c - 97);
    else bits |= 1 << (26 + ((c - 48) % 5));
  }
  return bits;
}

function countBits(v: number): number {
  v -= (v >>> 1) & 0x55555555;
  v = (v & 0x33333333) + ((v >>> 2) & 0x33333333);
  return (((v + (v >>> 4)) & 0x0f0f0f0f) * 0x01010101) >>> 24;
}

/** Slips forgiven in a name of this length. */
export const slipsAllowed = (length: number) => (length >= 9 ? 3 : length >= 6 ? 2 : length >= 4 ? 1 : 0);

/**
 * How well each name answers to the words.
 * @returns position → 1 for the whole name, 0.9 for a beginning, 0.7 for a part, less for slips; names that do not are absent.
 */
export function matchNames(index: NameIndex, words: string): Map<number, number> {
  const asked = squash(words);
  const found = new Map<number, number>();
  if (isTooShort(asked)) return found;
  const note = (i: number, score: number) => {
    const at = index.of[i]!;
    if ((found.get(at) ?? 0) < score) found.set(at, score);
  };
  index.squashed.forEach((name, i) => {
    if (name === asked) note(i, 1);
    else if (name.startsWith(asked)) note(i, 0.9);
    else if (asked.length >= 4 && name.includes(asked)) note(i, 0.7);
  });
  const allowed = slipsAllowed(asked.length);
  if (allowed)
    for (const { at, slips } of nearNames(index, asked, allowed)) if (!found.has(at)) found.set(at, 0.8 - 0.1 * slips);
  return found;
}

/** Names within some slips of the squashed words, nearest first. */
export function nearNames(index: NameIndex, asked: string, allowed: number): { at: number; slips: number }[] {
  const out: { at: number; slips: number }[] = [];
  const bits = lettersOf(asked);
  for (const first of new Set([asked[0] ?? "", asked[1] ?? ""]))
    for (const i of index.byFirst.get(first) ?? []) {
      const name = index.squashed[i]!;
      if (abs(name.length - asked.length) > allowed) continue;
      // A slip changes at most two letters of the set (one replaced by another).
      if (countBits(bits ^ index.letters[i]!) > 2 * allowed) continue;
      const slips = editDistance(name, asked, allowed);
      if (slips <= allowed) out.push({ at: index.of[i]!, slips });
    }
  return out.sort((a, b) => a.slips - b.slips || a.at - b.at);
}

/**
 * Edits (insert, delete, replace, swap neighbours) from one word to another; stops counting beyond `limit`.
 * Source: optimal string alignment distance.
 */
export function editDistance(a: string, b: string, limit: number): number {
  const [n, m] = [a.length, b.length];
  if (abs(n - m) > limit) return limit + 1;
  if (m >= LONGEST || n >= LONGEST) return limit + 1;
  let [before, last, row] = distanceRows;
  for (let j = 0; j <= m; j++) last[j] = j;
  for (let i = 1; i <= n; i++) {
    const ca = a.charCodeAt(i - 1);
    row[0] = i;
    let least = i;
    for (let j = 1; j <= m; j++) {
      const cb = b.charCodeAt(j - 1);
      let v = min(last[j]! + 1, row[j - 1]! + 1, last[j - 1]! + (ca === cb ? 0 : 1));
      if (i > 1 && j > 1 && ca === b.charCodeAt(j - 2) && a.charCodeAt(i - 2) === cb) v = min(v, before[j - 2]! + 1);
      row[j] = v;
      if (v < least) least = v;
    }
    if (least > limit) return limit + 1;
    [before, last, row] = [last, row, before];
  }
  return last[m]!;
}

/** Longer names are no slip of anything. Scratch of `editDistance`. */
const LONGEST = 250;
const distanceRows = [new Uint8Array(LONGEST), new Uint8Array(LONGEST), new Uint8Array(LONGEST)] as const as [
  Uint8Array,
  Uint8Array,
  Uint8Array,
];
