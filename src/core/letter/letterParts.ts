// The parts of a letter that can be coloured one by one: each contour that stands for itself, with the counters cut out of it.
import { ARITY, areaOf, flattenOutline, joinOutlines, type Outline, type Polygons } from "../geometry/outline";
import { contains } from "../geometry/polygons";
import { FLAT_MM } from "./placeBlock";

/** Contours of an outline, each an outline of its own. */
export function splitContours({ verbs, coords }: Outline): Outline[] {
  const contours: Outline[] = [];
  let [first, from, at] = [0, 0, 0];
  const end = (to: number) => {
    if (to > first) contours.push({ verbs: verbs.slice(first, to), coords: coords.slice(from, at) });
    [first, from] = [to, at];
  };
  for (let i = 0; i < verbs.length; i++) {
    if (verbs[i] === "M") end(i);
    at += ARITY[verbs[i]!]!;
  }
  end(verbs.length);
  return contours;
}

/** Counters turn against the letter. @param areas - of all contours of a letter, signed. */
function solidAmong(areas: readonly number[]): (area: number) => boolean {
  const total = areas.reduce((sum, a) => sum + a, 0);
  return (area) => area * total > 0;
}

/** How many parts a letter has that is there as polygons already. */
export function countParts(polygons: Polygons): number {
  const areas = polygons.map(areaOf);
  return areas.filter(solidAmong(areas)).length;
}

/** @returns parts in the order in which the font draws their outer contours. */
export function partsOfLetter(outline: Outline): Outline[] {
  const contours = splitContours(outline).flatMap((contour) => {
    const polygon = flattenOutline(contour, FLAT_MM)[0];
    return polygon ? [{ contour, polygon, area: areaOf(polygon) }] : [];
  });
  const isSolid = solidAmong(contours.map((c) => c.area));
  const parts = contours.filter((c) => isSolid(c.area)).map((c) => ({ ...c, counters: [] as Outline[] }));
  for (const counter of contours.filter((c) => !isSolid(c.area))) {
    const around = parts.filter((p) => contains(p.polygon, counter.polygon[0]!, counter.polygon[1]!));
    // The nearest one around it.
    const owner = around.sort((a, b) => Math.abs(a.area) - Math.abs(b.area))[0] ?? parts[0];
    owner?.counters.push(counter.contour);
  }
  return parts.map(({ contour, counters }) => joinOutlines([contour, ...counters]));
}
