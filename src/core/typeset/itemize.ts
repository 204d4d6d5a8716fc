// Text → items that can be shaped at once: one direction, one script, one part of the face, and either covered or missing. By UAX #9 (a package) and UAX #24.
import bidiFactory from "bidi-js";
import { splitScripts } from "../unicode/scripts";
import type { RunRange } from "./shapeRun";

/** `script`: ISO 15924. `level`: even from left to right, odd from right to left. */
export type Item = RunRange & { script: string; level: number; isMissing: boolean; part: number };
export type BaseDirection = "ltr" | "rtl" | "auto";
/** Embedding levels of a text, one per UTF-16 unit, and of the paragraph itself. */
export type Levels = { ofUnits: Uint8Array; paragraph: number };

const bidi = bidiFactory();
/** The first code point that may be written from right to left is Hebrew's, or a control for it. */
const MAY_TURN =
  /[\u0590-\u08ff\u200e-\u202e\u2066-\u2069\ufb1d-\ufdff\ufe70-\ufeff\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u;

/** @param text - one paragraph. "auto": the first letter with a direction decides. */
export function findLevels(text: string, base: BaseDirection): Levels {
  if (base !== "rtl" && !MAY_TURN.test(text)) return { ofUnits: new Uint8Array(text.length), paragraph: 0 };
  const { levels, paragraphs } = bidi.getEmbeddingLevels(text, base);
  return { ofUnits: levels, paragraph: paragraphs[0]?.level ?? 0 };
}

/** Which part of a face sets a character, where the one before is set by part `before`. */
type PartOf = (codePoint: number, before: number) => number;
const NEVER_PARTED: PartOf = () => 0;

/**
 * @param partOf - absent: the face is whole.
 * @returns items in the order of the text; together they cover it.
 */
export function itemize(
  text: string,
  { ofUnits }: Levels,
  isMissing: (char: string) => boolean,
  partOf: PartOf = NEVER_PARTED,
): Item[] {
  let part = 0;
  const items: Item[] = [];
  for (const { from, to, script } of splitScripts(text)) {
    let last: Item | null = null;
    let at = from;
    for (const char of text.slice(from, to)) {
      const level = ofUnits[at]!;
      const lacks = isMissing(char);
      if (!lacks) part = partOf(char.codePointAt(0)!, part);
      // Each missing character is an item of its own: it is drawn as one box.
      if (last && !lacks && !last.isMissing && last.level === level && last.part === part) last.to += char.length;
      else {
        last = {
          from: at,
          to: at + char.length,
          script,
          level,
          direction: level % 2 ? "rtl" : "ltr",
          isMissing: lacks,
          part,
        };
        items.push(last);
      }
      at += char.length;
    }
  }
  return items;
}

/** Items as they stand from left to right (UAX #9, L2). @param text - the line they belong to. */
export function orderItems(text: string, levels: Levels, items: Item[]): Item[] {
  if (items.every((i) => i.level === 0)) return items;
  const result = { levels: levels.ofUnits, paragraphs: [{ start: 0, end: text.length - 1, level: levels.paragraph }] };
  const ordered = new Set<Item>();
  const itemAt = new Array<Item>(text.length);
  for (const item of items) itemAt.fill(item, item.from, item.to);
  for (const unit of bidi.getReorderedIndices(text, result)) ordered.add(itemAt[unit]!);
  return [...ordered];
}
