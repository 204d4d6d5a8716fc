// What differs between faces, in words; and why an order is as it is.
import { describe, expect, test } from "@jest/globals";
import { traitsOf } from "../../../tests/fixtures/rows";
import { compareTraits, tellOnce } from "./compareTraits";
import { rankCorrelation, tellOrder } from "./tellOrder";

const face = (name: string, traits: Parameters<typeof traitsOf>[0]) => ({ name, traits: traitsOf(traits) });

describe("two faces", () => {
  const told = compareTraits([
    face("Arvo", { weight: 400, widthEm: 0.5, slantDeg: 0, xHeightEm: 0.5 }),
    face("Anton", { weight: 820, widthEm: 0.4, slantDeg: 0, xHeightEm: 0.505 }),
  ]);

  test("the largest difference comes first, in steps that a reader sees", () => {
    expect(told.differences[0]).toMatchObject({ trait: "weight", steps: 4.2, values: [400, 820], face: 1 });
    expect(told.differences[0]!.says).toBe("Anton is heavier by 420");
    const steps = told.differences.map((d) => d.steps);
    expect(steps).toEqual([...steps].sort((a, b) => b - a));
  });

  test("the second is told beside the first, in per cent of it", () => {
    expect(told.differences.find((d) => d.trait === "widthEm")!.says).toBe("Anton is 20 % narrower");
  });

  test("what nobody would see is the same", () => {
    expect(told.same).toEqual(expect.arrayContaining(["slantDeg", "xHeightEm"]));
    expect(told.differences.some((d) => d.trait === "xHeightEm")).toBe(false);
  });
});

test("of several faces the one that stands apart is told, beside the farthest from it", () => {
  const { differences } = compareTraits([
    face("Ada", { widthEm: 0.5 }),
    face("Brig", { widthEm: 0.52 }),
    face("Cog", { widthEm: 0.3 }),
  ]);
  expect(differences.find((d) => d.trait === "widthEm")).toMatchObject({
    says: "Cog is 42 % narrower than Brig",
    face: 2,
  });
});

test("what one face has no measure of is told of the others, and is not the same in all", () => {
  const { differences, same } = compareTraits([
    face("Ada", { contrast: null }),
    face("Brig", { contrast: 1.2 }),
    face("Cog", { contrast: 4.5 }),
  ]);
  expect(differences.find((d) => d.trait === "contrast")!.values).toEqual([null, 1.2, 4.5]);
  expect(same).not.toContain("contrast");
});

test("one subject is told once, by its largest difference", () => {
  const { differences } = compareTraits([
    face("Ada", { weight: 300, stemEm: 0.05 }),
    face("Brig", { weight: 800, stemEm: 0.16 }),
  ]);
  expect(differences.filter((d) => d.subject === "weight")).toHaveLength(2);
  expect(tellOnce(differences).filter((d) => d.subject === "weight")).toHaveLength(1);
});

describe("why an order is as it is", () => {
  test("what rises with it is told, the clearest first", () => {
    const faces = [900, 800, 650, 500, 350, 300].map((weight, i) =>
      face(String(i), { weight, stemEm: weight / 5000, widthEm: [0.5, 0.42, 0.55, 0.4, 0.52, 0.44][i]! }),
    );
    expect(tellOrder(faces)[0]).toMatchObject({ says: "heavier", correlation: 1 });
    expect(tellOrder(faces).some((r) => r.trait === "widthEm")).toBe(false);
  });

  test("of too few faces nothing is said", () => {
    expect(tellOrder([face("a", { weight: 900 }), face("b", { weight: 100 })])).toEqual([]);
  });

  test("equal values share their rank", () => {
    expect(rankCorrelation([1, 1, 2, 2], [1, 2, 3, 4])).toBeCloseTo(0.894, 3);
    expect(rankCorrelation([1, 1, 1], [1, 2, 3])).toBe(0);
  });
});
