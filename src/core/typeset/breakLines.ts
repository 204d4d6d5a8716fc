// Where a text may be broken into lines (UAX #14 by a package; words of scripts without spaces by the platform), and where it is.
import { Rules } from "@cto.af/linebreak";
import { splitScripts } from "../unicode/scripts";

/** UTF-16 position before which a line may or must begin. */
type BreakPoint = { at: number; isRequired: boolean };
export type LineRange = { from: number; to: number };

const rules = new Rules();
/** Scripts that put no space between words: their break points are those between words of a dictionary. */
const WITHOUT_SPACES: Record<string, string> = { Thai: "th", Laoo: "lo", Khmr: "km", Mymr: "my" };

/** @returns break points in ascending order, the end of the text last. */
export function findBreaks(text: string): BreakPoint[] {
  const breaks = new Map<number, boolean>();
  for (const b of rules.breaks(text)) breaks.set(b.position, Boolean(b.required) && b.position < text.length);
  for (const { from, to, script } of splitScripts(text)) {
    const language = WITHOUT_SPACES[script];
    if (!language) continue;
    const words = new Intl.Segmenter(language, { granularity: "word" }).segment(text.slice(from, to));
    for (const { index } of words) if (index && !breaks.has(from + index)) breaks.set(from + index, false);
  }
  return [...breaks].map(([at, isRequired]) => ({ at, isRequired })).sort((a, b) => a.at - b.at);
}

const WHITE = /\s/u;
/** The end of a line without the white space at it. */
export function trimEnd(text: string, { from, to }: LineRange): number {
  let end = to;
  while (end > from && WHITE.test(text[end - 1]!)) end--;
  return end;
}

/**
 * Fills lines from the first on, each with as many pieces as fit.
 * @param widthBefore - width of the text before each UTF-16 position, length `text.length + 1`. @param width - of a line; null: only required breaks.
 * @returns lines that cover the text; one piece that is wider than a line has a line of its own.
 */
export function fillLines(
  text: string,
  breaks: BreakPoint[],
  widthBefore: Float64Array,
  width: number | null,
): LineRange[] {
  const lines: LineRange[] = [];
  let from = 0;
  let to = 0;
  const isFull = (end: number) =>
    width !== null && widthBefore[trimEnd(text, { from, to: end })]! - widthBefore[from]! > width;
  for (const { at, isRequired } of breaks) {
    if (to > from && isFull(at)) {
      lines.push({ from, to });
      from = to;
    }
    to = at;
    if (isRequired) {
      lines.push({ from, to });
      from = to;
    }
  }
  if (to > from || !lines.length) lines.push({ from, to });
  return lines;
}
