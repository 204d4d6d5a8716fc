// Words → a theme: how much of each look, carried over from the anchors whose meaning is nearest.
import type { ThemeLooks } from "@/contracts/themes";
import { NAMED_LOOKS, THEMES, type Theme } from "./anchors";
import { LOOKS } from "./looks";
import { cosine, normalize, type WordTable } from "./wordTable";

/**
 * @property weights - of each look, the greatest 1; Float32Array, shape [LOOKS].
 * @property near - themes that it was read by, the nearest first, with their share.
 */
export type ThemeReading = { weights: Float32Array; near: { theme: Theme; share: number }[] };

/** How many themes a word is carried to, how near they must be, and how fast nearness counts. Fitted by scripts/eval/themes.ts on phrases seen. */
export type ThemeSettings = {
  most: number;
  from: number;
  power: number;
  floor: number;
  /** Words that are not to be used: for trying how well the others carry. */
  skip?: (theme: Theme, word: string) => boolean;
};
export const THEME_SETTINGS: ThemeSettings = { most: 20, from: 0.1, power: 2, floor: 0.45 };

type Anchor = { theme: Theme; word: string; vector: Float32Array };
const anchorsOf = new WeakMap<WordTable, Anchor[]>();

function getAnchors(words: WordTable): Anchor[] {
  let anchors = anchorsOf.get(words);
  if (!anchors) {
    anchors = THEMES.flatMap((theme) =>
      theme.words.flatMap((phrase) => {
        const vector = meanOf(phrase.split(/[\s-]+/), words);
        return vector ? [{ theme, word: phrase, vector }] : [];
      }),
    );
    anchorsOf.set(words, anchors);
  }
  return anchors;
}

/** The mean direction of some words, rare ones counting more; null when none is known. */
function meanOf(list: readonly string[], words: WordTable): Float32Array | null {
  const sum = new Float32Array(words.dims);
  let isKnown = false;
  for (const word of list) {
    const form = words.findForm(word);
    const vector = form && words.of(form);
    if (!vector) continue;
    isKnown = true;
    // Words that are said of everything ("club", "shop") say less than rare ones.
    const weight = words.rarityOf(form);
    for (let k = 0; k < sum.length; k++) sum[k]! += weight * vector[k]!;
  }
  return isKnown ? normalize(sum) : null;
}

/**
 * Reads words that stand together ("dusty library").
 * @param phrase - words in lowercase.
 * @returns null when no word of it is known, or nothing is near.
 */
export function readTheme(
  phrase: readonly string[],
  words: WordTable,
  correction: ThemeLooks = {},
  settings: ThemeSettings = THEME_SETTINGS,
): ThemeReading | null {
  const near = findNear(phrase, words, settings);
  if (!near.length && !Object.keys(correction).length) return null;
  const weights = new Float32Array(LOOKS.length);
  for (const { theme, share } of near) LOOKS.forEach(({ name }, k) => (weights[k]! += share * (theme.look[name] ?? 0)));
  const greatest = Math.max(...weights, Number.MIN_VALUE);
  LOOKS.forEach(({ name }, k) => {
    const share = weights[k]! / greatest;
    weights[k] = correction[name] ?? (share < settings.floor ? 0 : share);
  });
  return { weights, near };
}

/** The themes whose words are nearest, the nearest first; shares add up to 1. */
function findNear(phrase: readonly string[], words: WordTable, { most, from, power, skip }: ThemeSettings) {
  const look = NAMED_LOOKS.find((l) => l.words.includes(phrase.join(" ")));
  if (look) return [{ theme: look, share: 1 }];
  const whole = meanOf(phrase, words);
  const nearness = new Map<Theme, number>();
  if (whole)
    for (const { theme, word, vector } of getAnchors(words)) {
      if (skip?.(theme, word)) continue;
      nearness.set(theme, Math.max(nearness.get(theme) ?? -1, cosine(whole, vector)));
    }
  const shares = new Map<Theme, number>();
  const near = [...nearness]
    .filter(([, n]) => n >= from)
    .sort((a, b) => b[1] - a[1])
    .slice(0, most);
  share(
    near.map(([theme, n]) => [theme, n ** power]),
    shares,
    1,
  );
  // Themes that the words name come before all that are only near.
  const named = THEMES.filter((theme) => {
    const word = theme.words.find((w) => phrase.includes(w) || phrase.join(" ") === w);
    return word !== undefined && !skip?.(theme, word);
  });
  if (named.length) {
    for (const [theme, n] of shares) shares.set(theme, n * (1 - NAMED_SHARE));
    share(
      named.map((theme) => [theme, Math.max(nearness.get(theme) ?? 0, from)]),
      shares,
      NAMED_SHARE,
    );
  }
  return [...shares].sort((a, b) => b[1] - a[1]).map(([theme, n]) => ({ theme, share: n }));
}
/** What themes that are named have of the whole. */
const NAMED_SHARE = 0.65;

/** Adds shares of some themes, `whole` in all. */
function share(themes: [Theme, number][], shares: Map<Theme, number>, whole: number) {
  const total = themes.reduce((sum, [, n]) => sum + n, 0);
  for (const [theme, n] of themes) shares.set(theme, (shares.get(theme) ?? 0) + (whole * n) / total);
}

/** Themes and looks named for one reading. */
const THEMES_NAMED = 2;
const LOOKS_NAMED = 3;
/** A theme with a smaller share is not named. */
const NAMED_FROM = 0.2;

/** A reading in words: "rustic, harvest: woodtype, slab, marker hand". */
export function writeTheme({ weights, near }: ThemeReading): string {
  const themes = near.filter((n, i) => !i || n.share >= NAMED_FROM).slice(0, THEMES_NAMED);
  const looks = [...weights.keys()].filter((k) => weights[k]! > 0).sort((a, b) => weights[b]! - weights[a]!);
  return `${themes.map((n) => n.theme.words[0]).join(", ")}: ${looks
    .slice(0, LOOKS_NAMED)
    .map((k) => LOOKS[k]!.name)
    .join(", ")}`;
}

/**
 * How well each style fits a theme, 0–1: one look that it has wholly is enough, several add up.
 * @param degrees - of the looks of all rows, in 255ths; Uint8Array, shape [rows, LOOKS].
 * @returns shape [rows].
 */
export function fitTheme(weights: Float32Array, degrees: Uint8Array): Float32Array {
  const asked = [...weights.keys()].filter((k) => weights[k]! > 0);
  const fits = new Float32Array(degrees.length / LOOKS.length);
  for (let i = 0; i < fits.length; i++) {
    let misses = 1;
    for (const k of asked) misses *= 1 - (weights[k]! * degrees[i * LOOKS.length + k]!) / 255;
    fits[i] = 1 - misses;
  }
  return fits;
}

/** The looks of a reading, what weighs most first. */
export const listLooks = ({ weights, near }: ThemeReading) => ({
  near: near
    .filter((n, i) => !i || n.share >= NAMED_FROM)
    .slice(0, THEMES_NAMED)
    .map((n) => n.theme.words[0]!),
  looks: LOOKS.map(({ name, because }, k) => ({ name, because, weight: Number(weights[k]!.toFixed(2)) }))
    .filter((l) => l.weight > 0)
    .sort((a, b) => b.weight - a.weight),
});

/** How far a look of a face comes in, and what it must have of one; less than the other is as good as nothing. */
const HAS_LOOK = 0.3;
const HAS_NOT = 0.1;

/** A reading moved towards a face: its looks come in as far as it has them, what it has nothing of is halved. */
export function leanTowards(weights: Float32Array, degrees: readonly number[]): ThemeLooks {
  const looks: ThemeLooks = {};
  LOOKS.forEach(({ name }, k) => {
    const [asked, has] = [weights[k]!, degrees[k]!];
    const next = has >= HAS_LOOK ? Math.max(asked, has) : has < HAS_NOT ? asked / 2 : asked;
    if (next !== asked) looks[name] = Number(next.toFixed(2));
  });
  return looks;
}
