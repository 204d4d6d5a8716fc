// The table of word vectors that set-up has cut, read once when a theme is first asked for.
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { WordTable } from "@/core/theme/wordTable";

let read: { words: WordTable | undefined } | null = null;

/** @returns undefined where set-up has made none: words are then read as traits and names alone. */
export function getWordMeanings(): WordTable | undefined {
  if (!read) {
    try {
      const bytes = readFileSync(join(process.cwd(), "dist-workers", "words.bin"));
      read = { words: WordTable.parse(new Uint8Array(bytes)) ?? undefined };
    } catch (error) {
      console.error("meanings of words:", (error as Error).message);
      read = { words: undefined };
    }
  }
  return read.words;
}
