// Ids that this page makes. Also where the page is not a secure context, so without crypto.randomUUID.

/** @param parts - of six letters and figures each. */
export const makeId = (parts: number): string =>
  Array.from({ length: parts }, () => Math.random().toString(36).slice(2, 8)).join("");
