import { MAP_CELL as CELL } from "@/contracts/map";
import { describe, expect, test } from "@jest/globals";
import { boundView, cellAt, cellsSeen, neighbourOf, originOf, showCell, viewWhole, zoomAt } from "./mapGeometry";

const GRID = { columns: 10, rows: 20 };
const SIZE = { width: 960, height: 600 };
const whole = viewWhole(GRID, SIZE);

describe("the view", () => {
  test("of the whole map sees every cell", () =>
    expect(cellsSeen(whole, GRID, SIZE)).toEqual({ fromColumn: 0, toColumn: 10, fromRow: 0, toRow: 20 }));

  test("zooms to the point under the pointer, and no further out than the whole", () => {
    const at = { x: 300, y: 200 };
    const near = zoomAt(whole, 3, at, GRID, SIZE);
    const point = (view: typeof whole) => {
      const { left, top } = originOf(view, SIZE);
      return [(at.x - left) / view.zoom, (at.y - top) / view.zoom];
    };
    point(near).forEach((v, i) => expect(v).toBeCloseTo(point(whole)[i]!, 6));
    expect(zoomAt(near, 0.01, at, GRID, SIZE)).toEqual(whole);
  });

  test("never leaves the map", () => {
    const far = boundView({ x: 1e6, y: -1e6, zoom: 2 }, GRID, SIZE);
    const seen = cellsSeen(far, GRID, SIZE);
    expect(seen.toColumn).toBe(10);
    expect(seen.fromRow).toBe(0);
    expect(seen.toColumn).toBeGreaterThan(seen.fromColumn);
  });

  test("moves no further than a cell needs", () => {
    const near = zoomAt(whole, 4, { x: 0, y: 0 }, GRID, SIZE);
    expect(showCell(near, 0, GRID, SIZE)).toEqual(near);
    const last = showCell(near, 199, GRID, SIZE);
    expect(cellAt(last, { x: SIZE.width - 30, y: SIZE.height - 30 }, GRID, SIZE)).toBe(199);
  });

  test("finds the cell under a point", () => {
    const { left, top } = originOf(whole, SIZE);
    const at = { x: left + CELL.width * whole.zoom * 3.5, y: top + CELL.height * whole.zoom * 7.5 };
    expect(cellAt(whole, at, GRID, SIZE)).toBe(73);
    expect(cellAt(whole, { x: left - 2, y: 10 }, GRID, SIZE)).toBeNull();
  });
});

describe("an arrow", () => {
  test("goes to the next cell", () => {
    expect(neighbourOf(55, "ArrowLeft", GRID, () => true)).toBe(54);
    expect(neighbourOf(55, "ArrowDown", GRID, () => true)).toBe(65);
    expect(neighbourOf(50, "ArrowLeft", GRID, () => true)).toBeNull();
  });

  test("passes over what is not wanted, and looks aside before it gives up", () => {
    expect(neighbourOf(55, "ArrowRight", GRID, (c) => c === 58 || c === 47)).toBe(47);
    expect(neighbourOf(55, "ArrowRight", GRID, (c) => c === 58)).toBe(58);
    expect(neighbourOf(55, "ArrowRight", GRID, (c) => c === 45)).toBeNull();
  });
});
