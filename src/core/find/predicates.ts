// Tests of one row for every filter of the sieve and every constraint of the words: functions of a row's position over columns.
import type { StyleQuery } from "@/contracts/styles";
import { KINDS, TREATMENTS, VERDICTS, type SieveTrait, type Verdict } from "@/contracts/traits";
import { hasCodePoint } from "../unicode/blocks";
import { hasBit, type FindIndex, type Shared } from "./findIndex";
import { matchNames, squash } from "./nameIndex";
import { memoizeRecent } from "./lately";
import { fitTheme } from "../theme/readTheme";
import type { Constraint } from "./vocabulary";

/** What a question needs beside the index: of the brief, and of languages. */
export type Asked = {
  index: FindIndex;
  setAside: ReadonlySet<string>;
  /** The family that is called just what the words are; null where none is. */
  called: number | null;
  /** Row → place in VERDICTS for the brief's uses. */
  verdictOf: Uint8Array;
  /** Row → how many characters of the brief it lacks. */
  missingOf: Uint8Array;
  /** Row → price in cents for the brief's uses: 0 where nothing is asked, NaN where it is not known. */
  priceOf: Float64Array;
  /** Language code → whether each coverage sets it. */
  speaks: (language: string) => Uint8Array;
};

/** Whether a row passes; most tests are one of two kinds that run over columns without a call for each row. */
export type Passes =
  | { by: "value"; of: Uint8Array | Uint32Array; good: Uint8Array }
  | { by: "range"; low: Float32Array; high: Float32Array; min: number; max: number }
  | { by: "row"; passes: (i: number) => boolean };
/** @property of - the part of the question that it is the test of: one that a person may give up. */
export type Test = { facet: string; passes: Passes; of?: { label: string; from: string } };
const byRow = (passes: (i: number) => boolean): Passes => ({ by: "row", passes });
const byValue = (of: Uint8Array | Uint32Array, good: Uint8Array): Passes => ({ by: "value", of, good });

/** Positions in a shared list that satisfy a condition, as bytes: the condition runs once a value, not once a row. */
function among<T>(list: readonly T[], holds: (value: T) => boolean): Uint8Array {
  return Uint8Array.from(list, (v) => (holds(v) ? 1 : 0));
}

export function sieveTests(query: Partial<StyleQuery>, asked: Asked): Test[] {
  const { index } = asked;
  const tests: Test[] = [];
  const add = (facet: string, passes: Passes) =>
    tests.push({ facet, passes, ...(facet && { of: { label: facet, from: "" } }) });
  const addShared = <T>(facet: string, shared: Shared<T>, holds: (v: T) => boolean) =>
    add(facet, byValue(shared.of, among(shared.list, holds)));
  const { kinds, treatments, verdicts, moods, vox, features, languages, axes, formats, health, libraries } = query;
  if (kinds?.length) addShared("kinds", index.kinds, (m) => kinds.some((k) => hasBit(KINDS, m, k)));
  if (treatments?.length)
    addShared("treatments", index.treatments, (m) => treatments.some((t) => hasBit(TREATMENTS, m, t)));
  if (moods?.length) addShared("moods", index.moods, (list) => moods.every((m) => list.includes(m)));
  if (vox?.length) addShared("vox", index.vox, (v) => (vox as string[]).includes(v));
  if (verdicts?.length)
    add(
      "verdicts",
      byValue(
        asked.verdictOf,
        among(VERDICTS, (v) => verdicts.includes(v)),
      ),
    );
  if (features?.length) addShared("features", index.features, (list) => features.every((f) => list.includes(f)));
  if (axes?.length)
    addShared("axes", index.axes, (list) =>
      axes.includes("any") ? list.length > 0 : axes.every((a) => list.includes(a)),
    );
  if (formats?.length) addShared("formats", index.formats, (f) => formats.includes(f));
  if (health?.length) addShared("health", index.health, (h) => health.includes(h));
  const wantedLibraries = [...(libraries ?? []), ...(query.library ? [query.library] : [])] as string[];
  if (wantedLibraries.length) addShared("libraries", index.libraries, (l) => wantedLibraries.includes(l));
  for (const language of languages ?? []) add("languages", byValue(index.coverage.of, asked.speaks(language)));
  if (query.chars)
    addShared("", index.coverage, (c) => [...query.chars!].every((ch) => hasCodePoint(c, ch.codePointAt(0)!)));
  for (const range of rangesOf(query)) add(range.trait, withinReach(index, range));
  familyTests(query, asked, add);
  const { rows } = index;
  if (query.figures?.length)
    addShared("figures", index.figures, (list) => query.figures!.every((f) => list.includes(f)));
  if (query.cases?.length) addShared("cases", index.cases, (c) => (query.cases as string[]).includes(c));
  if (query.pictures === "out") add("pictures", byValue(index.pictures, YES_FOR_0));
  if (query.pictures === "only") add("pictures", byValue(index.pictures, YES_FOR_1));
  if (query.complete) add("complete", byValue(asked.missingOf, YES_FOR_0));
  if (query.owned === "here") add("owned", byValue(index.owned, YES_FOR_1));
  if (query.owned === "to-buy") add("owned", byValue(index.owned, YES_FOR_0));
  if (query.priceMax !== undefined)
    add(
      "price",
      byRow((i) => asked.priceOf[i]! <= query.priceMax! * 100),
    );
  if (query.familyId)
    add(
      "",
      byRow((i) => rows[i]!.familyId === query.familyId),
    );
  if (query.aside === "only") add("", byValue(asideOf(asked), YES_FOR_1));
  else if (query.aside !== "show" && asked.setAside.size) add("", byValue(asideOf(asked), YES_FOR_0));
  return tests;
}

/** For columns of 0 and more: what is good where 0, or 1, stands. */
const YES_FOR_0 = Uint8Array.from({ length: 256 }, (_, v) => (v === 0 ? 1 : 0));
const YES_FOR_1 = Uint8Array.from({ length: 256 }, (_, v) => (v === 1 ? 1 : 0));

function asideOf({ index, setAside }: Asked): Uint8Array {
  const out = new Uint8Array(index.rows.length);
  for (const id of setAside) {
    const row = index.rowOf.get(id);
    if (row !== undefined) out[row] = 1;
  }
  return out;
}

function familyTests(query: Partial<StyleQuery>, { index }: Asked, add: (facet: string, passes: Passes) => void) {
  const of = (facet: string, holds: (f: FindIndex["families"][number]) => boolean) =>
    add(facet, byValue(index.family, among(index.families, holds)));
  if (query.stylesMin) of("styles", (f) => f.styles >= query.stylesMin!);
  if (query.weightsMin) of("weights", (f) => f.weights >= query.weightsMin!);
  if (query.italics) of("italics", (f) => f.hasItalic);
}

/** A trait and the range that is wanted of it. */
export type WantedRange = { trait: SieveTrait; min?: number; max?: number };

/** Every trait range of a question: weight and width by name, any trait as "trait:low~high". */
export function rangesOf(query: Partial<StyleQuery>): WantedRange[] {
  const named = (trait: SieveTrait, min?: number, max?: number): WantedRange[] =>
    min === undefined && max === undefined ? [] : [{ trait, min, max }];
  return [
    ...named("weight", query.weightMin, query.weightMax),
    ...named("width", query.widthMin, query.widthMax),
    ...(query.traits ?? []).map(({ trait, low, high }) => ({ trait, min: low ?? undefined, max: high ?? undefined })),
  ];
}

/** A variable font passes when its axes reach into the range; what was not measured never passes. */
const withinReach = (index: FindIndex, { trait, min = -Infinity, max = Infinity }: WantedRange): Passes => ({
  by: "range",
  low: index.traits[trait].low,
  high: index.traits[trait].high,
  min,
  max,
});

/** A style that fits a theme less than this has nothing of it. */
const THEME_FROM = 0.2;
const THEMES_KEPT = 8;
const fitsLately = memoizeRecent<FindIndex, Float32Array>(THEMES_KEPT);
/** How well each row fits a theme, 0–1. */
export const themeFits = (index: FindIndex, { weights, tag }: Pick<Theme, "weights" | "tag">): Float32Array =>
  fitsLately(index, `${tag} ${weights.join(" ")}`, () => {
    const fits = fitTheme(weights, index.looks());
    if (!tag) return fits;
    // What somebody said of a family counts more than any guess.
    const has = among(index.moods.list, (list) => list.includes(tag));
    for (let i = 0; i < fits.length; i++) fits[i] = has[index.moods.of[i]!] ? 1 : TAGGED_BEFORE * fits[i]!;
    return fits;
  });
type Theme = Extract<Constraint, { type: "theme" }>;
const TAGGED_BEFORE = 0.8;

/** The test of one constraint. Constraints that only rank give null. */
export function constraintTest(
  constraint: Constraint,
  asked: Asked,
  reference: number | null,
  near: Float32Array | null,
): Passes | null {
  const { index } = asked;
  const { rows } = index;
  const shared = <T>(s: Shared<T>, holds: (v: T) => boolean) => byValue(s.of, among(s.list, holds));
  const ofFamily = (holds: (f: FindIndex["families"][number]) => boolean) =>
    byValue(index.family, among(index.families, holds));
  switch (constraint.type) {
    case "kind":
      return shared(index.kinds, (m) => hasBit(KINDS, m, constraint.kind) !== Boolean(constraint.not));
    case "treatment":
      return shared(index.treatments, (m) => hasBit(TREATMENTS, m, constraint.treatment) !== Boolean(constraint.not));
    case "mood":
      return shared(index.moods, (list) => constraint.moods.some((m) => list.includes(m)) !== Boolean(constraint.not));
    case "vox":
      return shared(index.vox, (v) => v === constraint.vox);
    case "trait":
      return withinReach(index, constraint);
    case "has":
      return shared(index.coverage, (c) =>
        [...constraint.characters].every((ch) => hasCodePoint(c, ch.codePointAt(0)!)),
      );
    case "case":
      return shared(index.cases, (c) => (constraint.cases as string[]).includes(c));
    case "figures":
      return figuresTest(index, constraint);
    case "storeys":
      return shared(index.builds, (b) => b[constraint.trait] === constraint.storeys);
    case "serif-form":
      return byRow((i) => rows[i]!.traits.serifForm === constraint.form);
    case "pictures":
      return byValue(index.pictures, constraint.want === "only" ? YES_FOR_1 : YES_FOR_0);
    case "variable":
      return shared(index.axes, (list) => (constraint.axis ? list.includes(constraint.axis) : list.length > 0));
    case "feature":
      return shared(index.features, (list) => constraint.features.some((f) => list.includes(f)));
    case "uses":
      return shared(index.verdicts, (v) => isCleared(v[constraint.use] ?? "unread"));
    case "price":
      return byRow((i) => asked.priceOf[i]! <= constraint.maxCents);
    case "count":
      return ofFamily((f) => f[constraint.of] >= constraint.min);
    case "italics":
      return ofFamily((f) => f.hasItalic);
    case "foundry":
      return byRow((i) => index.foundryOf[i] === constraint.foundry);
    case "language":
      return byValue(index.coverage.of, asked.speaks(constraint.language));
    case "owned":
      return byValue(index.owned, constraint.owned ? YES_FOR_1 : YES_FOR_0);
    case "theme": {
      const fits = themeFits(index, constraint);
      if (asked.called === null) return { by: "range", low: fits, high: fits, min: THEME_FROM, max: Infinity };
      return byRow((i) => fits[i]! >= THEME_FROM || index.family[i] === asked.called);
    }
    case "name":
      return nameTest(index, constraint.words);
    case "like": {
      // Fitting ones only: nearer than a stranger would be.
      return near && byRow((i) => index.family[i] !== constraint.family && near[i]! < LIKE_STEPS);
    }
    case "than":
      return withinReach(index, rangeOfThan(index, constraint, reference));
    case "cheaper": {
      const own = reference === null ? Infinity : asked.priceOf[reference]!;
      return byRow((i) => asked.priceOf[i]! < (own > 0 && own === own ? own : Infinity));
    }
  }
}

/** Figures that the face has by itself, or by features of its own. */
function figuresTest(index: FindIndex, { height, spacing }: Extract<Constraint, { type: "figures" }>): Passes {
  const tags = [spacing === "tabular" && "tnum", height === "old-style" && "onum"].filter((t) => t !== false);
  const byFeature = among(index.features.list, (f) => tags.length > 0 && tags.every((t) => f.includes(t)));
  const byDefault = among(
    index.figures.list,
    (f) => (!height || f.includes(height)) && (!spacing || f.includes(spacing)),
  );
  return byRow((i) => byFeature[index.features.of[i]!] === 1 || byDefault[index.figures.of[i]!] === 1);
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

/** The range that a comparing word means: beside a face if there is one, else beside the middle of the library. */
export function rangeOfThan(
  index: FindIndex,
  { trait, way }: Extract<Constraint, { type: "than" }>,
  reference: number | null,
): WantedRange {
  const { range, values } = index.traits[trait];
  const base = reference === null ? (range[0] + range[1]) / 2 : values[reference]!;
  const more = reference === null ? 0 : (MORE[trait] ?? 0);
  return way > 0 ? { trait, min: base + more } : { trait, max: base - more };
}

/** Rows whose family, or family and style, answer to a name. */
function nameTest(index: FindIndex, words: string): Passes {
  const scores = nameScores(index, words);
  return byRow((i) => scores.of(i) > 0);
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
