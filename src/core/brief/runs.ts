// A text as a face sets it: stretches that it covers and single characters that it lacks. The rule for wall, shop and checks; `typeset` is told the same coverage.
import type { CodePointRanges } from "@/contracts/traits";
import { hasCodePoint } from "../unicode/blocks";
import { needsGlyph } from "../unicode/codePoint";

type Run = { text: string; missing: boolean };

/** @param character - one code point. */
export const isMissing = (character: string, coverage: CodePointRanges): boolean =>
  needsGlyph(character) && !hasCodePoint(coverage, character.codePointAt(0)!);

/** Composed first (NFC), so that "é" is one character however it was typed. */
export function splitRuns(text: string, coverage: CodePointRanges): Run[] {
  const runs: Run[] = [];
  for (const char of text.normalize("NFC")) {
    const missing = isMissing(char, coverage);
    const last = runs[runs.length - 1];
    if (last && !missing && !last.missing) last.text += char;
    else runs.push({ text: char, missing });
  }
  return runs;
}
