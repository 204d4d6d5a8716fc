// One font made into web fonts: cut to the characters of a page, with kerning and features as they were. Runs in a process that can be killed.
import { compress } from "woff2-encoder";
import type { CodePointRanges } from "@/contracts/traits";
import { openContainer } from "../open/container";
import { openFace, type OpenFace } from "../outlines/openFace";
import type { KernPairs } from "../outlines/kernTable";
import { meanAdvanceEm, type FontMetrics } from "./fallbacks";
import type { Subsetter } from "./subsetter";
import { packWoff, withTables, writeKern, writeNames } from "./tables";

export type WebFormat = "woff2" | "woff";
export type WebFontAsked = {
  sfnt: Uint8Array;
  /** Characters that the page needs; null: all that the font has. */
  codePoints: readonly number[] | null;
  /** Axes that are held at a value; others stay variable. */
  held: Readonly<Record<string, number>>;
  formats: readonly WebFormat[];
  /** What it is to be called by inside, where its licence keeps its name for the unchanged font; null: as it is. */
  calledInside: string | null;
};
export type WebFont = {
  files: Partial<Record<WebFormat, Uint8Array>>;
  /** What it maps, in rising order. */
  codePoints: number[];
  metrics: FontMetrics;
};

const SPACE = 0x20;
const NO_BREAK_SPACE = 0xa0;

/**
 * Makes web fonts of one font.
 * @param coverage - code points that the font maps. @param elsewhere - those that another file of the same face has already.
 * @returns null when it has none of the characters.
 * @throws Error when the subsetter refuses the font; FontFileError when it is none.
 */
export async function makeWebFont(
  subset: Subsetter,
  asked: WebFontAsked,
  coverage: CodePointRanges,
  elsewhere: ReadonlySet<number> = new Set(),
): Promise<WebFont | null> {
  const { sfnt, held, formats, calledInside } = asked;
  const codePoints = chooseCodePoints(asked.codePoints, coverage).filter((c) => !elsewhere.has(c));
  if (!codePoints.some((c) => c !== SPACE && c !== NO_BREAK_SPACE)) return null;
  const whole = openFace(sfnt);
  let cut = subset(sfnt, { codePoints, held });
  const changed: Record<string, Uint8Array> = {};
  const pairs = whole.kernPairs();
  if (pairs) {
    const kept = movePairs(pairs, whole, openFace(cut), codePoints);
    if (kept.size) changed.kern = writeKern(kept);
  }
  if (calledInside !== null) {
    const name = (await openContainer(cut)).tables.get("name");
    if (name) changed.name = writeNames(name, calledInside);
  }
  if (Object.keys(changed).length) cut = await withTables(cut, changed);
  const files: WebFont["files"] = {};
  if (formats.includes("woff2")) files.woff2 = await compress(cut);
  if (formats.includes("woff")) files.woff = await packWoff(cut);
  return { files, codePoints, metrics: measureLine(openFace(cut)) };
}

/** Of those asked for, the ones that the font has; a space always. */
function chooseCodePoints(asked: readonly number[] | null, coverage: CodePointRanges): number[] {
  const has = (code: number) => coverage.some(([from, to]) => code >= from && code <= to);
  const all = asked ?? coverage.flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => from + i));
  return [...new Set([...all, SPACE])].filter(has).sort((a, b) => a - b);
}

/** Pairs of the old table, by the numbers that their glyphs have now. */
function movePairs(pairs: KernPairs, before: OpenFace, after: OpenFace, codePoints: readonly number[]): KernPairs {
  const moved = new Map<number, number[]>();
  for (const code of codePoints) {
    const [from, to] = [before.glyphOf(code), after.glyphOf(code)];
    if (from !== null && to !== null) moved.set(from, [...new Set([...(moved.get(from) ?? []), to])]);
  }
  const kept = new Map<number, number>();
  for (const [key, value] of pairs)
    for (const left of moved.get(key >>> 16) ?? [])
      for (const right of moved.get(key & 0xffff) ?? []) kept.set(left * 65536 + right, value);
  return kept;
}

function measureLine(face: OpenFace): FontMetrics {
  const { ascender, descender, lineGap } = face.font.hExtents();
  const em = face.unitsPerEm;
  return {
    ascentEm: ascender / em,
    descentEm: -descender / em,
    lineGapEm: lineGap / em,
    meanAdvanceEm: meanAdvanceEm(face),
  };
}
