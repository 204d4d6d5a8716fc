// Ranges of code points: how they are written, searched, and how much of each Unicode block a font covers.
import { listUnicodeBlocks, unicodeBlock, unicodeBlockInfo } from "unicode-block";
import type { CodePointRanges } from "@/contracts/traits";
import { subtractRanges } from "./ranges";

type Block = { name: string; first: number; last: number };
/** Blocks.txt in the order of code points. */
const BLOCKS: Block[] = [...listUnicodeBlocks()]
  .flatMap((name) => {
    const info = unicodeBlockInfo(name);
    return info ? [{ name, first: info.first, last: info.last }] : [];
  })
  .sort((a, b) => a.first - b.first);

/** Characters of a block that are assigned and no controls, counted once per block and kept. */
function countAssigned({ first, last }: Block): number {
  let count = 0;
  for (let c = first; c <= last; c++) if (!/\p{Cn}|\p{Cc}|\p{Cs}/u.test(String.fromCodePoint(c))) count++;
  return count;
}

/** The block a code point lies in; "Other" where there is none. */
export function blockOf(codePoint: number): string {
  const name = unicodeBlock(codePoint);
  return !name || name === "No_Block" ? "Other" : name;
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

const countIn = (ranges: CodePointRanges, first: number, last: number) =>
  ranges.reduce((sum, [from, to]) => sum + Math.max(0, Math.min(to, last) - Math.max(from, first) + 1), 0);

/** Fonts map some of them to empty glyphs; they are no characters that one sets (General_Category Cc). */
const CONTROLS: CodePointRanges = [
  [0, 0x1f],
  [0x7f, 0x9f],
];

/** Per block touched, in the order of code points: how many of its assigned characters are covered. Controls do not count. */
export function describeCoverage(covered: CodePointRanges) {
  const ranges = subtractRanges(covered, CONTROLS);
  const count = countIn(ranges, 0, 0x10ffff);
  const blocks = BLOCKS.flatMap((block) => {
    const have = countIn(ranges, block.first, block.last);
    return have ? [{ name: block.name, have, of: Math.max(have, countAssigned(block)) }] : [];
  });
  const elsewhere = count - blocks.reduce((sum, b) => sum + b.have, 0);
  return { count, blocks: elsewhere ? [...blocks, { name: "Other", have: elsewhere, of: elsewhere }] : blocks };
}
