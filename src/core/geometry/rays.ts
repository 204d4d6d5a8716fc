// Rays through polygons: where a straight line enters and leaves the ink. The base of stems, widths and contrast.
import type { Polygons } from "./outline";

// Taken out of the global object once: the loops below call them millions of times.
const { max } = Math;

/** A stretch of ink along a ray, from < to. */
export type Span = { from: number; to: number };

/**
 * Ink along the horizontal line at height y, by non-zero winding.
 * @returns spans in x, ascending, touching ones joined.
 */
export function spansAtY(polygons: Polygons, y: number): Span[] {
  return inkSpans(crossings(polygons, y, 1, 0));
}

/** Ink along the vertical line at x. @returns spans in y, ascending. */
export function spansAtX(polygons: Polygons, x: number): Span[] {
  return inkSpans(crossings(polygons, x, 0, 1));
}

/**
 * Ink along any ray from a point. @param angleRad - counter-clockwise from the x axis, y up.
 * @returns spans as distances ≥ 0 from the point.
 */
export function spansAlong(polygons: Polygons, x: number, y: number, angleRad: number): Span[] {
  const cos = Math.cos(angleRad);
  const sin = Math.sin(angleRad);
  const turned = polygons.map((p) => {
    const out = new Float64Array(p.length);
    for (let i = 0; i < p.length; i += 2) {
      const dx = p[i]! - x;
      const dy = p[i + 1]! - y;
      out[i] = dx * cos + dy * sin;
      out[i + 1] = -dx * sin + dy * cos;
    }
    return out;
  });
  return spansAtY(turned, 0)
    .filter((s) => s.to > 0)
    .map((s) => ({ from: max(0, s.from), to: s.to }));
}

type Crossing = { at: number; turn: number };

function crossings(polygons: Polygons, level: number, along: 0 | 1, across: 0 | 1): Crossing[] {
  // `along` = 1 reads y as the crossed coordinate and x as the place; 0 the other way round.
  const cross = along === 1 ? 1 : 0;
  const place = across === 1 ? 1 : 0;
  const found: Crossing[] = [];
  for (const p of polygons) {
    let a = p[p.length - 2 + cross]!;
    let pa = p[p.length - 2 + place]!;
    for (let i = 0; i < p.length; i += 2) {
      const b = p[i + cross]!;
      const pb = p[i + place]!;
      if (a <= level !== b <= level) found.push({ at: pa + ((level - a) / (b - a)) * (pb - pa), turn: b > a ? 1 : -1 });
      a = b;
      pa = pb;
    }
  }
  return found.sort((m, n) => m.at - n.at);
}

function inkSpans(list: Crossing[]): Span[] {
  const spans: Span[] = [];
  let winding = 0;
  let from = 0;
  for (const { at, turn } of list) {
    const before = winding;
    winding += turn;
    if (before === 0 && winding !== 0) from = at;
    if (before !== 0 && winding === 0 && at > from) spans.push({ from, to: at });
  }
  return spans.filter((s) => s.to - s.from > 1e-6);
}
