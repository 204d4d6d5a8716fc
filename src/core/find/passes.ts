// Tests of one row for every filter of the sieve and every wish of the words: functions of a row's position over columns.
import type { StyleQuery } from "@/contracts/styles";
import { KINDS, TREATMENTS, VERDICTS, type Use, type Verdict } from "@/contracts/traits";
import { hasCodePoint } from "../open/unicodeBlocks";
import { hasBit, type FindIndex, type SieveTrait } from "./findIndex";
import { matchNames, squash } from "./nameIndex";
import type { Wish } from "./vocabulary";

/** What a question needs beside the index: of the brief, and of languages. */
export type Asked = {
  index: FindIndex;
  uses: readonly Use[];
  setAside: ReadonlySet<string>;
  /** Row → place in VERDICTS for the brief's uses. */
  verdictOf: Uint8Array;
  /** Row → how many characters of the brief it lacks. */
  missingOf: Uint8Array;
  /** Row → price in cents for the brief's uses: 0 where nothing is asked, NaN where it is not known. */
  priceOf: Float64Array;
  /** Language code → whether each coverage sets it. */
  speaks: (language: string) => Uint8Array;
};

export type Test = { facet: string; passes: (i: number) => boolean };

/** Positions in a shared list that satisfy a condition, as bytes: the condition runs once a value, not once a row. */
export function among<T>(list: readonly T[], holds: (value: T) => boolean): Uint8Array {
  return Uint8Array.from(list, (v) => (holds(v) ? 1 : 0));
}

export function sieveTests(query: Partial<StyleQuery>, asked: Asked): Test[] {
  const { index } = asked;
  const tests: Test[] = [];
  const add = (facet: string, passes: Test["passes"]) => tests.push({ facet, passes });
  const addShared = <T>(facet: string, shared: { of: Uint32Array; list: T[] }, holds: (v: T) => boolean) => {
    const good = among(shared.list, holds);
    add(facet, (i) => good[shared.of[i]!] === 1);
  };
  const { kinds, treatments, verdicts, moods, vox, features, languages, axes, formats, health, libraries } = query;
  if (kinds?.length) addShared("kinds", index.kinds, (m) => kinds.some((k) => hasBit(KINDS, m, k)));
  if (treatments?.length)
    addShared("treatments", index.treatments, (m) => treatments.some((t) => hasBit(TREATMENTS, m, t)));
  if (moods?.length) addShared("moods", index.moods, (list) => moods.every((m) => list.includes(m)));
  if (vox?.length) addShared("vox", index.vox, (v) => (vox as string[]).includes(v));
  if (verdicts?.length) {
    const good = among(VERDICTS, (v) => verdicts.includes(v));
    add("verdicts", (i) => good[asked.verdictOf[i]!] === 1);
  }
  if (features?.length) addShared("features", index.features, (list) => features.every((f) => list.includes(f)));
  if (axes?.length)
    addShared("axes", index.axes, (list) =>
      axes.includes("any") ? list.length > 0 : axes.every((a) => list.includes(a)),
    );
  if (formats?.length) addShared("formats", index.formats, (f) => formats.includes(f));
  if (health?.length) addShared("health", index.health, (h) => health.includes(h));
  const wantedLibraries = [...(libraries ?? []), ...(query.library ? [query.library] : [])] as string[];
  if (wantedLibraries.length) addShared("libraries", index.libraries, (l) => wantedLibraries.includes(l));
  for (const language of languages ?? []) {
    const good = asked.speaks(language);
    add("languages", (i) => good[index.coverage.of[i]!] === 1);
  }
  if (query.chars)
    addShared("", index.coverage, (c) => [...query.chars!].every((ch) => hasCodePoint(c, ch.codePointAt(0)!)));
  for (const [trait, low, high] of rangesOf(query)) add(trait, withinReach(index, trait, low, high));
  familyTests(query, asked, add);
  const { rows } = index;
  if (query.figures?.length)
    addShared("figures", index.figures, (list) => query.figures!.every((f) => list.includes(f)));
  if (query.cases?.length) addShared("cases", index.cases, (c) => (query.cases as string[]).includes(c));
  if (query.pictures === "out") add("pictures", (i) => index.pictures[i] === 0);
  if (query.pictures === "only") add("pictures", (i) => index.pictures[i] === 1);
  if (query.complete) add("complete", (i) => asked.missingOf[i] === 0);
  if (query.owned === "here") add("owned", (i) => index.owned[i] === 1);
  if (query.owned === "to-buy") add("owned", (i) => index.owned[i] === 0);
  if (query.priceMax !== undefined) add("price", (i) => asked.priceOf[i]! <= query.priceMax! * 100);
  if (query.familyId) add("", (i) => rows[i]!.familyId === query.familyId);
  if (query.aside === "only") add("", (i) => asked.setAside.has(rows[i]!.styleId));
  else if (query.aside !== "show" && asked.setAside.size) {
    const aside = new Set([...asked.setAside].map((id) => index.rowOf.get(id)));
    add("", (i) => !aside.has(i));
  }
  return tests;
}

function familyTests(
  query: Partial<StyleQuery>,
  { index }: Asked,
  add: (facet: string, passes: Test["passes"]) => void,
) {
  const of = <T>(facet: string, holds: (f: FindIndex["families"][number]) => T) => {
    const good = among(index.families, (f) => Boolean(holds(f)));
    add(facet, (i) => good[index.family[i]!] === 1);
  };
  if (query.stylesMin) of("styles", (f) => f.styles >= query.stylesMin!);
  if (query.weightsMin) of("weights", (f) => f.weights >= query.weightsMin!);
  if (query.italics) of("italics", (f) => f.hasItalic);
}

/** Every trait range of a question: the two of old by name, all others as "trait:low~high". */
export function rangesOf(query: Partial<StyleQuery>): [SieveTrait, number, number][] {
  const out: [SieveTrait, number, number][] = [];
  const add = (trait: SieveTrait, low?: number | null, high?: number | null) => {
    if (low !== undefined || high !== undefined) out.push([trait, low ?? -Infinity, high ?? Infinity]);
  };
  add("weight", query.weightMin, query.weightMax);
  add("width", query.widthMin, query.widthMax);
  for (const { trait, low, high } of query.traits ?? []) add(trait as SieveTrait, low, high);
  return out;
}

/** A variable font passes when its axes reach into the range; what was not measured never passes. */
function withinReach(index: FindIndex, trait: SieveTrait, min: number, max: number): Test["passes"] {
  const { low, high } = index.traits[trait];
  return (i) => high[i]! >= min && low[i]! <= max;
}

/** The test of one wish. Wishes that only rank give null. */
export function wishTest(
  wish: Wish,
  asked: Asked,
  reference: number | null,
  near: Float32Array | null,
): Test["passes"] | null {
  const { index } = asked;
  const { rows } = index;
  const shared = <T>(s: { of: Uint32Array; list: T[] }, holds: (v: T) => boolean) => {
    const good = among(s.list, holds);
    return (i: number) => good[s.of[i]!] === 1;
  };
  switch (wish.type) {
    case "kind":
      return shared(index.kinds, (m) => hasBit(KINDS, m, wish.kind) !== Boolean(wish.not));
    case "treatment":
      return shared(index.treatments, (m) => hasBit(TREATMENTS, m, wish.treatment) !== Boolean(wish.not));
    case "mood":
      return shared(index.moods, (list) => wish.moods.some((m) => list.includes(m)) !== Boolean(wish.not));
    case "vox":
      return shared(index.vox, (v) => v === wish.vox);
    case "trait":
      return withinReach(index, wish.trait, wish.min ?? -Infinity, wish.max ?? Infinity);
    case "has":
      return shared(index.coverage, (c) => [...wish.characters].every((ch) => hasCodePoint(c, ch.codePointAt(0)!)));
    case "case":
      return (i) => rows[i]!.traits.cases !== null && wish.cases.includes(rows[i]!.traits.cases);
    case "figures": {
      const tags = [wish.spacing === "tabular" && "tnum", wish.height === "old-style" && "onum"].filter(
        Boolean,
      ) as string[];
      const byFeature = among(index.features.list, (f) => tags.length > 0 && tags.every((t) => f.includes(t)));
      return (i) =>
        byFeature[index.features.of[i]!] === 1 ||
        ((!wish.height || rows[i]!.traits.figures.height === wish.height) &&
          (!wish.spacing || rows[i]!.traits.figures.spacing === wish.spacing));
    }
    case "storeys":
      return (i) => rows[i]!.traits[wish.trait] === wish.storeys;
    case "serif-form":
      return (i) => rows[i]!.traits.serifForm === wish.form;
    case "pictures":
      return (i) => (index.pictures[i] === 1) === (wish.want === "only");
    case "variable":
      return shared(index.axes, (list) => (wish.axis ? list.includes(wish.axis) : list.length > 0));
    case "feature":
      return shared(index.features, (list) => wish.features.some((f) => list.includes(f)));
    case "uses":
      return shared(index.verdicts, (v) => isCleared(v[wish.use] ?? "unread"));
    case "price":
      return (i) => asked.priceOf[i]! <= wish.maxCents;
    case "count": {
      const good = among(index.families, (f) => f[wish.of] >= wish.min);
      return (i) => good[index.family[i]!] === 1;
    }
    case "italics": {
      const good = among(index.families, (f) => f.hasItalic);
      return (i) => good[index.family[i]!] === 1;
    }
    case "foundry":
      return (i) => index.foundryOf[i] === wish.foundry;
    case "language": {
      const good = asked.speaks(wish.language);
      return (i) => good[index.coverage.of[i]!] === 1;
    }
    case "owned":
      return (i) => (index.owned[i] === 1) === wish.owned;
    case "name":
      return nameTest(index, wish.words);
    case "like": {
      // Fitting ones only: nearer than a stranger would be.
      return near && ((i) => index.family[i] !== wish.family && near[i]! < LIKE_STEPS);
    }
    case "than":
      return thanTest(index, wish, reference);
    case "cheaper": {
      const own = reference === null ? Infinity : asked.priceOf[reference]!;
      return (i) => asked.priceOf[i]! < (own > 0 && own === own ? own : Infinity);
    }
  }
}

/** Further than this from the face that is asked for, nobody would call it like it. */
const LIKE_STEPS = 7;
/** How much more of a trait "-er" means, beside a face. */
const MORE: Partial<Record<SieveTrait, number>> = {
  weight: 60,
  width: 0.4,
  roundness: 0.08,
  contrast: 0.25,
  roughness: 0.05,
  slantDeg: 2,
  aperture: 0.03,
  xHeightEm: 0.012,
};

export const isCleared = (v: Verdict) => v === "cleared" || v === "cleared-with-credit";

function thanTest(index: FindIndex, wish: Extract<Wish, { type: "than" }>, reference: number | null): Test["passes"] {
  const column = index.traits[wish.trait];
  // Without a face to compare with, it means more than most.
  const base = reference === null ? (column.range[0] + column.range[1]) / 2 : column.values[reference]!;
  const more = reference === null ? 0 : (MORE[wish.trait] ?? 0);
  return wish.way > 0 ? (i) => column.high[i]! >= base + more : (i) => column.low[i]! <= base - more;
}

/** Rows whose family, or family and style, answer to a name. */
export function nameTest(index: FindIndex, words: string): Test["passes"] {
  const scores = nameScores(index, words);
  return (i) => scores.of(i) > 0;
}

/** How well each row answers to a name: 1 for the whole name. */
export function nameScores(index: FindIndex, words: string): { of: (i: number) => number } {
  // Filter and rank ask for the same words.
  const last = lastScores.get(index);
  if (last?.words === words) return last.scores;
  const scores = scoreNames(index, words);
  lastScores.set(index, { words, scores });
  return scores;
}
type NameScores = { of: (i: number) => number };
const lastScores = new WeakMap<FindIndex, { words: string; scores: NameScores }>();

function scoreNames(index: FindIndex, words: string): NameScores {
  const full = new Set(fullNameRows(index, squash(words)));
  if (full.size) return { of: (i) => (full.has(i) ? 1 : 0) };
  const families = new Float32Array(index.families.length);
  for (const [family, score] of matchNames(index.names, words)) families[family] = score;
  return { of: (i) => families[index.family[i]!]! };
}

/** Rows whose squashed "family style" is exactly this. */
export function fullNameRows(index: FindIndex, asked: string): number[] {
  const out: number[] = [];
  for (let n = 2; n < asked.length; n++) {
    const family = index.names.at.get(asked.slice(0, n));
    if (family === undefined) continue;
    const rest = asked.slice(n);
    for (const i of index.families[family]!.rows) if (squash(index.rows[i]!.style) === rest) out.push(i);
  }
  return out;
}
