// How sure an answer may be: what it is told from pulls it the way it should, whatever the fitted numbers are.
import { describe, expect, test } from "@jest/globals";
import { chancesOf, noneChanceOf, sharesOf, termsOf, type AnswerEvidence } from "./chance";

/** A good answer: near, far before the next family, letters where they belong. */
const GOOD: AnswerEvidence = {
  ...{ cost: 0.1, nextFamilyCost: 0.4, letterCount: 9, blurPx: 0.6, noisy: false, worstAgreement: 0.9 },
  ...{ edge: 0.3, spacingEm: 0.004, warp: 0.01, isAssumed: false, agreed: 0 },
};
/** A stranger: as near to several families, none of them near. */
const STRANGER: AnswerEvidence = { ...GOOD, cost: 0.34, nextFamilyCost: 0.36, worstAgreement: 0.55, spacingEm: 0.02 };

describe("none of these", () => {
  test("a good answer is believed, a stranger is not", () => {
    expect(noneChanceOf(GOOD)).toBeLessThan(0.1);
    expect(noneChanceOf(STRANGER)).toBeGreaterThan(0.7);
  });

  test.each([
    ["it is further off", { cost: 0.3 }],
    ["another family comes as near", { nextFamilyCost: 0.105 }],
    ["some letters disagree", { worstAgreement: 0.5 }],
    ["it had to be bent to lie there", { warp: 0.2 }],
  ] as [string, Partial<AnswerEvidence>][])("grows when %s", (_what, worse) => {
    const fair = { ...GOOD, cost: 0.2 };
    expect(noneChanceOf({ ...fair, ...worse })).toBeGreaterThan(noneChanceOf(fair));
  });

  test("goes more by how near the face comes where other ink agrees on it", () => {
    const near = { ...GOOD, cost: 0.16, nextFamilyCost: 0.3, isAssumed: true };
    const far = { ...near, cost: 0.5, nextFamilyCost: 0.52 };
    const differs = (agreed: number) => noneChanceOf({ ...far, agreed }) - noneChanceOf({ ...near, agreed });
    expect(differs(0.8)).toBeGreaterThan(differs(0));
  });

  test("what differs at the edges is forgiven letters that are mostly edge", () => {
    const differs = { ...GOOD, cost: 0.25, nextFamilyCost: 0.5 };
    expect(noneChanceOf({ ...differs, edge: 0.9 })).toBeLessThan(noneChanceOf({ ...differs, edge: 0.2 }));
  });

  test.each([
    ["a cost of nothing", { cost: 0, nextFamilyCost: 0 }],
    ["a cost beyond all", { cost: 40, nextFamilyCost: 60 }],
    ["no letters", { letterCount: 0 }],
    ["no ink", { edge: 0 }],
  ] as [string, Partial<AnswerEvidence>][])("stays a chance with %s", (_what, odd) => {
    const none = noneChanceOf({ ...GOOD, ...odd });
    expect(none).toBeGreaterThanOrEqual(0.01);
    expect(none).toBeLessThanOrEqual(0.99);
    for (const v of Object.values(termsOf({ ...GOOD, ...odd }))) expect(Number.isFinite(v)).toBe(true);
  });
});

describe("shares of the matches", () => {
  test("equal costs share alike; one clearly nearer takes nearly all", () => {
    expect(sharesOf([0.2, 0.2, 0.2, 0.2], GOOD)).toEqual([0.25, 0.25, 0.25, 0.25]);
    expect(sharesOf([0.1, 0.4, 0.5], GOOD)[0]).toBeGreaterThan(0.99);
  });

  test("thin letters, whose costs lie further apart, part less for the same distance", () => {
    const first = (edge: number) => sharesOf([0.1, 0.14], { letterCount: 9, edge })[0]!;
    expect(first(0.9)).toBeLessThan(first(0.2));
  });

  test("with the chance of none they are at most one, and none is certain", () => {
    for (const evidence of [GOOD, STRANGER, { ...GOOD, cost: 0 }]) {
      const { chances, none } = chancesOf([evidence.cost, evidence.nextFamilyCost, 0.8], evidence);
      expect(chances.reduce((a, b) => a + b, none)).toBeLessThanOrEqual(1 + 1e-9);
      expect(Math.max(...chances)).toBeLessThan(0.99);
      expect(chances).toEqual([...chances].sort((a, b) => b - a));
    }
  });
});
