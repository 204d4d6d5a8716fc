// Where two faces differ in one letter: both laid over each other at one height, and the place where most ink is of one alone.
import type { Beside } from "@/contracts/identify";
import { boundsOf, mapPolygons, writePath, type Affine, type Bounds, type Polygons } from "../../geometry/outline";
import { addPolygons, sumInk, type InkPicture } from "../../geometry/raster";
import type { OpenFace } from "../../outlines/openFace";

const { ceil, max, min } = Math;

/** Letters are laid over each other in this many units an em of the first face. */
const UNITS = 1000;
/** Pixels an em in which places are compared, and the side of a place that is looked at, em. */
const LOOK_PX = 120;
const PLACE_EM = 0.17;
/** Letters by which faces are brought to one height: what of both is as high. */
const LEVELS = ["x", "H", "0"];

type Box = Beside["box"];

/** @returns null where one of the two lacks the letter or draws nothing of it. */
export function tellApart(a: OpenFace, b: OpenFace, letter: string): Beside | null {
  const [drawnA, drawnB] = [outlineOf(a, letter), outlineOf(b, letter)];
  if (!drawnA || !drawnB) return null;
  const scaleA = UNITS / a.unitsPerEm;
  const scaleB = scaleA * levelOf(a, b);
  const middle = ({ bounds }: Drawn) => (bounds.xMin + bounds.xMax) / 2;
  const onto = (drawn: Drawn, scale: number): Affine => ({
    ...{ a: scale, b: 0, c: 0, d: -scale },
    ...{ e: -middle(drawn) * scale, f: 0 },
  });
  const [toA, toB] = [onto(drawnA, scaleA), onto(drawnB, scaleB)];
  const polygons = [mapPolygons(drawnA.polygons, toA), mapPolygons(drawnB.polygons, toB)] as const;
  const all = boundsOf([...polygons[0], ...polygons[1]])!;
  const place = findPlace(polygons[0], polygons[1], all);
  return {
    letter,
    box: { x: all.xMin, y: all.yMin, width: all.xMax - all.xMin, height: all.yMax - all.yMin },
    paths: [writePath(a.outline(drawnA.glyphId), toA), writePath(b.outline(drawnB.glyphId), toB)],
    place,
    where: nameOf(place, all),
  };
}

type Drawn = { glyphId: number; polygons: Polygons; bounds: Bounds };

function outlineOf(face: OpenFace, letter: string): Drawn | null {
  const glyphId = face.glyphOf(letter.codePointAt(0)!);
  const polygons = glyphId ? face.polygons(glyphId) : [];
  const bounds = boundsOf(polygons);
  return glyphId && bounds ? { glyphId, polygons, bounds } : null;
}

/** By how much the second face is to be enlarged, so that its letters are as high as those of the first one. */
function levelOf(a: OpenFace, b: OpenFace): number {
  for (const letter of LEVELS) {
    const [p, q] = [outlineOf(a, letter), outlineOf(b, letter)];
    if (p && q && p.bounds.yMax > 0 && q.bounds.yMax > 0) return p.bounds.yMax / q.bounds.yMax;
  }
  return a.unitsPerEm / b.unitsPerEm;
}

/** The square in which most ink is of one of the two alone. */
function findPlace(a: Polygons, b: Polygons, { xMin, yMin, xMax, yMax }: Bounds): Box {
  const perUnit = LOOK_PX / UNITS;
  const [w, h] = [ceil((xMax - xMin) * perUnit) + 2, ceil((yMax - yMin) * perUnit) + 2];
  const draw = (polygons: Polygons): InkPicture => {
    const picture = { widthPx: w, heightPx: h, ink: new Float32Array(w * h) };
    const to = { a: perUnit, b: 0, c: 0, d: perUnit, e: 1 - xMin * perUnit, f: 1 - yMin * perUnit };
    const placed = mapPolygons(polygons, to);
    addPolygons(picture, placed, boundsOf(placed)!);
    return picture;
  };
  const [inkA, inkB] = [draw(a), draw(b)];
  const off = { ...inkA, ink: inkA.ink.map((v, i) => Math.abs(v - inkB.ink[i]!)) };
  const { sums } = sumInk(off);
  const side = min(w, h, ceil(PLACE_EM * LOOK_PX));
  const at = (x: number, y: number) => sums[y * (w + 1) + x]!;
  let best = { x: 0, y: 0, ink: -1 };
  for (let y = 0; y + side <= h; y++)
    for (let x = 0; x + side <= w; x++) {
      const ink = at(x + side, y + side) - at(x, y + side) - at(x + side, y) + at(x, y);
      if (ink > best.ink) best = { x, y, ink };
    }
  const size = side / perUnit;
  return { x: xMin + (best.x - 1) / perUnit, y: yMin + (best.y - 1) / perUnit, width: size, height: size };
}

function nameOf({ x, y, width, height }: Box, all: Bounds): string {
  const third = (v: number, from: number, to: number) =>
    min(2, max(0, Math.floor((3 * (v - from)) / max(1e-6, to - from))));
  const row = ["top", "middle", "bottom"][third(y + height / 2, all.yMin, all.yMax)]!;
  const column = ["left", "", "right"][third(x + width / 2, all.xMin, all.xMax)]!;
  return row === "middle" && column ? column : [row, column].filter(Boolean).join(" ");
}
