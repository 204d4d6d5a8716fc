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

/** How long something takes: "48 s", "3 min 20 s". */
export function writeSeconds(seconds: number): string {
  const whole = Math.round(seconds);
  return whole < 60 ? `${whole} s` : `${Math.floor(whole / 60)} min ${whole % 60} s`;
}

export const writeWhen = (iso: string) =>
  new Date(iso).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" });

export const countOf = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
