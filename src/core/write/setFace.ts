// A face in which lines are set for a sheet, whatever the sheet is written as.
import type { CodePointRanges } from "@/contracts/traits";
import { joinParts } from "../outlines/joinParts";
import { openFace, type OpenFace } from "../outlines/openFace";
import { glyphsOf, typesetLine, typesetText, type TypesetLine } from "../typeset/typesetText";
import { needsGlyph } from "../unicode/codePoint";

/** A face at a location on its axes, with features switched; as it comes without either. */
export type FaceToSet = {
  sfnt: Uint8Array;
  location?: Record<string, number>;
  features?: Record<string, number>;
  coverage: CodePointRanges;
  /** The other files of a face that came in parts. */
  parts?: readonly Uint8Array[];
};
/** A line as it was set, and the text that its clusters count in. */
export type SetLine = { text: string; line: TypesetLine };
export type SetFace = {
  open: OpenFace;
  unitsPerEm: number;
  set(text: string): SetLine;
  /** Breaks a text to a width. @returns its lines without the space at their ends. */
  wrap(text: string, widthEm: number): string[];
};

/** Width of the box for a missing character. */
const MISSING_EM = 0.55;

/**
 * @param lines - what will be set.
 * @throws when the face has none of their characters: it is no font, or not this one.
 */
export function openSetFace(face: FaceToSet, lines: readonly string[]): SetFace {
  const open = joinParts([face.sfnt, ...(face.parts ?? [])].map((sfnt) => openFace(sfnt, face.location)));
  const { features, coverage } = face;
  const options = { features, coverage, missingEm: MISSING_EM };
  // Composed first, as everywhere that coverage is asked.
  const set = (written: string): SetLine => {
    const text = written.normalize("NFC");
    return { text, line: typesetLine(open, text, options) };
  };
  const wrap = (written: string, widthEm: number) => {
    const text = written.normalize("NFC");
    return typesetText(open, text, { ...options, widthEm }).lines.map((l) => text.slice(l.from, l.to));
  };
  const glyphs = lines
    .map(set)
    .flatMap(({ text, line }) => glyphsOf(line).filter((g) => needsGlyph(characterAt(text, g))));
  if (glyphs.length && glyphs.every((g) => !g.glyphId)) throw new Error("none of the characters is in the font");
  return { open, unitsPerEm: open.unitsPerEm, set, wrap };
}

export const characterAt = (text: string, { cluster }: { cluster: number }) =>
  String.fromCodePoint(text.codePointAt(cluster)!);
