// Languages and the characters each needs, from Unicode CLDR's exemplar sets. Read once, when first asked.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { parseExemplars } from "@/core/find/exemplars";
import { hasCodePoint } from "@/core/unicode/blocks";
import type { CodePointRanges } from "@/contracts/traits";
import type { FindIndex } from "@/core/find/findIndex";

type Language = { code: string; name: string; characters: number[] };

/** Languages that the sieve counts: the official ones of Europe, and the most written ones elsewhere whose script fonts here have. */
export const COUNTED =
  "bg ca cs cy da de el en es et eu fi fr ga hr hu is it lt lv mt nb nl pl pt ro ru sk sl sq sr sv tr uk vi eo sw id he ar hi".split(
    " ",
  );

type Known = {
  list: Language[];
  byCode: Map<string, Language>;
  /** Names of languages and scripts, in lowercase. */
  byName: Map<string, string>;
  /** Countries, by the language that CLDR takes to be theirs. */
  byPlace: Map<string, string>;
};
const shared = globalThis as unknown as { fondQuarryLanguages?: Known };

/** All languages with an exemplar set, by code without region. */
export function getLanguages(): Known {
  shared.fondQuarryLanguages ??= readAll();
  return shared.fondQuarryLanguages;
}

function readAll(): Known {
  const folder = join(process.cwd(), "node_modules", "cldr-misc-full", "main");
  const names = new Intl.DisplayNames(["en"], { type: "language", fallback: "none" });
  const list: Language[] = [];
  for (const code of readdirSync(/*turbopackIgnore: true*/ folder)) {
    if (!/^[a-z]{2,3}(-[A-Z][a-z]{3})?$/.test(code)) continue;
    const name = names.of(code);
    if (!name) continue;
    const file = JSON.parse(readFileSync(/*turbopackIgnore: true*/ join(folder, code, "characters.json"), "utf8")) as {
      main: Record<string, { characters: { exemplarCharacters?: string } }>;
    };
    const set = file.main[code]?.characters.exemplarCharacters;
    const characters = set ? parseExemplars(set, code) : [];
    if (characters.length) list.push({ code, name, characters });
  }
  list.sort((a, b) => (a.name < b.name ? -1 : 1));
  const byCode = new Map(list.map((l) => [l.code, l]));
  const languageOf = (undefinedIn: string) => {
    const { language } = new Intl.Locale(undefinedIn).maximize();
    return byCode.has(language) ? language : null;
  };
  const named = (type: "script" | "region", codes: readonly string[]): [string, string][] => {
    const namesOf = new Intl.DisplayNames(["en"], { type, fallback: "none" });
    return codes.flatMap((code) => {
      const [name, language] = [namesOf.of(code), languageOf(`und-${code}`)];
      return name && language ? [[name.toLowerCase(), language]] : [];
    });
  };
  const scripts = new Set(list.flatMap((l) => new Intl.Locale(l.code).maximize().script ?? []));
  return {
    list,
    byCode,
    byName: new Map([
      ...named("script", [...scripts]),
      ...SCRIPTS_SAID,
      ...list.map((l) => [l.name.toLowerCase(), l.code] as const),
    ]),
    byPlace: new Map(named("region", REGIONS)),
  };
}
/** What people call scripts beside their names. */
const SCRIPTS_SAID = [
  ["han", "zh"],
  ["hangul", "ko"],
  ["kanji", "ja"],
  ["kana", "ja"],
  ["farsi", "fa"],
  ["brazilian", "pt"],
] as const;
const LETTERS = [..."ABCDEFGHIJKLMNOPQRSTUVWXYZ"];
const REGIONS = LETTERS.flatMap((a) => LETTERS.map((b) => a + b));

export const setsLanguage = (coverage: CodePointRanges, { characters }: Language) =>
  characters.every((c) => hasCodePoint(coverage, c));

const known = new WeakMap<FindIndex, Map<string, Uint8Array>>();
/** Which coverages of the index set a language; kept with the index. */
export function speaksIn(index: FindIndex, code: string): Uint8Array {
  let byCode = known.get(index);
  if (!byCode) known.set(index, (byCode = new Map()));
  let out = byCode.get(code);
  if (!out) {
    const language = getLanguages().byCode.get(code);
    out = Uint8Array.from(index.coverage.list, (c) => (language && setsLanguage(c, language) ? 1 : 0));
    byCode.set(code, out);
  }
  return out;
}
