// How long a text must stand to be read once by anybody: what subtitlers count with, about 15 characters a second, and a moment to find it.
const CHARACTERS_PER_S = 15;
const FIND_MS = 500;

/** @returns milliseconds; 0 for a text without letters. */
export function readingMs(text: string): number {
  const characters = [...text.replace(/\s+/g, " ").trim()].length;
  return characters ? Math.round(FIND_MS + (characters * 1000) / CHARACTERS_PER_S) : 0;
}
