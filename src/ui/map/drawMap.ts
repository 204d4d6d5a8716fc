// What the canvas of the map shows: core samples of the cells that are seen, or from far away one dot for each; darker where they fit.
import { MAP_CELL as CELL, type FaceMap } from "@/contracts/map";
import { cellsSeen, originOf, WORDS_FROM_PX, type Size, type View } from "./mapGeometry";

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
  if (CELL.width * view.zoom < CORE_FROM_PX) drawFar(context, view, size, state, colours);
  else drawCells(context, view, size, state, colours);
  context.globalAlpha = 1;
}

function drawCells(
  context: CanvasRenderingContext2D,
  view: View,
  size: Size,
  { map, faceIn, fits, kept, isSet }: MapState,
  colours: MapColours,
) {
  const { left, top } = originOf(view, size);
  const [width, height] = [CELL.width * view.zoom, CELL.height * view.zoom];
  const seen = cellsSeen(view, map, size);
  const hasBands = width >= BANDS_FROM_PX;
  const inner = { width: width * 0.74, height: height * 0.74 };
  for (let row = seen.fromRow; row < seen.toRow; row++)
    for (let column = seen.fromColumn; column < seen.toColumn; column++) {
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
