import { beforeAll, describe as group, expect, test } from "@jest/globals";
import { seededRandom } from "../geometry/numbers";
import { traitsOf } from "../../../tests/fixtures/rows";
import { describe, exampleOf, readyToAsk, type AskedLibrary, type DescribedStyle, type GivenAnswer } from "./describe";
import type { Traits } from "@/contracts/traits";
import { QUESTIONS, type Described } from "./questions";

/** A library of made-up measures: families are built at random, their styles differ in weight and lean. */
let styles: DescribedStyle[];
let library: AskedLibrary;
beforeAll(() => {
  const random = seededRandom(41);
  const between = (a: number, b: number) => a + random() * (b - a);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  styles = Array.from({ length: 90 }, (_, f) => {
    const build: Partial<Traits> = {
      contrast: random() < 0.5 ? between(1, 1.4) : between(1.4, 5),
      width: between(3, 8),
      xHeightEm: between(0.4, 0.56),
      ascenderEm: between(0.66, 0.82),
      descenderEm: -between(0.1, 0.3),
      ...pick([
        { serif: 0, serifThickness: null },
        { serif: 0.9, serifThickness: between(0.1, 1.1) },
      ]),
      storeysA: pick([1, 2, 2, null]),
      storeysG: pick([1, 1, 2]),
      connected: random() < 0.15 ? 0.9 : 0,
      roundEnds: pick([0, 0, 0.5, 1]),
      roughness: random() < 0.15 ? 0.2 : 0,
      aperture: between(0.2, 0.7),
      stressDeg: between(-20, 20),
      cases: random() < 0.12 ? "capitals-only" : "both",
      monospaced: random() < 0.1,
      figures: { height: pick(["lining", "lining", "old-style"]), spacing: "proportional" },
    };
    return [300, 450, 700].map((weight, i) => ({
      styleId: `s_${f}_${i}`,
      family: `Family ${f}`,
      traits: traitsOf({ ...build, weight, slantDeg: i === 1 ? between(0, 14) : 0 }),
      treatments: [],
    }));
  }).flat();
  library = readyToAsk(styles);
});

/** The answer that the true style's measures ask for. */
const truth = (style: Described, questionId: string): string => {
  const question = QUESTIONS.find((q) => q.questionId === questionId)!;
  const fits = question.fits(style);
  return question.answers[fits.indexOf(Math.max(...fits))]!.answerId;
};

/** Answers questions about one style until none is left or twelve are. @param wrongAt - this one is answered wrongly. */
function interview(style: DescribedStyle, wrongAt = -1): GivenAnswer[] {
  const given: GivenAnswer[] = [];
  for (let k = 0; k < 12; k++) {
    const { next } = describe(library, given);
    if (!next) break;
    const right = truth(style, next.questionId);
    const answerId = k === wrongAt ? next.answers.find((a) => a.answerId !== right)!.answerId : right;
    given.push({ questionId: next.questionId, answerId });
  }
  return given;
}
const isFound = (style: DescribedStyle, given: GivenAnswer[]) =>
  describe(library, given, [], 5).matches.some((m) => m.family === style.family);

group("likelihoods", () => {
  test("of every question add up to one for every style", () => {
    for (const q of QUESTIONS)
      for (const s of styles.slice(0, 60)) {
        const fits = q.fits(s);
        expect(fits).toHaveLength(q.answers.length);
        expect(fits.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 3);
        expect(Math.min(...fits)).toBeGreaterThanOrEqual(0);
      }
  });

  test("what was not measured speaks for no answer", () => {
    const unmeasured = { ...styles[0]!, traits: { ...styles[0]!.traits, storeysA: null, contrast: null } };
    const fits = (id: string) => QUESTIONS.find((q) => q.questionId === id)!.fits(unmeasured);
    expect(fits("a")).toEqual([0.5, 0.5]);
    expect(new Set(fits("contrast")).size).toBe(1);
  });
});

group("asking", () => {
  test("at first every family is as likely as another", () => {
    const { matches, remaining } = describe(library, [], [], 400);
    expect(new Set(matches.map((m) => m.chance.toFixed(9))).size).toBe(1);
    expect(remaining).toBeCloseTo(library.families.length, 3);
  });

  test("truthful answers find the family", () => {
    const asked = styles.filter((_, i) => i % 9 === 0);
    const found = asked.filter((s) => isFound(s, interview(s)));
    expect(found.length / asked.length).toBeGreaterThanOrEqual(0.9);
  });

  test("one wrong answer does not lose it", () => {
    const asked = styles.filter((_, i) => i % 9 === 4);
    const found = asked.filter((s, i) => isFound(s, interview(s, i % 6)));
    expect(found.length / asked.length).toBeGreaterThanOrEqual(0.75);
  });

  test("fewer are left with every answer, and no question comes twice", () => {
    const given = interview(styles[5]!);
    expect(new Set(given.map((g) => g.questionId)).size).toBe(given.length);
    expect(describe(library, given).remaining).toBeLessThan(describe(library, given.slice(0, 2)).remaining);
  });

  test("what cannot be told is not asked again and says nothing", () => {
    const first = describe(library, []).next!;
    const after = describe(library, [], [first.questionId]);
    expect(after.next!.questionId).not.toBe(first.questionId);
    expect(after.remaining).toBeCloseTo(library.families.length, 3);
  });

  test("answers nobody can have given count for nothing", () => {
    const nonsense = [
      { questionId: "no-such", answerId: "1" },
      { questionId: "a", answerId: "99" },
    ];
    expect(describe(library, nonsense).remaining).toBeCloseTo(library.families.length, 3);
  });
});

test("an example shows its answer", () => {
  const question = QUESTIONS.find((q) => q.questionId === "a")!;
  const byId = new Map(styles.map((s) => [s.styleId, s]));
  question.answers.forEach((_, k) => {
    const example = exampleOf(library, question, k);
    expect(example).not.toBeNull();
    expect(byId.get(example!)!.traits.storeysA).toBe(k + 1);
  });
});
