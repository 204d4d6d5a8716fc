// Ten hidden tastes: rules over measures, and families drawn at random. From twenty marks, what is kept comes first; in words, what it has in common.
import { describe, expect, test } from "@jest/globals";
import { rowOf, traitsOf } from "../../../tests/fixtures/rows";
import { indexStyles, type FindRow } from "./findIndex";
import { findStyles } from "./findStyles";
import { learnTaste, TASTE_FROM_MARKS } from "./taste";

let seed = 11;
/** A number 0–1, the same at every run. */
const draw = () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
const between = (low: number, high: number) => low + draw() * (high - low);

/** Ninety families of four styles, their measures drawn; styles of a family are alike in all but weight. */
const rows: FindRow[] = Array.from({ length: 90 }, (_, f) => {
  const [width, contrast, roughness] = [between(2.5, 8), between(1, 4), draw() < 0.2 ? between(0.1, 0.6) : 0];
  const [roundness, xHeightEm] = [between(0, 0.6), between(0.35, 0.6)];
  return [250, 400, 600, 850].map((weight) =>
    rowOf(`Family ${f}`, {
      style: String(weight),
      traits: traitsOf({ weight: weight + between(-60, 60), width, contrast, roughness, roundness, xHeightEm }),
    }),
  );
}).flat();
const index = indexStyles(rows);

type Taste = { name: string; likes: (row: FindRow) => boolean };
const RULES: Taste[] = [
  { name: "narrow and heavy", likes: ({ traits: t }) => t.width! < 5 && t.weight! > 550 },
  { name: "light and wide", likes: ({ traits: t }) => t.width! > 5.5 && t.weight! < 450 },
  { name: "rough", likes: ({ traits: t }) => t.roughness! > 0.05 },
  { name: "high contrast", likes: ({ traits: t }) => t.contrast! > 2.8 },
  { name: "round, with a large x-height", likes: ({ traits: t }) => t.roundness! > 0.3 && t.xHeightEm! > 0.48 },
];
const FAMILIES: Taste[] = Array.from({ length: 5 }, (_, n) => {
  const liked = new Set(Array.from({ length: 12 }, () => `Family ${Math.floor(draw() * 90)}`));
  return { name: `families ${n}`, likes: ({ family }) => liked.has(family) };
});

/** Ten kept and ten set aside, drawn at random. */
function mark({ likes }: Taste) {
  const [kept, aside]: number[][] = [[], []];
  while (kept!.length < 10 || aside!.length < 10) {
    const row = Math.floor(draw() * rows.length);
    const list = likes(rows[row]!) ? kept! : aside!;
    if (list.length < 10 && !list.includes(row)) list.push(row);
  }
  return { kept: kept!, aside: aside! };
}

const briefOf = (kept: number[], aside: number[]) => ({
  lines: [],
  wanted: "",
  uses: [],
  kept: kept.map((i) => ({ styleId: rows[i]!.styleId })),
  setAside: aside.map((i) => rows[i]!.styleId),
});

/** Mean of the precision at each hit among the first twenty. */
function averagePrecision(order: readonly number[], { likes }: Taste): number {
  let [hits, sum] = [0, 0];
  order.slice(0, 20).forEach((row, place) => {
    if (!likes(rows[row]!)) return;
    hits++;
    sum += hits / (place + 1);
  });
  return hits ? sum / hits : 0;
}

const unmarked = (marked: readonly number[]) => rows.map((_, i) => i).filter((i) => !marked.includes(i));

describe("a hidden taste", () => {
  test.each(RULES)("$name: what is kept comes first", (taste) => {
    const { kept, aside } = mark(taste);
    const { chances } = learnTaste(index, kept, aside)!;
    const order = unmarked([...kept, ...aside]).sort((a, b) => chances[b]! - chances[a]!);
    expect(averagePrecision(order, taste)).toBeGreaterThanOrEqual(0.8);
  });

  test("of families that have nothing in common: twice as good as the plain order", () => {
    let [learnt, plain] = [0, 0];
    for (const taste of FAMILIES) {
      const { kept, aside } = mark(taste);
      const { chances } = learnTaste(index, kept, aside)!;
      const rest = unmarked([...kept, ...aside]);
      learnt += averagePrecision(
        [...rest].sort((a, b) => chances[b]! - chances[a]!),
        taste,
      );
      plain += averagePrecision(rest, taste);
    }
    expect(learnt).toBeGreaterThan(2 * plain);
  });
});

test("in words: what the kept have in common", () => {
  const { kept, aside } = mark(RULES[0]!);
  const { says, marks } = learnTaste(index, kept, aside)!;
  expect(says).toEqual(expect.arrayContaining(["heavy", "narrow"]));
  expect(marks).toBe(20);
});

test("one place in twelve goes to a face unlike all that was marked, and what is kept still comes first", () => {
  for (const taste of RULES) {
    const { kept, aside } = mark(taste);
    const brief = briefOf(kept, aside);
    const found = findStyles(index, { learn: true }, brief);
    const order = [...found.order];
    expect(new Set(order).size).toBe(found.total);
    const reasons = order.slice(0, 48).map((_, place) => found.at(place).fit!.because.join());
    expect(reasons.flatMap((r, place) => (r === "unlike all you have marked" ? [place] : []))).toEqual([
      11, 23, 35, 47,
    ]);
    const fresh = order.filter((i) => !kept.includes(i) && !aside.includes(i));
    expect(averagePrecision(fresh, taste)).toBeGreaterThanOrEqual(0.8);
    // They are chosen among what is likely, and told apart from all that was marked.
    const chances = learnTaste(index, kept, aside)!.chances;
    const middle = [...chances].sort((a, b) => a - b)[Math.floor(chances.length / 4)]!;
    for (const place of [11, 23]) expect(chances[order[place]!]!).toBeGreaterThan(middle);
  }
});

test("too few marks, or none kept, teach nothing; the same marks teach the same", () => {
  expect(learnTaste(index, [1, 2], [3])).toBeNull();
  expect(learnTaste(index, [], [1, 2, 3, 4, 5, 6])).toBeNull();
  const { kept, aside } = mark(RULES[3]!);
  expect(learnTaste(index, kept, aside)!.chances).toEqual(learnTaste(index, kept, aside)!.chances);
});

test("a question learns from the brief's marks only when it asks for it", () => {
  const { kept, aside } = mark(RULES[1]!);
  const brief = briefOf(kept, aside);
  const found = findStyles(index, { learn: true }, brief);
  expect(found.taste!.marks).toBeGreaterThanOrEqual(TASTE_FROM_MARKS);
  expect(found.at(0).fit!.because).toContain("like what you keep");
  expect(findStyles(index, {}, brief).taste).toBeNull();
});
