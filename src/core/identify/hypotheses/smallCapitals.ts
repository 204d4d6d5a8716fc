// Lettering in small capitals: seen by its heights, before any face is looked at.
import type { InkLine } from "../../picture/readPicture";
import type { Wording } from "../../picture/wording";

const { abs } = Math;

/** Heights of small capitals against full ones, and how far those of one kind differ from one another. */
const SMALLEST = 0.58;
const LARGEST = 0.93;
const SAME = 0.08;
/** Share of the pieces whose height must be one of the two: tails, accents and points are others. */
const MOST = 0.78;
/** What most fonts and programs make of them, where the line shows no full one to compare with. */
const USUAL_SIZE = 0.78;

/**
 * Assumes a line to be set in small capitals, where the heights of its pieces allow it: all as high as a capital or as a small one.
 * @returns the wording with the letters that are small; null where the line cannot be such, or would be plain capitals.
 */
export function proposeSmallCapitals(line: InkLine, wording: Wording): Wording | null {
  const { characters, wordStarts } = wording;
  if (!characters.every((c) => c.toUpperCase().length === c.length && c.toLowerCase().length === c.length)) return null;
  const heights = line.letters.map((b) => b.bottom - b.top);
  const levels = levelsOf(heights);
  if (!levels) return null;
  const hasCase = (c: string) => c.toUpperCase() !== c.toLowerCase();
  const isLower = (c: string) => c !== c.toUpperCase();
  const isCut = heights.length === characters.length;
  const border = levels.small === null ? null : (levels.small + levels.tall) / 2;
  // Where letters touch, their heights are not known one by one: words begin large.
  const isTyped = characters.some(isLower);
  const isSmall = (c: string, i: number): boolean => {
    if (border === null) return isCut && isLower(c);
    if (isCut) return hasCase(c) && heights[i]! < border;
    return isTyped ? isLower(c) : hasCase(c) && !wordStarts.includes(i);
  };
  const is = characters.map(isSmall);
  // Letters all of one height are capitals; small ones they can only be where the text is known to be in lower case.
  if (!is.some(Boolean)) return null;
  return { ...wording, small: { is, size: levels.small === null ? USUAL_SIZE : levels.small / levels.tall } };
}

/** The one or two heights that nearly all pieces have; `small` is null where there is one. */
function levelsOf(heights: readonly number[]): { tall: number; small: number | null } | null {
  const near = (level: number) => heights.filter((h) => abs(h / level - 1) < SAME).sort((a, b) => a - b);
  const middle = (list: number[]) => list[list.length >> 1]!;
  let best = { tall: 0, small: null as number | null, count: 0, off: 0 };
  for (const level of heights) {
    const tall = near(level);
    const plain = { tall: middle(tall), small: null, count: tall.length, off: 0 };
    if (plain.count > best.count) best = plain;
    for (const other of heights) {
      if (other / level <= SMALLEST || other / level >= LARGEST) continue;
      const small = near(other).filter((h) => !tall.includes(h));
      // One letter with a tail is as tall as it likes: of pairs that hold as many, the usual one.
      const [count, off] = [tall.length + small.length, abs(other / level - USUAL_SIZE)];
      if (small.length && (count > best.count || (count === best.count && off < best.off)))
        best = { tall: middle(tall), small: middle(small), count, off };
    }
  }
  return best.count && best.count >= MOST * heights.length ? best : null;
}
