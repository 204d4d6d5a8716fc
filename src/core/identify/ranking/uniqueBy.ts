// Of a ranked list, the first of each style, entry or family.

/** @param keyOf - what an item is one of. @returns the first item of each, in their order. */
export function uniqueBy<T>(list: readonly T[], keyOf: (item: T) => unknown): T[] {
  const seen = new Set<unknown>();
  return list.filter((item) => {
    const key = keyOf(item);
    return seen.has(key) ? false : seen.add(key);
  });
}
