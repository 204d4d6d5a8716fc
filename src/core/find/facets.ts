// Counts of the sieve: for each of its parts what would be there if that part's own filter were off.
import type { Facets } from "@/contracts/styles";
import { KINDS, TREATMENTS, VERDICTS } from "@/contracts/traits";
import { hasBit, HISTOGRAM_BINS, SIEVE_TRAITS, type FindIndex } from "./findIndex";
import type { Asked } from "./passes";

/** Languages whose counts the sieve shows, and the steps of its counts. */
export const STYLE_STEPS = [1, 2, 4, 8, 16];
export const PRICE_STEPS_CENTS = [0, 2000, 4000, 6000, 10000];

/** Rows that count for a facet: those that pass all, and those that only its own filter stops. */
export type Candidates = { all: Int32Array; onlyStoppedBy: ReadonlyMap<string, Int32Array> };

export function countFacets(asked: Asked, rows: Candidates, languages: readonly string[]): Facets {
  const { index } = asked;
  const each = (facet: string, tell: (i: number) => void) => {
    for (const i of rows.all) tell(i);
    for (const i of rows.onlyStoppedBy.get(facet) ?? []) tell(i);
  };
  /** Rows by the id of a shared value. */
  const tally = (facet: string, of: ArrayLike<number>, size: number) => {
    const counts = new Uint32Array(size);
    each(facet, (i) => counts[of[i]!]!++);
    return counts;
  };
  const spread = <T>(facet: string, shared: { of: Uint32Array; list: T[] }, keysOf: (v: T) => readonly string[]) => {
    const counts = tally(facet, shared.of, shared.list.length);
    const out: Record<string, number> = {};
    shared.list.forEach((value, id) => {
      if (counts[id]) for (const key of keysOf(value)) out[key] = (out[key] ?? 0) + counts[id]!;
    });
    return out;
  };
  const traits: Facets["traits"] = {};
  for (const trait of SIEVE_TRAITS) {
    const { bins, range } = index.traits[trait];
    traits[trait] = { range, bins: [...tally(trait, bins, HISTOGRAM_BINS + 1).subarray(0, HISTOGRAM_BINS)] };
  }
  const verdicts = tally("verdicts", asked.verdictOf, VERDICTS.length);
  const coverage = tally("languages", index.coverage.of, index.coverage.list.length);
  return {
    traits,
    kinds: spread("kinds", index.kinds, (m) => KINDS.filter((k) => hasBit(KINDS, m, k))),
    treatments: spread("treatments", index.treatments, (m) => TREATMENTS.filter((t) => hasBit(TREATMENTS, m, t))),
    moods: spread("moods", index.moods, (list) => list),
    vox: spread("vox", index.vox, (v) => (v ? [v] : [])),
    verdicts: Object.fromEntries(VERDICTS.map((v, k) => [v, verdicts[k]!]).filter(([, n]) => n)),
    features: spread("features", index.features, (list) => list),
    axes: spread("axes", index.axes, (list) => (list.length ? ["any", ...list] : [])),
    formats: spread("formats", index.formats, (f) => [f]),
    health: spread("health", index.health, (h) => [h]),
    libraries: spread("libraries", index.libraries, (l) => [l]),
    languages: Object.fromEntries(
      languages.map((code) => {
        const speaks = asked.speaks(code);
        let n = 0;
        for (let id = 0; id < coverage.length; id++) if (speaks[id]) n += coverage[id]!;
        return [code, n];
      }),
    ),
    ...countFamilies(asked, each),
    ...countSingles(asked, each),
  };
}

type Each = (facet: string, tell: (i: number) => void) => void;

function countFamilies({ index }: Asked, each: Each): Pick<Facets, "styles" | "weights" | "italics"> {
  const atLeast = (facet: string, of: (f: FindIndex["families"][number]) => number) => {
    const counts = STYLE_STEPS.map(() => 0);
    const values = Uint32Array.from(index.families, of);
    each(facet, (i) => {
      const v = values[index.family[i]!]!;
      for (let k = 0; k < STYLE_STEPS.length; k++) if (v >= STYLE_STEPS[k]!) counts[k]!++;
    });
    return counts;
  };
  let italics = 0;
  each("italics", (i) => (italics += index.families[index.family[i]!]!.hasItalic ? 1 : 0));
  return { styles: atLeast("styles", (f) => f.styles), weights: atLeast("weights", (f) => f.weights), italics };
}

function countSingles({ index, missingOf, priceOf }: Asked, each: Each) {
  const { rows } = index;
  const pictures = { in: 0, out: 0 };
  each("pictures", (i) => pictures[rows[i]!.traits.picture ? "in" : "out"]++);
  const owned = { here: 0, toBuy: 0 };
  each("owned", (i) => owned[rows[i]!.owned ? "here" : "toBuy"]++);
  let complete = 0;
  each("complete", (i) => (complete += missingOf[i] ? 0 : 1));
  const price = PRICE_STEPS_CENTS.map(() => 0);
  each("price", (i) => PRICE_STEPS_CENTS.forEach((max, k) => priceOf[i]! <= max && price[k]!++));
  const figures: Record<string, number> = {};
  each("figures", (i) => {
    const { height, spacing } = rows[i]!.traits.figures;
    for (const f of [height, spacing]) if (f) figures[f] = (figures[f] ?? 0) + 1;
  });
  const cases: Record<string, number> = {};
  each("cases", (i) => {
    const c = rows[i]!.traits.cases ?? "both";
    cases[c] = (cases[c] ?? 0) + 1;
  });
  return { pictures, owned, complete, price, figures, cases };
}
