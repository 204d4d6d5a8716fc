// Two by two with simulated choosers: how soon the order is right, what slips do to it, and whether the intervals keep what they say.
import { describe, expect, test } from "@jest/globals";
import { askChooser, FACES, meanOf } from "../../../tests/fixtures/chooser";
import { rankByChoices, type Choice, type Ranking } from "./rankByChoices";

describe("a person who makes no slips", () => {
  const runs = Array.from({ length: 20 }, (_, seed) => askChooser(seed + 1, 0));

  test("is understood within forty questions: tau 0.95 and more in every run", () => {
    for (const { tau } of runs) expect(tau).toBeGreaterThanOrEqual(0.95);
  });

  test("is asked no more once the order stands", () => {
    for (const { ranking } of runs) expect([ranking.pair, ranking.expectedLeft]).toEqual([null, 0]);
  });

  test("is told about how many questions are left", () => {
    const { choices } = runs[0]!;
    const said = choices.map((_, n) => rankByChoices(FACES, choices.slice(0, n)).expectedLeft);
    said.forEach((left, n) => expect(Math.abs(left - (choices.length - n))).toBeLessThanOrEqual(12));
    expect(said[0]!).toBeGreaterThan(said[said.length - 1]!);
  });
});

// Two hundred runs of each: npm run eval:rounds.
describe("a person of whose choices one in ten is a slip", () => {
  const runs = Array.from({ length: 40 }, (_, seed) => askChooser(seed + 1000, 0.1));

  test("is still understood: mean tau 0.75 and more", () => {
    expect(meanOf(runs.map((r) => r.tau))).toBeGreaterThanOrEqual(0.75);
  });

  test("the 90 % intervals hold the true place in 85 to 97 % of the cases", () => {
    const held = meanOf(runs.map((r) => r.held));
    expect(held).toBeGreaterThanOrEqual(0.85);
    expect(held).toBeLessThanOrEqual(0.97);
  });

  test("strength and place say the same", () => {
    for (const { low, high, firstPlace, lastPlace } of runs[0]!.ranking.ranks) {
      expect(high).toBeCloseTo(1 - (firstPlace - 1) / (FACES - 1), 9);
      expect(low).toBeCloseTo(1 - (lastPlace - 1) / (FACES - 1), 9);
    }
  });
});

describe("what is told", () => {
  test("the same choices give the same answer, and undo gives the one before", () => {
    const { choices } = askChooser(7, 0.1);
    expect(rankByChoices(FACES, choices)).toEqual(rankByChoices(FACES, choices));
    const before = rankByChoices(FACES, choices.slice(0, 5));
    rankByChoices(FACES, choices.slice(0, 6));
    expect(rankByChoices(FACES, choices.slice(0, 5))).toEqual(before);
  });

  test("neither: the two stand near each other", () => {
    const chain: Choice[] = [
      { left: 0, right: 1, chosen: 0 },
      { left: 1, right: 2, chosen: 1 },
      { left: 2, right: 3, chosen: 2 },
    ];
    const apart = ({ ranks }: Ranking) =>
      Math.abs(ranks.findIndex((r) => r.item === 4) - ranks.findIndex((r) => r.item === 0));
    const strengthOf = (r: Ranking, item: number) => r.ranks.find((x) => x.item === item)!.strength;
    const free = rankByChoices(5, chain);
    const tied = rankByChoices(5, [...chain, { left: 4, right: 0, chosen: null }]);
    expect(strengthOf(tied, 4)).toBeGreaterThan(strengthOf(free, 4) + 0.03);
    expect(apart(tied)).toBeLessThanOrEqual(1);
  });

  test("two faces need one question", () => {
    const first = rankByChoices(2, []);
    expect(first.pair).not.toBeNull();
    const then = rankByChoices(2, [{ left: 0, right: 1, chosen: 1 }]);
    expect(then.ranks[0]!.item).toBe(1);
    expect(then.pair).toBeNull();
  });

  test("what is no pair is refused", () => {
    expect(() => rankByChoices(3, [{ left: 1, right: 1, chosen: 1 }])).toThrow(RangeError);
    expect(() => rankByChoices(3, [{ left: 0, right: 3, chosen: 0 }])).toThrow(RangeError);
  });
});
