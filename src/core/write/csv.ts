// CSV as RFC 4180 has it, safe to open in a spreadsheet whatever its separator.

/** First characters by which a spreadsheet takes a text for a formula, full-width ones among them. */
const FORMULA = /^[\s]*[=+\-@\t\r\uff1d\uff0b\uff0d\uff20]/;

/** Texts are quoted always: a cell with ";" is no two cells where ";" separates. A formula gets an apostrophe in front. */
function writeCell(value: string | number | null): string {
  if (value === null) return "";
  if (typeof value === "number" || value === "") return String(value);
  return `"${(FORMULA.test(value) ? `'${value}` : value).replaceAll('"', '""')}"`;
}

/** Rows to CSV with CRLF line ends and a byte order mark, so that accents survive. @param head - our own words, without commas. */
export function writeCsv(head: string[], rows: (string | number | null)[][]): string {
  return "\ufeff" + [head.join(","), ...rows.map((r) => r.map(writeCell).join(","))].join("\r\n") + "\r\n";
}
