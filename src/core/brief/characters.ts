// The characters that a brief needs, and which of them a face lacks.
import type { BriefFields } from "@/contracts/brief";
import type { CodePointRanges } from "@/contracts/traits";
import { hasCodePoint } from "../unicode/blocks";
import { needsGlyph } from "../unicode/codePoint";

type BriefWords = Pick<BriefFields, "lines" | "wanted">;

/** Every character the brief needs, each once, in order of first use. White space is not needed of a font. */
export function charactersOf(brief: BriefWords): string[] {
  const all = [...brief.lines.map((l) => l.text), brief.wanted].join("");
  return [...new Set([...all.normalize("NFC")])].filter(needsGlyph);
}

/** Characters of the list that the coverage lacks. */
export function findMissing(characters: readonly string[], coverage: CodePointRanges): string[] {
  return characters.filter((c) => !hasCodePoint(coverage, c.codePointAt(0)!));
}
