// A wall is never empty: what comes nearest, what each part costs, names beside a theme, families opened in their place.
import { describe, expect, test } from "@jest/globals";
import { rowOf, traitsOf } from "../../../tests/fixtures/rows";
import type { StyleQuery } from "@/contracts/styles";
import { indexStyles } from "./findIndex";
import { findStyles } from "./findStyles";

const slab = { kinds: [{ value: "slab" as const, confidence: 0.9 }] };
const rows = [
  rowOf("Kelp", { traits: traitsOf({ weight: 800 }) }),
  rowOf("Kelp", { style: "Light", traits: traitsOf({ weight: 250 }) }),
  rowOf("Voe", { ...slab, traits: traitsOf({ weight: 300 }) }),
  rowOf("Old Tarn", { ...slab, traits: traitsOf({ weight: 420, slantDeg: 12 }) }),
  rowOf("Skerry Old", { owned: false }),
];
const index = indexStyles(rows);
const ask = (query: Partial<StyleQuery>) => {
  const found = findStyles(index, query, null);
  const places = Array.from({ length: found.order.length }, (_, k) => found.at(k));
  return { ...found, names: places.map(({ row }) => `${row.family} ${row.style}`), places };
};

describe("nothing is all of it", () => {
  test("the nearest are shown, with what each part of the question costs", () => {
    const { names, understood } = ask({ q: "slab, heavy, upright", nearest: true });
    expect(names).toEqual(expect.arrayContaining(["Kelp Regular", "Voe Regular"]));
    expect(names).toHaveLength(2);
    expect(understood.nearest).toEqual({
      total: 2,
      lacks: 1,
      without: [
        { parts: [{ label: "slab serif", from: "slab", facet: "" }], count: 1 },
        { parts: [{ label: "heavy", from: "heavy", facet: "" }], count: 1 },
      ],
    });
  });

  test("what stops without being a part of the question stays stopped", () => {
    const { names } = ask({ q: "slab, heavy", nearest: true, familyId: rows[0]!.familyId as never });
    expect(names).toEqual(["Kelp Regular"]);
  });

  test("filters of the sieve are parts, too", () => {
    const { understood } = ask({ kinds: ["slab"], owned: "to-buy", nearest: true });
    expect(understood.nearest!.without.flatMap((w) => w.parts.map((p) => p.label)).sort()).toEqual(["kinds", "owned"]);
  });

  test("where no part alone is too much, those that must go together are told together", () => {
    const { understood } = ask({ q: "slab, script, blackletter", nearest: true });
    expect(understood.nearest).toMatchObject({ total: 2, lacks: 2 });
    expect(understood.nearest!.without).toEqual([
      {
        parts: [expect.objectContaining({ from: "script" }), expect.objectContaining({ from: "blackletter" })],
        count: 2,
      },
    ]);
  });

  test("one who did not ask for the nearest gets nothing", () => {
    const { total, understood } = ask({ q: "slab, heavy, upright" });
    expect([total, understood.nearest]).toEqual([0, undefined]);
  });

  test("where something is all of it, nothing is given up", () =>
    expect(ask({ q: "slab, slanted", nearest: true }).understood.nearest).toBeUndefined());
});

describe("names beside what was read", () => {
  const namedBy = (q: string) => Array.from(ask({ q }).named, (i) => rows[i]!.family);
  test("families with such a word, one style each", () => {
    expect(namedBy("slab")).toEqual([]);
    const { named } = findStyles(
      indexStyles([...rows, rowOf("Slab Voe"), rowOf("Slab Voe", { style: "Bold" })]),
      { q: "slab" },
      null,
    );
    expect(named).toHaveLength(1);
  });
  test("not where a name was read, nor in a long sentence", () => {
    expect(namedBy("kelp")).toEqual([]);
    expect(namedBy("heavy upright slab for posters")).toEqual([]);
  });
});

describe("one style per family", () => {
  test("the one that fits best; how many fit is said; opened, the others follow it", () => {
    const heavy = ask({ q: "heavy", fold: true });
    expect(heavy.names).toEqual(["Kelp Regular"]);
    const all = ask({ fold: true, sort: "name" });
    expect(all.places.map((p) => p.stylesFound)).toEqual([2, 1, 1, 1]);
    const open = ask({ fold: true, sort: "name", open: [rows[0]!.familyId as never] });
    expect(open.names).toHaveLength(5);
    expect(open.families).toBe(4);
    expect(new Set(open.names.slice(0, 2))).toEqual(new Set(["Kelp Regular", "Kelp Light"]));
  });
});

test("a result says how well it fits, and what of it does; where words only let pass there is nothing to say", () => {
  const [first] = ask({ q: "heavy slab", nearest: true }).places;
  expect(first!.fit!.degree).toBeLessThan(1);
  expect(ask({ q: "slab" }).places[0]!.fit).toEqual({ degree: 0.9, because: ["slab serif"] });
  expect(ask({}).places[0]!.fit).toBeNull();
});
