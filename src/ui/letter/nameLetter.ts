// What a letter is called where it is spoken of: glyphs that no character reaches have a number.
import type { LaidLetter } from "./letterTasks";

export const nameLetter = ({ text, d, glyphId }: Pick<LaidLetter, "text" | "d" | "glyphId">): string =>
  text.trim() || (d ? `glyph ${glyphId}` : "space");
