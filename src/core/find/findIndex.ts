// All styles as columns: one typed array a trait, sets that many styles share kept once. What makes a hundred thousand styles answer at once.
import type { CodePointRanges, Kind, MoodGuess, Traits, Treatment, Use, Verdict } from "@/contracts/traits";
import { KINDS, SIEVE_TRAITS, SLANTED_FROM_DEG, TREATMENTS, type SieveTrait } from "@/contracts/traits";
import { quantile } from "../geometry/numbers";
import { toLatin } from "../unicode/transliterate";
import { indexNames, squash, type NameIndex, type OtherName } from "./nameIndex";
import { lookDegrees, LOOKS } from "../theme/looks";

/** What finding needs to know of a style. Coverage, features and axes are shared objects where styles have the same. */
export type FindRow = {
  styleId: string;
  familyId: string;
  family: string;
  /** What the family is called in other languages. */
  alsoCalled?: readonly string[];
  style: string;
  library: string;
  foundry?: string | null;
  format?: string;
  kinds: { value: Kind; confidence: number }[];
  treatments: { value: Treatment; confidence: number }[];
  /** Measured words and the user's tags, those removed left out. */
  moods?: Pick<MoodGuess, "value" | "confidence">[];
  vox?: string | null;
  traits: Traits;
  /** Least and greatest of a trait over the axes of a variable font. */
  reach?: Record<string, [number, number]>;
  verdicts: Partial<Record<Use, Verdict>>;
  coverage: CodePointRanges;
  features?: readonly string[];
  /** Axis tag → default value; empty when the font is not variable. */
  axes: Record<string, number>;
  addedAt: string;
  health: "fine" | "with-care" | "refused";
  /** False: a library sells it. */
  owned: boolean;
  /** What the library asks, in cents by use; null when it sells nothing of it. */
  price: { currency: string; pricesCents: Record<string, number> } | null;
  /** How often it is kept, over all briefs. */
  popularity?: number;
};

/** Numbers of styles and weights that the sieve counts families by. */
export const FAMILY_STEPS = [1, 2, 4, 8, 16];
export const HISTOGRAM_BINS = 24;
/** A confidence from which a kind counts. */
const SURE_ENOUGH = 0.5;

/** How letters are built, apart from their measures. */
export type LetterBuild = Pick<Traits, "storeysA" | "storeysG" | "cases" | "monospaced">;

/** Values that many rows share: `of[row]` is the position in `list`. */
export type Shared<T> = { of: Uint8Array | Uint32Array; list: T[] };
export type TraitColumn = {
  values: Float32Array;
  /** Over the axes of variable fonts; the value itself elsewhere. */
  low: Float32Array;
  high: Float32Array;
  /** Bin of each value in the library's usual range; HISTOGRAM_BINS where not measured. */
  bins: Uint8Array;
  range: [number, number];
};
/** Several columns told in one: `of[row]` names a combination, `parts[c][combination]` is the value in column c, below `values[c]`. */
export type Packed = {
  of: Uint16Array;
  size: number;
  columns: readonly Column[];
  parts: Uint32Array[];
  values: number[];
};
export type Column = Uint8Array | Uint32Array;
export type FamilyFacts = { name: string; rows: number[]; styles: number; weights: number; hasItalic: boolean };

export type FindIndex = {
  /** In the order of names: families by theirs, the styles of each from light to heavy. A row's number is its place in it. */
  rows: readonly FindRow[];
  rowOf: ReadonlyMap<string, number>;
  traits: Record<SieveTrait, TraitColumn>;
  kinds: Shared<number>;
  treatments: Shared<number>;
  moods: Shared<readonly string[]>;
  vox: Shared<string>;
  verdicts: Shared<FindRow["verdicts"]>;
  coverage: Shared<CodePointRanges>;
  features: Shared<readonly string[]>;
  axes: Shared<readonly string[]>;
  libraries: Shared<string>;
  formats: Shared<string>;
  health: Shared<FindRow["health"]>;
  figures: Shared<readonly string[]>;
  cases: Shared<string>;
  builds: Shared<LetterBuild>;
  /** How much each row has of each look, in 255ths; Uint8Array, shape [rows, LOOKS]. Worked out when it is first asked for. */
  looks: () => Uint8Array;
  /** 1 where letters are pictures; 1 where the file is here. */
  pictures: Uint8Array;
  owned: Uint8Array;
  /** Rows that a library sells: few, so that prices are looked up for them alone. */
  toBuy: Uint32Array;
  /** For each row, how many of FAMILY_STEPS its family reaches in styles and in weights; 1 where it has italics. */
  styleSteps: Uint8Array;
  weightSteps: Uint8Array;
  italics: Uint8Array;
  /** Numbers of families ascend with the rows. */
  family: Uint32Array;
  families: FamilyFacts[];
  names: NameIndex;
  foundries: NameIndex;
  foundryOf: Int32Array;
  /** How far each row is from an upright text weight: what stands for a family is the least. */
  plainness: Float32Array;
  /** The columns that the sieve counts, packed so that few passes over the rows count them all. */
  packed: Packed[];
};

const order = new Intl.Collator("en", { sensitivity: "base", numeric: true });

/** @param styles - in any order. @param packedFromRows - a library of fewer styles is counted column by column. */
export function indexStyles(styles: readonly FindRow[], packedFromRows = PACKED_FROM_ROWS): FindIndex {
  const rows = inNameOrder(styles);
  // A family is its id: two families may go by one name, and names in any script keep apart.
  const idOfFamily = new Map<string, number>();
  const familyNames: string[] = [];
  const otherNames: OtherName[] = [];
  for (const r of rows)
    if (!idOfFamily.has(r.familyId)) {
      const of = idOfFamily.size;
      idOfFamily.set(r.familyId, of);
      familyNames.push(r.family);
      const called = [r.family, ...(r.alsoCalled ?? [])];
      for (const name of [...called.slice(1), ...called.flatMap((n) => toLatin(n) ?? [])])
        otherNames.push({ name, of });
    }
  const names = indexNames(familyNames, true, otherNames);
  const foundries = indexNames(rows.flatMap((r) => r.foundry ?? []));
  const family = Uint32Array.from(rows, (r) => idOfFamily.get(r.familyId)!);
  const families = factsOf(rows, names.names, family);
  const stepsOf = (of: (f: FamilyFacts) => number) => {
    const steps = families.map((f) => FAMILY_STEPS.filter((s) => of(f) >= s).length);
    return Uint8Array.from(family, (f) => steps[f]!);
  };
  const index = {
    rows,
    rowOf: new Map(rows.map((r, i) => [r.styleId, i])),
    traits: Object.fromEntries(SIEVE_TRAITS.map((t) => [t, columnOf(rows, t)])) as FindIndex["traits"],
    kinds: share(rows, (r) => maskOf(KINDS, r.kinds)),
    treatments: share(rows, (r) => maskOf(TREATMENTS, r.treatments)),
    moods: shareBy(rows, (r) => (r.moods ?? []).map((m) => m.value)),
    vox: share(rows, (r) => r.vox ?? ""),
    verdicts: shareBy(rows, (r) => r.verdicts),
    coverage: shareObjects(rows, (r) => r.coverage),
    features: shareObjects(rows, (r) => r.features ?? NONE),
    axes: shareBy(rows, (r) => Object.keys(r.axes)),
    libraries: share(rows, (r) => r.library),
    formats: share(rows, (r) => r.format ?? ""),
    health: share(rows, (r) => r.health),
    figures: shareBy(rows, (r) => [r.traits.figures.height, r.traits.figures.spacing].filter((f) => f !== null)),
    cases: share(rows, (r) => r.traits.cases ?? "both"),
    builds: shareBy(rows, ({ traits: { storeysA, storeysG, cases, monospaced } }) => ({
      storeysA,
      storeysG,
      cases,
      monospaced,
    })),
    looks: once(() => measureLooks(rows)),
    pictures: Uint8Array.from(rows, (r) => (r.traits.picture ? 1 : 0)),
    owned: Uint8Array.from(rows, (r) => (r.owned ? 1 : 0)),
    toBuy: Uint32Array.from(rows.flatMap((r, i) => (r.owned ? [] : [i]))),
    family,
    families,
    styleSteps: stepsOf((f) => f.styles),
    weightSteps: stepsOf((f) => f.weights),
    italics: Uint8Array.from(family, (f) => (families[f]!.hasItalic ? 1 : 0)),
    names,
    foundries,
    foundryOf: Int32Array.from(rows, (r) => (r.foundry ? (foundries.at.get(squash(r.foundry)) ?? -1) : -1)),
    plainness: Float32Array.from(
      rows,
      ({ traits }) =>
        Math.abs((traits.weight ?? 900) - 400) + (Math.abs(traits.slantDeg ?? 0) > SLANTED_FROM_DEG ? 200 : 0),
    ),
  };
  const counted: Column[] = [
    ...SIEVE_TRAITS.map((t) => index.traits[t].bins),
    ...[index.styleSteps, index.weightSteps, index.italics, index.pictures, index.owned],
    ...COUNTED_SHARED.map((s) => index[s].of),
  ];
  return { ...index, packed: rows.length < packedFromRows ? [] : packColumns(counted, rows.length) };
}

export const COUNTED_SHARED = [
  ...([
    "kinds",
    "treatments",
    "moods",
    "vox",
    "coverage",
    "features",
    "axes",
    "libraries",
    "formats",
    "health",
  ] as const),
  ...(["figures", "cases"] as const),
];
/** Libraries of fewer styles are not packed: counting them is quick as it is, and packing takes its time at every change. */
const PACKED_FROM_ROWS = 5_000;
/** Combinations that one column may tell apart: four sets of counters for them stay in the processor's first cache. */
export const MAX_COMBINATIONS = 1_600;

/** Takes columns together, in their order, as long as they have few enough combinations. */
function packColumns(columns: readonly Column[], count: number): Packed[] {
  const out: Packed[] = [];
  for (const column of columns) {
    const last = out[out.length - 1];
    const joined = last && pack(last, column, count);
    if (joined) out[out.length - 1] = joined;
    else {
      const first = pack({ of: new Uint16Array(count), size: 1, columns: [], parts: [], values: [] }, column, count);
      if (first) out.push(first);
    }
  }
  return out;
}

/** @returns null when there would be too many combinations. */
function pack({ of, size, columns, parts, values }: Packed, column: Column, count: number): Packed | null {
  const at = new Map<number, number>();
  const packed = new Uint16Array(count);
  const from: { before: number; value: number }[] = [];
  for (let i = 0; i < count; i++) {
    const key = column[i]! * size + of[i]!;
    let id = at.get(key);
    if (id === undefined) {
      if (at.size >= MAX_COMBINATIONS) return null;
      at.set(key, (id = at.size));
      from.push({ before: of[i]!, value: column[i]! });
    }
    packed[i] = id;
  }
  return {
    of: packed,
    size: from.length,
    columns: [...columns, column],
    parts: [
      ...parts.map((p) => Uint32Array.from(from, ({ before }) => p[before]!)),
      Uint32Array.from(from, ({ value }) => value),
    ],
    values: [...values, from.reduce((most, { value }) => Math.max(most, value), 0) + 1],
  };
}

const NONE: readonly string[] = [];

function maskOf<T extends string>(all: readonly T[], guesses: { value: T; confidence: number }[]): number {
  let mask = 0;
  for (const g of guesses) if (g.confidence >= SURE_ENOUGH) mask |= 1 << all.indexOf(g.value);
  return mask;
}
/** The plainest style of a family, of equals the first. */
export const plainestIn = ({ families, plainness }: Pick<FindIndex, "families" | "plainness">, family: number) =>
  families[family]!.rows.reduce((a, b) => (plainness[b]! < plainness[a]! ? b : a));

export const hasBit = <T extends string>(all: readonly T[], mask: number, value: T) =>
  ((mask >> all.indexOf(value)) & 1) === 1;

function share<T extends string | number>(rows: readonly FindRow[], of: (r: FindRow) => T): Shared<T> {
  return collect(rows, of, (v) => v);
}
/** Told apart by their text. */
const shareBy = <T>(rows: readonly FindRow[], of: (r: FindRow) => T) => collect(rows, of, (v) => JSON.stringify(v));
/** Told apart as objects first (the reader of rows keeps each once), then by text. */
function shareObjects<T extends object>(rows: readonly FindRow[], of: (r: FindRow) => T): Shared<T> {
  const texts = new Map<T, string>();
  return collect(rows, of, (v) => {
    let text = texts.get(v);
    if (text === undefined) texts.set(v, (text = JSON.stringify(v)));
    return text;
  });
}
function collect<T>(rows: readonly FindRow[], of: (r: FindRow) => T, keyOf: (v: T) => string | number): Shared<T> {
  const at = new Map<string | number, number>();
  const list: T[] = [];
  const ids = new Uint32Array(rows.length);
  rows.forEach((r, i) => {
    const value = of(r);
    const key = keyOf(value);
    let id = at.get(key);
    if (id === undefined) {
      at.set(key, (id = list.length));
      list.push(value);
    }
    ids[i] = id;
  });
  return { of: list.length <= 256 ? Uint8Array.from(ids) : ids, list };
}

function columnOf(rows: readonly FindRow[], trait: SieveTrait): TraitColumn {
  const values = Float32Array.from(rows, (r) => r.traits[trait] ?? NaN);
  // Most traits change along no axis of any font: one column is all three then.
  const isMoved = rows.some((r) => r.reach?.[trait]);
  const [low, high] = isMoved ? [values.slice(), values.slice()] : [values, values];
  if (isMoved)
    rows.forEach((r, i) => {
      const reach = r.reach?.[trait];
      if (reach) [low[i], high[i]] = [reach[0], reach[1]];
    });
  const range = rangeOf(values);
  const bins = Uint8Array.from(values, (v) =>
    Number.isNaN(v)
      ? HISTOGRAM_BINS
      : Math.min(
          HISTOGRAM_BINS - 1,
          Math.max(0, Math.floor(((v - range[0]) / (range[1] - range[0])) * HISTOGRAM_BINS)),
        ),
  );
  return { values, low, high, bins, range };
}

/** From the 1st to the 99th of a hundred: what lies beyond counts in the outermost bins. */
function rangeOf(values: Float32Array): [number, number] {
  const step = Math.max(1, Math.floor(values.length / 5_000));
  const some: number[] = [];
  for (let i = 0; i < values.length; i += step) if (!Number.isNaN(values[i]!)) some.push(values[i]!);
  const low = quantile(some, 0.01) ?? 0;
  const high = quantile(some, 0.99) ?? 1;
  return [low, high > low ? high : low + 1];
}

/**
 * Families by name, the styles of each by weight. Whatever is asked of the columns goes through them in this order, so that what belongs
 * together is read together: that alone is a third of the time of a question.
 */
function inNameOrder(styles: readonly FindRow[]): FindRow[] {
  const stylesOf = new Map<string, FindRow[]>();
  for (const r of styles) {
    const own = stylesOf.get(r.familyId);
    if (own) own.push(r);
    else stylesOf.set(r.familyId, [r]);
  }
  return [...stylesOf.values()]
    .sort((a, b) => order.compare(a[0]!.family, b[0]!.family) || (a[0]!.familyId < b[0]!.familyId ? -1 : 1))
    .flatMap((own) => own.sort(byWeight));
}

const byWeight = (x: FindRow, y: FindRow) =>
  (x.traits.weight ?? 0) - (y.traits.weight ?? 0) ||
  (x.style < y.style ? -1 : x.style > y.style ? 1 : 0) ||
  (x.styleId < y.styleId ? -1 : 1);

function factsOf(rows: readonly FindRow[], names: readonly string[], family: Uint32Array): FamilyFacts[] {
  const facts: FamilyFacts[] = names.map((name) => ({ name, rows: [], styles: 0, weights: 0, hasItalic: false }));
  rows.forEach((r, i) => {
    const f = facts[family[i]!]!;
    f.rows.push(i);
    f.styles++;
    if ((r.traits.slantDeg ?? 0) > SLANTED_FROM_DEG) f.hasItalic = true;
  });
  for (const f of facts) {
    const weights = f.rows.map((i) => rows[i]!.traits.weight).filter((w): w is number => w !== null);
    const reach = f.rows.flatMap((i) => rows[i]!.reach?.weight ?? []);
    f.weights = Math.max(
      countSteps(weights),
      // A variable weight axis gives every step it spans.
      reach.length ? Math.floor((Math.max(...reach) - Math.min(...reach)) / 100) + 1 : 0,
    );
  }
  return facts;
}

/** Weights further apart than a third of a step of usWeightClass. */
function countSteps(weights: number[]): number {
  const sorted = [...weights].sort((a, b) => a - b);
  let steps = 0;
  let last = -Infinity;
  for (const w of sorted)
    if (w - last > 35) {
      steps++;
      last = w;
    }
  return steps;
}

function measureLooks(rows: readonly FindRow[]): Uint8Array {
  const looks = new Uint8Array(rows.length * LOOKS.length);
  rows.forEach((row, i) =>
    lookDegrees(row).forEach((degree, k) => (looks[i * LOOKS.length + k] = Math.round(255 * degree))),
  );
  return looks;
}

function once<T>(make: () => T): () => T {
  let made: { value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}
