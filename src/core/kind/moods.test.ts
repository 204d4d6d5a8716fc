import { describe, expect, test } from "@jest/globals";
import type { Kind, Traits, Treatment } from "@/contracts/traits";
import { traitsOf } from "../../../tests/fixtures/rows";
import { nameMoods } from "./moods";
import { nameVox } from "./vox";

const kinds = (...list: Kind[]) => list.map((value) => ({ value, confidence: 0.9, because: "" }));
const treatments = (...list: Treatment[]) => list.map((value) => ({ value, confidence: 0.9, because: "" }));
const said = (traits: Partial<Traits>, k: Kind[] = ["sans"], t: Treatment[] = []) =>
  nameMoods({ traits: traitsOf(traits), kinds: kinds(...k), treatments: treatments(...t) }).map((m) => m.value);

describe("words for moods, periods and occasions", () => {
  test.each<[string, Partial<Traits>, Kind[], Treatment[]]>([
    ["sturdy", { weight: 750, contrast: 1.3 }, ["slab", "serif"], []],
    ["airy", { weight: 200, gapEm: 0.14 }, ["sans"], []],
    ["friendly", { roundness: 0.7, roundEnds: 0.9 }, ["sans"], ["rounded"]],
    ["elegant", { contrast: 4, serif: 1 }, ["serif"], []],
    ["rugged", { roughness: 0.5 }, ["display"], ["rough"]],
    ["loud", { weight: 930 }, ["sans"], []],
    ["medieval", {}, ["blackletter"], []],
    ["screen age", {}, ["display"], ["pixel"]],
    ["typewriter", { monospaced: true }, ["monospaced", "slab"], []],
    ["invitation", { contrast: 2.6, weight: 350, connected: 1 }, ["script"], []],
    ["tables", { figures: { height: "lining", spacing: "tabular" } }, ["sans"], []],
    ["signage", { aperture: 0.45, xHeightEm: 0.53, weight: 500 }, ["sans"], []],
    ["handmade", {}, ["handwritten"], []],
  ])("%s", (word, traits, k, t) => expect(said(traits, k, t)).toContain(word));

  test.each<[string, Partial<Traits>, Kind[]]>([
    ["sturdy", { weight: 300 }, ["slab"]],
    ["friendly", { roundness: 0.05, roundEnds: 0.02 }, ["sans"]],
    ["book text", { evenness: 0.4 }, ["serif"]],
    ["tables", {}, ["sans"]],
    ["elegant", { contrast: 1.2 }, ["serif"]],
  ])("not %s", (word, traits, k) => expect(said(traits, k)).not.toContain(word));

  test("unknown measures say nothing, pictures have no mood, every word has its reason", () => {
    const unknown = Object.fromEntries(Object.keys(traitsOf()).map((key) => [key, null])) as unknown as Traits;
    expect(
      nameMoods({
        traits: { ...unknown, picture: false, monospaced: false, figures: { height: null, spacing: null } },
        kinds: kinds("sans"),
        treatments: [],
      }),
    ).toEqual([]);
    expect(nameMoods({ traits: traitsOf({ picture: true }), kinds: kinds("picture"), treatments: [] })).toEqual([]);
    for (const m of nameMoods({ traits: traitsOf({ weight: 950 }), kinds: kinds("sans"), treatments: [] })) {
      expect(m.because.length).toBeGreaterThan(8);
      expect(m.confidence).toBeGreaterThanOrEqual(0.5);
    }
  });
});

describe("classes of Vox-ATypI", () => {
  test.each<[string | undefined, Partial<Traits>, Kind[], boolean]>([
    ["didone", { contrast: 4.5, stressDeg: 1, serifForm: "hairline", serifThickness: 0.15 }, ["serif"], false],
    ["garalde", { contrast: 2.2, stressDeg: 11, serifForm: "bracketed" }, ["serif"], false],
    ["humanist", { contrast: 1.8, stressDeg: 22 }, ["serif"], false],
    ["transitional", { contrast: 2.4, stressDeg: 2 }, ["serif"], false],
    ["mechanistic", { contrast: 1.2 }, ["slab", "serif"], false],
    ["script", {}, ["script"], false],
    ["manual", {}, ["handwritten"], false],
    ["blackletter", {}, ["blackletter"], false],
    ["geometric", { contrast: 1.1, storeysA: 1 }, ["sans"], true],
    ["humanist-lineal", { contrast: 1.5, aperture: 0.5 }, ["sans"], false],
    ["grotesque", { contrast: 1.3, aperture: 0.25 }, ["sans"], false],
    [undefined, {}, ["picture"], false],
  ])("%s", (value, traits, k, isEven) => expect(nameVox(traitsOf(traits), kinds(...k), isEven)?.value).toBe(value));
});
