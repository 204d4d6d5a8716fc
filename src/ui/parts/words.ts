// Small wordings shared by views: prices, times.

/** "€86", "€86.50", "US$40": cents only where there are some. A currency that is none (a catalogue may say anything) stands as it is. */
export function writePrice(cents: number, currency: string): string {
  try {
    return new Intl.NumberFormat("en-GB", {
      style: "currency",
      currency,
      trailingZeroDisplay: "stripIfInteger",
    }).format(cents / 100);
  } catch {
    return `${currency} ${cents / 100}`;
  }
}

export const writeWhen = (iso: string) =>
  new Date(iso).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" });

export const countOf = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
