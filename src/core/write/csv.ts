// CSV as RFC 4180 has it, safe to open in a spreadsheet.

/** A cell; text that a spreadsheet would take for a formula gets an apostrophe in front. */
function writeCell(value: string | number | null): string {
  if (value === null) return "";
  const text = typeof value === "string" && /^[=+\-@\t\r]/.test(value) ? `'${value}` : String(value);
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}

/** Rows to CSV with CRLF line ends and a byte order mark, so that accents survive. */
export function writeCsv(head: string[], rows: (string | number | null)[][]): string {
  return "\ufeff" + [head, ...rows].map((r) => r.map(writeCell).join(",")).join("\r\n") + "\r\n";
}
