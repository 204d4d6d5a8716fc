/** U+0026 style notation of a code point. */
export const writeCodePoint = (codePoint: number) => `U+${codePoint.toString(16).toUpperCase().padStart(4, "0")}`;
