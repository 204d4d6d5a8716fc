// Whether neighbouring letters touch when set (scripts), measured on real shaped pairs.
import { boundsOf, mapPolygons } from "../geometry/outline";
import { spansAtY } from "../geometry/rays";
import { glyphsOf, typesetLine } from "../typeset/typesetText";
import type { Letters } from "./letters";

const WORDS = ["minute", "lanterns", "harbour", "evening", "column", "weather"];

/**
 * Share of letter pairs whose outlines meet, 0–1; null when the face has no lower case.
 * Two outlines meet when, at some height, the right edge of the one is at or beyond the left edge of the next.
 */
export function measureConnection(letters: Letters): number | null {
  let pairs = 0;
  let meeting = 0;
  for (const word of WORDS) {
    if ([...word].some((c) => !letters.get(c))) continue;
    const glyphs = glyphsOf(typesetLine(letters.face, word));
    const placed = glyphs.map((g) =>
      mapPolygons(letters.face.polygons(g.glyphId), { a: 1, b: 0, c: 0, d: 1, e: g.xFu, f: g.yFu }),
    );
    for (let i = 0; i + 1 < placed.length; i++) {
      pairs++;
      if (meet(placed[i]!, placed[i + 1]!, letters.em)) meeting++;
    }
  }
  return pairs ? meeting / pairs : null;
}

function meet(a: Float64Array[], b: Float64Array[], em: number): boolean {
  const [left, right] = [boundsOf(a), boundsOf(b)];
  if (!left || !right || right.xMin - left.xMax > em / 500) return false;
  // Finer than the thinnest joining stroke.
  for (let y = -0.25 * em; y < 0.8 * em; y += em / 180) {
    const left = spansAtY(a, y);
    const right = spansAtY(b, y);
    const end = left[left.length - 1]?.to;
    const start = right[0]?.from;
    if (end !== undefined && start !== undefined && start - end <= em / 500) return true;
  }
  return false;
}
