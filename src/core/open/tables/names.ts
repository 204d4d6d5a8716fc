// The name table, and the family and style names people know a face by. OpenType 1.9.1 "name".
import { hasOtherScript } from "../../unicode/scripts";
import type { TableReader } from "../reader";

/** English (or first) string per name id. Control and direction characters are removed. */
export type Names = Record<number, string>;
/** Ids whose strings carry characters that no name should; ids that say two things in one language. */
export type NameFaults = { hidden: number[]; twice: number[] };

/** Name ids of long texts, in which line breaks and tabs are usual. */
const LONG_TEXTS = new Set([0, 7, 10, 13, 19]);

export function readNames(t: TableReader, found: NameFaults = { hidden: [], twice: [] }): Names {
  const seen = new Map<string, string>();
  const best = new Map<number, { rank: number; text: string }>();
  for (const { platform, encoding, language, id, bytes } of eachName(t)) {
    const whole = platform === 1 && encoding === 0 ? decodeMacRoman(bytes) : decodeUtf16(bytes);
    const probe = LONG_TEXTS.has(id) ? whole.replace(/[\n\r\t]/g, " ") : whole;
    if (hasHidden(probe) && !found.hidden.includes(id)) found.hidden.push(id);
    const key = `${platform} ${encoding} ${language} ${id}`;
    const before = seen.get(key);
    if (before !== undefined && before !== whole && !found.twice.includes(id)) found.twice.push(id);
    seen.set(key, whole);
    const rank =
      platform === 3 && language === 0x409 ? 3 : platform === 0 ? 2 : platform === 1 && language === 0 ? 1 : 0;
    const known = best.get(id);
    if (known && known.rank >= rank) continue;
    const text = stripHidden(whole).trim().slice(0, 40_000);
    if (text) best.set(id, { rank, text });
  }
  return Object.fromEntries([...best].map(([id, { text }]) => [id, text]));
}

/** Name ids of the family. */
const FAMILY_IDS = new Set([1, 16]);
const MOST_FAMILIES = 12;
const MOST_LETTERS = 100;
/** What the family is called in other languages than `readNames` chose: only encodings of Unicode. */
export function readOtherFamilies(t: TableReader, names: Names): string[] {
  const known = new Set([names[1], names[16]]);
  const others = new Set<string>();
  for (const { platform, encoding, id, bytes } of eachName(t)) {
    const isUnicode = platform === 0 || (platform === 3 && (encoding === 1 || encoding === 10));
    if (!FAMILY_IDS.has(id) || !isUnicode) continue;
    const name = stripHidden(decodeUtf16(bytes)).trim().slice(0, MOST_LETTERS);
    // The same name with a weight behind it is no other name.
    if (hasOtherScript(name) && !known.has(name)) others.add(name);
    if (others.size >= MOST_FAMILIES) break;
  }
  return [...others];
}

/** The records of the table, with the bytes of each string; those that point beyond it are passed over. */
function* eachName(t: TableReader) {
  const store = t.u16(4);
  for (let i = 0; i < t.u16(2); i++) {
    const field = (k: number) => t.u16(6 + i * 12 + 2 * k);
    const [length, from] = [field(4), store + field(5)];
    if (from + length > t.length) continue;
    yield { platform: field(0), encoding: field(1), language: field(2), id: field(3), bytes: t.slice(from, length) };
  }
}

const decodeUtf16 = (raw: Uint8Array) => {
  let out = "";
  for (let i = 0; i + 1 < raw.length; i += 2) out += String.fromCharCode((raw[i]! << 8) | raw[i + 1]!);
  return out;
};
const decodeMacRoman = (raw: Uint8Array) => new TextDecoder("macintosh").decode(raw);
/** Control characters but tab and line feed; marks that turn the direction of writing; zero-width joiners of words. */
const HIDDEN = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u061c\u200b\u200e\u200f\u202a-\u202e\u2060-\u2069\ufeff]/;
const stripHidden = (text: string) => text.replace(new RegExp(HIDDEN.source, "g"), "");
const hasHidden = (text: string) => HIDDEN.test(text) || /[\n\t]/.test(text);

const STYLE_WORDS =
  /^(thin|hairline|extra ?light|ultra ?light|light|regular|normal|book|medium|semi ?bold|demi ?bold|demi|bold|extra ?bold|ultra ?bold|black|heavy|fat|italic|oblique|roman)$/i;

/** Weight words of names and the usWeightClass each stands for. */
const WEIGHT_WORDS: [RegExp, number][] = [
  [/^(thin|hairline)$/i, 100],
  [/^(extra|ultra) ?light$/i, 200],
  [/^light$/i, 300],
  [/^(regular|normal|book|roman)$/i, 400],
  [/^medium$/i, 500],
  [/^(semi ?bold|demi ?bold|demi)$/i, 600],
  [/^bold$/i, 700],
  [/^(extra|ultra) ?bold$/i, 800],
  [/^(black|heavy|fat)$/i, 900],
];
const weightOf = (word: string) => WEIGHT_WORDS.find(([w]) => w.test(word))?.[1] ?? null;

/**
 * Family and style as a person would say them: typographic names (16, 17) first, then 1 and 2 with weight words
 * moved from the family to the style ("Alegreya Medium" + "Italic" becomes "Alegreya" + "Medium Italic").
 * @param statedWeight - usWeightClass: where both names carry a weight ("X ExtraLight" + "Bold"), the nearer one stays.
 * @returns null for the family when the font carries no usable name.
 */
export function readFamilyAndStyle(
  names: Names,
  statedWeight: number | null,
): { family: string | null; style: string } {
  if (names[16]) return { family: names[16], style: names[17] ?? names[2] ?? "Regular" };
  const family = names[1];
  if (!family) return { family: null, style: names[2] ?? "Regular" };
  const words = family.split(/\s+/);
  const moved: string[] = [];
  while (words.length > 1 && STYLE_WORDS.test(words[words.length - 1]!)) moved.unshift(words.pop()!);
  const legacy = (names[2] ?? "Regular").split(/\s+/).filter(Boolean);
  // "Italic" alone means a regular one.
  if (!legacy.some((w) => weightOf(w) !== null)) legacy.unshift("Regular");
  const chosen = chooseWeight([...moved, ...legacy], statedWeight ?? 400);
  // A weight word that the stated weight contradicts is part of the family's name ("Shadows Into Light", Regular).
  const isMoved = moved.every((w) => chosen.includes(w));
  const style = (isMoved ? chosen : legacy).filter((w, _, all) => all.length === 1 || !/^regular$/i.test(w)).join(" ");
  return { family: isMoved ? words.join(" ") : family, style };
}

/** Of several weight words only the one nearest to the stated weight stays; other words stay as they are. */
function chooseWeight(words: string[], stated: number): string[] {
  const weights = words.filter((w) => weightOf(w) !== null);
  if (weights.length < 2) return words;
  const nearest = weights.reduce((a, b) => (Math.abs(weightOf(b)! - stated) < Math.abs(weightOf(a)! - stated) ? b : a));
  return words.filter((w) => weightOf(w) === null || w === nearest);
}
