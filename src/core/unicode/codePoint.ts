// Single code points: how they are written, and whether a font needs a glyph for one.

/** U+0026 style notation of a code point. */
export const writeCodePoint = (codePoint: number) => `U+${codePoint.toString(16).toUpperCase().padStart(4, "0")}`;

/** White space, controls and joiners are not needed of a font. */
export const needsGlyph = (character: string): boolean => !/\s|\p{Cc}|\p{Cf}/u.test(character);
