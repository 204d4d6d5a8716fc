// What a glyph is: by its characters, by the features that reach it, and by the usual suffixes of glyph names.
import type { Glyph, GlyphKind } from "@/contracts/styles";

const SWASH = /\.(swsh|cswh)\d*$|\.swash/i;
const SMALL_CAPITAL = /\.(sc|smcp|c2sc)\d*$|\.small/i;
const ALTERNATE = /\.(alt|salt|ss\d\d|cv\d\d|titl|calt|aalt|init|fina)\d*$/i;

/** @returns one or more kinds; a swash that has no character is both. */
export function kindsOfGlyph({
  name,
  codePoints,
  features,
}: Pick<Glyph, "name" | "codePoints" | "features">): GlyphKind[] {
  const kinds = new Set<GlyphKind>();
  for (const c of codePoints) kinds.add(kindOfCharacter(c));
  if (!codePoints.length) kinds.add("unencoded");
  const reached = (...tags: string[]) => features.some((f) => tags.includes(f));
  if (reached("swsh", "cswh") || SWASH.test(name)) kinds.add("swashes");
  if (reached("smcp", "c2sc") || SMALL_CAPITAL.test(name)) kinds.add("small capitals");
  if (reached("liga", "dlig", "clig", "hlig") || /^[a-z]{1,2}(_[a-z]{1,2})+/i.test(name)) kinds.add("ligatures");
  if (features.some((f) => /^(salt|aalt|calt|titl|ss\d\d|cv\d\d)$/.test(f)) || ALTERNATE.test(name))
    kinds.add("alternates");
  return [...kinds];
}

function kindOfCharacter(c: number): GlyphKind {
  if ((c >= 0xe000 && c <= 0xf8ff) || c >= 0xf0000) return "private use";
  const char = String.fromCodePoint(c);
  if (isPicture(c)) return "pictures";
  if (c >= 0xfb00 && c <= 0xfb06) return "ligatures";
  if (/\p{Lu}|\p{Lt}/u.test(char)) return "capitals";
  if (/\p{L}/u.test(char)) return "lowercase";
  if (/\p{N}/u.test(char)) return "figures";
  return /\p{P}/u.test(char) ? "punctuation" : "symbols";
}

/** Blocks of drawn things: miscellaneous symbols, dingbats, emoji and their like. */
const isPicture = (c: number) =>
  (c >= 0x2600 && c <= 0x27bf) || (c >= 0x1f000 && c <= 0x1faff) || (c >= 0x2b00 && c <= 0x2bff);
