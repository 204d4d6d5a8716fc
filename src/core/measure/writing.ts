// Whether shapes that nobody recognises as Latin letters are written all the same. Old scripts are kept in the places of Latin letters,
// capitals of mathematics stand alone: of neither is it said that they are pictures.
import { median } from "../geometry/numbers";
import { spansAtY } from "../geometry/rays";
import { densest } from "./lean";
import type { Letter } from "./letters";

/** Rays through each shape. */
const RAYS = 11;
const FEWEST = 8;

/** Feet that differ by less than this share of the middle height stand on one line; on the fullest line stands this share of the shapes. */
const SAME_LINE = 0.03;
const ON_LINE = 0.65;
/** The middle stroke of a shape differs from that of the others by this factor at most, in this share of the shapes. */
const SAME_STROKE = 1.5;
const EVEN = 0.9;
/** Thickness of strokes, as a share of the middle height: from hairlines to the fattest faces. */
const STROKE: readonly [number, number] = [0.04, 0.4];
/** Strokes that a ray meets: a letter has one or two, three at most; boxes, lights and lines of speed have more. */
const MOST_STROKES = 2.9;
const MOST_CONTOURS = 2;

/** Whether the shapes stand on one line and are made of few strokes, which are as thick in one as in the next. */
export function isWriting(shapes: readonly Letter[]): boolean {
  if (shapes.length < FEWEST) return false;
  const height = median(shapes.map(({ bounds }) => bounds.yMax - bounds.yMin))!;
  const strokes = shapes.map((shape) => strokesOf(shape));
  const all = strokes.flat();
  const thickness = all.length ? densest(all) / height : 0;
  if (thickness < STROKE[0] || thickness > STROKE[1] || all.length > MOST_STROKES * RAYS * shapes.length) return false;
  const middles = strokes.flatMap((own) => median(own) ?? []);
  const usual = median(middles)!;
  const even = middles.filter((m) => m > usual / SAME_STROKE && m < usual * SAME_STROKE).length;
  const feet = shapes.map(({ bounds }) => bounds.yMin);
  const onLine = Math.max(...feet.map((y) => feet.filter((f) => Math.abs(f - y) < SAME_LINE * height).length));
  const contours = median(shapes.map(({ polygons }) => polygons.length))!;
  return even >= EVEN * shapes.length && onLine >= ON_LINE * shapes.length && contours <= MOST_CONTOURS;
}

function strokesOf({ polygons, bounds: { yMin, yMax } }: Letter): number[] {
  const heights = Array.from({ length: RAYS }, (_, k) => yMin + ((k + 1) / (RAYS + 1)) * (yMax - yMin));
  return heights.flatMap((y) => spansAtY(polygons, y).map((s) => s.to - s.from)).filter((width) => width > 0);
}
