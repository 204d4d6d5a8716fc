// Filters, counts and ranks all styles for one question. Pure: rows in, rows out.
import type { BriefFields } from "@/contracts/brief";
import type { Facets, StyleQuery, Understood } from "@/contracts/styles";
import type { CodePointRanges, Kind, Traits, Treatment, Use, Verdict } from "@/contracts/traits";
import { charactersOf, findMissing } from "../brief/checkBrief";
import { hasCodePoint } from "../open/unicodeBlocks";
import { strictestVerdict } from "../rights/verdicts";
import { editDistance, parseWords, squash } from "./parseWords";
import type { Wish } from "./vocabulary";

/** What finding needs to know of a style; kept in memory by the server. */
export type FindRow = {
  styleId: string;
  familyId: string;
  family: string;
  style: string;
  library: string;
  kinds: { value: Kind; confidence: number }[];
  treatments: { value: Treatment; confidence: number }[];
  traits: Traits;
  verdicts: Partial<Record<Use, Verdict>>;
  coverage: CodePointRanges;
  /** Axis tag → default value; empty when the font is not variable. */
  axes: Record<string, number>;
  addedAt: string;
  health: "fine" | "with-care" | "refused";
  /** False: a library sells it. */
  owned: boolean;
  /** What the library asks, in cents by use; null when it sells nothing of it. */
  price: { currency: string; pricesCents: Record<string, number> } | null;
};

export type FindBrief = Pick<BriefFields, "lines" | "wanted" | "uses"> & { setAside: readonly string[] };
export type FoundRow = { row: FindRow; verdict: Verdict; missing: string[]; score: number };
export type Found = { rows: FoundRow[]; facets: Facets; understood: Understood };

/** A confidence from which a kind counts when filtering. */
const SURE_ENOUGH = 0.5;
const WEIGHT_BINS = 10;
const WIDTH_BINS = 9;

/** One filter: its facet name ("" when it has none), and the test. */
type Filter = { facet: string; passes: (r: FoundRow) => boolean };

/**
 * Answers one question.
 * @param rows - every style. @param brief - the brief in view or null.
 * @returns all rows that pass, best first; facets count what would pass if that facet's own filter were off.
 */
export function findStyles(rows: readonly FindRow[], query: Partial<StyleQuery>, brief: FindBrief | null): Found {
  const families = [...new Set(rows.map((r) => r.family))];
  const parsed = parseWords(query.q ?? "", families, query.q ? new Set(rows.map(fullNameOf)) : undefined);
  const filters = [...sieveFilters(query, brief), ...parsed.wishes.map(({ wish }) => wishFilter(wish))];
  const needed = brief ? charactersOf(brief) : [];
  const facets = emptyFacets();
  const passed: FoundRow[] = [];
  for (const row of rows) {
    const found: FoundRow = {
      row,
      verdict: strictestVerdict(row.verdicts, brief?.uses ?? []),
      missing: findMissing(needed, row.coverage),
      score: 0,
    };
    const failing = filters.filter((f) => !f.passes(found));
    const only =
      failing.length === 0
        ? "*"
        : failing.every((f) => f.facet && f.facet === failing[0]!.facet)
          ? failing[0]!.facet
          : null;
    if (only) count(facets, found, only);
    if (!failing.length) passed.push(found);
  }
  for (const f of passed)
    f.score = scoreRow(
      f,
      parsed.wishes.map((w) => w.wish),
    );
  passed.sort(sorter(query.sort ?? "fit"));
  return {
    rows: passed,
    facets,
    understood: {
      words: parsed.wishes.map(({ wish, from }) => ({ label: wish.label, from })),
      ignored: parsed.ignored,
    },
  };
}

function sieveFilters(query: Partial<StyleQuery>, brief: FindBrief | null): Filter[] {
  const filters: Filter[] = [];
  const add = (facet: string, passes: Filter["passes"]) => filters.push({ facet, passes });
  const { kinds, treatments, verdicts } = query;
  if (kinds?.length)
    add("kinds", ({ row }) => row.kinds.some((k) => k.confidence >= SURE_ENOUGH && kinds.includes(k.value)));
  if (treatments?.length) add("treatments", ({ row }) => row.treatments.some((t) => treatments.includes(t.value)));
  if (verdicts?.length) add("verdicts", ({ verdict }) => verdicts.includes(verdict));
  const range = (facet: string, trait: "weight" | "width", min?: number, max?: number) => {
    if (min === undefined && max === undefined) return;
    add(facet, ({ row }) => {
      const v = row.traits[trait];
      return v !== null && v >= (min ?? -Infinity) && v <= (max ?? Infinity);
    });
  };
  range("weight", "weight", query.weightMin, query.weightMax);
  range("width", "width", query.widthMin, query.widthMax);
  if (query.pictures === "out") add("pictures", ({ row }) => !row.traits.picture);
  if (query.pictures === "only") add("pictures", ({ row }) => row.traits.picture);
  if (query.complete) add("complete", ({ missing }) => !missing.length);
  if (query.familyId) add("", ({ row }) => row.familyId === query.familyId);
  if (query.owned === "here") add("owned", ({ row }) => row.owned);
  if (query.owned === "to-buy") add("owned", ({ row }) => !row.owned);
  if (query.library) add("", ({ row }) => row.library === query.library);
  const aside = new Set(brief?.setAside ?? []);
  if (query.aside === "only") add("", ({ row }) => aside.has(row.styleId));
  else if (query.aside !== "show" && aside.size) add("", ({ row }) => !aside.has(row.styleId));
  return filters;
}

function wishFilter(wish: Wish): Filter {
  return { facet: "", passes: ({ row }) => grants(wish, row) };
}

/** Whether a row is what a wish asks for. */
function grants(wish: Wish, row: FindRow): boolean {
  switch (wish.type) {
    case "kind":
      return row.kinds.some((k) => k.value === wish.kind && k.confidence >= SURE_ENOUGH) !== Boolean(wish.not);
    case "treatment":
      return row.treatments.some((t) => t.value === wish.treatment) !== Boolean(wish.not);
    case "trait": {
      const v = row.traits[wish.trait];
      return v !== null && v >= (wish.min ?? -Infinity) && v <= (wish.max ?? Infinity);
    }
    case "has":
      return [...wish.characters].every((c) => hasCodePoint(row.coverage, c.codePointAt(0)!));
    case "case":
      return row.traits.cases !== null && wish.cases.includes(row.traits.cases);
    case "figures":
      return (
        (!wish.height || row.traits.figures.height === wish.height) &&
        (!wish.spacing || row.traits.figures.spacing === wish.spacing)
      );
    case "pictures":
      return row.traits.picture === (wish.want === "only");
    case "variable":
      return wish.axis ? wish.axis in row.axes : Object.keys(row.axes).length > 0;
    case "uses":
      return ["cleared", "cleared-with-credit"].includes(row.verdicts[wish.use] ?? "unread");
    case "name":
      return nameScore(wish.words, row) > 0;
  }
}

const fullNameOf = (row: FindRow) => squash(`${row.family} ${row.style}`);

/** 1 for the whole name, less for a beginning, a part or a misspelling, 0 for none. */
function nameScore(words: string, row: FindRow): number {
  const asked = squash(words);
  const family = squash(row.family);
  if (family === asked) return 1;
  if (fullNameOf(row) === asked) return 1;
  if (family.startsWith(asked)) return 0.9;
  if (asked.length >= 4 && family.includes(asked)) return 0.7;
  if (asked.length < 4) return 0;
  const allowed = asked.length >= 9 ? 3 : asked.length >= 6 ? 2 : 1;
  const slips = editDistance(family, asked, allowed);
  return slips <= allowed ? 0.8 - 0.1 * slips : 0;
}

function scoreRow({ row, verdict, missing }: FoundRow, wishes: Wish[]): number {
  let score = 0;
  for (const wish of wishes) {
    if (wish.type === "name") score += 4 * nameScore(wish.words, row);
    if (wish.type === "kind" && !wish.not) score += row.kinds.find((k) => k.value === wish.kind)?.confidence ?? 0;
    if (wish.type === "treatment" && !wish.not)
      score += row.treatments.find((t) => t.value === wish.treatment)?.confidence ?? 0;
    if (wish.type === "trait") score += 0.5 * depthIn(wish, row.traits[wish.trait] ?? 0);
  }
  if (!missing.length) score += 0.3;
  if (verdict === "cleared") score += 0.15;
  if (row.traits.picture) score -= 1;
  // What is at hand comes before what would have to be bought.
  if (!row.owned) score -= 0.2;
  return score;
}

/** How far inside an open-ended range a value lies, 0–1: "heavy" ranks the heavier first, but not the absurd. */
function depthIn(wish: { min?: number; max?: number }, value: number): number {
  if (wish.min !== undefined && wish.max !== undefined) return 0.5;
  if (wish.min !== undefined) return Math.min(1, (value - wish.min) / Math.max(1e-6, Math.abs(wish.min) * 0.5));
  if (wish.max !== undefined) return Math.min(1, (wish.max - value) / Math.max(1e-6, Math.abs(wish.max) * 0.5));
  return 0;
}

function sorter(sort: NonNullable<StyleQuery["sort"]>): (a: FoundRow, b: FoundRow) => number {
  const byName = (a: FoundRow, b: FoundRow) =>
    a.row.family.localeCompare(b.row.family, "en") ||
    (a.row.traits.weight ?? 0) - (b.row.traits.weight ?? 0) ||
    a.row.style.localeCompare(b.row.style, "en") ||
    (a.row.styleId < b.row.styleId ? -1 : 1);
  const by = (of: (f: FoundRow) => number) => (a: FoundRow, b: FoundRow) => of(a) - of(b) || byName(a, b);
  switch (sort) {
    case "name":
      return byName;
    case "newest":
      return (a, b) => (a.row.addedAt < b.row.addedAt ? 1 : a.row.addedAt > b.row.addedAt ? -1 : byName(a, b));
    case "weight":
      return by((f) => f.row.traits.weight ?? 9999);
    case "width":
      return by((f) => f.row.traits.width ?? 99);
    case "fit":
      return by((f) => -f.score);
  }
}

const emptyFacets = (): Facets => ({
  kinds: {},
  verdicts: {},
  weight: new Array<number>(WEIGHT_BINS).fill(0),
  width: new Array<number>(WIDTH_BINS).fill(0),
  pictures: { in: 0, out: 0 },
  complete: 0,
  owned: { here: 0, toBuy: 0 },
});

/** Adds a row to every facet when it passes all ("*"), else only to the facet whose own filter it fails. */
function count(facets: Facets, { row, verdict, missing }: FoundRow, only: string) {
  const counts = (facet: string) => only === "*" || only === facet;
  if (counts("kinds"))
    for (const k of row.kinds)
      if (k.confidence >= SURE_ENOUGH) facets.kinds[k.value] = (facets.kinds[k.value] ?? 0) + 1;
  if (counts("verdicts")) facets.verdicts[verdict] = (facets.verdicts[verdict] ?? 0) + 1;
  if (counts("weight") && row.traits.weight !== null)
    facets.weight[Math.min(WEIGHT_BINS - 1, Math.floor(row.traits.weight / 100))]!++;
  if (counts("width") && row.traits.width !== null)
    facets.width[Math.min(WIDTH_BINS - 1, Math.max(0, Math.round(row.traits.width) - 1))]!++;
  if (counts("pictures")) facets.pictures[row.traits.picture ? "in" : "out"]++;
  if (counts("owned")) facets.owned[row.owned ? "here" : "toBuy"]++;
  if (counts("complete") && !missing.length) facets.complete++;
}
