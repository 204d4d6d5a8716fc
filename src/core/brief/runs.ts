// A text as a face sets it: stretches that it covers and single characters that it lacks. The one rule for wall, sheets, shop and checks.
import type { CodePointRanges } from "@/contracts/traits";
import { hasCodePoint } from "../unicode/blocks";

type Run = { text: string; missing: boolean };

/** White space, controls and joiners are not needed of a font. */
export const needsGlyph = (character: string): boolean => !/\s|\p{Cc}|\p{Cf}/u.test(character);

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
