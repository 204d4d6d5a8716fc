// The id of a kept face: the same face at the same place on its axes, with the same features, is the same kept face.

/** @param location, features - empty: as the face comes. @returns "k_" and letters of the style's id, with a digest where it is set otherwise. */
export function keptIdOf(
  styleId: string,
  location: Readonly<Record<string, number>> = {},
  features: Readonly<Record<string, number>> = {},
): string {
  const told = [location, features].map((r) => Object.entries(r).sort(([a], [b]) => (a < b ? -1 : 1)));
  const plain = `k_${styleId.slice(2)}`;
  return told.some((list) => list.length) ? `${plain}-${digest(JSON.stringify(told))}` : plain;
}

/** 53-bit digest of a short text (cyrb53): tells settings of one face apart, guards nothing. */
function digest(text: string): string {
  let [h1, h2] = [0xdeadbeef, 0x41c6ce57];
  for (const c of text) {
    const code = c.codePointAt(0)!;
    h1 = Math.imul(h1 ^ code, 2654435761);
    h2 = Math.imul(h2 ^ code, 1597334677);
  }
  h1 = Math.imul(h1 ^ (h1 >>> 16), 2246822507) ^ Math.imul(h2 ^ (h2 >>> 13), 3266489909);
  h2 = Math.imul(h2 ^ (h2 >>> 16), 2246822507) ^ Math.imul(h1 ^ (h1 >>> 13), 3266489909);
  return (4294967296 * (2097151 & h2) + (h1 >>> 0)).toString(36);
}
