// Small wordings shared by views: prices, times.

export const writePrice = (cents: number, currency: string) =>
  new Intl.NumberFormat("en-GB", { style: "currency", currency, currencyDisplay: "code" })
    .format(cents / 100)
    .replace(/\u00a0/g, " ");

export const writeWhen = (iso: string) =>
  new Date(iso).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" });

export const countOf = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
