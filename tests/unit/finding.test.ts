// The pure parts of Find and of sorting through: where keys move, what is active in words, how a pass goes on, the address.
import { describe, expect, test } from "@jest/globals";
import { nextUnmarked, type Pass } from "@/contracts/passes";
import { writeTrait, TRAIT_WORDS } from "@/contracts/words";
import { SIEVE_TRAITS } from "@/contracts/traits";
import { NO_FILTERS, readQuestion } from "@/ui/find/question";
import { moveFocus, putRange, selectActive } from "@/ui/find/select";
import { commandsOf, countMarks, endIn, passReducer, startPass, type PassState } from "@/ui/pass/state";

const pass = (marks: Pass["marks"], total = 5) =>
  startPass({ marks, total, next: nextUnmarked(new Map(marks.map((m) => [m.place, m.mark])), 0, total) } as Pass);
const marked = (place: number, mark: Pass["marks"][number]["mark"]) => ({
  place,
  mark,
  styleId: `s_${place}` as never,
});
const run = (state: PassState, ...actions: Parameters<typeof passReducer>[1][]) => actions.reduce(passReducer, state);

const mark = (place: number, to: Pass["marks"][number]["mark"] | null, goesOn = true) => ({
  ...{ type: "marked" as const, goesOn },
  change: { place, mark: to },
});

describe("a review", () => {
  test("begins at the first place without a mark", () => {
    expect(pass([]).place).toBe(0);
    expect(pass([marked(0, "kept"), marked(1, "aside")]).place).toBe(2);
    expect(pass([marked(0, "kept"), marked(2, "aside")]).place).toBe(1);
  });
  test("a mark goes on to the next place without one, round to those that were left out", () => {
    const state = run(pass([]), { type: "looked at", place: 3 }, mark(3, "kept"));
    expect(state.place).toBe(4);
    expect(run(state, mark(4, "left")).place).toBe(0);
  });
  test("all marked, it stands at its end", () => {
    const done = run(pass([], 2), mark(0, "kept"), mark(1, "aside"));
    expect(done.place).toBe(2);
    expect(countMarks(done.marks)).toEqual({ kept: 1, aside: 1, left: 0 });
  });
  test("what is taken back is in view again, with the mark it had before", () => {
    const state = run(pass([]), mark(0, "kept"), mark(4, "aside"), mark(0, "left"));
    const once = run(state, mark(0, "kept", false));
    expect([once.place, once.marks.get(0)]).toEqual([0, "kept"]);
    const twice = run(once, mark(4, null, false));
    expect([twice.place, [...twice.marks]]).toEqual([4, [[0, "kept"]]]);
  });
  test("looking stays within", () => {
    expect(run(pass([]), { type: "looked at", place: -3 }).place).toBe(0);
    expect(run(pass([]), { type: "looked at", place: 99 }).place).toBe(5);
  });
  test("that was begun elsewhere is taken back by places, and kept commands count only where they end in its marks", () => {
    const { marks } = pass([marked(2, "aside"), marked(0, "kept")]);
    const begun = commandsOf(marks);
    expect(begun.done.map((c) => c.forward)).toEqual([
      { place: 0, mark: "kept" },
      { place: 2, mark: "aside" },
    ]);
    expect(endIn(begun, marks)).toBe(true);
    expect(endIn({ done: begun.done.slice(0, 1), undone: begun.done.slice(1) }, marks)).toBe(false);
    expect(endIn({ done: begun.done.slice(0, 1), undone: begun.done.slice(1) }, new Map([[0, "kept"]]))).toBe(true);
    expect(endIn(begun, new Map([...marks, [1, "left"]]))).toBe(false);
  });
});

describe("keys on the wall", () => {
  test.each([
    ["ArrowRight", 4, 5],
    ["ArrowLeft", 4, 3],
    ["ArrowDown", 4, 7],
    ["ArrowUp", 4, 1],
    ["PageDown", 4, 10],
    ["Home", 4, 0],
    ["End", 4, 19],
    ["ArrowUp", 1, 0],
    ["ArrowRight", 19, 19],
  ])("%s from %d to %d", (key, at, to) => expect(moveFocus(key, at, 20, 3, 2)).toBe(to));
  test("other keys do not move, nor does an empty wall", () => {
    expect(moveFocus("q", 4, 20, 3, 2)).toBeNull();
    expect(moveFocus("ArrowDown", 0, 0, 3, 2)).toBeNull();
  });
});

describe("the address", () => {
  const ask = (params: Record<string, string>) => new URLSearchParams(readQuestion(params, "b_b"));
  test("empty, it asks for the best fit, one style per family, and the nearest where nothing is all of it", () => {
    expect([...ask({})]).toEqual([
      ["briefId", "b_b"],
      ["fold", "true"],
      ["nearest", "true"],
      ["sort", "fit"],
    ]);
  });
  test("every part of the sieve comes through; what is only a way to look does not", () => {
    const asks = {
      kinds: "slab,serif",
      moods: "airy",
      traits: "weight:400~700,contrast:~2",
      languages: "is",
      axes: "any",
      weightsMin: "4",
      priceMax: "0",
      italics: "true",
      pictures: "out",
      complete: "true",
      fold: "true",
      sort: "-weight",
    };
    const looks = { columns: "3", zoom: "140", set: "letters", letters: "Rg" };
    const asked = Object.fromEntries(ask({ q: " heavy ", ...asks, ...looks }));
    expect(asked).toEqual({ briefId: "b_b", q: "heavy", nearest: "true", ...asks });
  });
  test("nonsense in the address is left out, not passed on", () => {
    expect([...ask({ kinds: "serious,slab", traits: "weight:a~b", weightsMin: "many" })]).toEqual([
      ["briefId", "b_b"],
      ["kinds", "slab"],
      ["fold", "true"],
      ["nearest", "true"],
      ["sort", "fit"],
    ]);
  });
  test("“clear all” takes every filter", () => {
    for (const key of ["q", "kinds", "traits", "moods", "priceMax", "complete", "italics", "near"])
      expect(NO_FILTERS).toHaveProperty(key, null);
    expect(NO_FILTERS).not.toHaveProperty("columns");
  });
});

describe("what is active, in words", () => {
  const address = (over: object) =>
    ({
      ...Object.fromEntries(
        [
          "kinds",
          "vox",
          "treatments",
          "moods",
          "verdicts",
          "traits",
          "features",
          "axes",
          "languages",
          "figures",
          "cases",
          "formats",
          "health",
          "libraries",
        ].map((k) => [k, []]),
      ),
      chars: "",
      stylesMin: null,
      weightsMin: null,
      italics: false,
      priceMax: null,
      complete: false,
      owned: "all",
      pictures: "in",
      library: null,
      ...over,
    }) as never;
  const labels = (over: object) => selectActive(address(over)).map((a) => a.label);
  test.each([
    [{ kinds: ["slab"] }, "slab serif"],
    [{ traits: [{ trait: "weight", low: 400, high: 700 }] }, "weight 400–700"],
    [{ traits: [{ trait: "slantDeg", low: 5, high: null }] }, "slant from 5.0°"],
    [{ traits: [{ trait: "xHeightEm", low: null, high: 0.5 }] }, "x-height to 0.50 em"],
    [{ features: ["smcp"] }, "small capitals"],
    [{ axes: ["any"] }, "variable"],
    [{ priceMax: 0 }, "at no charge"],
    [{ priceMax: 40 }, "up to 40"],
    [{ weightsMin: 6 }, "at least 6 weights"],
    [{ health: ["with-care"] }, "usable with care"],
    [{ pictures: "only" }, "only picture fonts"],
    [{ chars: "&é" }, "has &é"],
  ])("%j: %s", (over, label) => expect(labels(over)).toEqual([label]));
  test("removing one leaves the others of its kind", () => {
    const [first] = selectActive(address({ kinds: ["slab", "serif"] }));
    expect(first!.off).toEqual({ kinds: ["serif"] });
  });
  test("a range is set, changed, removed", () => {
    const one = putRange([], { trait: "weight", low: 400, high: null });
    expect(putRange(one, { trait: "weight", low: 500, high: 600 })).toEqual([{ trait: "weight", low: 500, high: 600 }]);
    expect(putRange(one, { trait: "weight", low: null, high: null })).toEqual([]);
  });
  test("every trait of the sieve has its words, unit and digits", () => {
    for (const trait of SIEVE_TRAITS) {
      expect(TRAIT_WORDS[trait]!.method.length).toBeGreaterThan(8);
      expect(writeTrait(trait, 0.123)).toMatch(/^-?\d/);
    }
  });
});
