// Styles of one family as a system: sizes on the scale, weights by their grey.
import { describe, expect, test } from "@jest/globals";
import { greyOf, membersOfVariable, proposeSystem, type SystemMember } from "./proposeSystem";

const member = (weight: number, stemEm: number): SystemMember => ({
  styleId: `s_${weight}`,
  style: String(weight),
  location: {},
  weight,
  stemEm,
  widthEm: 0.5,
});
const family = [member(300, 0.05), member(400, 0.07), member(500, 0.085), member(700, 0.12), member(900, 0.16)];
const text = family[1]!;
const roles = (contrast: "even" | "strong", ratio = 1.25) =>
  Object.fromEntries(proposeSystem(text, family, { ratio, contrast }).map((s) => [s.role, s]));

describe("a family of five weights", () => {
  test("sizes are powers of the scale, the text is one", () => {
    const { title, heading, lead, text: body, caption } = roles("even", 1.5);
    expect([title, heading, lead, body, caption].map((s) => s!.sizeRatio)).toEqual([5.063, 2.25, 1.5, 1, 0.667]);
  });

  test("evenly grey: every role in the style of the text", () => {
    for (const step of Object.values(roles("even"))) {
      expect(step.member.weight).toBe(400);
      expect(Math.abs(step.grey - step.wantedGrey) / step.wantedGrey).toBeLessThan(0.1);
    }
  });

  test("headings that speak are the style that is nearest to what was looked for", () => {
    const { heading, title } = roles("strong");
    expect(heading!.member.weight).toBe(700);
    expect(title!.member.weight).toBe(700);
    for (const step of [heading!, title!])
      for (const other of family)
        expect(Math.abs(Math.log(step.grey / step.wantedGrey))).toBeLessThanOrEqual(
          Math.abs(Math.log(greyOf(other) / step.wantedGrey)) + 0.011,
        );
  });

  test("every number is that of the style", () => {
    for (const step of Object.values(roles("strong")))
      expect(step.grey).toBeCloseTo(step.member.stemEm / step.member.widthEm, 4);
  });
});

test("a family of one style has one style in every role", () => {
  const steps = proposeSystem(text, [text], { ratio: 1.2, contrast: "strong" });
  expect(new Set(steps.map((s) => s.member))).toEqual(new Set([text]));
});

test("a variable style stands at every hundred between its ends, stems with the weight", () => {
  const at = membersOfVariable(member(400, 0.08), { min: 250, max: 720 });
  expect(at.map((m) => m.location.wght)).toEqual([300, 400, 500, 600, 700]);
  expect(at[3]!.stemEm).toBeCloseTo(0.12, 5);
});
