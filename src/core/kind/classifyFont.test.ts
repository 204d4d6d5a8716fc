import { describe, expect, test } from "@jest/globals";
import type { Traits } from "@/contracts/traits";
import { traitsOf } from "../../../tests/fixtures/rows";
import type { Build } from "../measure/build";
import { classifyFont } from "./classifyFont";

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
      notes: { confidence: {}, absent: {} },
    },
    family: names.family ?? "Quay",
    style: "Regular",
    features: names.features ?? [],
  });
  return { kinds: kinds.map((k) => k.value), treatments: treatments.map((t) => t.value), first: kinds[0]! };
}

describe("kinds from measures alone", () => {
  test.each([
    ["no serifs", {}, {}, ["sans"]],
    ["serifs half as thick as stems, some contrast", { serif: 0.9, serifThickness: 0.4, contrast: 2.2 }, {}, ["serif"]],
    ["thick serifs, little contrast", { serif: 0.9, serifThickness: 0.85, contrast: 1.2 }, {}, ["slab", "serif"]],
    ["thick serifs but strong contrast", { serif: 0.9, serifThickness: 0.62, contrast: 2.4 }, {}, ["serif"]],
    ["every advance alike", { monospaced: true }, {}, ["monospaced", "sans"]],
    ["letters that join", { connected: 0.9, slantDeg: 20, roundness: 0.5 }, { unevenness: 0.02 }, ["script"]],
    ["uneven feet and round ends", { roundness: 0.5 }, { unevenness: 0.05 }, ["handwritten"]],
    ["broken bowls of strong contrast", { contrast: 2.2 }, { brokenCurves: 0.55 }, ["blackletter"]],
    ["letters that are no letters", { picture: true }, {}, ["picture"]],
  ] as [string, Partial<Traits>, Partial<Build>, string[]][])("%s", (_what, traits, build, kinds) => {
    const legibility = kinds.includes("handwritten") ? 0.82 : kinds.includes("picture") ? 0.2 : 0.93;
    expect(kindsOf(traits, build, { legibility }).kinds).toEqual(kinds);
  });

  test.each([
    ["heavier than text", { weight: 960 }],
    ["hair-thin against thick", { contrast: 5.5, serif: 0.9, serifThickness: 0.1 }],
    ["extremely narrow", { width: 1.5 }],
    ["extremely wide", { width: 8.5 }],
    ["capitals only", { cases: "capitals-only" }],
  ] as [string, Partial<Traits>][])("display where it is %s", (_what, traits) =>
    expect(kindsOf(traits).kinds).toContain("display"),
  );

  test("a light face needs thicker feet to be a slab", () => {
    expect(kindsOf({ weight: 250, serif: 0.9, serifThickness: 0.65, contrast: 1.3 }).kinds).toEqual(["serif"]);
    expect(kindsOf({ weight: 250, serif: 0.9, serifThickness: 0.9, contrast: 1.1 }).kinds).toContain("slab");
  });

  test("nothing measured still gives a kind, with little confidence", () => {
    const unknown = Object.fromEntries(Object.keys(TRAITS).map((k) => [k, null])) as unknown as Traits;
    const { kinds } = kindsOf({ ...unknown, monospaced: false, picture: false, figures: TRAITS.figures });
    expect(kinds.length).toBeGreaterThan(0);
  });
});

describe("words in names help, only ordinary ones of the trade", () => {
  test.each([
    ["Quay Slab", { serif: 0.9, serifThickness: 0.5, contrast: 1.9 }, "slab"],
    ["Quay Fraktur", {}, "blackletter"],
    ["Quay Hand", { roundness: 0.4 }, "handwritten"],
    ["Quay Script", { roundness: 0.4 }, "script"],
  ] as [string, Partial<Traits>, string][])("%s", (family, traits, kind) =>
    expect(kindsOf(traits, {}, { family }).kinds).toContain(kind),
  );

  test("a name does not beat what is measured", () => {
    expect(kindsOf({ monospaced: false }, {}, { family: "Quay Mono" }).kinds).toEqual(["sans"]);
    expect(kindsOf({ serif: 0, serifThickness: null }, {}, { family: "Quay Slab" }).kinds).toEqual(["sans"]);
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

  test("swash by its features, shadow by its name", () => {
    expect(kindsOf({}, {}, { features: ["liga", "swsh"] }).treatments).toEqual(["swash"]);
    expect(kindsOf({}, {}, { family: "Quay Shadow" }).treatments).toEqual(["shadow"]);
  });

  test("a plain face has none", () => expect(kindsOf({}).treatments).toEqual([]));
});
