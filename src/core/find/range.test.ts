// The first screen spans what there is: one style per family, the plainest of those that fit best, each far from those before.
import { describe, expect, test } from "@jest/globals";
import { rowOf, traitsOf } from "../../../tests/fixtures/rows";
import { stepsApart } from "./alike";
import { indexStyles } from "./findIndex";
import { findStyles } from "./findStyles";

/** Sixty text faces much alike, named first, and four that are unlike them and each other. */
const rows = [
  ...Array.from({ length: 60 }, (_, i) =>
    [300, 400, 700].map((weight) =>
      rowOf(`Alike ${String(i).padStart(2, "0")}`, {
        style: String(weight),
        traits: traitsOf({ weight, contrast: 1.2 + i / 1000 }),
      }),
    ),
  ).flat(),
  rowOf("Broad", { traits: traitsOf({ weight: 420, width: 9 }) }),
  rowOf("Leaning", { traits: traitsOf({ weight: 420, slantDeg: 24 }) }),
  rowOf("Massive", { traits: traitsOf({ weight: 900 }) }),
  rowOf("Wiry", { traits: traitsOf({ weight: 120, contrast: 5 }) }),
];
const index = indexStyles(rows);
const namesOf = (query: Parameters<typeof findStyles>[1]) => {
  const found = findStyles(index, query, null);
  return Array.from(found.order, (_, k) => found.at(k).row.family);
};

describe("without a question", () => {
  const names = namesOf({});

  test("all rows are there, once each", () => {
    expect(names).toHaveLength(rows.length);
    expect(new Set(findStyles(index, {}, null).order).size).toBe(rows.length);
  });

  test("the first places are of different families, and what is unlike the rest is among the first of them", () => {
    expect(new Set(names.slice(0, 40)).size).toBe(40);
    expect(names.slice(0, 8)).toEqual(expect.arrayContaining(["Broad", "Leaning", "Massive", "Wiry"]));
  });

  test("a family is shown by its plainest style", () => {
    const found = findStyles(index, {}, null);
    const alike = Array.from({ length: 20 }, (_, k) => found.at(k).row).filter((r) => r.family.startsWith("Alike"));
    expect(alike.every((r) => r.style === "400")).toBe(true);
  });

  test("the same at every asking, and whichever way the pages are read", () => {
    expect(namesOf({})).toEqual(names);
    const found = findStyles(index, {}, null);
    expect(Array.from({ length: 30 }, (_, k) => found.at(k).row.family)).toEqual(names.slice(0, 30));
  });

  test("the first twelve are farther apart than by name", () => {
    const apart = (order: ArrayLike<number>) => {
      let sum = 0;
      for (let a = 0; a < 12; a++) for (let b = 0; b < a; b++) sum += stepsApart(index, order[a]!, order[b]!);
      return sum;
    };
    expect(apart(findStyles(index, {}, null).order)).toBeGreaterThan(
      1.5 * apart(findStyles(index, { sort: "name" }, null).order),
    );
  });
});

test("by name it is the alphabet still", () => {
  const names = namesOf({ sort: "name" });
  expect(names).toEqual([...names].sort());
});

test("what fits better comes before what is merely different", () => {
  const [first] = namesOf({ q: "heavy" });
  expect(first).toBe("Massive");
});
