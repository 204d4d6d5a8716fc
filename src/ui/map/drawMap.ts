// What the canvas of the map shows: core samples of the cells that are seen, or from far away one dot for each; darker where they fit.
import { MAP_CELL as CELL, type FaceMap } from "@/contracts/map";
import { cellsIn, cellsSeen, originOf, WORDS_FROM_PX, type Size, type View } from "./mapGeometry";

/** From this width on a cell shows its core sample; below it is a dot of a picture that is made once. */
const CORE_FROM_PX = 12;
const BANDS_FROM_PX = 30;

/** Faces of the map by their cells, and what the question says of them. */
export type MapState = {
  map: FaceMap;
  /** Cell → number of its face; −1 where none is. */
  faceIn: Int32Array;
  /** Of each face: −1 where the question does not find it, else 0–1. */
  fits: readonly number[];
  kept: ReadonlySet<string>;
  /** Faces that are set in words are not drawn here. */
  isSet: (face: number) => boolean;
};
type MapColours = { slate: string; oxide: string; core: string[] };

export function readColours(element: Element): MapColours {
  const style = getComputedStyle(element);
  const of = (name: string) => style.getPropertyValue(name).trim();
  return {
    slate: of("--slate"),
    oxide: of("--oxide"),
    core: [1, 2, 3, 4, 5, 6].map((i) => of(`--core-${i}`)),
  };
}

/** How strongly a face is seen. */
export const strengthOf = (fit: number) => (fit < 0 ? 0.13 : 0.4 + 0.6 * fit);

export function drawMap(
  context: CanvasRenderingContext2D,
  view: View,
  size: Size,
  state: MapState,
  colours: MapColours,
) {
  context.clearRect(0, 0, size.width, size.height);
  const widthPx = CELL.width * view.zoom;
  if (widthPx < CORE_FROM_PX) drawFar(context, view, size, state, colours);
  else if (widthPx < WORDS_FROM_PX) drawTiles(context, view, size, state, colours);
  else
    drawCells(
      context,
      { ...originOf(view, size), zoom: view.zoom, ...cellsSeen(view, state.map, size) },
      state,
      colours,
    );
  context.globalAlpha = 1;
}

/** Side of the squares that the map is drawn in beforehand: while it is dragged only those that come in are drawn. */
const TILE_PX = 256;
/** More than a large screen shows twice over. */
const MOST_TILES = 240;
type Tiles = { key: unknown[]; pictures: Map<string, HTMLCanvasElement> };
let tiles: Tiles = { key: [], pictures: new Map() };

function drawTiles(context: CanvasRenderingContext2D, view: View, size: Size, state: MapState, colours: MapColours) {
  const ratio = context.getTransform().a;
  const key = [state.map, state.fits, state.kept, colours.slate, view.zoom, ratio];
  if (key.some((part, i) => part !== tiles.key[i])) tiles = { key, pictures: new Map() };
  const { left, top } = originOf(view, size);
  // On whole pixels of the screen: else there are seams.
  const [x0, y0] = [Math.round(left * ratio) / ratio, Math.round(top * ratio) / ratio];
  const { columns, rows } = state.map;
  const count = (cells: number, cellPx: number) => Math.ceil((cells * cellPx * view.zoom) / TILE_PX);
  const [across, down] = [count(columns, CELL.width), count(rows, CELL.height)];
  for (let row = Math.max(0, Math.floor(-y0 / TILE_PX)); row < down && y0 + row * TILE_PX < size.height; row++)
    for (
      let column = Math.max(0, Math.floor(-x0 / TILE_PX));
      column < across && x0 + column * TILE_PX < size.width;
      column++
    )
      context.drawImage(
        tileAt(column, row, view, ratio, state, colours),
        x0 + column * TILE_PX,
        y0 + row * TILE_PX,
        TILE_PX,
        TILE_PX,
      );
}

function tileAt(
  column: number,
  row: number,
  view: View,
  ratio: number,
  state: MapState,
  colours: MapColours,
): HTMLCanvasElement {
  const name = `${column} ${row}`;
  const known = tiles.pictures.get(name);
  if (known) return known;
  const tile = document.createElement("canvas");
  tile.width = tile.height = Math.ceil(TILE_PX * ratio);
  const context = tile.getContext("2d")!;
  context.scale(ratio, ratio);
  const plane = { left: -column * TILE_PX, top: -row * TILE_PX, zoom: view.zoom };
  const seen = cellsIn(plane, state.map, { width: TILE_PX, height: TILE_PX });
  drawCells(context, { ...plane, ...seen }, state, colours);
  if (tiles.pictures.size >= MOST_TILES) tiles.pictures.delete(tiles.pictures.keys().next().value!);
  tiles.pictures.set(name, tile);
  return tile;
}

/** Cells and where the plane's corner stands. */
type Part = ReturnType<typeof originOf> & ReturnType<typeof cellsSeen> & { zoom: number };

function drawCells(
  context: CanvasRenderingContext2D,
  { left, top, zoom, fromColumn, toColumn, fromRow, toRow }: Part,
  { map, faceIn, fits, kept, isSet }: MapState,
  colours: MapColours,
) {
  const [width, height] = [CELL.width * zoom, CELL.height * zoom];
  const hasBands = width >= BANDS_FROM_PX;
  const inner = { width: width * 0.74, height: height * 0.74 };
  for (let row = fromRow; row < toRow; row++)
    for (let column = fromColumn; column < toColumn; column++) {
      const face = faceIn[row * map.columns + column]!;
      if (face < 0) continue;
      const [x, y] = [left + column * width + width * 0.13, top + row * height + height * 0.13];
      const { core, styleId } = map.faces[face]!;
      if (kept.has(styleId)) {
        context.globalAlpha = 1;
        context.fillStyle = colours.oxide;
        context.fillRect(x - width * 0.09, y, Math.max(2, width * 0.04), inner.height);
      }
      if (isSet(face)) continue;
      context.globalAlpha = strengthOf(fits[face] ?? -1);
      if (!hasBands) {
        context.fillStyle = colours.slate;
        context.fillRect(x, y + inner.height / 3, inner.width * (0.25 + 0.75 * (core[0] ?? 0.3)), inner.height / 3);
      } else drawCore(context, core, { x, y, ...inner }, width >= WORDS_FROM_PX ? 0.25 : 1, colours);
    }
}

function drawCore(
  context: CanvasRenderingContext2D,
  core: readonly (number | null)[],
  box: { x: number; y: number } & Size,
  share: number,
  { core: bands }: MapColours,
) {
  const band = box.height / core.length;
  core.forEach((place, i) => {
    context.fillStyle = bands[i]!;
    context.fillRect(box.x, box.y + i * band, Math.max(1, (place ?? 0) * box.width * share), Math.max(0.6, band - 0.6));
  });
}

let far: { of: readonly number[]; map: FaceMap; slate: string; picture: HTMLCanvasElement } | null = null;
/** One pixel a cell, drawn large: a hundred thousand are one picture. */
function drawFar(context: CanvasRenderingContext2D, view: View, size: Size, state: MapState, colours: MapColours) {
  const { left, top } = originOf(view, size);
  context.imageSmoothingEnabled = false;
  context.drawImage(
    pictureOf(state, colours.slate),
    left,
    top,
    state.map.columns * CELL.width * view.zoom,
    state.map.rows * CELL.height * view.zoom,
  );
}

/** The map as a picture of one pixel a cell: also what the small map shows. */
export function pictureOf({ map, fits }: Pick<MapState, "map" | "fits">, slate: string): HTMLCanvasElement {
  if (far?.of === fits && far.map === map && far.slate === slate) return far.picture;
  const picture = document.createElement("canvas");
  [picture.width, picture.height] = [map.columns, map.rows];
  const context = picture.getContext("2d")!;
  context.fillStyle = slate;
  map.faces.forEach(({ cell }, i) => {
    context.globalAlpha = strengthOf(fits[i] ?? -1);
    context.fillRect(cell % map.columns, Math.floor(cell / map.columns), 1, 1);
  });
  far = { of: fits, map, slate, picture };
  return picture;
}
