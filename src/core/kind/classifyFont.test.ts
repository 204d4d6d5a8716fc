import { describe, expect, test } from "@jest/globals";
import type { Traits } from "@/contracts/traits";
import { traitsOf } from "../../../tests/fixtures/rows";
import type { Build } from "../measure/build";
import { ABSENT, BYTES_PER_CHARACTER, SIGNATURE_BYTES } from "../descriptors/extractDescriptors";
import { classifyFont } from "./classifyFont";
import { judgeLetterform, LETTERFORMS } from "./letterform";

const TRAITS = traitsOf({ stemEm: 0.085, roundness: 0.05, roundEnds: 0.05, roundJoins: 0.05 });
const BUILD: Build = {
  unevenness: 0.004,
  brokenCurves: 0.3,
  pieces: 1,
  holes: 0,
  solidity: 1,
  axisAligned: 0.02,
  roundPieces: 1,
  footEm: 0,
  footSpreadEm: 0,
};

/** Descriptors of no letter at all: what is said rests on the measures alone. */
const NO_LETTERS = new Uint8Array(SIGNATURE_BYTES);
{
  const view = new DataView(NO_LETTERS.buffer);
  for (let base = 0; base < SIGNATURE_BYTES; base += BYTES_PER_CHARACTER)
    view.setInt16(base + BYTES_PER_CHARACTER - 2, ABSENT, true);
}

function kindsOf(
  traits: Partial<Traits>,
  build: Partial<Build> = {},
  names: { family?: string; features?: string[]; legibility?: number } = {},
) {
  const { kinds, treatments } = classifyFont({
    measured: {
      traits: { ...TRAITS, ...traits },
      build: { ...BUILD, ...build },
      legibility: names.legibility ?? 0.93,
      proportion: 0.84,
      letterCount: 52,
      isOtherScript: false,
      notes: { confidence: {}, absent: {} },
    },
    signature: NO_LETTERS,
    family: names.family ?? "Quay",
    features: names.features ?? [],
  });
  return { kinds: kinds.map((k) => k.value), treatments: treatments.map((t) => t.value), first: kinds[0]! };
}

describe("kinds", () => {
  test.each([
    ["no serifs", {}, {}, "sans"],
    [
      "serifs half as thick as stems, some contrast",
      { serif: 0.95, serifThickness: 0.4, contrast: 2.2, serifForm: "bracketed" },
      {},
      "serif",
    ],
    [
      "thick block serifs, little contrast",
      { serif: 0.95, serifThickness: 0.95, contrast: 1.1, serifForm: "slab" },
      {},
      "slab",
    ],
    [
      "uneven feet and round ends",
      { roundness: 0.55, roundEnds: 0.6, stressDeg: -20 },
      { unevenness: 0.05, brokenCurves: 0.12 },
      "handwritten",
    ],
  ] as [string, Partial<Traits>, Partial<Build>, string][])("%s", (_what, traits, build, kind) => {
    const legibility = kind === "handwritten" ? 0.8 : 0.94;
    expect(kindsOf(traits, build, { legibility }).kinds[0]).toBe(kind);
  });

  test("letters that are no letters are pictures and nothing else", () =>
    expect(kindsOf({ picture: true }, {}, { legibility: 0.2 }).kinds).toEqual(["picture"]));

  test("what is equally wide is monospaced, beside its letterforms", () =>
    expect(kindsOf({ monospaced: true }).kinds).toEqual(expect.arrayContaining(["monospaced", "sans"])));

  test("capitals alone make a display face", () =>
    expect(kindsOf({ cases: "capitals-only" }).kinds).toContain("display"));

  test("a slab is a serif, too", () =>
    expect(kindsOf({ serif: 0.95, serifThickness: 0.95, contrast: 1.1, serifForm: "slab" }).kinds).toContain("serif"));

  test("nothing measured still gives a kind, and does not claim to be sure", () => {
    const unknown = Object.fromEntries(Object.keys(TRAITS).map((k) => [k, null])) as unknown as Traits;
    const { kinds } = kindsOf({ ...unknown, monospaced: false, picture: false, figures: TRAITS.figures });
    expect(kinds.length).toBeGreaterThan(0);
  });
});

describe("the table that letterforms are told by", () => {
  const judge = (traits: Partial<Traits>) => {
    const measured = {
      traits: { ...TRAITS, ...traits },
      build: BUILD,
      legibility: 0.93,
      proportion: 0.84,
      letterCount: 52,
      isOtherScript: false,
      notes: { confidence: {}, absent: {} },
    };
    return judgeLetterform(measured, NO_LETTERS);
  };

  test("chances add up to one, the likeliest stand first, and each has its reason", () => {
    const { ranked } = judge({});
    expect(ranked.map((r) => r.kind).sort()).toEqual([...LETTERFORMS].sort());
    expect(ranked.reduce((sum, r) => sum + r.chance, 0)).toBeCloseTo(1, 6);
    expect(ranked.map((r) => r.chance)).toEqual([...ranked.map((r) => r.chance)].sort((a, b) => b - a));
    for (const { because } of ranked) expect(because).not.toBe("");
  });

  test("serifs speak for serif faces, and the reason says so", () => {
    const chanceOf = (traits: Partial<Traits>) =>
      judge(traits)
        .ranked.filter((r) => r.kind === "serif" || r.kind === "slab")
        .reduce((sum, r) => sum + r.chance, 0);
    const serifs = { serif: 1, serifThickness: 0.4, serifForm: "bracketed", contrast: 2.2 } as const;
    expect(chanceOf(serifs)).toBeGreaterThan(0.7);
    expect(chanceOf({})).toBeLessThan(0.1);
    expect(judge(serifs).ranked[0]!.because).toMatch(/serif/);
  });
});

describe("a word in the name", () => {
  test("does not beat what is measured", () => {
    for (const family of ["Quay Slab", "Quay Fraktur", "Quay Script", "Quay Serif", "Quay Hand"])
      expect(kindsOf({}, {}, { family }).kinds[0]).toBe("sans");
  });
});

describe("treatments", () => {
  test.each([
    ["pixel", {}, { axisAligned: 1, brokenCurves: 1 }],
    ["dotted", {}, { pieces: 14 }],
    ["outline", {}, { holes: 1, solidity: 0.2 }],
    ["inline", {}, { holes: 1, solidity: 0.9 }],
    ["stencil", {}, { roundPieces: 2 }],
    ["rough", { roughness: 0.5 }, {}],
    ["rounded", { roundness: 0.7 }, { unevenness: 0.003 }],
  ] as [string, Partial<Traits>, Partial<Build>][])("%s", (treatment, traits, build) => {
    const { treatments, kinds } = kindsOf(traits, build);
    expect(treatments).toEqual([treatment]);
    if (treatment !== "rounded") expect(kinds).toContain("display");
  });

  test("swash by its features; none by a name", () => {
    expect(kindsOf({}, {}, { features: ["liga", "swsh"] }).treatments).toEqual(["swash"]);
    for (const word of ["Shadow", "Stencil", "Pixel", "Inline"])
      expect(kindsOf({}, {}, { family: `Quay ${word}` }).treatments).toEqual([]);
  });

  test("a plain face has none", () => expect(kindsOf({}).treatments).toEqual([]));
});
