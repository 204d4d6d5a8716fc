// CLDR exemplar sets ("[a ą b {ch} …]") → the code points a language needs, small and capital.
// Source: UTS #35 part 2, exemplars, and the UnicodeSet notation as far as these sets use it.

/** @param set - as CLDR writes it. @param locale - for capitals ("i" in Turkish). @returns code points, ascending. */
export function parseExemplars(set: string, locale: string): number[] {
  const out = new Set<number>();
  const body = set
    .replace(/^\[|\]$/g, "")
    .replace(/\\u([0-9A-Fa-f]{4})|\\U([0-9A-Fa-f]{8})/g, (_, a: string, b: string) =>
      String.fromCodePoint(Number.parseInt(a ?? b, 16)),
    );
  for (const token of body.match(/\{[^}]*\}|\\.|[^\s]/gu) ?? []) {
    const plain = token.replace(/^\{|\}$/g, "").replace(/^\\/, "");
    for (const c of plain) {
      out.add(c.codePointAt(0)!);
      // "ß" has no capital of one character, "ŉ" neither.
      const capital = [...c.toLocaleUpperCase(locale)];
      if (capital.length === 1) out.add(capital[0]!.codePointAt(0)!);
    }
  }
  return expandRanges(body, out);
}

/** "a-z" stands for all between. */
function expandRanges(body: string, out: Set<number>): number[] {
  for (const m of body.matchAll(/(?<!\\)(\p{L})-(\p{L})/gu)) {
    out.delete("-".codePointAt(0)!);
    for (let c = m[1]!.codePointAt(0)!; c <= m[2]!.codePointAt(0)!; c++) out.add(c);
  }
  return [...out].sort((a, b) => a - b);
}
