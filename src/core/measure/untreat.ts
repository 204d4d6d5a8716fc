// Letters as they would be without their treatment, so that stems and heights mean the same in every face:
// holes inside plain strokes filled (inline, outline), dots taken as a stroke of their width, torn tops taken at their middle.
import { areaOf, type Polygons } from "../geometry/outline";
import { median } from "../geometry/numbers";
import { spansAtX } from "../geometry/rays";
import type { Build } from "./build";
import { pick, type Letter, type Letters } from "./letters";

const { abs, max, min } = Math;

/** Letters that need no hole: a hole in them is a treatment. */
const SOLID = "hnmrlikutfzxvwcsHIEFLTNMUJKVWXYZCS";

/** Letters without the holes of an inline or outline face; the same letters when plain ones have none. */
export function fillTreated(letters: Letters, build: Build): Letters {
  if ((build.holes ?? 0) < 1 || (build.pieces ?? 0) >= 6) return letters;
  const filled = new Map<string, Letter | null>();
  return {
    ...letters,
    get(char) {
      if (!filled.has(char)) {
        const letter = letters.get(char);
        filled.set(char, letter && (SOLID.includes(char) ? { ...letter, polygons: outerOnly(letter.polygons) } : null));
      }
      return filled.get(char)!;
    },
  };
}

/** Contours that turn as the largest one does. */
function outerOnly(polygons: Polygons): Polygons {
  const areas = polygons.map(areaOf);
  const largest = areas.reduce((a, b) => (abs(b) > abs(a) ? b : a), 0);
  return polygons.filter((_, i) => areas[i]! * largest > 0);
}

/** Width of the dots that plain letters are made of; null when they are not. */
export function measureDots(letters: Letters): number | null {
  const widths: number[] = [];
  for (const l of pick(letters, "nhmulitHILTEF")) {
    if (l.polygons.length < 4) return null;
    for (const p of l.polygons) {
      const [w, h] = sizeOf(p);
      if (w / h > 0.75 && w / h < 1.33) widths.push((w + h) / 2);
    }
  }
  return widths.length >= 20 ? median(widths) : null;
}
function sizeOf(p: Float64Array): [number, number] {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < p.length; i += 2) {
    x0 = min(x0, p[i]!);
    x1 = max(x1, p[i]!);
    y0 = min(y0, p[i + 1]!);
    y1 = max(y1, p[i + 1]!);
  }
  return [x1 - x0, max(y1 - y0, 1)];
}

/**
 * Height of a flat top whose edge is torn: middle of the topmost ink over many places along it.
 * @param chars - letters with flat tops. @returns font units; null when none exists.
 */
export function measureTornTop(letters: Letters, chars: string): number | null {
  const tops: number[] = [];
  for (const l of pick(letters, chars)) {
    const { xMin, xMax, yMin, yMax } = l.bounds;
    const zone = yMax - 0.07 * (yMax - yMin);
    for (let k = 0; k < 90; k++) {
      const spans = spansAtX(l.polygons, xMin + ((k + 0.5) / 90) * (xMax - xMin));
      const top = spans[spans.length - 1]?.to;
      if (top !== undefined && top > zone) tops.push(top);
    }
  }
  return tops.length >= 12 ? median(tops) : null;
}
