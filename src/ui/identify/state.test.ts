// Identify's reducer: what stays and what goes with each event, and how an answer is said.
import { describe, expect, test } from "@jest/globals";
import type { Identification, IdentifyMatch } from "@/contracts/identify";
import {
  baselineOf,
  cornersOf,
  identifyReducer,
  isAnswered,
  isTapered,
  NOTHING,
  selectMatches,
  writeAnswer,
  type IdentifyAction,
  type IdentifyState,
} from "./state";
import { writeLayout } from "./layout";

const ASKED = { frame: null, corners: null, baseline: null, ink: null, text: "", isTyped: false };

const match = (family: string, chance: number, style = "Bold") =>
  ({
    ...{ styleId: `s_${family}${style}`, familyId: `f_${family}`, family, style, score: 0.9, chance },
    ...{ letters: [], coordinates: null, besideFirst: null, overlay: { path: "", widthPx: 1, heightPx: 1 } },
  }) as unknown as IdentifyMatch;
const answer = (matches: IdentifyMatch[], noneChance = 0.05): Identification => ({
  reading: { text: "Quay", confidence: 0.9, given: false, letters: [] },
  matches,
  notInLibraries: { chance: noneChance },
  byLook: null,
  strip: {
    ...{ png: "", widthPx: 9, heightPx: 9, slopeDeg: 0 },
    ...{ cut: "letters" as const, reading: "plain", taper: 0, setAs: "plain" as const, leanTan: 0 },
  },
  ...{ areas: [{ x: 0, y: 0, width: 9, height: 9 }], taken: null, compared: 844, tookMs: 200 },
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

  test("ink is corrected, and each correction taken back", () => {
    const picked = { letters: "found" as const, letterAt: [{ x: 3, y: 4 }], groundAt: [], strokes: [] };
    const dark = { ...picked, letters: "dark" as const, letterAt: [] };
    const inked = run({ type: "inked", ink: picked }, { type: "inked", ink: dark });
    expect(inked.ink).toEqual(dark);
    const back = identifyReducer(inked, { type: "ink undone" });
    expect(back.ink).toEqual(picked);
    expect(identifyReducer(back, { type: "ink undone" })).toMatchObject({ ink: null, inkBefore: [] });
    // What was answered with other ink is not what stands there.
    const answered = run({ type: "answered", asked: ASKED, result: lora });
    expect(isAnswered(answered)).toBe(true);
    expect(isAnswered(identifyReducer(answered, { type: "inked", ink: dark }))).toBe(false);
  });

  test("what is told on the way is gone with the answer, or when it is given up", () => {
    const seen = { step: "seen" as const, strip: { png: "data:", widthPx: 2, heightPx: 1 } };
    const nearer = { step: "nearer" as const, share: 0.4, text: "Quay", nearest: [] };
    const told = run({ type: "asked" }, { type: "told", step: nearer }, { type: "told", step: seen });
    expect(told.progress).toMatchObject({ share: 0.4, text: "Quay", seen: seen.strip });
    // It never goes back.
    const later = identifyReducer(told, { type: "told", step: { ...nearer, share: 0.1 } });
    expect(later.progress?.share).toBe(0.4);
    expect(identifyReducer(told, { type: "answered", asked: ASKED, result: lora }).progress).toBeNull();
    expect(identifyReducer(told, { type: "given up" })).toMatchObject({ busy: false, progress: null });
  });

  test("lines of a picture come one by one; one opens, and what is corrected there counts among them", () => {
    const areas = [0, 1].map((y) => ({ x: 0, y, width: 9, height: 1 }));
    const asked: IdentifyState = run(
      { type: "layout asked" },
      { type: "layout told", step: { step: "lines", areas } },
      { type: "layout told", step: { step: "line", at: 0, answer: lora } },
    );
    expect(asked).toMatchObject({ busy: true, isLayoutShown: true });
    expect(writeLayout(asked.layout!)).toBe("Identifying line 2 of 2 …");
    const refused = { step: "line refused" as const, at: 1, error: { code: "no-text", message: "Nothing to read." } };
    const grouped = { step: "grouped" as const, groups: [...asked.layout!.groups] };
    const whole = identifyReducer(identifyReducer(asked, { type: "layout told", step: refused }), {
      type: "layout told",
      step: grouped,
    });
    expect([whole.busy, writeLayout(whole.layout!)]).toEqual([false, "1 face on 2 lines."]);
    const opened = identifyReducer(whole, { type: "line chosen", at: 1 });
    expect(opened).toMatchObject({ frame: areas[1], isLayoutShown: false, result: null });
    expect(opened.fault?.what).toBe("Nothing to read.");
    const corrected = identifyReducer(opened, {
      type: "answered",
      asked: { ...ASKED, frame: areas[1]! },
      result: answer([match("anton", 0.95)]),
    });
    expect(corrected.layout!.groups.map((g) => g.matches[0]!.family)).toEqual(["lora", "anton"]);
    expect(identifyReducer(corrected, { type: "layout shown" }).isLayoutShown).toBe(true);
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

describe("the order of the matches", () => {
  const all = [match("lora", 0.2), match("gelasio", 0.1), match("arvo", 0.05)];
  const namesOf = (result: Identification) =>
    selectMatches(run({ type: "answered", asked: ASKED, result })).map((m) => m.family);
  test("is that in which they came near", () => expect(namesOf(answer(all))).toEqual(["lora", "gelasio", "arvo"]));
  test("is by look where the face is probably not here; one that is not named comes last", () => {
    const styleIds = [all[2]!.styleId, all[0]!.styleId];
    const byLook = { kind: "slab" as const, treatments: [], styleIds };
    expect(namesOf({ ...answer(all, 0.7), byLook })).toEqual(["arvo", "lora", "gelasio"]);
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
