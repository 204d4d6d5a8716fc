// What a face of a kind is used for, in the brief's words: a page for text, a table for fixed widths, two lines for a hand.
import type { Kind } from "@/contracts/traits";

/** @property sizeShare - beside the first line. @property wraps - broken to the width, not made smaller. */
type DocumentLine = { text: string; sizeShare: number; wraps: boolean };

/** Rows of a table as a booklet of tides sets it: times, heights and areas under each other. */
export const TIDE_TABLE = ["04:52   3.8", "11:07   0.9", "16:31   4.1", "23:18   1.2"];

const line = (text: string, sizeShare: number, wraps = false): DocumentLine => ({ text, sizeShare, wraps });
const FIGURES = "0123456789";
/** Enough words for a column of text: the brief's own, over again. */
const PARAGRAPH_CHARACTERS = 260;

/** Heavier than this a face is set large, whatever its kind. */
const TEXT_MOST_WEIGHT = 560;

/**
 * @param kinds - surest first. @param weight - as in usWeightClass; null: not measured. @param lines - the brief's, or those in the face's own script.
 * @returns at least one line.
 */
export function documentFor(
  { kinds, weight }: { kinds: readonly Kind[]; weight: number | null },
  lines: readonly string[],
): DocumentLine[] {
  const [title = "Abc", ...others] = lines;
  const second = others[0] ?? title;
  const isHeavy = (weight ?? 0) > TEXT_MOST_WEIGHT;
  const kind = isHeavy && TEXT_KINDS.includes(kinds[0]!) ? "display" : kinds[0];
  switch (kind) {
    case "monospaced":
      return [line(title, 1), ...TIDE_TABLE.map((row) => line(row, 0.6)), line(second, 0.5)];
    case "script":
    case "handwritten":
      return [line(title, 1), line(second, 0.55), line(FIGURES, 0.45)];
    case "display":
    case "blackletter":
      return [line(title, 1.25), line(second, 0.45), line(FIGURES, 0.6)];
    case "picture":
      return [line(title, 1.25)];
    default:
      return [line(title, 1), line(second, 0.5), line(paragraphOf(lines), 0.34, true), line(FIGURES, 0.34)];
  }
}

const TEXT_KINDS: readonly Kind[] = ["sans", "serif", "slab"];

function paragraphOf(lines: readonly string[]): string {
  const sentences = lines.map((l) => (/[.!?…]$/.test(l) ? l : `${l}.`)).join(" ");
  const times = Math.max(1, Math.ceil(PARAGRAPH_CHARACTERS / Math.max(1, sentences.length)));
  return Array.from({ length: times }, () => sentences).join(" ");
}
