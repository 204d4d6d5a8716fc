// Sets of code points as ascending inclusive ranges.
import type { CodePointRanges } from "@/contracts/traits";

export const countCodePoints = (ranges: CodePointRanges) => ranges.reduce((n, [from, to]) => n + to - from + 1, 0);

/** All code points of several sets. */
export function uniteRanges(sets: readonly CodePointRanges[]): CodePointRanges {
  const united: CodePointRanges = [];
  for (const [from, to] of sets.flat().sort((a, b) => a[0] - b[0])) {
    const last = united[united.length - 1];
    if (last && from <= last[1] + 1) last[1] = Math.max(last[1], to);
    else united.push([from, to]);
  }
  return united;
}

/** Code points that both sets have. */
function intersectRanges(a: CodePointRanges, b: CodePointRanges): CodePointRanges {
  const shared: CodePointRanges = [];
  let [i, j] = [0, 0];
  while (i < a.length && j < b.length) {
    const from = Math.max(a[i]![0], b[j]![0]);
    const to = Math.min(a[i]![1], b[j]![1]);
    if (from <= to) shared.push([from, to]);
    if (a[i]![1] < b[j]![1]) i++;
    else j++;
  }
  return shared;
}

const LATIN_ALPHABET: CodePointRanges = [
  [0x41, 0x5a],
  [0x61, 0x7a],
];
/** Capitals alone are an alphabet too. */
const LETTERS_ENOUGH = 20;
/** Whether a font has the Latin alphabet, by its characters. */
export const hasLatinAlphabet = (coverage: CodePointRanges) =>
  countCodePoints(intersectRanges(coverage, LATIN_ALPHABET)) >= LETTERS_ENOUGH;

/** As CSS `unicode-range` writes them. */
export const writeUnicodeRange = (ranges: CodePointRanges) =>
  ranges
    .map(([from, to]) => `U+${from.toString(16).toUpperCase()}${to > from ? `-${to.toString(16).toUpperCase()}` : ""}`)
    .join(", ");

/** Whether a set has no code point that another lacks. */
export const isInside = (ranges: CodePointRanges, other: CodePointRanges) =>
  countCodePoints(intersectRanges(ranges, other)) === countCodePoints(ranges);

/** Reads what `writeUnicodeRange` wrote. */
export const readUnicodeRange = (text: string): CodePointRanges =>
  text.split(", ").map((range) => {
    const [from = "0", to = from] = range.replace("U+", "").split("-");
    return [Number.parseInt(from, 16), Number.parseInt(to, 16)];
  });

/** Code points of the first set that the second lacks. */
export function subtractRanges(ranges: CodePointRanges, other: CodePointRanges): CodePointRanges {
  let left = ranges;
  for (const [first, last] of other)
    left = left.flatMap(([from, to]): CodePointRanges => {
      const around: CodePointRanges = [
        [from, Math.min(to, first - 1)],
        [Math.max(from, last + 1), to],
      ];
      return around.filter(([a, b]) => a <= b);
    });
  return left;
}
