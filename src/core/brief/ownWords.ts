// Words of a face's own script, for lines that have no letter of it: a Thai face is not judged by boxes. Names of the language, of days and
// of months, as CLDR has them (Intl).
import type { OwnWords } from "@/contracts/styles";
import type { CodePointRanges } from "@/contracts/traits";
import { hasCodePoint } from "../unicode/blocks";
import { hasLatinAlphabet } from "../unicode/ranges";
import { listScripts, nameScript, scriptOf } from "../unicode/scripts";
import { isMissing } from "./runs";

const SHORTEST_LINE = 12;
const MOST_WORDS = 3;
const MOST_LETTERS = 12;

/**
 * Words for a face.
 * @param language - that was asked for (BCP 47), or null: then only faces without the Latin alphabet have words of their own.
 * @returns null where the Latin alphabet will do, and where the face has no letters of any script.
 */
export function findOwnWords(coverage: CodePointRanges, language: string | null): OwnWords | null {
  if (language === null) {
    const script = hasLatinAlphabet(coverage) ? undefined : listScripts(coverage)[0];
    return script ? wordsOf(coverage, script, languageOf(script), false) : null;
  }
  const script = firstScript(nameLanguage(language));
  return script && script !== "Latn" ? wordsOf(coverage, script, language, true) : null;
}

/** The line as a face is to set it. */
export function lineFor(text: string, coverage: CodePointRanges, own?: OwnWords | null) {
  const letters = own ? [...text.normalize("NFC")].filter((c) => /[\p{L}\p{N}]/u.test(c)) : [];
  if (!own || !letters.length) return { text, isOwn: false };
  const has = own.isAsked
    ? letters.some((c) => own.scripts.includes(scriptOf(c.codePointAt(0)!)))
    : letters.some((c) => hasCodePoint(coverage, c.codePointAt(0)!));
  return has ? { text, isOwn: false } : { text: own.text, isOwn: true };
}

function wordsOf(coverage: CodePointRanges, script: string, language: string, isAsked: boolean): OwnWords | null {
  const words: string[] = [];
  for (const word of listWords(language)) {
    if (words.length >= MOST_WORDS || words.join(" ").length >= SHORTEST_LINE) break;
    if (firstScript(word) && firstScript(word) !== "Latn" && ![...word].some((c) => isMissing(c, coverage)))
      words.push(word);
  }
  const text = words.join(" ") || listLetters(coverage, script);
  const scripts = [...new Set([...text].filter((c) => /\p{L}/u.test(c)).map((c) => scriptOf(c.codePointAt(0)!)))];
  return text ? { script: nameScript(script), scripts, text, isAsked } : null;
}

/** The language that CLDR takes to be the likeliest in a script. @param script - ISO 15924. */
const languageOf = (script: string) => new Intl.Locale(`und-${script}`).maximize().language;
const nameLanguage = (language: string) =>
  new Intl.DisplayNames([language], { type: "language", fallback: "none" }).of(language) ?? "";
const firstScript = (word: string): string | null => {
  const letter = [...word].find((c) => /\p{L}/u.test(c));
  return letter ? scriptOf(letter.codePointAt(0)!) : null;
};

const wordsKnown = new Map<string, string[]>();
const SUNDAY = Date.UTC(2024, 0, 7);
const DAY_MS = 86_400_000;
/** Made once for each language: faces of a page differ in coverage, not in words. */
function listWords(language: string): string[] {
  let words = wordsKnown.get(language);
  if (!words) {
    const format = (options: Intl.DateTimeFormatOptions) =>
      new Intl.DateTimeFormat(language, { ...options, timeZone: "UTC", numberingSystem: "latn" });
    const [day, month] = [format({ weekday: "long" }), format({ month: "long" })];
    words = [
      nameLanguage(language),
      ...Array.from({ length: 7 }, (_, i) => day.format(SUNDAY + i * DAY_MS)),
      ...Array.from({ length: 12 }, (_, i) => month.format(Date.UTC(2024, i, 1))),
    ];
    wordsKnown.set(language, words);
  }
  return words;
}

/** The first letters of a script that a face has, where no word can be set. */
function listLetters(coverage: CodePointRanges, script: string): string {
  let letters = "";
  for (const [from, to] of coverage)
    for (let c = from; c <= to; c++) {
      const char = String.fromCodePoint(c);
      if (scriptOf(c) === script && /\p{L}/u.test(char)) letters += char;
      if ([...letters].length >= MOST_LETTERS) return letters;
    }
  return letters;
}
