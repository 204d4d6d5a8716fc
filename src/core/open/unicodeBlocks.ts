// Unicode blocks and how much of each a font covers. Block names and ends: Unicode 16, Blocks.txt (those fonts of this trade use).
import type { CodePointRanges } from "@/contracts/traits";

// prettier-ignore
const BLOCKS: [string, number, number][] = [
  ["Basic Latin", 0x20, 0x7f], ["Latin-1 Supplement", 0xa0, 0xff], ["Latin Extended-A", 0x100, 0x17f],
  ["Latin Extended-B", 0x180, 0x24f], ["IPA Extensions", 0x250, 0x2af], ["Spacing Modifier Letters", 0x2b0, 0x2ff],
  ["Combining Diacritical Marks", 0x300, 0x36f], ["Greek and Coptic", 0x370, 0x3ff], ["Cyrillic", 0x400, 0x4ff],
  ["Cyrillic Supplement", 0x500, 0x52f], ["Armenian", 0x530, 0x58f], ["Hebrew", 0x590, 0x5ff], ["Arabic", 0x600, 0x6ff],
  ["Devanagari", 0x900, 0x97f], ["Thai", 0xe00, 0xe7f], ["Georgian", 0x10a0, 0x10ff],
  ["Phonetic Extensions", 0x1d00, 0x1d7f], ["Latin Extended Additional", 0x1e00, 0x1eff], ["Greek Extended", 0x1f00, 0x1fff],
  ["General Punctuation", 0x2000, 0x206f], ["Superscripts and Subscripts", 0x2070, 0x209f], ["Currency Symbols", 0x20a0, 0x20cf],
  ["Letterlike Symbols", 0x2100, 0x214f], ["Number Forms", 0x2150, 0x218f], ["Arrows", 0x2190, 0x21ff],
  ["Mathematical Operators", 0x2200, 0x22ff], ["Miscellaneous Technical", 0x2300, 0x23ff], ["Control Pictures", 0x2400, 0x243f],
  ["Enclosed Alphanumerics", 0x2460, 0x24ff], ["Box Drawing", 0x2500, 0x257f], ["Block Elements", 0x2580, 0x259f],
  ["Geometric Shapes", 0x25a0, 0x25ff], ["Miscellaneous Symbols", 0x2600, 0x26ff], ["Dingbats", 0x2700, 0x27bf],
  ["Braille Patterns", 0x2800, 0x28ff], ["Supplemental Arrows-B", 0x2900, 0x297f], ["Miscellaneous Symbols and Arrows", 0x2b00, 0x2bff],
  ["Latin Extended-C", 0x2c60, 0x2c7f], ["Supplemental Punctuation", 0x2e00, 0x2e7f], ["CJK Symbols and Punctuation", 0x3000, 0x303f],
  ["Latin Extended-D", 0xa720, 0xa7ff], ["Private Use Area", 0xe000, 0xf8ff], ["Alphabetic Presentation Forms", 0xfb00, 0xfb4f],
  ["Variation Selectors", 0xfe00, 0xfe0f], ["Specials", 0xfff0, 0xffff], ["Mathematical Alphanumeric Symbols", 0x1d400, 0x1d7ff],
  ["Miscellaneous Symbols and Pictographs", 0x1f300, 0x1f5ff], ["Emoticons", 0x1f600, 0x1f64f], ["Transport and Map Symbols", 0x1f680, 0x1f6ff],
];

const assigned = new Map<string, number>();
function assignedIn(name: string, start: number, end: number): number {
  let known = assigned.get(name);
  if (known === undefined) {
    known = 0;
    for (let c = start; c <= end; c++) if (!/\p{Cn}|\p{Cc}/u.test(String.fromCodePoint(c))) known++;
    assigned.set(name, known);
  }
  return known;
}

/** The block a code point lies in; "Other" where the table has none. */
export function blockOf(codePoint: number): string {
  return BLOCKS.find(([, start, end]) => codePoint >= start && codePoint <= end)?.[0] ?? "Other";
}

/** Turns a list of code points into ascending inclusive ranges. */
export function toRanges(codePoints: Iterable<number>): CodePointRanges {
  const sorted = [...codePoints].sort((a, b) => a - b);
  const ranges: CodePointRanges = [];
  for (const c of sorted) {
    const last = ranges[ranges.length - 1];
    if (last && c <= last[1] + 1) last[1] = Math.max(last[1], c);
    else ranges.push([c, c]);
  }
  return ranges;
}

/** Whether the ranges hold the code point. */
export function hasCodePoint(ranges: CodePointRanges, codePoint: number): boolean {
  return ranges.some(([from, to]) => codePoint >= from && codePoint <= to);
}

/** Per block touched: how many of its assigned characters are covered. */
export function describeCoverage(ranges: CodePointRanges) {
  const have = new Map<string, number>();
  let count = 0;
  for (const [from, to] of ranges)
    for (let c = from; c <= to; c++) {
      count++;
      const name = blockOf(c);
      have.set(name, (have.get(name) ?? 0) + 1);
    }
  const blocks = [...have].map(([name, n]) => {
    const block = BLOCKS.find((b) => b[0] === name);
    return { name, have: n, of: block ? assignedIn(block[0], block[1], block[2]) : n };
  });
  return { count, blocks };
}
