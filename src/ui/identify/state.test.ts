// Identify's reducer: what stays and what goes with each event, and how an answer is said.
import { describe, expect, test } from "@jest/globals";
import type { Identification, IdentifyMatch } from "@/contracts/identify";
import {
  baselineOf,
  cornersOf,
  identifyReducer,
  isTapered,
  NOTHING,
  selectMatches,
  writeAnswer,
  type IdentifyAction,
  type IdentifyState,
} from "./state";

const ASKED = { frame: null, corners: null, baseline: null, text: "", isTyped: false };

const match = (family: string, chance: number, style = "Bold") =>
  ({
    ...{ styleId: `s_${family}${style}`, familyId: `f_${family}`, family, style, score: 0.9, chance },
    ...{ letters: [], coordinates: null, besideFirst: null, overlay: { path: "", widthPx: 1, heightPx: 1 } },
  }) as unknown as IdentifyMatch;
const answer = (matches: IdentifyMatch[], noneChance = 0.05): Identification => ({
  reading: { text: "Quay", confidence: 0.9, given: false, letters: [] },
  matches,
  notInLibraries: { chance: noneChance },
  strip: {
    ...{ png: "", widthPx: 9, heightPx: 9, slopeDeg: 0 },
    ...{ cut: "letters" as const, reading: "plain", taper: 0, setAs: "plain" as const, leanTan: 0 },
  },
  ...{ areas: [{ x: 0, y: 0, width: 9, height: 9 }], compared: 844, tookMs: 200 },
});
const run = (...actions: IdentifyAction[]): IdentifyState => actions.reduce(identifyReducer, NOTHING);
const lora = answer([match("lora", 0.9), match("gelasio", 0.05)]);

describe("the state", () => {
  test("an answer brings its reading, unless somebody typed", () => {
    expect(run({ type: "answered", asked: ASKED, result: lora }).text).toBe("Quay");
    const typed = run({ type: "typed", text: "Quays" }, { type: "answered", asked: ASKED, result: lora });
    expect([typed.text, typed.isTyped]).toEqual(["Quays", true]);
    expect(run({ type: "typed", text: "  " }).isTyped).toBe(false);
  });

  test("corners and a curve shut each other out", () => {
    const points = [1, 2, 3, 4].map((v) => ({ x: v, y: v }));
    const curved = run({ type: "corners", corners: points }, { type: "baseline", baseline: points.slice(0, 3) });
    expect([curved.corners, curved.baseline?.length]).toEqual([null, 3]);
    const cornered = identifyReducer(curved, { type: "corners", corners: points });
    expect([cornered.corners?.length, cornered.baseline]).toEqual([4, null]);
  });

  test("a line that grows asks for its corners, until they are pulled", () => {
    const even = answer([match("lora", 0.9)]);
    const tapered = { ...even, strip: { ...even.strip, taper: -0.2 } };
    const asked = run({ type: "answered", asked: ASKED, result: tapered });
    expect([isTapered(run({ type: "answered", asked: ASKED, result: even })), isTapered(asked)]).toEqual([false, true]);
    const points = [1, 2, 3, 4].map((v) => ({ x: v, y: v }));
    expect(isTapered(identifyReducer(asked, { type: "corners", corners: points }))).toBe(false);
  });

  test("lines that were found stand while one of them is asked about", () => {
    const whole = run({ type: "answered", asked: ASKED, result: lora });
    const one = identifyReducer(whole, { type: "answered", asked: ASKED, result: { ...lora, areas: [] } });
    expect(one.areas).toEqual(lora.areas);
    expect(one.asks).toBe(2);
  });

  test("a face that was tried stands behind the matches, once, and is looked at", () => {
    const tried = answer([match("arvo", 0.1)]);
    const state = run(
      { type: "answered", asked: ASKED, result: lora },
      { type: "tried", result: tried },
      { type: "tried", result: tried },
    );
    expect(selectMatches(state).map((m) => m.family)).toEqual(["lora", "gelasio", "arvo"]);
    expect(state.focus).toBe(2);
    const nothing = identifyReducer(state, { type: "tried", result: answer([]) });
    expect(nothing.tried).toHaveLength(1);
  });

  test("a refusal takes the answer with it, but not when only a try was refused", () => {
    const fault = { what: "No.", now: "Again." };
    const answered = run({ type: "answered", asked: ASKED, result: lora });
    expect(identifyReducer(answered, { type: "refused", fault, keepsAnswer: false }).result).toBeNull();
    expect(identifyReducer(answered, { type: "refused", fault, keepsAnswer: true }).result).toBe(lora);
  });

  test("a new answer is not kept yet; what was kept stays so until then", () => {
    const kept = run({ type: "answered", asked: ASKED, result: lora }, { type: "kept", id: "d_1" });
    expect(identifyReducer(kept, { type: "focused", index: 1 }).savedAs).toBe("d_1");
    expect(identifyReducer(kept, { type: "answered", asked: ASKED, result: lora }).savedAs).toBeNull();
    expect(identifyReducer(kept, { type: "cleared" })).toEqual(NOTHING);
  });
});

describe("handles", () => {
  const picture = { file: new File([], "x.png"), url: "", widthPx: 400, heightPx: 200 };
  test("corners begin at the frame, or a little inside", () => {
    expect(cornersOf(picture, { x: 10, y: 20, width: 100, height: 50 })[2]).toEqual({ x: 110, y: 70 });
    expect(cornersOf(picture, null)[0]).toEqual({ x: 24, y: 12 });
  });
  test("a curve begins as an arch over the foot of the frame", () => {
    const [begin, middle, end] = baselineOf(picture, { x: 10, y: 20, width: 100, height: 50 });
    expect([begin, end]).toEqual([
      { x: 10, y: 70 },
      { x: 110, y: 70 },
    ]);
    expect(middle).toEqual({ x: 60, y: 55 });
  });
});

describe("the answer as a sentence", () => {
  test.each([
    [answer([]), "Nothing of yours comes near."],
    [answer([match("lora", 0.2)], 0.7), "Probably not in your libraries."],
    [answer([match("lora", 0.9)]), "lora Bold, very likely."],
    [answer([match("lora", 0.5), match("lora", 0.4, "Regular")]), "lora, very likely; which style is less sure."],
    [answer([match("lora", 0.5)]), "Perhaps lora Bold."],
    [answer([match("lora", 0.2), match("arvo", 0.19)]), "Not sure. lora Bold comes nearest."],
  ])("%#: %s", (result, sentence) => expect(writeAnswer(result)).toBe(sentence));
});
