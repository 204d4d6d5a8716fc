// What stands in a picture, as the stages of identifying need it.

/** What stands in a line: its letters without spaces, and where words begin. */
export type Wording = {
  clean: string;
  characters: string[];
  wordStarts: number[];
  /** Which of the characters are assumed to stand as small capitals, and how large those are against full ones; null: none. */
  small: SmallCapitals | null;
};
export type SmallCapitals = { is: boolean[]; size: number };

export function wordingOf(text: string): Wording {
  const words = text.normalize("NFC").trim().split(/\s+/);
  const wordStarts: number[] = [];
  words.reduce((at, w) => {
    wordStarts.push(at);
    return at + [...w].length;
  }, 0);
  return { clean: words.join(" "), characters: words.flatMap((w) => [...w]), wordStarts, small: null };
}

/** The characters as they are drawn: small capitals are capitals, of another size. */
export const drawnCharacters = ({ characters, small }: Wording): string[] =>
  small ? characters.map((c, i) => (small.is[i] ? c.toUpperCase() : c)) : characters;

/** The text with the letters that stand as small capitals in upper or lower case, UTF-16 unit for unit. */
export function writeSmall({ clean, small }: Wording, way: "upper" | "lower"): string {
  let at = 0;
  return [...clean]
    .map((c) => (c.trim() && small?.is[at++] ? (way === "upper" ? c.toUpperCase() : c.toLowerCase()) : c))
    .join("");
}
