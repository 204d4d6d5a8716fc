import { describe, expect, test } from "@jest/globals";
import type { StyleQuery } from "@/contracts/styles";
import { parseRange, writeRange } from "@/contracts/styles";
import { nearnessTo, tellDifferences } from "./alike";
import { parseExemplars } from "./exemplars";
import { indexStyles, type FindRow } from "./findIndex";
import { findStyles, plainestOf, type FindBrief } from "./findStyles";
import { indexNames, matchNames, nearNames } from "./nameIndex";
import { NO_LEXICON, parseWords } from "./parseWords";
import { rowOf, traitsOf } from "../../../tests/fixtures/rows";
import { suggestWords } from "./suggest";

const brief: FindBrief = {
  lines: [{ text: "Wren & Tern", role: "title" }],
  wanted: "",
  uses: ["goods-for-sale"],
  setAside: [],
};
const ask = (rows: FindRow[], query: Partial<StyleQuery>, b: FindBrief | null = brief) => {
  const found = findStyles(indexStyles(rows), query, b);
  return { ...found, names: Array.from(found.order, (_, k) => `${found.at(k).row.family} ${found.at(k).row.style}`) };
};

/** Skerry: six weights with italics. Voe: one, costly. Tarn: variable. Kelp: rough capitals. */
const LIBRARY: FindRow[] = [
  ...[200, 300, 400, 500, 600, 700].flatMap((weight) => [
    rowOf("Skerry", {
      style: String(weight),
      foundry: "Brass & Wick",
      traits: traitsOf({ weight }),
      features: ["smcp", "tnum"],
    }),
    rowOf("Skerry", { style: `${weight} Italic`, foundry: "Brass & Wick", traits: traitsOf({ weight, slantDeg: 11 }) }),
  ]),
  rowOf("Voe", {
    owned: false,
    price: { currency: "EUR", pricesCents: { "goods-for-sale": 3500, web: 2000 } },
    verdicts: { "goods-for-sale": "buy-first" },
    traits: traitsOf({ weight: 420, width: 5.2 }),
  }),
  rowOf("Tarn", {
    axes: { wght: 400, opsz: 12 },
    reach: { weight: [150, 880] },
    traits: traitsOf({ weight: 400, roundness: 0.6 }),
  }),
  rowOf("Kelp", {
    kinds: [{ value: "display", confidence: 0.9 }],
    treatments: [{ value: "rough", confidence: 0.9 }],
    traits: traitsOf({ weight: 800, cases: "capitals-only", roughness: 0.5 }),
    moods: [{ value: "rugged", confidence: 0.9 }],
    health: "with-care",
    format: "otf",
  }),
];

describe("the sieve", () => {
  test.each<[string, Partial<StyleQuery>, number]>([
    ["families of six weights", { weightsMin: 6 }, 13],
    ["families of two styles", { stylesMin: 2 }, 12],
    ["families with italics", { italics: true }, 12],
    ["a feature", { features: ["smcp"] }, 6],
    ["two features at once", { features: ["smcp", "tnum"] }, 6],
    ["any axis", { axes: ["any"] }, 1],
    ["an axis", { axes: ["opsz"] }, 1],
    ["an axis that none has", { axes: ["GRAD"] }, 0],
    ["a mood", { moods: ["rugged"] }, 1],
    ["health", { health: ["with-care"] }, 1],
    ["a format", { formats: ["otf"] }, 1],
    ["cases", { cases: ["capitals-only"] }, 1],
    ["at no charge", { priceMax: 0 }, 14],
    ["up to 40", { priceMax: 40 }, 15],
    ["up to 30", { priceMax: 30 }, 14],
    ["to be bought", { owned: "to-buy" }, 1],
    ["characters", { chars: "&W" }, 15],
    ["a character that none has", { chars: "Ж" }, 0],
    ["a range", { traits: [{ trait: "roughness", low: 0.3, high: null }] }, 1],
    [
      "two ranges",
      {
        traits: [
          { trait: "weight", low: 350, high: 450 },
          { trait: "slantDeg", low: 5, high: null },
        ],
      },
      1,
    ],
  ])("%s", (_what, query, count) => expect(ask(LIBRARY, query).order).toHaveLength(count));

  test("a variable font answers to a weight that only its axis reaches", () => {
    const heavy = ask(LIBRARY, { traits: [{ trait: "weight", low: 750, high: null }] });
    expect([...heavy.names].sort()).toEqual(["Kelp Regular", "Tarn Regular"]);
    expect(heavy.wanted).toEqual([{ trait: "weight", min: 750 }]);
  });

  test("counts are what would be there without their own filter, counted from either side", () => {
    const few = ask(LIBRARY, { health: ["with-care"] }).facets;
    const most = ask(LIBRARY, { health: ["fine"] }).facets;
    expect(few.health).toEqual({ fine: 14, "with-care": 1 });
    expect(most.health).toEqual(few.health);
    expect(most.kinds).toEqual({ sans: 14 });
    expect(few.kinds).toEqual({ display: 1 });
    expect(most.weights).toEqual([14, 13, 13, 1, 0]);
    expect(most.price).toEqual([13, 13, 14, 14, 14]);
    const histogram = most.traits.weight!.bins;
    expect(histogram.reduce((a, b) => a + b, 0)).toBe(14);
  });

  test("folded families stand once, in their plainest style", () => {
    const folded = ask(LIBRARY, { fold: true, sort: "name" });
    expect(folded.names).toEqual(["Kelp Regular", "Skerry 400", "Tarn Regular", "Voe Regular"]);
    expect(folded.families).toBe(4);
    expect(folded.at(1).stylesFound).toBe(12);
  });

  test.each<[string, string, string]>([
    ["least weight", "weight", "Skerry 200"],
    ["most weight", "-weight", "Kelp Regular"],
    ["largest families", "styles", "Skerry 200"],
  ])("order by %s", (_what, sort, first) => expect(ask(LIBRARY, { sort }).names[0]).toBe(first));

  test("ranges are written and read", () => {
    for (const text of ["weight:400~700", "contrast:1.5~", "slantDeg:~-3.25"])
      expect(writeRange(parseRange(text)!)).toBe(text);
    expect(parseRange("weight:a~b")).toBeNull();
    expect(parseRange("colour:1~2")).toBeNull();
  });
});

describe("words that count, compare and name", () => {
  const lexicon = {
    ...NO_LEXICON,
    families: indexNames(["Skerry", "Tarn", "Brine Text"]),
    foundries: indexNames(["Brass & Wick"]),
    languages: new Map([["icelandic", "is"]]),
    tags: new Set(["lighthouse"]),
  };
  const read = (q: string) => parseWords(q, lexicon).constraints.map((w) => w.constraint);
  test.each<[string, object[]]>([
    ["at least 6 weights", [{ type: "count", of: "weights", min: 6 }]],
    ["four or more styles", [{ type: "count", of: "styles", min: 4 }]],
    ["under 40", [{ type: "price", maxCents: 4000 }]],
    ["up to €12.50", [{ type: "price", maxCents: 1250 }]],
    [
      "like Skerry but narrower",
      [
        { type: "like", family: 0 },
        { type: "than", trait: "width", way: -1 },
      ],
    ],
    ["similar to tarm", [{ type: "like", family: 1 }]],
    ["a bit heavier", [{ type: "than", trait: "weight", way: 1 }]],
    ["cheaper", [{ type: "cheaper" }]],
    ["for Icelandic", [{ type: "language", language: "is" }]],
    ["brass & wick", [{ type: "foundry", foundry: 0 }]],
    ["bras wick", [{ type: "foundry", foundry: 0 }]],
    ["lighthouse", [{ type: "mood", moods: ["lighthouse"] }]],
    ["not heavy", [{ type: "trait", trait: "weight", max: 650 }]],
    ["not medieval", [{ type: "mood", not: true }]],
    ["eerie", [{ type: "mood", moods: ["eerie"] }]],
    ["didone", [{ type: "vox", vox: "didone" }]],
    ["with italics", [{ type: "italics" }]],
    ["with swashes", [{ type: "feature" }]],
    ["one storey a", [{ type: "storeys", trait: "storeysA", storeys: 1 }]],
  ])("“%s”", (q, constraints) => {
    const found = read(q);
    expect(found).toHaveLength(constraints.length);
    constraints.forEach((w, i) => expect(found[i]).toMatchObject(w));
  });

  test("words that mean shapes are not taken for a misspelt name", () => {
    const near = { ...lexicon, families: indexNames(["Hepta Slab"]) };
    expect(parseWords("heavy slab", near).constraints.map((w) => w.constraint.type)).toEqual(["trait", "kind"]);
    expect(parseWords("hepta slap", near).constraints.map((w) => w.constraint.label)).toEqual(["Hepta Slab"]);
  });

  test("what is like a face leaves that face out and keeps what is near", () => {
    const rows = [
      rowOf("Skerry", { traits: traitsOf({ weight: 400, width: 5.5 }) }),
      rowOf("Brine", { traits: traitsOf({ weight: 410, width: 4 }) }),
      rowOf("Gull", { traits: traitsOf({ weight: 400, width: 7.5 }) }),
      rowOf("Kelp", {
        kinds: [{ value: "script", confidence: 0.9 }],
        traits: traitsOf({ weight: 900, connected: 1, slantDeg: 30, width: 3 }),
      }),
    ];
    expect(ask(rows, { q: "like Skerry but narrower" }).names).toEqual(["Brine Regular"]);
    expect(ask(rows, { q: "like Skerry" }).names[0]).toBe("Brine Regular");
  });

  test("cheaper than a costly face", () => {
    const index = indexStyles(LIBRARY);
    const voe = LIBRARY.find((r) => r.family === "Voe")!;
    const found = findStyles(index, { q: "cheaper", near: voe.styleId as never }, brief);
    expect(Array.from(found.order, (_, k) => found.at(k).row.family)).not.toContain("Voe");
    expect(found.order.length).toBe(14);
  });
});

describe("names", () => {
  const index = indexNames(["Playfair Display", "Lora", "Lobster", "Lora"]);
  test("repeats are one", () => expect(index.names).toEqual(["Playfair Display", "Lora", "Lobster"]));
  test("beginning, part, slips, in this order of trust", () => {
    expect(matchNames(index, "lora").get(1)).toBe(1);
    expect(matchNames(index, "play").get(0)).toBe(0.9);
    expect(matchNames(index, "display").get(0)).toBe(0.7);
    expect(matchNames(index, "lroa").get(1)).toBeCloseTo(0.7);
    expect(matchNames(index, "x").size).toBe(0);
  });
  test("a slip in the first letter is forgiven as a swap alone", () => {
    expect(nearNames(index, "olra", 1).map((n) => index.names[n.at])).toEqual(["Lora"]);
    expect(nearNames(index, "mora", 1)).toEqual([]);
  });
});

describe("likeness", () => {
  test("the same measures are no distance, a step of weight is one, unknown beside known is more than nothing", () => {
    const rows = [
      rowOf("A"),
      rowOf("B"),
      rowOf("C", { traits: traitsOf({ weight: 500 }) }),
      rowOf("D", { traits: traitsOf({ weight: null }) }),
    ];
    const near = nearnessTo(indexStyles(rows), 0);
    expect(near[1]).toBe(0);
    expect(near[2]).toBeCloseTo(1, 1);
    expect(near[3]).toBeGreaterThan(1);
  });
  test("a variable font counts with the nearest value it reaches", () => {
    const rows = [
      rowOf("A", { traits: traitsOf({ weight: 800 }) }),
      rowOf("B", { traits: traitsOf({ weight: 400 }), reach: { weight: [200, 900] }, axes: { wght: 400 } }),
    ];
    const index = indexStyles(rows);
    expect(nearnessTo(index, 0, false)[1]).toBeGreaterThan(3.5);
    expect(nearnessTo(index, 0, true)[1]).toBeLessThan(0.1);
  });
  test("differences in words, the largest first", () => {
    const says = tellDifferences(traitsOf(), traitsOf({ weight: 700, xHeightEm: 0.55, storeysA: 1 })).map(
      (d) => d.says,
    );
    expect(says).toEqual(["heavier by 300", "larger x-height by 10 %", "single-storey a"]);
    expect(tellDifferences(traitsOf(), traitsOf())).toEqual([]);
  });
  test("the plainest style of a family is upright and of text weight", () => {
    const index = indexStyles(LIBRARY);
    expect(index.rows[plainestOf(index, index.names.at.get("skerry")!)]!.style).toBe("400");
  });
});

describe("suggestions", () => {
  const index = indexStyles(LIBRARY);
  test("families and words that go on from what is typed", () => {
    const some = suggestWords(index, "heavy ske");
    expect(some[0]).toMatchObject({ kind: "family", label: "Skerry", becomes: "heavy Skerry", note: "12 styles" });
    expect(suggestWords(index, "stur").map((s) => s.label)).toContain("sturdy");
    expect(suggestWords(index, "bra").map((s) => s.label)).toContain("Brass & Wick");
    expect(suggestWords(index, "s")).toEqual([]);
  });
  test("a misspelt family is offered too", () => expect(suggestWords(index, "skrery")[0]!.label).toBe("Skerry"));
});

describe("languages", () => {
  const text = (set: string, locale = "en") => String.fromCodePoint(...parseExemplars(set, locale));
  test.each([
    ["[a ą {ch}]", "pl", "ACHachĄą"],
    ["[a-d]", "en", "ABCDabcd".split("").sort().join("")],
    ["[i ı]", "tr", "Iiİı"],
    ["[ß]", "de", "ß"],
    ["[\\u0105 \\-]", "pl", "-Ąą"],
  ])("%s", (set, locale, expected) => {
    const got = text(set, locale);
    for (const c of expected) if (c !== "B" && c !== "C" && c !== "D") expect(got).toContain(c);
    expect(got).not.toContain(" ");
  });
});
