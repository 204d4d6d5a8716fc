// Finding: an index of all styles kept in memory, brought up to date by sequence number; core does the rest.
import { createHash } from "node:crypto";
import { LRUCache } from "lru-cache";
import type { Brief } from "@/contracts/brief";
import type { FamilyId, LibraryId, StyleId } from "@/contracts/ids";
import type { OwnWords, ShownItem, StyleList, StyleListItem, StyleQuery, Suggestions } from "@/contracts/styles";
import type { CodePointRanges, MeasureNotes, MoodGuess } from "@/contracts/traits";
import { findOwnWords } from "@/core/brief/ownWords";
import { indexStyles, type FindIndex, type FindRow } from "@/core/find/findIndex";
import { differsLittle, replaceRows } from "@/core/find/replaceRows";
import { findStyles, seenBy, type FindSurroundings, type Found, type FoundRow } from "@/core/find/findStyles";
import { suggestWords } from "@/core/find/suggest";
import { quantile } from "@/core/geometry/numbers";
import { findSetting, FOLLOWED } from "@/core/measure/reach";
import type { Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import { countKept, isSaid, listKeywords, listTags } from "../queries/finding";
import { isAnyRunning } from "../queries/jobs";
import { eachStyleSince, lastSeq, type FindRecord } from "../queries/styles";
import { listThemeCorrections, themesState } from "../queries/themes";
import { COUNTED, getLanguages, speaksIn } from "./languages";
import { getWordMeanings } from "./wordMeanings";

type Ranges = StyleList["ranges"];
type HeldRow = FindRow & { axisEnds: AxisEnds; parts: number };
type Held = {
  seq: number;
  rows: Map<string, HeldRow>;
  /** Values that many styles have, each once: text of the column → value. */
  shared: Map<string, unknown>;
  index: FindIndex;
  /** Made with the first question: languages are read then. */
  around?: FindSurroundings | undefined;
  /** What was said of words when it was made. */
  themes?: string;
  ranges: Ranges;
  /** Styles that changed in more than tags and verdicts since the index was made; null: gone. */
  pending: Map<string, HeldRow | null>;
  builtAt: number;
  tookMs: number;
  answers: LRUCache<string, Found>;
};
const shared = globalThis as unknown as { fondQuarryRows?: WeakMap<Db, Held> };

/** Traits that the core sample shows, in its order, and their spread over the library (2nd to 98th percentile). */
export const SAMPLE_TRAITS = ["stemEm", "contrast", "width", "xHeightEm", "slantDeg", "roundness"] as const;

/** While fonts come in, the index is not built again for each of them: what was built serves this many times as long as building took. */
const SERVES_TIMES = 12;
/** An index that takes no longer than this is built for every font. */
const QUICK_MS = 20;
const ANSWERS_KEPT = 32;
/** Rows of all kept answers together: one that holds a hundred thousand takes a megabyte and more. */
const ROWS_KEPT = 800_000;
const openAnswers = () =>
  new LRUCache<string, Found>({ max: ANSWERS_KEPT, maxSize: ROWS_KEPT, sizeCalculation: ({ total }) => total + 1 });

/**
 * The index of all rows; only what changed since the last call is read from the database.
 * @param needed - styles that must stand in it, however lately they came.
 */
export function getHeld(db: Db, needed: readonly string[] = []): Held {
  shared.fondQuarryRows ??= new WeakMap();
  const held = shared.fondQuarryRows.get(db);
  const seq = lastSeq(db);
  if (held?.seq === seq && !isDue(db, held, needed)) return held;
  const next = held ? bringUpToDate(db, held, seq, needed) : build(db, seq, new Map(), new Map());
  shared.fondQuarryRows.set(db, next);
  return next;
}

/** Whether styles wait that the index is to be made again for. */
const isDue = (db: Db, { pending, builtAt, tookMs }: Held, needed: readonly string[]) =>
  pending.size > 0 &&
  (performance.now() - builtAt >= SERVES_TIMES * (tookMs - QUICK_MS) ||
    needed.some((id) => pending.has(id)) ||
    !isAnyRunning(db));

/**
 * What differs little (a tag, a verdict) is exchanged in the index at once. The rest waits until the index may be made again: while fonts
 * come in, a large one serves for a while.
 */
function bringUpToDate(db: Db, held: Held, seq: number, needed: readonly string[]): Held {
  const said = new Map<string, Said[]>();
  const saidOf = (familyId: string) => {
    if (!said.has(familyId)) said.set(familyId, saidByFamily(db, familyId).get(familyId) ?? []);
    return said.get(familyId);
  };
  const little = new Map<number, HeldRow>();
  for (const record of eachStyleSince(db, held.seq)) {
    const row = record.hidden ? null : toRow(record, held.shared, saidOf(record.familyId));
    const at = held.index.rowOf.get(record.styleId);
    const before = held.pending.has(record.styleId) || at === undefined ? undefined : held.index.rows[at];
    if (row && before && differsLittle(before, row)) little.set(at!, row);
    else held.pending.set(record.styleId, row);
  }
  const exchanged = little.size ? replaceRows(held.index, little) : held.index;
  for (const row of little.values())
    if (exchanged) held.rows.set(row.styleId, row);
    else held.pending.set(row.styleId, row);
  const next: Held = {
    ...held,
    seq,
    ...(exchanged &&
      exchanged !== held.index && {
        index: exchanged,
        around: undefined,
        answers: openAnswers(),
      }),
  };
  return !exchanged || isDue(db, next, needed) ? build(db, seq, next.rows, next.shared, next.pending) : next;
}

/** Makes the whole index. @param pending - rows that changed since it was made; null: they are gone. */
function build(
  db: Db,
  seq: number,
  rows: Map<string, HeldRow>,
  values: Map<string, unknown>,
  pending?: ReadonlyMap<string, HeldRow | null>,
): Held {
  const started = performance.now();
  if (!pending) {
    const said = saidByFamily(db);
    for (const record of eachStyleSince(db, 0))
      if (!record.hidden) rows.set(record.styleId, toRow(record, values, said.get(record.familyId)));
  }
  for (const [styleId, row] of pending ?? [])
    if (row) rows.set(styleId, row);
    else rows.delete(styleId);
  const index = indexStyles([...rows.values()]);
  return {
    seq,
    rows,
    shared: values,
    index,
    ranges: measureRanges(index),
    pending: new Map(),
    builtAt: performance.now(),
    tookMs: performance.now() - started,
    answers: openAnswers(),
  };
}

/** What identify and others need. A row is found before it stands in the index. */
export const getRows = (db: Db) => {
  const { rows, pending, ranges, index } = getHeld(db);
  const findRow = (styleId: string): FindRow | null => {
    const waiting = pending.get(styleId);
    return waiting === undefined ? (rows.get(styleId) ?? null) : waiting;
  };
  return { findRow, ranges, index };
};

type Said = { tag: string; holds: boolean };
/** What is said of families, or of one: what a library says holds like what the user says, where the user does not say otherwise. */
function saidByFamily(db: Db, familyId?: string): Map<string, Said[]> {
  const said = new Map<string, Said[]>();
  const listOf = (family: string) => {
    let list = said.get(family);
    if (!list) said.set(family, (list = []));
    return list;
  };
  for (const t of listTags(db, familyId)) listOf(t.familyId).push(t);
  for (const k of listKeywords(db, familyId)) {
    const list = listOf(k.familyId);
    if (!list.some((t) => t.tag === k.keyword)) list.push({ tag: k.keyword, holds: true });
  }
  return said;
}

/** Words of a question are asked for again and again while it is read. */
const WORDS_KEPT = 500;
function rememberRecent(find: (word: string) => boolean): (word: string) => boolean {
  const known = new LRUCache<string, boolean>({ max: WORDS_KEPT });
  return (word) => {
    let is = known.get(word);
    if (is === undefined) known.set(word, (is = find(word)));
    return is;
  };
}

function once<T>(values: Map<string, unknown>, kind: string, text: string, make: (parsed: unknown) => T): T {
  const key = `${kind}${text}`;
  let value = values.get(key);
  if (value === undefined) values.set(key, (value = make(JSON.parse(text))));
  return value as T;
}

function toRow(r: FindRecord, values: Map<string, unknown>, tags: readonly Said[] = []): HeldRow {
  const plain = plainMoodsOf(r.moods);
  const denied = new Set(tags.filter((t) => !t.holds).map((t) => t.tag));
  const measured = denied.size ? plain.filter((m) => !denied.has(m.value)) : plain;
  const added = tags.filter((t) => t.holds && !measured.some((m) => m.value === t.tag));
  return {
    styleId: r.styleId,
    familyId: r.familyId,
    family: r.family,
    ...(r.otherFamiliesText && { alsoCalled: JSON.parse(r.otherFamiliesText) as string[] }),
    style: r.style,
    library: r.libraryId,
    foundry: r.foundry,
    format: r.format,
    kinds: r.kinds,
    treatments: r.treatments,
    moods: added.length ? [...measured, ...added.map((t) => ({ value: t.tag, confidence: 1 }))] : measured,
    vox: r.vox?.value ?? null,
    traits: r.traits,
    ...(r.reachText && r.reachText !== "{}" && { reach: JSON.parse(r.reachText) as MeasureNotes["reach"] }),
    axisEnds: r.axisEndsText && r.axisEndsText !== "[]" ? (JSON.parse(r.axisEndsText) as AxisEnds) : NO_ENDS,
    parts: r.parts,
    verdicts: r.verdicts,
    coverage: once(values, "c", r.coverageText, (v) => v as CodePointRanges),
    features: once(values, "f", r.featuresText, (v) => v as string[]),
    axes: once(values, "a", r.axesText, (v) =>
      Object.fromEntries((v as { tag: string; default: number }[]).map((a) => [a.tag, a.default])),
    ),
    addedAt: r.addedAt,
    health: r.degree,
    owned: r.owned,
    price: r.offer,
  };
}
type AxisEnds = MeasureNotes["axes"];
const NO_ENDS: AxisEnds = [];
/** Many styles share what was measured of their moods: without the reasons it is one list for all of them. */
const plainMoods = new WeakMap<readonly MoodGuess[], { value: string; confidence: number }[]>();
function plainMoodsOf(moods: readonly MoodGuess[]) {
  let plain = plainMoods.get(moods);
  if (!plain) plainMoods.set(moods, (plain = moods.map(({ value, confidence }) => ({ value, confidence }))));
  return plain;
}

function measureRanges(index: FindIndex): Ranges {
  const ranges: Ranges = {};
  for (const trait of SAMPLE_TRAITS) {
    const values = [...index.traits[trait].values].filter((v) => !Number.isNaN(v));
    const low = quantile(values, 0.02) ?? 0;
    const high = quantile(values, 0.98) ?? 1;
    ranges[trait] = trait === "slantDeg" ? [0, Math.max(1, high)] : [Math.min(low, high), Math.max(high, low + 1e-6)];
  }
  return ranges;
}

/** The answer to a question, kept for its further pages. @param held - what the answer is said of: its rows are of this index alone. */
export function answer(db: Db, held: Held, query: Partial<StyleQuery>, brief: Brief | null): Found {
  if (query.sort === "popular") notePopularity(db, held);
  const themes = themesState(db);
  if (held.themes !== themes) {
    held.themes = themes;
    held.around = undefined;
    held.answers.clear();
  }
  const { limit: _limit, cursor: _cursor, briefId: _briefId, ...asked } = query;
  const ofBrief = brief && [brief.lines, brief.wanted, brief.uses, brief.setAside];
  const key = digest([asked, ofBrief, query.learn && brief?.kept.map((k) => k.styleId)]);
  const known = query.sort === "popular" ? undefined : held.answers.get(key);
  if (known) return known;
  held.around ??= {
    lexicon: {
      tags: { has: rememberRecent((word) => isSaid(db, word)) },
      languages: getLanguages().byName,
      places: getLanguages().byPlace,
      words: getWordMeanings(),
      corrections: new Map(listThemeCorrections(db).map((c) => [c.phrase, c.looks])),
    },
    speaks: (code) => speaksIn(held.index, code),
    languages: COUNTED,
  };
  const found = findStyles(held.index, query, brief, held.around);
  held.answers.set(key, found);
  return found;
}

const digest = (value: unknown) => createHash("sha1").update(JSON.stringify(value)).digest("base64");

function notePopularity(db: Db, held: Held) {
  const counts = countKept(db);
  for (const row of held.rows.values()) row.popularity = counts.get(row.styleId) ?? 0;
}

/** Answers GET /styles. `briefId` of an unknown brief counts as none. */
export function listFound(db: Db, query: StyleQuery): StyleList {
  const held = getHeld(db);
  const brief = query.briefId ? findBrief(db, query.briefId) : null;
  const found = answer(db, held, query, brief);
  const from = Number(query.cursor ?? 0);
  const to = Math.min(from + query.limit, found.total);
  const coverages: StyleList["coverages"] = {};
  const ownWords: StyleList["ownWords"] = {};
  const list = (rows: FoundRow[]): StyleListItem[] =>
    rows.map((row) => {
      const { coverage, own, ...item } = toItem(row, held, found);
      coverages[item.coverageKey] = coverage;
      if (own) ownWords[item.coverageKey] = own;
      return item;
    });
  const see = seenBy(held.index, brief);
  const items = list(Array.from({ length: Math.max(0, to - from) }, (_, k) => found.at(from + k)));
  const named = from ? [] : list(Array.from(found.named, see));
  return {
    total: found.total,
    families: found.families,
    ofAll: held.index.rows.length,
    items,
    named,
    taste: found.taste,
    coverages,
    ownWords,
    ...(to < found.total && { cursor: String(to) }),
    // Counts belong to the question, not to its page.
    facets: found.facets,
    understood: found.understood,
    ranges: held.ranges,
  };
}

/** All style ids of an answer, in order: what a pass goes through. */
export const listFoundIds = (db: Db, query: StyleQuery, brief: Brief | null): StyleId[] => {
  const held = getHeld(db);
  return Array.from(answer(db, held, query, brief).order, (i) => held.index.rows[i]!.styleId as StyleId);
};

const ownWords = new WeakMap<CodePointRanges, Map<string, OwnWords | null>>();
/** Many styles share a coverage: its words are found once. */
function ownWordsOf(coverage: CodePointRanges, language: string | null): OwnWords | null {
  let byLanguage = ownWords.get(coverage);
  if (!byLanguage) ownWords.set(coverage, (byLanguage = new Map()));
  let words = byLanguage.get(language ?? "");
  if (words === undefined) byLanguage.set(language ?? "", (words = findOwnWords(coverage, language)));
  return words;
}

export function toItem(
  { row, verdict, missing, priceCents, stylesFound, fit }: FoundRow,
  held: Held,
  { wanted, languages }: Pick<Found, "wanted" | "languages"> = { wanted: [], languages: [] },
): ShownItem {
  const at = held.index.rowOf.get(row.styleId)!;
  return {
    styleId: row.styleId as StyleId,
    familyId: row.familyId as FamilyId,
    family: row.family,
    style: row.style,
    library: row.library as LibraryId,
    kinds: row.kinds.map((k) => k.value),
    treatments: row.treatments.map((t) => t.value),
    verdict,
    traits: row.traits,
    stylesInFamily: held.index.families[held.index.family[at]!]!.styles,
    stylesFound,
    missing,
    coverageKey: String(held.index.coverage.of[at]),
    coverage: row.coverage,
    own: ownWordsOf(row.coverage, languages[0] ?? null),
    health: row.health,
    parts: (row as HeldRow).parts,
    axisDefaults: row.axes,
    axisWanted: wanted.length ? settingFor(row as HeldRow, wanted) : {},
    owned: row.owned,
    price:
      verdict === "buy-first" && priceCents !== null && row.price
        ? { cents: priceCents, currency: row.price.currency }
        : null,
    fit,
  };
}

/** Axis values at which a variable font is what was asked for. */
function settingFor(row: HeldRow, wanted: Found["wanted"]): Record<string, number> {
  const out: Record<string, number> = {};
  for (const w of wanted)
    if ((FOLLOWED as readonly string[]).includes(w.trait))
      Object.assign(
        out,
        findSetting({ axes: row.axisEnds }, row.axes, row.traits, w.trait as (typeof FOLLOWED)[number], w),
      );
  return out;
}

/** Items of some styles as the brief sees them, in the order given; styles that are gone are left out. */
export function listItems(db: Db, brief: Brief, styleIds: readonly string[]): ShownItem[] {
  const held = getHeld(db, styleIds);
  const see = seenBy(held.index, brief);
  return styleIds.flatMap((id) => {
    const row = held.index.rowOf.get(id);
    return row === undefined ? [] : [toItem(see(row), held)];
  });
}

/** Items of the styles kept for a brief, in their order. */
export const listKeptItems = (db: Db, brief: Brief): ShownItem[] =>
  listItems(db, brief, [...new Set(brief.kept.map((k) => k.styleId))]);

/** Answers GET /suggestions. */
export const listSuggestions = (db: Db, q: string): Suggestions => ({
  suggestions: suggestWords(getHeld(db).index, q),
});
