// The map's plane: cells of a grid, a view onto it, and which neighbour a key goes to. Lengths in CSS pixels.
import { ARROW_STEPS } from "../parts/arrowSteps";
import { MAP_CELL as CELL, type FaceMap } from "@/contracts/map";

/** Cells from this width on are set in the brief's words; below it they are core samples. */
export const WORDS_FROM_PX = 56;
const MOST_ZOOM = 3;

/** `x`, `y`: the point of the plane, at zoom 1, that stands in the middle. */
export type View = { x: number; y: number; zoom: number };
export type Size = { width: number; height: number };
type Grid = Pick<FaceMap, "columns" | "rows">;

const planeOf = ({ columns, rows }: Grid) => ({ width: columns * CELL.width, height: rows * CELL.height });
/** The zoom at which the whole map is seen. */
export const wholeZoom = (grid: Grid, size: Size) => {
  const plane = planeOf(grid);
  return Math.min(MOST_ZOOM, (size.width - 24) / plane.width, (size.height - 24) / plane.height);
};
export function viewWhole(grid: Grid, size: Size): View {
  const plane = planeOf(grid);
  return { x: plane.width / 2, y: plane.height / 2, zoom: wholeZoom(grid, size) };
}

/** Keeps the zoom within bounds and the middle on the map. */
export function boundView(view: View, grid: Grid, size: Size): View {
  const plane = planeOf(grid);
  const zoom = Math.min(MOST_ZOOM, Math.max(wholeZoom(grid, size), view.zoom));
  const bound = (value: number, length: number, seen: number) =>
    seen >= length ? length / 2 : Math.min(length - seen / 2 + 24 / zoom, Math.max(seen / 2 - 24 / zoom, value));
  return {
    x: bound(view.x, plane.width, size.width / zoom),
    y: bound(view.y, plane.height, size.height / zoom),
    zoom,
  };
}

/** Zooms so that the point under the pointer stays there. */
export function zoomAt(view: View, factor: number, at: { x: number; y: number }, grid: Grid, size: Size): View {
  const zoom = Math.min(MOST_ZOOM, Math.max(wholeZoom(grid, size), view.zoom * factor));
  const [dx, dy] = [at.x - size.width / 2, at.y - size.height / 2];
  return boundView(
    { x: view.x + dx / view.zoom - dx / zoom, y: view.y + dy / view.zoom - dy / zoom, zoom },
    grid,
    size,
  );
}

/** Where the left upper corner of the plane stands. */
export const originOf = (view: View, size: Size) => ({
  left: size.width / 2 - view.x * view.zoom,
  top: size.height / 2 - view.y * view.zoom,
});

/** Columns and rows that are seen; the last ones exclusive. */
export const cellsSeen = (view: View, grid: Grid, size: Size) =>
  cellsIn({ ...originOf(view, size), zoom: view.zoom }, grid, size);

/** The same of any window. @param plane - where the plane's corner stands in it. */
export function cellsIn(plane: { left: number; top: number; zoom: number }, { columns, rows }: Grid, size: Size) {
  const { left, top, zoom } = plane;
  const [width, height] = [CELL.width * zoom, CELL.height * zoom];
  return {
    fromColumn: Math.max(0, Math.floor(-left / width)),
    toColumn: Math.min(columns, Math.ceil((size.width - left) / width)),
    fromRow: Math.max(0, Math.floor(-top / height)),
    toRow: Math.min(rows, Math.ceil((size.height - top) / height)),
  };
}

/** The cell under a point of the page, or null beside the map. */
export function cellAt(view: View, at: { x: number; y: number }, { columns, rows }: Grid, size: Size): number | null {
  const { left, top } = originOf(view, size);
  const column = Math.floor((at.x - left) / (CELL.width * view.zoom));
  const row = Math.floor((at.y - top) / (CELL.height * view.zoom));
  return column >= 0 && row >= 0 && column < columns && row < rows ? row * columns + column : null;
}

/** Moves the view no further than needed to see a cell whole. */
export function showCell(view: View, cell: number, grid: Grid, size: Size): View {
  const [column, row] = [cell % grid.columns, Math.floor(cell / grid.columns)];
  const reach = (middle: number, from: number, length: number, seen: number) =>
    Math.max(from + length - seen / 2, Math.min(from + seen / 2, middle));
  return boundView(
    {
      ...view,
      x: reach(view.x, column * CELL.width, CELL.width, size.width / view.zoom),
      y: reach(view.y, row * CELL.height, CELL.height, size.height / view.zoom),
    },
    grid,
    size,
  );
}

/**
 * The cell that an arrow goes to: the nearest that is wanted within the quarter that the arrow points to.
 * @param isWanted - whether a cell has a face that the question finds.
 */
export function neighbourOf(cell: number, key: string, grid: Grid, isWanted: (cell: number) => boolean): number | null {
  const [dx, dy] = ARROW_STEPS[key] ?? [0, 0];
  const [column, row] = [cell % grid.columns, Math.floor(cell / grid.columns)];
  const isInside = (c: number, r: number) => c >= 0 && r >= 0 && c < grid.columns && r < grid.rows;
  for (let far = 1; far < Math.max(grid.columns, grid.rows); far++)
    for (let side = 0; side <= far; side++)
      for (const off of side ? [side, -side] : [0]) {
        const [c, r] = [column + dx * far + (dy ? off : 0), row + dy * far + (dx ? off : 0)];
        if (isInside(c, r) && isWanted(r * grid.columns + c)) return r * grid.columns + c;
      }
  return null;
}
