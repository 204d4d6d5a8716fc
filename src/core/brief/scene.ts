// Shapes drawn by hand over the brief's picture, as paths; and a hand's way thinned to the points that it needs.
import type { FrontShape } from "@/contracts/brief";

type Point = readonly [number, number];

/** Points of a hand's way that are nearer to the one before, in parts of the width, say nothing. */
const LEAST_SHARE = 0.004;
/** As many as a shape may have. */
const MOST_POINTS = 500;

/**
 * @param points - in parts of the picture's width and height. @param ratio - its width by its height.
 * @returns what is left: the first, the last, and points that are far enough from each other; no more than a shape may have.
 */
export function thinPoints(points: readonly Point[], ratio: number): [number, number][] {
  const kept: Point[] = [];
  for (const point of points) {
    const last = kept[kept.length - 1];
    if (!last || Math.hypot(point[0] - last[0], (point[1] - last[1]) / ratio) >= LEAST_SHARE) kept.push(point);
  }
  const end = points[points.length - 1];
  if (end && kept[kept.length - 1] !== end) kept.push(end);
  const stride = Math.ceil(kept.length / MOST_POINTS);
  return kept
    .filter((_, i) => i % stride === 0 || i === kept.length - 1)
    .slice(-MOST_POINTS)
    .map(([x, y]) => [round(x), round(y)]);
}
const round = (v: number) => Math.round(v * 10_000) / 10_000;

/**
 * The path of a shape: closed for an outline, the middle of the stroke for a brush.
 * @param size - of the picture as it is drawn. @returns SVG path data in its units.
 */
export function pathOfShape(
  { kind, points }: Pick<FrontShape, "kind" | "points">,
  size: { width: number; height: number },
) {
  const at = ([x, y]: Point) => `${(x * size.width).toFixed(1)} ${(y * size.height).toFixed(1)}`;
  const [first, ...others] = points;
  if (!first) return "";
  // A dab is a stroke that ends where it begins.
  const rest = others.length ? others : [first];
  return `M${at(first)}${rest.map((p) => `L${at(p)}`).join("")}${kind === "outline" ? "Z" : ""}`;
}
