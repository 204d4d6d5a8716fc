// Small wordings shared by views: prices, times.

/** "EUR 86", "EUR 86.50": cents only where there are some. */
export const writePrice = (cents: number, currency: string) =>
  `${currency} ${(cents / 100).toLocaleString("en-GB", cents % 100 ? { minimumFractionDigits: 2 } : {})}`;

export const writeWhen = (iso: string) =>
  new Date(iso).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" });

export const countOf = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
