// What stands in a picture, as the stages of identifying need it.

/** What stands in a line: its letters without spaces, and where words begin. */
export type Wording = { clean: string; characters: string[]; wordStarts: number[] };
export function wordingOf(text: string): Wording {
  const words = text.normalize("NFC").trim().split(/\s+/);
  const wordStarts: number[] = [];
  words.reduce((at, w) => {
    wordStarts.push(at);
    return at + [...w].length;
  }, 0);
  return { clean: words.join(" "), characters: words.flatMap((w) => [...w]), wordStarts };
}
