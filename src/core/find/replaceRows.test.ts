// A few rows exchanged in the index, against the index made again from all rows: every question, count and order the same.
import { describe, expect, test } from "@jest/globals";
import { VERDICTS, type Verdict } from "@/contracts/traits";
import { indexStyles, type FindRow } from "./findIndex";
import { findStyles } from "./findStyles";
import { differsLittle, replaceRows } from "./replaceRows";
import { seededRandom } from "../geometry/numbers";
import { rowOf, traitsOf } from "../../../tests/fixtures/rows";

const brief = { lines: [], wanted: "", uses: ["web" as const], kept: [], setAside: [] };
const MOODS = ["sturdy", "airy", "loud", "harbour", "dry"];

function makeRows(count: number): FindRow[] {
  const random = seededRandom(77);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  return Array.from({ length: count }, (_, i) =>
    rowOf(pick(["Skerry", "Voe", "Tarn", "Kelp"]), {
      style: `No. ${i}`,
      moods: random() < 0.5 ? [{ value: pick(MOODS), confidence: 0.8 }] : [],
      verdicts: { web: pick<Verdict>(VERDICTS) },
      health: random() < 0.2 ? "with-care" : "fine",
      traits: traitsOf({ weight: Math.round(100 + 850 * random()) }),
    }),
  );
}

const QUERIES = [
  {},
  { moods: ["harbour"] },
  { moods: ["sturdy", "loud"] },
  { verdicts: ["cleared" as const] },
  { health: ["with-care" as const], sort: "weight" },
  { q: "airy", fold: true },
  { weightMin: 300, weightMax: 600, moods: ["never said before"] },
];

describe.each([
  ["counted column by column", 1e9],
  ["counted as large libraries are", 0],
])("%s", (_name, packedFrom) => {
  const index = indexStyles(makeRows(400), packedFrom);
  const { rows } = index;

  test("tags, verdicts and health of some rows change: the same answers as from all rows", () => {
    const random = seededRandom(5);
    const changed = new Map<number, FindRow>();
    for (let k = 0; k < 60; k++) {
      const at = Math.floor(random() * rows.length);
      const moods = [...(rows[at]!.moods ?? []), { value: k % 2 ? "harbour" : "never said before", confidence: 1 }];
      const verdicts = { web: VERDICTS[k % VERDICTS.length]! };
      changed.set(at, { ...rows[at]!, moods, verdicts, health: k % 3 ? "fine" : "with-care" });
    }
    const after = rows.map((r, i) => changed.get(i) ?? r);
    const replaced = replaceRows(index, changed)!;
    const whole = indexStyles(after, packedFrom);
    for (const query of QUERIES) {
      const [a, b] = [findStyles(replaced, query, brief), findStyles(whole, query, brief)];
      expect([query, [...a.order]]).toEqual([query, [...b.order]]);
      expect([query, a.facets]).toEqual([query, b.facets]);
    }
    // The index that was there is as it was.
    expect([...findStyles(index, { moods: ["never said before"] }, brief as never).order]).toEqual([]);
  });

  test("again and again, as a person goes on", () => {
    let now = index;
    const after = [...rows];
    for (let k = 0; k < 30; k++) {
      const row = { ...after[k]!, moods: [{ value: `word ${k}`, confidence: 1 }] };
      after[k] = row;
      now = replaceRows(now, new Map([[k, row]]))!;
    }
    const whole = indexStyles(after, packedFrom);
    for (const query of [{}, { moods: ["word 7"] }])
      expect(findStyles(now, query, brief as never).facets).toEqual(findStyles(whole, query, brief).facets);
  });
});

test("what differs in more than tags, verdicts and health is told apart", () => {
  const row = rowOf("Skerry", {});
  expect(differsLittle(row, { ...row, moods: [{ value: "dry", confidence: 1 }], health: "with-care" })).toBe(true);
  expect(differsLittle(row, { ...row, style: "Bold" })).toBe(false);
  expect(differsLittle(row, { ...row, traits: traitsOf({ weight: 700 }) })).toBe(false);
  expect(differsLittle(row, { ...row, coverage: [[0x20, 0x7f]] })).toBe(false);
});
