// Outlines as closed chains of cubic curves: what programs that know only cubic curves take.
import type { Outline } from "../../geometry/outline";
import { splitContours } from "../../letter/letterParts";

/** Corner points with the handles that come in and go out, relative to their point. */
type CubicContour = { points: [number, number][]; into: [number, number][]; out: [number, number][] };

export const cubicsOf = (outline: Outline): CubicContour[] => splitContours(outline).map(cubicOf);

function cubicOf({ verbs, coords }: Outline): CubicContour {
  const contour: CubicContour = { points: [[coords[0]!, coords[1]!]], into: [[0, 0]], out: [[0, 0]] };
  let at = 2;
  for (const verb of verbs.slice(1)) {
    const from = contour.points[contour.points.length - 1]!;
    const take = (): [number, number] => [coords[at++]!, coords[at++]!];
    if (verb === "L") addPoint(contour, from, take(), null, null);
    else if (verb === "Q") {
      const [control, to] = [take(), take()];
      addPoint(contour, from, to, towards(from, control), towards(to, control));
    } else if (verb === "C") {
      const [first, second, to] = [take(), take(), take()];
      addPoint(contour, from, to, first, second);
    }
  }
  return closeUp(contour);
}

const towards = (from: readonly number[], to: readonly number[]): [number, number] => [
  from[0]! + (2 / 3) * (to[0]! - from[0]!),
  from[1]! + (2 / 3) * (to[1]! - from[1]!),
];

function addPoint(
  { points, into, out }: CubicContour,
  from: readonly number[],
  to: [number, number],
  first: readonly number[] | null,
  second: readonly number[] | null,
) {
  if (first) out[out.length - 1] = [first[0]! - from[0]!, first[1]! - from[1]!];
  points.push(to);
  into.push(second ? [second[0]! - to[0], second[1]! - to[1]] : [0, 0]);
  out.push([0, 0]);
}

/** A contour that returns to its first point does not have it twice. */
function closeUp(contour: CubicContour): CubicContour {
  const { points, into, out } = contour;
  const [first, last] = [points[0]!, points[points.length - 1]!];
  if (points.length < 2 || Math.hypot(first[0] - last[0], first[1] - last[1]) > 1e-9) return contour;
  into[0] = into[into.length - 1]!;
  for (const list of [points, into, out]) list.pop();
  return contour;
}
