// What goes together: text must read, the two must differ, and they must belong together; every number is the measure it names.
import { describe, expect, test } from "@jest/globals";
import type { Kind } from "@/contracts/traits";
import { traitsOf } from "../../../tests/fixtures/rows";
import {
  pairFaceOf,
  proposeSetting,
  ratePair,
  readability,
  scorePair,
  weightForGrey,
  type PairFace,
} from "./scorePair";

const face = (family: string, kinds: Kind[], traits: Parameters<typeof traitsOf>[0] = {}): PairFace =>
  pairFaceOf({
    family,
    kinds: kinds.map((value) => ({ value, confidence: 0.9 })),
    treatments: [],
    traits: traitsOf({ weight: 400, contrast: 1.3, width: 5, xHeightEm: 0.5, capHeightEm: 0.7, ...traits }),
  });
const serif = { serif: 1, contrast: 2.6, stressDeg: 6 };
const heading = face("Quayside", ["serif"], { ...serif, weight: 700 });
const plain = face("Jetty", ["sans"], { serif: 0, widthEm: 0.48, aperture: 0.4 });

describe("a pair for text", () => {
  test("rated for a whole library as it is told for one", () => {
    for (const [a, b] of [
      [heading, plain],
      [plain, heading],
      [heading, heading],
    ] as const) {
      const { score, by } = scorePair(a, b, "text");
      const rated = ratePair(a, b, "text");
      expect([rated.score.toFixed(4), rated.by]).toEqual([score.toFixed(4), by]);
    }
  });

  test("serif over sans goes before two of one class", () => {
    const other = face("Mole", ["serif"], serif);
    expect(scorePair(heading, plain, "text").score).toBeGreaterThan(scorePair(heading, other, "text").score + 0.1);
  });

  test("what cannot be read as text is no text, whatever else it is", () => {
    const script = face("Tidehand", ["script"], { connected: 1, slantDeg: 24 });
    expect(scorePair(heading, script, "text").score).toBeLessThan(0.4);
    expect(readability(script, false)).toBeLessThan(0.1);
    expect(readability(plain, false)).toBe(1);
  });

  test("two that are nearly the same say so", () => {
    const twin = face("Pier", ["sans"], { serif: 0, widthEm: 0.485, aperture: 0.41 });
    const { reasons, score } = scorePair(
      { ...plain, traits: traitsOf({ ...plain.traits, weight: 700 }) },
      twin,
      "text",
    );
    expect(reasons.find((r) => r.aspect === "distance")!.says).toMatch(/^nearly the same: \d/);
    expect(score).toBeLessThan(scorePair(heading, plain, "text").score);
  });

  test("what was drawn as a system belongs together, and says so", () => {
    const kin = face("Quayside Sans", ["sans"], { serif: 0 });
    const wayOf = (a: string, b: string) => scorePair(face(a, ["serif"]), face(b, ["sans"]), "text").by;
    expect(wayOf("Quayside", "Quayside Sans")).toBe("family");
    expect(wayOf("Quayside Sans", "Harbour Sans")).not.toBe("family");
    expect(wayOf("Sans", "Sans")).not.toBe("family");
    const told = scorePair(heading, kin, "text");
    expect(told.by).toBe("family");
    expect(told.reasons.some((r) => r.says === "Quayside and Quayside Sans were drawn as a system")).toBe(true);
  });

  test("numbers of a reason are the measures that it names", () => {
    for (const r of scorePair(heading, plain, "text").reasons)
      if (r.aspect in heading.traits)
        expect([r.a, r.b]).toEqual([heading.traits[r.aspect as "weight"], plain.traits[r.aspect as "weight"]]);
  });

  test("what is not measured is not said, and breaks nothing", () => {
    const bare = face("Fog", [], { weight: null, contrast: null, xHeightEm: null, aperture: null, stressDeg: null });
    const { score, reasons } = scorePair(heading, bare, "text");
    expect(score).toBeGreaterThanOrEqual(0);
    expect(score).toBeLessThanOrEqual(1);
    expect(reasons.some((r) => r.aspect === "weight")).toBe(false);
  });
});

describe("how the second should stand", () => {
  test("text under a heading is smaller by the scale, its x-height counted", () => {
    const even = proposeSetting(heading.traits, plain.traits, "heading", "text");
    expect(even.sizeRatio).toBeCloseTo(1 / 1.25 ** 4, 3);
    const small = traitsOf({ ...plain.traits, xHeightEm: 0.4 });
    expect(proposeSetting(heading.traits, small, "heading", "text").sizeRatio).toBeCloseTo(
      even.sizeRatio * (0.5 / 0.4),
      2,
    );
  });

  test("a larger x-height asks for more leading", () => {
    const tall = traitsOf({ ...plain.traits, xHeightEm: 0.56 });
    expect(proposeSetting(heading.traits, tall, "heading", "text").leadingEm).toBeGreaterThan(
      proposeSetting(heading.traits, plain.traits, "heading", "text").leadingEm,
    );
  });

  test("the weight proposed is the one as grey as the other", () => {
    const a = traitsOf({ stemEm: 0.1, widthEm: 0.5, weight: 450 });
    const b = traitsOf({ stemEm: 0.08, widthEm: 0.5, weight: 400 });
    expect(weightForGrey(a, b, [300, 400, 500, 700])).toBe(500);
    expect(weightForGrey(a, { ...b, stemEm: null }, [400])).toBeNull();
  });
});
