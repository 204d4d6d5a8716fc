import { describe, expect, test } from "@jest/globals";
import { indexStyles, type FindRow } from "./findIndex";
import { findStyles, type FindBrief } from "./findStyles";
import { editDistance, indexNames } from "./nameIndex";
import { NO_LEXICON, parseWords } from "./parseWords";
import { rowOf, traitsOf } from "../../../tests/fixtures/rows";

const FAMILIES = [
  "Lora",
  "Zilla Slab",
  "Space Mono",
  "Alfa Slab One",
  "Playfair Display",
  "Bungee Shade",
  "Old Standard TT",
  "Work Sans",
  "Barlow Condensed",
  "Abril Fatface",
];
const LEXICON = { ...NO_LEXICON, families: indexNames(FAMILIES) };
const labels = (q: string) => parseWords(q, LEXICON).constraints.map((w) => w.constraint.label);

describe("words", () => {
  test.each([
    ["slab heavy", ["slab serif", "heavy"]],
    ["sturdy slab with an ampersand, to sell with", ["sturdy", "slab serif", "has &", "may be sold with"]],
    ["heavy slab serif", ["heavy", "slab serif"]],
    ["tall thin capitals", ["narrow", "thin", "capitals only"]],
    ["old typewriter", ["typewriter"]],
    ["has & and +", ["has &+"]],
    ["not pictures", ["no picture fonts"]],
    ["rounded, friendly", ["rounded", "friendly"]],
    ["not script", ["not script"]],
    ["variable with optical size", ["variable", "optical size axis"]],
    ["high contrast italic", ["high contrast", "italic"]],
    ["tabular figures", ["tabular figures"]],
    ["monospacd", ["monospaced"]],
  ])("“%s”", (q, expected) => {
    expect(labels(q)).toEqual(expected);
  });

  test.each([
    ["Lora", "Lora"],
    ["lroa", "Lora"],
    ["zila slab", "Zilla Slab"],
    ["playfare display", "Playfair Display"],
    ["space mono", "Space Mono"],
    ["abril fatfase", "Abril Fatface"],
    ["work snas", "Work Sans"],
  ])("name “%s” is understood as %s", (q, label) => expect(labels(q)).toEqual([label]));

  test("two letters of a name are enough", () => expect(labels("lo")).toEqual(["name begins with “lo”"]));

  test("what is not understood is said, fillers are not", () => {
    const parsed = parseWords("a heavy qwrtzk face", LEXICON);
    expect(parsed.ignored).toEqual(["qwrtzk"]);
    expect(parsed.constraints.map((w) => w.from)).toEqual(["heavy"]);
    expect(parseWords("  ", LEXICON)).toEqual({ constraints: [], ignored: [] });
  });

  test("edits are counted, swaps as one", () => {
    expect(editDistance("lora", "lora", 3)).toBe(0);
    expect(editDistance("lroa", "lora", 3)).toBe(1);
    expect(editDistance("abc", "abcdefgh", 2)).toBe(3);
    expect(editDistance("kitten", "sitting", 5)).toBe(3);
  });
});

const traits = traitsOf;
const row = rowOf;
const rows = [
  row("Lora", { kinds: [{ value: "serif", confidence: 0.9 }], traits: traits({ weight: 420, contrast: 2 }) }),
  row("Zilla Slab", {
    style: "Bold",
    kinds: [
      { value: "slab", confidence: 0.9 },
      { value: "serif", confidence: 0.55 },
    ],
    traits: traits({ weight: 700 }),
  }),
  row("Alfa Slab One", {
    kinds: [{ value: "slab", confidence: 0.95 }],
    traits: traits({ weight: 930 }),
    coverage: [
      [0x20, 0x25],
      [0x27, 0x7e],
    ],
  }),
  row("Work Sans", { axes: { wght: 400 } }),
  row("Barcode", {
    kinds: [{ value: "picture", confidence: 0.9 }],
    traits: traits({ picture: true, weight: null }),
    coverage: [[0x30, 0x39]],
  }),
  row("Unlicensed", { verdicts: {} }),
];
const brief: FindBrief = {
  lines: [{ text: "Wren & Tern", role: "title" }],
  wanted: "",
  uses: ["goods-for-sale"],
  setAside: [],
};
const ask = (list: FindRow[], query: Parameters<typeof findStyles>[1], b: FindBrief | null) => {
  const answer = findStyles(indexStyles(list), query, b);
  return { ...answer, rows: Array.from(answer.order, (_, place) => answer.at(place)) };
};
const found = (query: Parameters<typeof findStyles>[1], b: FindBrief | null = brief) => ask(rows, query, b);
const names = (query: Parameters<typeof findStyles>[1], b: FindBrief | null = brief) =>
  found(query, b).rows.map((r) => r.row.family);

describe("the wall", () => {
  test("words filter and rank", () => {
    expect(names({ q: "slab heavy" })).toEqual(["Alfa Slab One", "Zilla Slab"]);
    expect(names({ q: "slab heavy has &" })).toEqual(["Zilla Slab"]);
    expect(names({ q: "zila slab" })).toEqual(["Zilla Slab"]);
    expect(names({ q: "variable" })).toEqual(["Work Sans"]);
    expect(names({ q: "alfa slab one regular" })).toEqual(["Alfa Slab One"]);
    expect(names({ q: "Zilla Slab Bold" })).toEqual(["Zilla Slab"]);
    expect(names({ q: "slab not serif" })).toEqual(["Alfa Slab One"]);
  });

  test("missing characters of the brief are told", () => {
    expect(found({ q: "alfa" }).rows[0]!.missing).toEqual(["&"]);
    expect(found({ q: "lora" }).rows[0]!.missing).toEqual([]);
    expect(names({ complete: true })).not.toContain("Alfa Slab One");
  });

  test("the verdict is for the brief's uses", () => {
    expect(found({ q: "lora" }).rows[0]!.verdict).toBe("cleared");
    expect(found({ q: "lora" }, { ...brief, uses: ["web", "goods-for-sale"] }).rows[0]!.verdict).toBe(
      "cleared-with-credit",
    );
    expect(names({ verdicts: ["unread"] })).toEqual(["Unlicensed"]);
  });

  test("what is set aside leaves, and can be looked at", () => {
    const aside = { ...brief, setAside: [rows[0]!.styleId] };
    expect(names({}, aside)).not.toContain("Lora");
    expect(names({ aside: "only" }, aside)).toEqual(["Lora"]);
    expect(names({ aside: "show" }, aside)).toContain("Lora");
  });

  test("picture fonts in, out, only", () => {
    expect(names({ pictures: "out" })).not.toContain("Barcode");
    expect(names({ pictures: "only" })).toEqual(["Barcode"]);
  });

  test("ranges leave out what was not measured", () => {
    expect(names({ weightMin: 600, weightMax: 950, sort: "weight" })).toEqual(["Zilla Slab", "Alfa Slab One"]);
    expect(names({ weightMin: 1 })).not.toContain("Barcode");
    expect(names({ widthMax: 4 })).toEqual([]);
  });

  test("orders", () => {
    expect(names({ sort: "name" })[0]).toBe("Alfa Slab One");
    expect(names({ sort: "newest" })[0]).toBe("Unlicensed");
    expect(names({ sort: "weight" })[0]).toBe("Unlicensed");
  });

  test("a facet counts what would be there without its own filter", () => {
    const { facets, rows: shown } = found({ kinds: ["slab"], pictures: "out" });
    expect(shown).toHaveLength(2);
    expect(facets.kinds).toEqual({ serif: 2, slab: 2, sans: 2 });
    expect(facets.pictures).toEqual({ in: 0, out: 2 });
    expect(facets.verdicts).toEqual({ cleared: 2 });
    const { bins, range } = facets.traits.weight!;
    expect(bins.reduce((a, b) => a + b, 0)).toBe(2);
    expect(range[0]).toBeLessThan(range[1]);
    expect(facets.complete).toBe(1);
  });

  test("without a brief nothing is missing and private use counts", () => {
    const all = found({}, null);
    expect(all.rows.every((r) => r.missing.length === 0)).toBe(true);
    expect(all.rows).toHaveLength(rows.length);
  });
});

describe("sentences as people say them", () => {
  const sees = (q: string, over: Partial<FindRow>) => ask([row("Probe", over)], { q }, null).rows.length === 1;
  test.each([
    [
      "chunky rounded",
      { traits: traits({ weight: 800, roundness: 0.7 }), treatments: [{ value: "rounded", confidence: 0.9 }] },
      true,
    ],
    [
      "chunky rounded",
      { traits: traits({ weight: 300, roundness: 0.7 }), treatments: [{ value: "rounded", confidence: 0.9 }] },
      false,
    ],
    ["hairline sans", { traits: traits({ weight: 120 }) }, true],
    ["hairline sans", { traits: traits({ weight: 420 }) }, false],
    ["wide and heavy", { traits: traits({ weight: 750, width: 7 }) }, true],
    ["wide and heavy", { traits: traits({ weight: 750, width: 5 }) }, false],
    ["small caps", { traits: traits({ cases: "small-capitals" }) }, true],
    ["all capitals", { traits: traits({ cases: "capitals-only" }) }, true],
    ["all capitals", { traits: traits({ cases: "both" }) }, false],
    ["old-style figures", { traits: traits({ figures: { height: "old-style", spacing: "proportional" } }) }, true],
    ["old-style figures", {}, false],
    ["upright", { traits: traits({ slantDeg: 0.4 }) }, true],
    ["upright", { traits: traits({ slantDeg: 12 }) }, false],
    ["italic", { traits: traits({ slantDeg: 12 }) }, true],
    ["joined script", { kinds: [{ value: "script", confidence: 0.9 }], traits: traits({ connected: 0.9 }) }, true],
    ["monoline", { traits: traits({ contrast: 1.1 }) }, true],
    ["monoline", { traits: traits({ contrast: 3 }) }, false],
    ["distressed", { treatments: [{ value: "rough", confidence: 0.8 }] }, true],
    ["not stencil", { treatments: [{ value: "stencil", confidence: 0.8 }] }, false],
    ["not stencil", {}, true],
    ["has €", {}, false],
    ["has €", { coverage: [[0x20ac, 0x20ac]] }, true],
    ["with an ampersand", {}, true],
    ["free to sell", { verdicts: { "goods-for-sale": "ask-maker" } }, false],
    ["free to sell", { verdicts: { "goods-for-sale": "cleared-with-credit" } }, true],
    ["optical size", { axes: { opsz: 12 } }, true],
    ["optical size", { axes: { wght: 400 } }, false],
    ["large x-height", { traits: traits({ xHeightEm: 0.56 }) }, true],
    ["clean", { traits: traits({ roughness: 0.6 }) }, false],
    ["tabular figures", { traits: traits({ figures: { height: "lining", spacing: "tabular" } }) }, true],
  ] as [string, Partial<FindRow>, boolean][])("“%s” %#: %s", (q, over, seen) => expect(sees(q, over)).toBe(seen));

  test("a trait that was not measured never passes a constraint for it", () => {
    const unknown = { traits: traits({ weight: null, contrast: null, width: null }) };
    for (const q of ["heavy", "light", "narrow", "wide", "high contrast", "monoline"])
      expect(sees(q, unknown)).toBe(false);
  });

  test("case does not matter, commas part words", () => {
    expect(sees("HEAVY, Sans", { traits: traits({ weight: 700 }) })).toBe(true);
    expect(labels("SLAB,HEAVY")).toEqual(["slab serif", "heavy"]);
  });
});

describe("families of other scripts", () => {
  const index = indexStyles([
    ...rows,
    row("Маяк Северный"),
    row("Beacon Hei", { alsoCalled: ["灯塔黑", "燈塔黑"] }),
    row("나눔 등대"),
  ]);
  const first = (q: string) => findStyles(index, { q }, brief).at(0).row.family;
  test.each([
    ["маяк северный", "Маяк Северный"],
    ["МАЯК", "Маяк Северный"],
    ["Mayak Severnyy", "Маяк Северный"],
    ["灯塔黑", "Beacon Hei"],
    ["燈塔", "Beacon Hei"],
    ["dengtahei", "Beacon Hei"],
    ["Beacon Hei", "Beacon Hei"],
    ["나눔 등대", "나눔 등대"],
    ["나눔등대", "나눔 등대"],
  ])("“%s” finds %s", (q, family) => expect(first(q)).toBe(family));
});

test("the name of a script is no slip of a family's", () => {
  const lexicon = {
    ...NO_LEXICON,
    families: indexNames(["항구"], true, [{ name: "HangGu", of: 0 }]),
    languages: new Map([["hangul", "ko"]]),
  };
  expect(parseWords("hangul", lexicon).constraints.map((c) => c.constraint)).toMatchObject([
    { type: "language", language: "ko" },
  ]);
  expect(parseWords("hanggu", lexicon).constraints.map((c) => c.constraint.type)).toEqual(["name"]);
});
