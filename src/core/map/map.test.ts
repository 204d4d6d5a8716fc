import { describe, expect, test } from "@jest/globals";
import { seededRandom } from "../geometry/numbers";
import { assignCells } from "./assignCells";
import { layOutMap } from "./layOutMap";
import { nameRegions } from "./regions";

const random = seededRandom(7);
/** Three heaps in eight measures, one after another. */
const HEAPS = [0, 6, -6].flatMap((middle) =>
  Array.from({ length: 40 }, () =>
    Float32Array.from({ length: 8 }, (_, k) => (k < 4 ? middle : -middle) + random() * 2),
  ),
);
const heapOf = (i: number) => Math.floor(i / 40);

describe("cells", () => {
  test.each([
    [1, 1, 1],
    [7, 3, 3],
    [12, 4, 3],
    [100, 5, 20],
    [499, 10, 50],
  ])("%i places on a grid of %i × %i: each in a cell of its own", (count, columns, rows) => {
    const places = Float64Array.from({ length: count * 2 }, () => random());
    const cells = assignCells(places, { columns, rows });
    expect(new Set(cells).size).toBe(count);
    for (const cell of cells) expect(cell >= 0 && cell < columns * rows).toBe(true);
  });

  test("keep what is left left and what is above above", () => {
    const places = Float64Array.from(
      Array.from({ length: 60 }, (_, i) => [i % 10, Math.floor(i / 10)]).flat(),
      (v) => v * 3.1,
    );
    const cells = assignCells(places, { columns: 10, rows: 6 });
    expect([...cells]).toEqual(Array.from({ length: 60 }, (_, i) => i));
  });
});

describe("the layout", () => {
  const layout = layOutMap(HEAPS, 0.5);
  test("is the same for the same library", () => expect(layOutMap(HEAPS, 0.5)).toEqual(layout));

  test("has a cell for each and keeps heaps together: most neighbours are of one heap", () => {
    expect(new Set(layout.cells).size).toBe(HEAPS.length);
    const heapIn = new Map([...layout.cells].map((cell, i) => [cell, heapOf(i)]));
    let [same, all] = [0, 0];
    for (const [cell, heap] of heapIn)
      for (const next of [cell % layout.columns < layout.columns - 1 ? cell + 1 : -1, cell + layout.columns])
        if (heapIn.has(next)) {
          all++;
          if (heapIn.get(next) === heap) same++;
        }
    expect(same / all).toBeGreaterThan(0.8);
  });

  test.each([0, 1, 5])("a library of %i families has one too", (count) => {
    const few = layOutMap(HEAPS.slice(0, count), 0.5);
    expect(new Set(few.cells).size).toBe(count);
    expect(few.columns * few.rows).toBeGreaterThanOrEqual(count);
  });

  test("families beyond the landmarks stand with their like", () => {
    const many = Array.from({ length: 480 }, (_, i) =>
      Float32Array.from({ length: 8 }, (_, k) => ((i % 3) - 1) * (k < 4 ? 6 : -6) + random() * 2),
    );
    const { cells, columns, rows } = layOutMap(many, 0.5, 200);
    expect(new Set(cells).size).toBe(many.length);
    const heapIn = new Map([...cells].map((cell, i) => [cell, i % 3]));
    const pairs = [...heapIn].filter(([cell]) => heapIn.has(cell + columns));
    const same = pairs.filter(([cell, heap]) => heapIn.get(cell + columns) === heap).length;
    expect(rows).toBeGreaterThan(columns);
    expect(same / pairs.length).toBeGreaterThan(0.85);
  });
});

describe("regions", () => {
  const grid = { columns: 8, rows: 8 };
  const cells = Int32Array.from({ length: 64 }, (_, i) => i);
  const isLeft = [...cells].map((c) => c % 8 < 4);

  test("are named by what most there have and the library has less often; one name is told once", () => {
    const regions = nameRegions(cells, grid, [
      { word: "scripts", of: isLeft },
      { word: "faces", of: isLeft.map(() => true) },
    ]);
    expect(regions.map((r) => r.word)).toEqual(["scripts"]);
    expect(regions[0]).toMatchObject({ column: 0, row: 0 });
  });

  test("where nothing stands out there is none", () =>
    expect(nameRegions(cells, grid, [{ word: "even", of: isLeft.map((_, i) => i % 2 === 0) }])).toEqual([]));
});
