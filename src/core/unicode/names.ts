// What a character is called: Unicode Character Database, corrections applied, in lowercase.
import { unicodeReadableName } from "unicode-name";
import { writeCodePoint } from "./codePoint";

const isPrivateUse = (codePoint: number) => (codePoint >= 0xe000 && codePoint <= 0xf8ff) || codePoint >= 0xf0000;

/**
 * The character's Unicode name in lowercase; its code point where it has none.
 * @param codePoint - 0 to 0x10FFFF.
 */
export function nameCharacter(codePoint: number): string {
  if (isPrivateUse(codePoint)) return `private use ${writeCodePoint(codePoint)}`;
  const name = unicodeReadableName(codePoint);
  return name && !name.startsWith("<") ? name.toLowerCase() : writeCodePoint(codePoint);
}
