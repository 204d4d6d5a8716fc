// The words of the find field → wishes that filter and rank, with what was not understood said.
import { CHARACTER_WORDS, FILLERS, VOCABULARY, type Wish } from "./vocabulary";

export type Parsed = { wishes: { wish: Wish; from: string }[]; ignored: string[] };

/**
 * Reads a sentence.
 * @param words - what the person typed. @param familyNames - all families, for recognising names (typos forgiven).
 * @param fullNames - "family style" of every style, squashed: "Zilla Slab Bold" is one style, not a family and a weight.
 * @returns wishes in the order of the sentence; words that mean nothing here are in `ignored`.
 */
export function parseWords(
  words: string,
  familyNames: readonly string[],
  fullNames: ReadonlySet<string> = new Set(),
): Parsed {
  const parsed: Parsed = { wishes: [], ignored: [] };
  const text = words.trim();
  if (!text) return parsed;
  // A whole sentence that is a family's name is a name, even when its words mean shapes ("Space Mono").
  const whole = text.length >= 2 ? findName(text, familyNames, true) : null;
  if (whole) return { wishes: [{ wish: whole, from: text }], ignored: [] };
  const tokens = text.split(/[\s,;]+/).filter(Boolean);
  for (let at = 0; at < tokens.length;) at += readAt(tokens, at, familyNames, fullNames, parsed);
  return parsed;
}

function readAt(
  tokens: string[],
  at: number,
  names: readonly string[],
  fullNames: ReadonlySet<string>,
  parsed: Parsed,
): number {
  for (let n = Math.min(7, tokens.length - at); n >= 2; n--) {
    const phrase = tokens.slice(at, at + n).join(" ");
    if (!fullNames.has(squash(phrase))) continue;
    parsed.wishes.push({ wish: { type: "name", label: phrase, words: phrase }, from: phrase });
    return n;
  }
  const characters = readHas(tokens, at);
  if (characters) {
    parsed.wishes.push({
      wish: { type: "has", label: `has ${characters.text}`, characters: characters.text },
      from: characters.from,
    });
    return characters.used;
  }
  const negated = /^(not|no|without)$/i.test(tokens[at]!) && at + 1 < tokens.length;
  for (let n = Math.min(4, tokens.length - at); n >= 1; n--) {
    const phrase = tokens.slice(at, at + n).join(" ");
    const wish = findPhrase(phrase);
    if (wish) {
      parsed.wishes.push({ wish, from: phrase });
      return n;
    }
    const negatable = negated && n > 1 ? findPhrase(tokens.slice(at + 1, at + n).join(" ")) : null;
    if (negatable && (negatable.type === "kind" || negatable.type === "treatment")) {
      parsed.wishes.push({ wish: { ...negatable, label: `not ${negatable.label}`, not: true }, from: phrase });
      return n;
    }
  }
  for (let n = Math.min(4, tokens.length - at); n >= 1; n--) {
    const phrase = tokens.slice(at, at + n).join(" ");
    const name = n > 1 || !FILLERS.has(phrase.toLowerCase()) ? findName(phrase, names, n > 1) : null;
    if (name) {
      parsed.wishes.push({ wish: name, from: phrase });
      return n;
    }
  }
  const word = tokens[at]!;
  if (!FILLERS.has(word.toLowerCase())) parsed.ignored.push(word);
  return 1;
}

/** "has & and +", "with an ampersand", "needs €": single characters and their names after such a word. */
function readHas(tokens: string[], at: number): { text: string; from: string; used: number } | null {
  if (!/^(has|have|needs?|with|having)$/i.test(tokens[at]!)) return null;
  let text = "";
  let end = at + 1;
  for (let i = at + 1; i < tokens.length;) {
    if (/^(and|an?|the|or)$/i.test(tokens[i]!)) {
      i++;
      continue;
    }
    const two =
      CHARACTER_WORDS[
        tokens
          .slice(i, i + 2)
          .join(" ")
          .toLowerCase()
      ];
    const one = CHARACTER_WORDS[tokens[i]!.toLowerCase()] ?? ([...tokens[i]!].length === 1 ? tokens[i]! : undefined);
    if (!two && !one) break;
    text += two ?? one;
    i += two ? 2 : 1;
    end = i;
  }
  return text ? { text, from: tokens.slice(at, end).join(" "), used: end - at } : null;
}

function findPhrase(phrase: string): Wish | null {
  const plain = phrase.toLowerCase();
  for (const { phrases, wish } of VOCABULARY) if (phrases.includes(plain)) return wish;
  if (plain.length < 5) return null;
  // Single slips in long vocabulary words are forgiven.
  for (const { phrases, wish } of VOCABULARY)
    if (phrases.some((p) => p.length >= 5 && p[0] === plain[0] && editDistance(p, plain, 1) <= 1)) return wish;
  return null;
}

/**
 * A family whose name begins with the words, or is within a few slips of them.
 * @param wholeOnly - true: only names of about the same length (so that "bold" does not become "Bodoni").
 */
function findName(words: string, names: readonly string[], wholeOnly: boolean): Wish | null {
  const plain = squash(words);
  if (plain.length < 2) return null;
  const make = (label: string): Wish => ({ type: "name", label, words });
  const exact = names.find((n) => squash(n) === plain);
  if (exact) return make(exact);
  if (findPhrase(words)) return null;
  const starting = names.find((n) => squash(n).startsWith(plain));
  if (starting) return make(`name begins with “${words}”`);
  if (plain.length < 4) return null;
  const allowed = plain.length >= 9 ? 3 : plain.length >= 6 ? 2 : 1;
  let best: { name: string; slips: number } | null = null;
  for (const name of names) {
    const slips = editDistance(squash(name), plain, allowed);
    if (slips <= allowed && (!best || slips < best.slips)) best = { name, slips };
  }
  if (best) return make(best.name);
  if (wholeOnly) return null;
  const inside = plain.length >= 4 && names.some((n) => squash(n).includes(plain));
  return inside ? make(`name has “${words}”`) : null;
}

export const squash = (s: string) =>
  s
    .normalize("NFD")
    .toLowerCase()
    .replace(/[^a-z0-9]/g, "");

/**
 * Edits (insert, delete, replace, swap neighbours) from one word to another; stops counting beyond `limit`.
 * Source: optimal string alignment distance.
 */
export function editDistance(a: string, b: string, limit: number): number {
  if (Math.abs(a.length - b.length) > limit) return limit + 1;
  let before: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let v = Math.min(last[j]! + 1, row[j - 1]! + 1, last[j - 1]! + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) v = Math.min(v, before[j - 2]! + 1);
      row.push(v);
    }
    before = last;
    last = row;
  }
  return last[b.length]!;
}
