import { describe, expect, test } from "@jest/globals";
import { offRunEm, spreadOf, type Standing } from "./spread";

/** Letters half an em apart, where a line lays them. @param laid - a place of the run, −1 to 1, → its place along the line. */
const lettersAt = (count: number, laid: (t: number) => number): Standing[] =>
  Array.from({ length: count }, (_, i) => {
    const t = (2 * i) / (count - 1) - 1;
    return { u: laid(t), em: i / 2 };
  });

describe("how wide letters stand", () => {
  test("even letters are as wide all along", () => {
    const { aspect, widen, bulge } = spreadOf(
      lettersAt(9, (t) => t),
      2,
    );
    expect(aspect).toBeCloseTo(1, 2);
    expect([widen, bulge].map(Math.abs).every((v) => v < 0.02)).toBe(true);
  });

  test("a line seen narrower is narrower everywhere", () => {
    expect(
      spreadOf(
        lettersAt(9, (t) => t),
        1.2,
      ).aspect,
    ).toBeCloseTo(0.6, 2);
  });

  test("around a cylinder letters are narrow at both ends", () => {
    const { bulge, widen } = spreadOf(
      lettersAt(11, (t) => Math.sin(t) / Math.sin(1)),
      2.5,
    );
    expect(bulge).toBeLessThan(-0.3);
    expect(Math.abs(widen)).toBeLessThan(0.05);
  });

  test("what comes nearer to the right is wider there", () => {
    const { widen } = spreadOf(
      lettersAt(11, (t) => ((t + 1) * (3 + (t + 1) / 2)) / 4 - 1),
      2.5,
    );
    expect(widen).toBeGreaterThan(0.08);
  });

  test("few letters tell only how wide the whole is", () => {
    const { aspect, widen, bulge } = spreadOf(
      lettersAt(4, (t) => t * t * t),
      0.75,
    );
    expect(aspect).toBeLessThan(1.2);
    expect([widen, bulge].map(Math.abs).every((v) => v < 1e-9)).toBe(true);
  });

  test("letters in one place tell nothing", () => {
    expect(spreadOf([{ u: 0, em: 0 }, { u: 0, em: 1 }], 1)).toEqual({ aspect: 1, widen: 0, bulge: 0 }); // oxfmt-ignore
  });
});

describe("off the run", () => {
  test("nothing, however smoothly the line is bent", () => {
    expect(offRunEm(lettersAt(9, (t) => t))).toBeLessThan(0.005);
    expect(offRunEm(lettersAt(9, (t) => Math.sin(0.7 * t)))).toBeLessThan(0.04);
  });

  test("letters of another face stand off", () => {
    const other = lettersAt(9, (t) => t).map((at, i) => ({ ...at, em: at.em + (i % 2 ? 0.12 : -0.12) }));
    expect(offRunEm(other)).toBeGreaterThan(0.1);
  });

  test("too few letters cannot say", () => {
    expect(offRunEm(lettersAt(4, (t) => t * t * t))).toBe(0);
  });
});
