// How well two faces go together, for a role that the second is wanted for: a sum of named parts, each a value of the measures that can be
// read beside it. Stands behind Companions. Rules of the trade, in the order of their weight: text must read; the two must do different
// things; and they must still belong together.
import type { PairRole, PairWay } from "@/contracts/compare";
import type { Kind, Traits, Treatment } from "@/contracts/traits";
import { STEPS, TRAITS } from "../find/alike";
import type { FindRow } from "../find/findIndex";
import { MOODS } from "../kind/moods";

export type PairFace = {
  family: string;
  /** Without the words for kinds of letters: what families that were drawn together share. */
  bareFamily: string;
  kinds: readonly Kind[];
  treatments: readonly Treatment[];
  /** Words for periods that are said of it. */
  periods: readonly string[];
  traits: Traits;
};
const PERIODS = new Set(MOODS.filter((m) => m.group === "period").map((m) => m.word));
/** What pairing looks at of a row. */
export const pairFaceOf = ({
  family,
  kinds,
  treatments,
  moods = [],
  traits,
}: Pick<FindRow, "family" | "kinds" | "treatments" | "moods" | "traits">): PairFace => ({
  family,
  bareFamily: bareName(family),
  kinds: sureOf(kinds),
  treatments: sureOf(treatments),
  periods: moods.flatMap((m) => (PERIODS.has(m.value) ? [m.value] : [])),
  traits,
});
/** What is likely enough to count, the surest first. */
const sureOf = <T extends string>(guesses: readonly { value: T; confidence: number }[]): T[] =>
  guesses.filter((g) => g.confidence >= SURE_ENOUGH).map((g) => g.value);
const SURE_ENOUGH = 0.6;
/** One part of a score: what was looked at, both values, how good that is (0–1) and what it weighs. */
type PairReason = {
  aspect: string;
  a: number;
  b: number;
  unit?: string;
  says: string;
  good: number;
  weight: number;
};
type PairRate = { score: number; by: PairWay };
type PairScore = PairRate & { reasons: PairReason[] };
/** The same before it is told: of a hundred thousand pairs a dozen are. */
type Part = { good: number; weight: number; tell: () => Omit<PairReason, "good" | "weight"> };

const LOUD_KINDS: readonly Kind[] = ["script", "handwritten", "blackletter", "display", "picture"];
/** These leave a text as legible as it is. */
const PLAIN_TREATMENTS: readonly Treatment[] = ["rounded", "swash"];
const { abs, max, min } = Math;

/** 0 at `from`, 1 at `to` and beyond; in between in proportion. */
const rise = (value: number, from: number, to: number) => min(1, max(0, (value - from) / (to - from)));
/** 1 from `low` to `high`, falling to 0 over `fall` on both sides. */
const within = (value: number, low: number, high: number, fall: number) =>
  value < low ? rise(value, low - fall, low) : rise(-value, -(high + fall), -high);

/**
 * @param a - the face that is there. @param b - the one that is to go with it, in `role`; `a` has another role.
 * @returns score 0–1: the weighted mean of the parts, less where the one that is to be read cannot be.
 */
export function scorePair(a: PairFace, b: PairFace, role: PairRole): PairScore {
  const { score, by, parts } = weighPair(a, b, role);
  const reasons = parts.map(({ good, weight, tell }): PairReason => ({ ...tell(), good, weight }));
  return { score: Number(score.toFixed(4)), by, reasons: reasons.sort((p, q) => told(q) - told(p)) };
}

/** The score alone, for going through a library. */
export function ratePair(a: PairFace, b: PairFace, role: PairRole): PairRate {
  const { score, by } = weighPair(a, b, role);
  return { score, by };
}

function weighPair(a: PairFace, b: PairFace, role: PairRole): PairRate & { parts: Part[] } {
  const [text, heading] = role === "heading" ? [a, b] : [b, a];
  const apart = stepsApart(a.traits, b.traits);
  const kin = areKin(a.bareFamily, b.bareFamily) ? 1 : 0;
  const reads = readability(text, role === "caption");
  const parts = [
    readsReason(a, b, text, reads),
    loudnessReason(a, b, heading, text),
    kindReason(a, b, kin),
    weightReason(a, b, heading, text),
    apartReason(apart, kin),
    xHeightReason(a, b),
    skeletonReason(a, b, kin),
    stressReason(a, b),
    familyReason(a, b, kin),
    periodReason(a, b),
  ].filter((part) => part !== null);
  let [sum, weights] = [0, 0];
  for (const part of parts) {
    sum += part.weight * part.good;
    weights += part.weight;
  }
  const by = kin ? "family" : sharesPeriod(a, b) ? "period" : apart < LIKE_STEPS ? "likeness" : "contrast";
  return { score: (sum / weights) * (0.35 + 0.65 * reads), by, parts };
}
/** Under this many steps two faces are alike more than they contrast. */
const LIKE_STEPS = 4.5;
/** Reasons that say most, for or against, come first. */
const told = ({ good, weight }: PairReason) => weight * abs(good - 0.5);

/** How well a face is read in running text, 0–1. */
export function readability({ kinds, treatments, traits: t }: PairFace, isSmall: boolean): number {
  if (t.picture || kinds.some((k) => k === "picture" || k === "blackletter")) return 0;
  const isText = kinds.some((k) => k === "serif" || k === "sans" || k === "slab" || k === "monospaced");
  const parts = [
    isText && !kinds.some((k) => k === "display" || k === "script" || k === "handwritten") ? 1 : isText ? 0.4 : 0.1,
    treatments.some((t) => !PLAIN_TREATMENTS.includes(t)) ? 0.15 : 1,
    t.cases === "both" || t.cases === null ? 1 : 0.1,
    t.weight === null ? 1 : within(t.weight, 300, 520, 220),
    t.contrast === null ? 1 : within(t.contrast, 1, isSmall ? 3.5 : 5, 4),
    t.width === null ? 1 : within(t.width, 3.6, 7, 2),
    t.roughness === null ? 1 : rise(-t.roughness, -0.3, -0.1),
    t.slantDeg === null ? 1 : rise(-abs(t.slantDeg), -14, -6),
    t.xHeightEm === null ? 1 : rise(t.xHeightEm, 0.28, isSmall ? 0.46 : 0.38),
  ];
  return parts.reduce((product, part) => product * max(0.05, part), 1);
}

/** How much a face asks to be looked at, 0–1. */
function loudness({ kinds, treatments, traits: t }: PairFace): number {
  return max(
    kinds.some((k) => LOUD_KINDS.includes(k)) ? 0.8 : 0,
    treatments.some((t) => !PLAIN_TREATMENTS.includes(t)) ? 0.7 : 0,
    t.weight === null ? 0 : rise(t.weight, 620, 900),
    t.contrast === null ? 0 : 0.7 * rise(t.contrast, 3.5, 8),
    t.width === null ? 0 : 0.5 * max(rise(-t.width, -4, -2.4), rise(t.width, 7, 9)),
  );
}

const round = (v: number, digits = 2) => Number(v.toFixed(digits));

function readsReason(a: PairFace, b: PairFace, text: PairFace, reads: number): Part {
  const tell = () => ({
    ...{ aspect: "reading", unit: "0–1", a: round(readability(a, false)), b: round(readability(b, false)) },
    says:
      reads >= 0.6
        ? `${text.family} reads well as text`
        : reads >= 0.25
          ? `${text.family} can be read as text, with care`
          : `${text.family} is hard to read as text`,
  });
  return { good: reads, weight: 3, tell };
}

function loudnessReason(a: PairFace, b: PairFace, heading: PairFace, text: PairFace): Part {
  const [la, lb] = [loudness(a), loudness(b)];
  const [high, low] = heading === a ? [la, lb] : [lb, la];
  const good = 1 - min(high, low) * 0.9 - max(0, low - high) * 0.5;
  const tell = () => ({
    ...{ aspect: "loudness", unit: "0–1", a: round(la), b: round(lb) },
    says:
      min(high, low) >= 0.5
        ? "both ask to be looked at"
        : high >= 0.5
          ? `${heading.family} speaks, ${text.family} stays quiet`
          : "both are quiet",
  });
  return { good: max(0, good), weight: 1.5, tell };
}

const CLASS_OF: Partial<Record<Kind, string>> = { slab: "serif", monospaced: "sans", handwritten: "script" };
const classOf = ({ kinds, traits }: PairFace): string => {
  const first = kinds.find((k) => k !== "display" && k !== "monospaced") ?? kinds[0];
  if (!first || first === "display") return (traits.serif ?? 0) >= 0.5 ? "serif" : "sans";
  return CLASS_OF[first] ?? first;
};

/** Serif beside sans is the oldest contrast; two of one class must differ otherwise. */
function kindReason(a: PairFace, b: PairFace, kin: number): Part {
  const [ca, cb] = [classOf(a), classOf(b)];
  const isOther = ca !== cb;
  const tell = () => ({
    ...{ aspect: "kind", unit: "serif, 0–1", a: round(a.traits.serif ?? 0), b: round(b.traits.serif ?? 0) },
    says: isOther ? `${ca} beside ${cb}` : kin ? `both ${ca}, of one family` : `both ${ca}`,
  });
  return { good: isOther ? 1 : 0.1, weight: 2.5, tell };
}

function weightReason(a: PairFace, b: PairFace, heading: PairFace, text: PairFace): Part | null {
  const [wa, wb] = [a.traits.weight, b.traits.weight];
  if (wa === null || wb === null) return null;
  const more = (heading.traits.weight ?? 0) - (text.traits.weight ?? 0);
  const good = more >= 0 ? 0.3 + 0.7 * rise(more, 60, 300) : 0.3 * rise(more, -200, 0) + 0.25 * rise(-more, 120, 300);
  const tell = () => ({
    ...{ aspect: "weight", a: wa, b: wb },
    says:
      abs(more) < 80
        ? "nearly the same weight"
        : more > 0
          ? `${heading.family} is ${round(more, 0)} heavier`
          : `${heading.family} is ${round(-more, 0)} lighter`,
  });
  return { good, weight: 1, tell };
}

/** Nearly the same is the worst of all: it looks like a mistake. */
function apartReason(apart: number, kin: number): Part {
  const good = kin ? max(0.7, rise(apart, 1.5, 5)) : rise(apart, 1.8, 5);
  const tell = () => ({
    ...{ aspect: "distance", a: 0, b: round(apart, 1), unit: "steps" },
    says:
      apart < 3 && !kin
        ? `nearly the same: ${round(apart, 1)} steps apart`
        : `${round(apart, 1)} steps apart, weight aside`,
  });
  return { good, weight: 2, tell };
}

const xHeightOfCapitals = (t: Traits) =>
  t.xHeightEm && t.capHeightEm && t.cases === "both" ? t.xHeightEm / t.capHeightEm : null;

function xHeightReason(a: PairFace, b: PairFace): Part | null {
  const [ra, rb] = [xHeightOfCapitals(a.traits), xHeightOfCapitals(b.traits)];
  if (ra === null || rb === null) return null;
  const tell = () => ({
    ...{ aspect: "x-height of the capitals", a: round(ra, 3), b: round(rb, 3) },
    says:
      abs(ra - rb) < 0.06
        ? "x-heights stand alike below the capitals"
        : `x-height ${round(100 * ra, 0)} % of the capitals beside ${round(100 * rb, 0)} %`,
  });
  return { good: rise(-abs(ra - rb), -0.2, -0.03), weight: 0.6, tell };
}

/** What lies under serifs and weight: openings, corners, widths. */
function skeletonReason(a: PairFace, b: PairFace, kin: number): Part | null {
  const [pa, pb] = [a.traits.aperture, b.traits.aperture];
  if (pa === null || pb === null) return null;
  const says = abs(pa - pb) < 0.09 ? "openings alike" : "openings differ";
  const tell = () => ({ aspect: "aperture", a: pa, b: pb, unit: "of the height", says });
  return { good: max(kin * 0.8, rise(-abs(pa - pb), -0.3, -0.04)), weight: 0.6, tell };
}

function stressReason(a: PairFace, b: PairFace): Part | null {
  const [sa, sb] = [a.traits.stressDeg, b.traits.stressDeg];
  if (sa === null || sb === null) return null;
  const says = abs(sa - sb) < 7 ? "stress leans alike" : "stress leans apart";
  const tell = () => ({ aspect: "stressDeg", a: sa, b: sb, unit: "°", says });
  return { good: rise(-abs(sa - sb), -20, -3), weight: 0.4, tell };
}

function familyReason(a: PairFace, b: PairFace, kin: number): Part | null {
  if (!kin) return null;
  const says = a.family === b.family ? "styles of one family" : `${a.family} and ${b.family} were drawn as a system`;
  return { good: 1, weight: 2.5, tell: () => ({ aspect: "family", a: 1, b: 1, says }) };
}

const sharesPeriod = (a: PairFace, b: PairFace) => a.periods.some((p) => b.periods.includes(p));
function periodReason(a: PairFace, b: PairFace): Part | null {
  const shared = a.periods.find((p) => b.periods.includes(p));
  if (shared === undefined) return null;
  return { good: 1, weight: 0.8, tell: () => ({ aspect: "period", a: 1, b: 1, says: `both ${shared}` }) };
}

/** Names of kinds of letters: what is left of two names without them tells whether they were drawn as one system. */
const CLASS_WORDS = new Set(
  "sans serif slab mono code display text narrow condensed extended rounded round soft sc small caps caption headline".split(
    " ",
  ),
);
const bareName = (name: string) =>
  name
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => !CLASS_WORDS.has(w))
    .join(" ");
/** One family, or families that go by one name but for the kind of letters. */
const areKin = (a: string, b: string) => a !== "" && a === b;

/** Distance of two faces in steps that a reader sees, over the traits that both have: weight apart, which any family offers. */
function stepsApart(a: Traits, b: Traits): number {
  let sum = 0;
  for (const [trait, step] of STEPS_BESIDE_WEIGHT) {
    const [x, y] = [a[trait] ?? null, b[trait] ?? null];
    if (x !== null && y !== null) sum += min(6, abs(x - y) / step) ** 2;
  }
  return Math.sqrt(sum);
}
const STEPS_BESIDE_WEIGHT = TRAITS.filter((t) => t !== "weight").map((t) => [t, STEPS[t]!] as const);

/** Steps of a modular scale: what a role is of the text's size. */
const SCALE = { heading: 1.25 ** 4, text: 1, caption: 1 / 1.25 };
const USUAL_LEADING_EM = 1.2;

/**
 * The size and leading at which the second face goes with the first.
 * @param roleOfA - what the first is used for. @returns `sizeRatio`: size of b / size of a, so that b's x-height stands at its step of the scale.
 */
export function proposeSetting(
  a: Traits,
  b: Traits,
  roleOfA: PairRole,
  role: PairRole,
): { sizeRatio: number; leadingEm: number } {
  const heightOf = (t: Traits) => (t.cases === "both" && t.xHeightEm) || (t.capHeightEm ?? 0.7) * 0.72;
  const level = heightOf(a) / heightOf(b);
  const sizeRatio = (SCALE[role] / SCALE[roleOfA]) * level;
  // A large x-height leaves less white between lines, a wide line needs more.
  const leadingEm =
    role === "heading"
      ? 1.1
      : USUAL_LEADING_EM + 0.6 * max(0, (b.xHeightEm ?? 0.48) - 0.44) + 0.05 * rise(b.width ?? 5, 5, 8);
  return { sizeRatio: round(sizeRatio, 3), leadingEm: round(leadingEm, 2) };
}

/**
 * The weight at which the text of a second face is as grey as that of the first: stems take as much of the width.
 * @param weights - that it has. @returns one of them; null where nothing is measured.
 */
export function weightForGrey(a: Traits, b: Traits, weights: readonly number[]): number | null {
  if (!a.stemEm || !a.widthEm || !b.stemEm || !b.widthEm || !b.weight || !weights.length) return null;
  const wanted = a.stemEm / a.widthEm;
  const off = (weight: number) => abs((b.stemEm! * weight) / b.weight! / b.widthEm! - wanted);
  return weights.reduce((best, weight) => (off(weight) < off(best) ? weight : best));
}
