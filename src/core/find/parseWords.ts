// The words of the find field → constraints that filter and rank, with what was not understood said.
import type { ThemeLooks } from "@/contracts/themes";
import {
  isTooShort,
  matchNames,
  nearNames,
  slipsAllowed,
  squash,
  editDistance,
  indexNames,
  type NameIndex,
} from "./nameIndex";
import { isAnchor, isLook } from "../theme/anchors";
import { readTheme, writeTheme } from "../theme/readTheme";
import type { WordTable } from "../theme/wordTable";
import { CHARACTER_WORDS, COMPARATIVES, FILLERS, NUMBER_WORDS, VOCABULARY, type Constraint } from "./vocabulary";

type Part = { constraint: Constraint; from: string };
type Parsed = { constraints: Part[]; ignored: string[] };

/** Asked by what people type: a map has no words of its own ("constructor"). */
const CHARACTERS = new Map(Object.entries(CHARACTER_WORDS));

/** What names a sentence may hold. */
export type Lexicon = {
  families: NameIndex;
  foundries: NameIndex;
  /** Whether a squashed "family style" is one style: "Zilla Slab Bold" is no family and a weight. */
  isFullName: (squashed: string) => boolean;
  /** Words that are said of families, by the user or a library, lower case. */
  tags: Pick<ReadonlySet<string>, "has">;
  /** English name of a language or a script, lower case → code of the language. */
  languages: ReadonlyMap<string, string>;
  /** English name of a country, lower case → code of what is mostly written there. */
  places?: ReadonlyMap<string, string> | undefined;
  /** Meanings of other words; absent where none are known. */
  words?: WordTable | undefined;
  /** What was said here of a phrase: how much of each look it has. */
  corrections?: ThemeCorrections | undefined;
};
export type ThemeCorrections = ReadonlyMap<string, ThemeLooks>;

export const NO_LEXICON: Lexicon = {
  families: indexNames([]),
  foundries: indexNames([]),
  isFullName: () => false,
  tags: new Set(),
  languages: new Map(),
};

type Read = { used: number; constraints: Constraint[] } | null;
type Reader = (tokens: string[], at: number, lexicon: Lexicon) => Read;

/**
 * Reads a sentence.
 * @param words - what the person typed; case does not matter, commas part.
 * @returns constraints in the order of the sentence; words that mean nothing here are in `ignored`.
 */
export function parseWords(words: string, lexicon: Lexicon): Parsed {
  const parsed: Parsed = { constraints: [], ignored: [] };
  const text = words.trim();
  if (!text) return parsed;
  // A whole sentence that is a family's name is a name, even when its words mean shapes ("Space Mono").
  const whole =
    text.length >= 2 && !isSaid(text, lexicon) && !isLanguage(text, lexicon) ? findName(text, lexicon, true) : null;
  if (whole) return { constraints: [{ constraint: whole, from: text }], ignored: [] };
  const tokens = text.split(/[\s,;]+/).filter(Boolean);
  for (let at = 0; at < tokens.length;) {
    const read = readCompound(tokens, at, lexicon) ?? readAt(tokens, at, lexicon) ?? readThemeAt(tokens, at, lexicon);
    if (read) {
      const from = tokens.slice(at, at + read.used).join(" ");
      for (const constraint of read.constraints) parsed.constraints.push({ constraint, from });
      at += read.used;
      continue;
    }
    const word = tokens[at]!;
    if (!FILLERS.has(word.toLowerCase())) parsed.ignored.push(word);
    at++;
  }
  return parsed;
}

/** One word in lowercase that the language has, and no name alone: "bitter" asks for what is bitter, "Bitter" and "lora" for a family. */
const isSaid = (text: string, { words }: Pick<Lexicon, "words">) =>
  text === text.toLowerCase() && Boolean(words?.isCommon(text));

/** The name of a language or script is no slip of a family's. */
const isLanguage = (text: string, { languages, families }: Lexicon) =>
  languages.has(text.toLowerCase()) && !families.at.has(squash(text));

const plainWords = (text: string) =>
  text
    .toLowerCase()
    .split(/[^\p{L}'-]+/u)
    .filter(Boolean);

/** What two words are together when the first alone would mean a shape: "heavy metal", "soft drink". */
const readCompound: Reader = (tokens, at, lexicon) => {
  if (isLookAt(tokens, at, lexicon)) return themeOf(tokens, at, at + 2, lexicon);
  if (!isCompoundAt(tokens, at, lexicon)) return null;
  return themeOf(tokens, at, endOfTheme(tokens, at + 2, lexicon), lexicon);
};

/** "brush script"; not "heavy slab", which says how heavy beside the kind. */
function isLookAt(tokens: string[], at: number, { words }: Lexicon): boolean {
  const phrase = phraseAt(tokens, at, 2).toLowerCase();
  if (!words || !isLook(phrase) || PHRASES.has(phrase)) return false;
  return PHRASES.get(tokens[at]!.toLowerCase())?.type !== "trait";
}

function isCompoundAt(tokens: string[], at: number, { words }: Lexicon): boolean {
  const phrase = phraseAt(tokens, at, 2).toLowerCase();
  if (!words || at + 1 >= tokens.length || PHRASES.has(phrase)) return false;
  if (!PHRASES.has(tokens[at]!.toLowerCase()) || PHRASES.has(tokens[at + 1]!.toLowerCase())) return false;
  return isAnchor(phrase) || words.isCompound(phrase);
}

/** Words that no reader knows, as far as they stand together, are a theme: "dusty library" is one. */
const readThemeAt: Reader = (tokens, at, lexicon) => themeOf(tokens, at, endOfTheme(tokens, at, lexicon), lexicon);

function endOfTheme(tokens: string[], from: number, lexicon: Lexicon): number {
  let end = from;
  while (end < tokens.length && !FILLERS.has(tokens[end]!.toLowerCase()) && !readAt(tokens, end, lexicon)) {
    if (isCompoundAt(tokens, end, lexicon)) break;
    end++;
  }
  return end;
}

/** Reads tokens `at` to `end` as a theme; what a person said of it before comes first. */
function themeOf(tokens: string[], at: number, end: number, { words, corrections, tags }: Lexicon): Read {
  if (!words || end === at) return null;
  const from = tokens.slice(at, end).join(" ");
  const plain = plainWords(from);
  const phrase = plain.join(" ");
  const read = readTheme(plain, words, corrections?.get(phrase));
  if (!read) return null;
  const tag = tags.has(from.toLowerCase()) ? from.toLowerCase() : undefined;
  return {
    used: end - at,
    constraints: [{ type: "theme", label: `${from} → ${writeTheme(read)}`, phrase, tag, ...read }],
  };
}

const readAt = (tokens: string[], at: number, lexicon: Lexicon): Read =>
  READERS.reduce<Read>((found, reader) => found ?? reader(tokens, at, lexicon), null);

const phraseAt = (tokens: string[], at: number, n: number) => tokens.slice(at, at + n).join(" ");

/** Longest first: `read` of each phrase that begins here. */
function readLongest(
  tokens: string[],
  at: number,
  most: number,
  read: (phrase: string, n: number) => Constraint | null,
): Read {
  for (let n = Math.min(most, tokens.length - at); n >= 1; n--) {
    const constraint = read(phraseAt(tokens, at, n), n);
    if (constraint) return { used: n, constraints: [constraint] };
  }
  return null;
}

const readFullName: Reader = (tokens, at, lexicon) =>
  readLongest(tokens, at, 7, (phrase, n) =>
    n >= 2 && lexicon.isFullName(squash(phrase)) ? { type: "name", label: phrase, words: phrase } : null,
  );

/** "like Lora", "similar to Work Sans": the face that the rest is measured against. */
const readLike: Reader = (tokens, at, lexicon) => {
  const opener = /^(like|resembling)$/i.test(tokens[at]!) ? 1 : /^similar to$/i.test(phraseAt(tokens, at, 2)) ? 2 : 0;
  if (!opener) return null;
  const found = readLongest(tokens, at + opener, 5, (phrase, n) => {
    const family = findFamily(phrase, lexicon.families, n === 1 ? 1 : slipsAllowed(squash(phrase).length));
    return family === null ? null : { type: "like", label: `like ${lexicon.families.names[family]}`, family };
  });
  return found && { used: found.used + opener, constraints: found.constraints };
};

/** "narrower", "a bit heavier", "cheaper". */
const readComparative: Reader = (tokens, at) => {
  const skip = /^(a|much|slightly|little|bit)$/i.test(tokens[at]!)
    ? /^(bit|little)$/i.test(tokens[at + 1] ?? "")
      ? 2
      : 1
    : 0;
  for (const n of [2, 1]) {
    const phrase = phraseAt(tokens, at + skip, n).toLowerCase();
    if (phrase === "cheaper") return { used: skip + n, constraints: [{ type: "cheaper", label: "cheaper" }] };
    const than = Object.hasOwn(COMPARATIVES, phrase) ? COMPARATIVES[phrase] : undefined;
    if (than) return { used: skip + n, constraints: [{ type: "than", label: phrase, ...than }] };
  }
  return null;
};

/** "under 40", "at most 25 €", "up to 30 euros". */
const readPrice: Reader = (tokens, at) => {
  const opener = phraseAt(tokens, at, 2).match(/^(at most|up to|less than|no more|cheaper than)$/i)
    ? 2
    : /^(under|below|max|maximum)$/i.test(tokens[at]!)
      ? 1
      : 0;
  if (!opener) return null;
  const amount = tokens[at + opener]?.match(/^[€$£]?(\d{1,5})(?:[.,](\d{2}))?[€$£]?$/);
  if (!amount) return null;
  const unit = /^(€|\$|£|euros?|eur|dollars?|pounds?)$/i.test(tokens[at + opener + 1] ?? "") ? 1 : 0;
  const cents = Number(amount[1]) * 100 + Number(amount[2] ?? 0);
  return { used: opener + 1 + unit, constraints: [{ type: "price", label: `under ${cents / 100}`, maxCents: cents }] };
};

/** "at least 6 weights", "6 or more styles", "many weights". */
const readCount: Reader = (tokens, at) => {
  const ahead = phraseAt(tokens, at, 6).toLowerCase();
  const m = ahead.match(/^(?:at least |minimum |min )?(\d{1,3}|[a-z]+)(?: or more|\+| plus)? (weights?|styles?)\b/);
  if (!m) return null;
  const min = /^\d/.test(m[1]!)
    ? Number(m[1])
    : m[1] === "many" || m[1] === "several"
      ? m[1] === "many"
        ? 6
        : 3
      : Object.hasOwn(NUMBER_WORDS, m[1]!)
        ? NUMBER_WORDS[m[1]!]
        : undefined;
  if (min === undefined) return null;
  const of = m[2]!.startsWith("w") ? "weights" : "styles";
  return { used: m[0].split(" ").length, constraints: [{ type: "count", label: `at least ${min} ${of}`, of, min }] };
};

/**
 * "for Polish", "speaks Icelandic", "polish and czech", "in Welsh", "for Greece": what the face must set. Before a noun it says what
 * something is like ("irish pub"), and is left to the theme.
 */
const readLanguage: Reader = (tokens, at, lexicon) => {
  const opener = /^(for|in|speaks|supports|covers|has)$/i.test(tokens[at]!) ? 1 : 0;
  const found = readLongest(tokens, at + opener, 3, (phrase, n) => {
    const plain = phrase.toLowerCase();
    const code = lexicon.languages.get(plain) ?? (opener ? lexicon.places?.get(plain) : undefined);
    if (!code || (!opener && (isOtherWord(phrase, lexicon) || isBeforeNoun(tokens, at + n, lexicon)))) return null;
    return { type: "language", label: `sets ${phrase[0]!.toUpperCase()}${phrase.slice(1)}`, language: code };
  });
  return found && { used: found.used + opener, constraints: found.constraints };
};
/** In lowercase some languages are called like a shape, and short ones like anything: of three letters only what is no other word. */
const SHORTEST_LANGUAGE = 4;
const isOtherWord = (phrase: string, { words }: Lexicon) =>
  phrase === phrase.toLowerCase() &&
  (PHRASES.has(phrase) ||
    phrase.length < SHORTEST_LANGUAGE - 1 ||
    (phrase.length < SHORTEST_LANGUAGE && (!words || words.isCommon(phrase))));

function isBeforeNoun(tokens: string[], at: number, lexicon: Lexicon): boolean {
  const next = tokens[at]?.toLowerCase();
  if (!next || !lexicon.words || FILLERS.has(next) || lexicon.languages.has(next)) return false;
  return lexicon.words.findForm(next) !== null && !OTHER_READERS.some((read) => read(tokens, at, lexicon));
}

/** "has & and +", "with an ampersand", "needs €": single characters and their names after such a word. */
const readHas: Reader = (tokens, at) => {
  if (!/^(has|have|needs?|with|having)$/i.test(tokens[at]!)) return null;
  let text = "";
  let end = at + 1;
  for (let i = at + 1; i < tokens.length;) {
    if (/^(and|an?|the|or)$/i.test(tokens[i]!)) {
      i++;
      continue;
    }
    const two = CHARACTERS.get(phraseAt(tokens, i, 2).toLowerCase());
    const one = CHARACTERS.get(tokens[i]!.toLowerCase()) ?? ([...tokens[i]!].length === 1 ? tokens[i]! : undefined);
    // "with italics", "has swashes" and the like are phrases of their own; so are figures followed by what they are.
    if ((!two && !one) || findPhrase(phraseAt(tokens, i, 2))) break;
    text += two ?? one;
    i += two ? 2 : 1;
    end = i;
  }
  return text ? { used: end - at, constraints: [{ type: "has", label: `has ${text}`, characters: text }] } : null;
};

const readPhrase: Reader = (tokens, at, { tags, words }) => {
  const negated = /^(not|no|without|never)$/i.test(tokens[at]!) && at + 1 < tokens.length;
  for (let n = Math.min(4, tokens.length - at); n >= 1; n--) {
    const phrase = phraseAt(tokens, at, n);
    const constraint = findPhrase(phrase, words) ?? findTag(phrase, tags, words);
    if (constraint) return { used: n, constraints: [constraint] };
    if (!negated || n === 1) continue;
    const rest = phraseAt(tokens, at + 1, n - 1);
    const denied = findPhrase(rest, words) ?? findTag(rest, tags, words);
    if (denied?.type === "trait") {
      const opposite = turnRound(denied);
      if (opposite) return { used: n, constraints: [opposite] };
    }
    if (denied && (denied.type === "kind" || denied.type === "treatment" || denied.type === "mood"))
      return { used: n, constraints: [{ ...denied, label: `not ${denied.label}`, not: true }] };
  }
  return null;
};

/** "not heavy": all that is less. A constraint between two ends has no opposite. */
function turnRound(constraint: Extract<Constraint, { type: "trait" }>): Constraint | null {
  const { min, max, ...rest } = constraint;
  if ((min === undefined) === (max === undefined)) return null;
  return { ...rest, label: `not ${constraint.label}`, ...(min !== undefined ? { max: min } : { min: max }) };
}

/** A tag that is a word with a meaning beside is read as a theme, with what is tagged first. */
const findTag = (phrase: string, tags: Lexicon["tags"], words?: WordTable): Constraint | null =>
  tags.has(phrase.toLowerCase()) && !words?.isCommon(phrase.toLowerCase())
    ? { type: "mood", label: phrase.toLowerCase(), moods: [phrase.toLowerCase()] }
    : null;

/** A name neither begins nor ends with a word that only joins others. */
const readName: Reader = (tokens, at, lexicon) =>
  readLongest(tokens, at, 4, (phrase, n) =>
    FILLERS.has(tokens[at]!.toLowerCase()) ||
    FILLERS.has(tokens[at + n - 1]!.toLowerCase()) ||
    (isSaid(phrase, lexicon) && !isNamedAmongShapes(tokens, at, lexicon))
      ? null
      : findName(phrase, lexicon, n > 1),
  );

/** "bitter italic" asks for a family, "bitter chocolate" for what is bitter: a whole name beside words for shapes alone. */
const isNamedAmongShapes = (tokens: string[], at: number, { families }: Lexicon): boolean =>
  tokens.length > 1 &&
  families.at.has(squash(tokens[at]!)) &&
  tokens.every((t, k) => k === at || PHRASES.has(t.toLowerCase()) || FILLERS.has(t.toLowerCase()));

const READERS: Reader[] = [
  readFullName,
  readLike,
  readPrice,
  readCount,
  readHas,
  readComparative,
  readLanguage,
  readPhrase,
  readName,
];

/** What may follow a language and is no noun of a theme. */
const OTHER_READERS = READERS.filter((r) => r !== readLanguage);

const PHRASES = new Map(
  VOCABULARY.flatMap(({ phrases, constraint }) => phrases.map((p) => [p, constraint] as const)).reverse(),
);

function findPhrase(phrase: string, words?: WordTable): Constraint | null {
  const plain = phrase.toLowerCase();
  const exact = PHRASES.get(plain);
  // A word of the language is no slip of another: "bread" is not "broad".
  if (exact || plain.length < 5 || words?.isCommon(plain)) return exact ?? null;
  // Single slips in long vocabulary words are forgiven.
  for (const { phrases, constraint } of VOCABULARY)
    if (phrases.some((p) => p.length >= 5 && p[0] === plain[0] && editDistance(p, plain, 1) <= 1)) return constraint;
  return null;
}

/** The family of this name, slips forgiven; null when there is none. */
function findFamily(words: string, families: NameIndex, allowed: number): number | null {
  const plain = squash(words);
  if (isTooShort(plain)) return null;
  const exact = families.at.get(plain);
  if (exact !== undefined) return exact;
  return allowed ? (nearNames(families, plain, allowed)[0]?.at ?? null) : null;
}

/**
 * A family (or foundry) whose name begins with the words, or is within a few slips of them.
 * @param wholeOnly - true: only names of about the same length (so that "bold" does not become "Bodoni").
 */
function findName(words: string, { families, foundries, ...lexicon }: Lexicon, wholeOnly: boolean): Constraint | null {
  const plain = squash(words);
  if (isTooShort(plain)) return null;
  const make = (label: string): Constraint => ({ type: "name", label, words });
  const exact = families.at.get(plain);
  if (exact !== undefined) return make(families.names[exact]!);
  const maker = foundries.at.get(plain);
  if (maker !== undefined) return { type: "foundry", label: `by ${foundries.names[maker]}`, foundry: maker };
  if (findPhrase(words, lexicon.words)) return null;
  if (families.squashed.some((n) => n.startsWith(plain))) return make(`name begins with “${words}”`);
  const allowed = slipsAllowed(plain.length);
  // Words that all mean something here are no misspelt name: "heavy slab" is not "Hepta Slab".
  if (!allowed || words.split(/\s+/).every((w) => FILLERS.has(w.toLowerCase()) || PHRASES.has(w.toLowerCase())))
    return null;
  const near = nearNames(families, plain, allowed)[0];
  const nearMaker = nearNames(foundries, plain, allowed)[0];
  if (near && (!nearMaker || near.slips <= nearMaker.slips)) return make(families.names[near.at]!);
  if (nearMaker) return { type: "foundry", label: `by ${foundries.names[nearMaker.at]}`, foundry: nearMaker.at };
  const beginning = foundries.squashed.findIndex((n) => n.startsWith(plain));
  if (beginning >= 0) return { type: "foundry", label: `by ${foundries.names[beginning]}`, foundry: beginning };
  if (wholeOnly) return null;
  return matchNames(families, words).size ? make(`name has “${words}”`) : null;
}
