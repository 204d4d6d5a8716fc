// Letters cut by hand: pure changes of a list of boxes in the strip's pixels, each with what stands in it.
import type { ReadLetter } from "@/contracts/identify";

export type Cut = { char: string; left: number; right: number; top: number; bottom: number };

/** Narrower than this is no letter, pixels. */
const MIN_PX = 3;

export const cutsOf = (letters: readonly ReadLetter[]): Cut[] =>
  letters.map(({ char, box: b }) => ({ char, left: b.x, right: b.x + b.width, top: b.y, bottom: b.y + b.height }));

/** The letter and the next become one. */
export function mergeCuts(cuts: readonly Cut[], at: number): Cut[] {
  const [a, b] = [cuts[at], cuts[at + 1]];
  if (!a || !b) return [...cuts];
  const one = {
    char: a.char || b.char,
    left: Math.min(a.left, b.left),
    right: Math.max(a.right, b.right),
    top: Math.min(a.top, b.top),
    bottom: Math.max(a.bottom, b.bottom),
  };
  return [...cuts.slice(0, at), one, ...cuts.slice(at + 2)];
}

/** The letter becomes two, parted in its middle. */
export function splitCut(cuts: readonly Cut[], at: number): Cut[] {
  const a = cuts[at];
  if (!a || a.right - a.left < 2 * MIN_PX) return [...cuts];
  const middle = (a.left + a.right) / 2;
  return [...cuts.slice(0, at), { ...a, right: middle }, { ...a, char: "", left: middle }, ...cuts.slice(at + 1)];
}

export const dropCut = (cuts: readonly Cut[], at: number): Cut[] => cuts.filter((_, i) => i !== at);
export const nameCut = (cuts: readonly Cut[], at: number, char: string): Cut[] =>
  cuts.map((c, i) => (i === at ? { ...c, char } : c));

/** Moves the mark on the left of a letter; the letter before it ends there too, when the two touch. */
export function moveCut(cuts: readonly Cut[], at: number, toPx: number): Cut[] {
  const own = cuts[at];
  if (!own) return [...cuts];
  const before = cuts[at - 1];
  const isShared = before !== undefined && Math.abs(before.right - own.left) < 1.5;
  const low = isShared ? before.left + MIN_PX : (before?.right ?? 0);
  const left = Math.min(own.right - MIN_PX, Math.max(low, toPx));
  return cuts.map((c, i) => (i === at ? { ...c, left } : i === at - 1 && isShared ? { ...c, right: left } : c));
}

/** The reading that belongs to the cuts: words are parted where they were before, as far as the counts allow. */
export function readingOf(cuts: readonly Cut[], before: string): string {
  const letters = cuts.map((c) => c.char || "?");
  const gaps = new Set<number>();
  let n = 0;
  for (const c of before.trim()) {
    if (/\s/.test(c)) gaps.add(n);
    else n++;
  }
  // Spaces stay where they were only while letters are as many.
  if (n !== letters.length) return letters.join("");
  return letters.map((c, i) => (i > 0 && gaps.has(i) ? ` ${c}` : c)).join("");
}
