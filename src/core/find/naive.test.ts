// Finding over columns against a naive reading of the same rows: many random questions, every count and every row compared.
import { describe, expect, test } from "@jest/globals";
import type { StyleQuery } from "@/contracts/styles";
import { KINDS, TREATMENTS, VERDICTS, type Kind, type Treatment, type Verdict } from "@/contracts/traits";
import { FAMILY_STEPS, indexStyles, type FindRow } from "./findIndex";
import { findStyles, type FindBrief } from "./findStyles";
import { seededRandom } from "../geometry/numbers";
import { rowOf, traitsOf } from "../../../tests/fixtures/rows";

/** Counted as large libraries are: columns packed together. What is counted column by column has its tests beside. */
const PACKED = 0;

const FAMILIES = ["Skerry", "Voe", "Tarn", "Kelp", "Brine", "Gull", "Petrel", "Sound"];
const FEATURES = [[], ["smcp"], ["tnum", "onum"], ["smcp", "swsh"]];
const COVERAGES: [number, number][][] = [
  [[0x20, 0x7e]],
  [
    [0x20, 0x25],
    [0x27, 0x7e],
  ],
  [[0x41, 0x5a]],
];

function makeRows(count: number, seed: number): FindRow[] {
  const random = seededRandom(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const maybe = (v: number) => (random() < 0.1 ? null : v);
  return Array.from({ length: count }, (_, i) => {
    const owned = random() < 0.85;
    const weight = maybe(Math.round(100 + 850 * random()));
    const isVariable = random() < 0.1;
    return rowOf(pick(FAMILIES), {
      style: `No. ${i}`,
      owned,
      price:
        owned || random() < 0.3
          ? null
          : { currency: "EUR", pricesCents: { "goods-for-sale": Math.round(9000 * random()) } },
      kinds: [{ value: pick<Kind>(KINDS), confidence: random() }],
      treatments: random() < 0.3 ? [{ value: pick<Treatment>(TREATMENTS), confidence: random() }] : [],
      moods: random() < 0.4 ? [{ value: pick(["sturdy", "airy", "loud"]), confidence: 0.8 }] : [],
      verdicts: { "goods-for-sale": pick<Verdict>(VERDICTS) },
      coverage: pick(COVERAGES),
      features: pick(FEATURES),
      axes: isVariable ? { wght: 400 } : {},
      reach: isVariable && weight !== null ? { weight: [weight - 90, weight + 140] } : undefined,
      health: random() < 0.2 ? "with-care" : "fine",
      library: pick(["open", "shop"]),
      traits: traitsOf({
        weight,
        contrast: maybe(1 + 4 * random()),
        slantDeg: maybe(random() < 0.4 ? 12 * random() : 0),
        picture: random() < 0.05,
        cases: pick(["both", "capitals-only"] as const),
        figures: {
          height: pick(["lining", "old-style"] as const),
          spacing: pick(["tabular", "proportional"] as const),
        },
      }),
    });
  });
}

const brief: FindBrief = {
  lines: [{ text: "Wren & Tern", role: "title" }],
  wanted: "",
  uses: ["goods-for-sale"],
  setAside: [],
};

/** Filters of a question by facet, each as plainly as it can be said. */
function naiveTests(query: Partial<StyleQuery>, rows: readonly FindRow[]): [string, (r: FindRow) => boolean][] {
  const family = (r: FindRow) => rows.filter((o) => o.family === r.family);
  const tests: [string, (r: FindRow) => boolean][] = [];
  if (query.kinds)
    tests.push(["kinds", (r) => r.kinds.some((k) => k.confidence >= 0.5 && query.kinds!.includes(k.value))]);
  if (query.treatments)
    tests.push([
      "treatments",
      (r) => r.treatments.some((k) => k.confidence >= 0.5 && query.treatments!.includes(k.value)),
    ]);
  if (query.moods) tests.push(["moods", (r) => query.moods!.every((m) => r.moods!.some((k) => k.value === m))]);
  if (query.verdicts) tests.push(["verdicts", (r) => query.verdicts!.includes(r.verdicts["goods-for-sale"]!)]);
  if (query.features) tests.push(["features", (r) => query.features!.every((f) => r.features!.includes(f))]);
  if (query.health) tests.push(["health", (r) => query.health!.includes(r.health)]);
  if (query.libraries) tests.push(["libraries", (r) => (query.libraries as string[]).includes(r.library)]);
  if (query.stylesMin) tests.push(["styles", (r) => family(r).length >= query.stylesMin!]);
  if (query.owned === "here") tests.push(["owned", (r) => r.owned]);
  if (query.pictures === "out") tests.push(["pictures", (r) => !r.traits.picture]);
  if (query.complete) tests.push(["complete", (r) => lacks(r) === 0]);
  if (query.priceMax !== undefined) tests.push(["price", (r) => priceOf(r) <= query.priceMax! * 100]);
  for (const { trait, low, high } of query.traits ?? [])
    tests.push([
      trait,
      (r) => {
        const v = r.traits[trait as "weight"];
        const [from, to] = r.reach?.[trait] ?? [v, v];
        return from !== null && to !== null && to >= (low ?? -Infinity) && from <= (high ?? Infinity);
      },
    ]);
  return tests;
}
const lacks = (r: FindRow) =>
  [...new Set("Wren&Tern")].filter(
    (c) => !r.coverage.some(([a, b]) => c.codePointAt(0)! >= a && c.codePointAt(0)! <= b),
  ).length;
const priceOf = (r: FindRow) => (r.owned ? 0 : (r.price?.pricesCents["goods-for-sale"] ?? NaN));

const QUERIES: Partial<StyleQuery>[] = [
  {},
  { kinds: ["sans", "serif"] },
  { kinds: ["slab"], pictures: "out" },
  { health: ["fine"] },
  { health: ["with-care"], verdicts: ["cleared", "buy-first"] },
  { moods: ["airy"], features: ["smcp"] },
  { traits: [{ trait: "weight", low: 400, high: 700 }] },
  {
    traits: [
      { trait: "weight", low: 800, high: null },
      { trait: "contrast", low: null, high: 2 },
    ],
    owned: "here",
  },
  { complete: true, libraries: ["shop" as never] },
  { priceMax: 40, stylesMin: 30 },
  {
    treatments: ["rough", "inline", "stencil"],
    complete: true,
    pictures: "out",
    kinds: ["sans", "script", "display", "slab"],
  },
  { owned: "here", pictures: "out", complete: true, health: ["fine"] },
];

describe.each([11, 12, 13])("a library of 400, seed %d", (seed) => {
  const rows = makeRows(400, seed);
  const index = indexStyles(rows, PACKED);
  test.each(QUERIES.map((q) => [JSON.stringify(q), q] as const))("%s", (_name, query) => {
    const found = findStyles(index, query, brief);
    const tests = naiveTests(query, rows);
    const passing = rows.filter((r) => tests.every(([, ok]) => ok(r)));
    const ids = Array.from(found.order, (i) => index.rows[i]!.styleId);
    expect([...ids].sort()).toEqual(passing.map((r) => r.styleId).sort());
    expect(found.families).toBe(new Set(passing.map((r) => r.family)).size);
    /** Rows that count for a facet: all of its own filters are off. */
    const without = (facet: string) => rows.filter((r) => tests.every(([f, ok]) => f === facet || ok(r)));
    const tally = (facet: string, keys: (r: FindRow) => readonly string[]) => {
      const out: Record<string, number> = {};
      for (const r of without(facet)) for (const k of keys(r)) out[k] = (out[k] ?? 0) + 1;
      return out;
    };
    const { facets } = found;
    const sure = <T extends string>(list: readonly { value: T; confidence: number }[]) =>
      list.filter((k) => k.confidence >= 0.5).map((k) => k.value);
    expect(facets.kinds).toEqual(tally("kinds", (r) => sure(r.kinds)));
    expect(facets.treatments).toEqual(tally("treatments", (r) => sure(r.treatments)));
    expect(facets.moods).toEqual(tally("moods", (r) => r.moods!.map((m) => m.value)));
    expect(facets.verdicts).toEqual(tally("verdicts", (r) => [r.verdicts["goods-for-sale"]!]));
    expect(facets.features).toEqual(tally("features", (r) => r.features!));
    expect(facets.health).toEqual(tally("health", (r) => [r.health]));
    expect(facets.libraries).toEqual(tally("libraries", (r) => [r.library]));
    expect(facets.figures).toEqual(tally("figures", (r) => [r.traits.figures.height!, r.traits.figures.spacing!]));
    expect(facets.cases).toEqual(tally("cases", (r) => [r.traits.cases!]));
    expect(facets.complete).toBe(without("complete").filter((r) => !lacks(r)).length);
    expect(facets.pictures).toEqual({
      in: without("pictures").filter((r) => r.traits.picture).length,
      out: without("pictures").filter((r) => !r.traits.picture).length,
    });
    expect(facets.owned).toEqual({
      here: without("owned").filter((r) => r.owned).length,
      toBuy: without("owned").filter((r) => !r.owned).length,
    });
    expect(facets.price).toEqual(
      [0, 2000, 4000, 6000, 10000].map((max) => without("price").filter((r) => priceOf(r) <= max).length),
    );
    expect(facets.styles).toEqual(
      FAMILY_STEPS.map(
        (step) => without("styles").filter((r) => rows.filter((o) => o.family === r.family).length >= step).length,
      ),
    );
    const measured = without("weight").filter((r) => r.traits.weight !== null).length;
    expect(facets.traits.weight!.bins.reduce((a, b) => a + b, 0)).toBe(measured);
  });

  test("every order holds, ties by name", () => {
    const values = (sort: string) => Array.from(findStyles(index, { sort }, brief).order, (i) => index.rows[i]!);
    const weights = values("weight").map((r) => r.traits.weight);
    const known = weights.filter((w): w is number => w !== null);
    expect(weights.slice(0, known.length)).toEqual(known);
    for (let i = 1; i < known.length; i++) expect(known[i]! - known[i - 1]!).toBeGreaterThanOrEqual(-0.02);
    const names = values("name").map((r) => r.family);
    expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b, "en")));
    const down = values("-contrast")
      .map((r) => r.traits.contrast)
      .filter((c): c is number => c !== null);
    for (let i = 1; i < down.length; i++) expect(down[i - 1]! - down[i]!).toBeGreaterThanOrEqual(-1e-3);
  });

  test("what is set aside leaves, and is all there is when asked for alone", () => {
    const aside = { ...brief, setAside: index.rows.slice(0, 37).map((r) => r.styleId) };
    expect(findStyles(index, {}, aside).order).toHaveLength(363);
    expect(Array.from(findStyles(index, { aside: "only", sort: "name" }, aside).order).sort((a, b) => a - b)).toEqual(
      Array.from({ length: 37 }, (_, i) => i),
    );
    expect(findStyles(index, { aside: "show" }, aside).order).toHaveLength(400);
  });
});
