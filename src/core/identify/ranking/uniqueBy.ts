// Of a ranked list, the first or the first few of each style, entry or family.

/** @param keyOf - what an item is one of. @returns the first item of each, in their order. */
export function uniqueBy<T>(list: readonly T[], keyOf: (item: T) => unknown): T[] {
  const seen = new Set<unknown>();
  return list.filter((item) => {
    const key = keyOf(item);
    return seen.has(key) ? false : seen.add(key);
  });
}

/** Puts those behind that follow `most` others of their kind: `[a, a, a, b]` with 2 → `[a, a, b, a]`. @param keyOf - what an item is one of. */
export function fewOfEachFirst<T>(list: readonly T[], most: number, keyOf: (item: T) => unknown): T[] {
  const seen = new Map<unknown, number>();
  const [first, behind]: [T[], T[]] = [[], []];
  for (const item of list) {
    const key = keyOf(item);
    const before = seen.get(key) ?? 0;
    seen.set(key, before + 1);
    (before < most ? first : behind).push(item);
  }
  return [...first, ...behind];
}
