// The outline of a glyph as plain numbers, and what can be done with it without knowing what it draws.
// First in the flow: `outlines` makes these, every other room reads them.

// Taken out of the global object once: the loops below call them millions of times.
const { ceil, hypot, max, min, sqrt } = Math;

/**
 * One outline. `verbs` holds M, L, Q, C, Z; `coords` the numbers they take (2, 2, 4, 6, 0), x then y.
 * Units are the font's own; y grows upward, the baseline is y = 0.
 */
export type Outline = { verbs: string; coords: Float64Array };

/** Closed polygons, each a flat [x0, y0, x1, y1, …]; the last point joins the first. */
export type Polygons = Float64Array[];

/** Affine map: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Affine = { a: number; b: number; c: number; d: number; e: number; f: number };

export type Bounds = { xMin: number; yMin: number; xMax: number; yMax: number };

/** How many numbers each verb takes. */
export const ARITY: Record<string, number> = { M: 2, L: 2, Q: 4, C: 6, Z: 0 };

/** Writes an outline as an SVG path, mapped by `by`, with `digits` decimals. */
export function writePath(outline: Outline, by: Affine, digits = 1): string {
  let at = 0;
  let out = "";
  const n = (v: number) => String(Number(v.toFixed(digits)));
  for (const verb of outline.verbs) {
    out += verb;
    const points: string[] = [];
    for (let k = 0; k < (ARITY[verb] ?? 0); k += 2) {
      const x = outline.coords[at++] ?? 0;
      const y = outline.coords[at++] ?? 0;
      points.push(`${n(by.a * x + by.c * y + by.e)},${n(by.b * x + by.d * y + by.f)}`);
    }
    out += points.join(" ");
  }
  return out;
}

/**
 * Turns curves into short straight pieces.
 * @param stepFu - wanted greatest deviation in the outline's units; pieces per curve are bounded to 2–24.
 * @returns polygons with at least three points; direction of turning is kept.
 */
export function flattenOutline(outline: Outline, stepFu: number): Polygons {
  const polygons: Polygons = [];
  let current: number[] = [];
  let x = 0;
  let y = 0;
  let at = 0;
  const c = outline.coords;
  const close = () => {
    if (current.length >= 6) polygons.push(Float64Array.from(current));
    current = [];
  };
  for (const verb of outline.verbs) {
    if (verb === "M") {
      close();
      x = c[at++]!;
      y = c[at++]!;
      current.push(x, y);
    } else if (verb === "L") {
      x = c[at++]!;
      y = c[at++]!;
      current.push(x, y);
    } else if (verb === "Q") {
      flattenQuadratic(current, x, y, c[at]!, c[at + 1]!, c[at + 2]!, c[at + 3]!, stepFu);
      x = c[at + 2]!;
      y = c[at + 3]!;
      at += 4;
    } else if (verb === "C") {
      flattenCubic(current, x, y, c.subarray(at, at + 6), stepFu);
      x = c[at + 4]!;
      y = c[at + 5]!;
      at += 6;
    } else close();
  }
  close();
  return polygons;
}

const pieces = (deviation: number, step: number) => max(2, min(24, ceil(sqrt(deviation / max(step, 1e-6)))));

function flattenQuadratic(
  out: number[],
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  step: number,
) {
  const n = pieces(hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2) / 4, step);
  for (let i = 1; i <= n; i++) {
    const t = i / n;
    const u = 1 - t;
    out.push(u * u * x0 + 2 * u * t * x1 + t * t * x2, u * u * y0 + 2 * u * t * y1 + t * t * y2);
  }
}

function flattenCubic(out: number[], x0: number, y0: number, p: Float64Array, step: number) {
  const [x1, y1, x2, y2, x3, y3] = p as unknown as [number, number, number, number, number, number];
  const bend = max(hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2), hypot(x1 - 2 * x2 + x3, y1 - 2 * y2 + y3));
  const n = pieces(bend * 0.75, step);
  for (let i = 1; i <= n; i++) {
    const t = i / n;
    const u = 1 - t;
    const [a, b, cc, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    out.push(a * x0 + b * x1 + cc * x2 + d * x3, a * y0 + b * y1 + cc * y2 + d * y3);
  }
}

/** Smallest box around all points; null when there are none. */
export function boundsOf(polygons: Polygons): Bounds | null {
  let [xMin, yMin, xMax, yMax] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const p of polygons)
    for (let i = 0; i < p.length; i += 2) {
      const x = p[i]!;
      const y = p[i + 1]!;
      if (x < xMin) xMin = x;
      if (x > xMax) xMax = x;
      if (y < yMin) yMin = y;
      if (y > yMax) yMax = y;
    }
  return Number.isFinite(xMin) ? { xMin, yMin, xMax, yMax } : null;
}

/** New polygons, each point mapped by `by`. */
export function mapPolygons(polygons: Polygons, by: Affine): Polygons {
  return polygons.map((p) => {
    const out = new Float64Array(p.length);
    for (let i = 0; i < p.length; i += 2) {
      out[i] = by.a * p[i]! + by.c * p[i + 1]! + by.e;
      out[i + 1] = by.b * p[i]! + by.d * p[i + 1]! + by.f;
    }
    return out;
  });
}

/** Signed area (shoelace), positive when turning counter-clockwise with y up. */
export function areaOf(p: Float64Array): number {
  let sum = 0;
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) sum += p[j]! * p[i + 1]! - p[i]! * p[j + 1]!;
  return sum / 2;
}

/** First `by`, then `then`. */
export const joinMaps = (by: Affine, then: Affine): Affine => ({
  a: then.a * by.a + then.c * by.b,
  b: then.b * by.a + then.d * by.b,
  c: then.a * by.c + then.c * by.d,
  d: then.b * by.c + then.d * by.d,
  e: then.a * by.e + then.c * by.f + then.e,
  f: then.b * by.e + then.d * by.f + then.f,
});

/** The map that leaves everything where it is. */
export const IN_PLACE: Affine = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** A new outline, each point mapped by `by`. */
export const mapOutline = ({ verbs, coords }: Outline, by: Affine): Outline => ({
  verbs,
  coords: mapPolygons([coords], by)[0]!,
});

/** Several outlines as one, as they are. */
export function joinOutlines(outlines: readonly Outline[]): Outline {
  if (outlines.length === 1) return outlines[0]!;
  const coords = new Float64Array(outlines.reduce((sum, o) => sum + o.coords.length, 0));
  let at = 0;
  for (const o of outlines) {
    coords.set(o.coords, at);
    at += o.coords.length;
  }
  return { verbs: outlines.map((o) => o.verbs).join(""), coords };
}

/** Whether a point lies within a polygon, however it turns. */
export function isInside(p: Float64Array, x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) {
    const [x0, y0, x1, y1] = [p[j]!, p[j + 1]!, p[i]!, p[i + 1]!];
    if (y0 <= y !== y1 <= y && x < x0 + ((y - y0) / (y1 - y0)) * (x1 - x0)) inside = !inside;
  }
  return inside;
}

export const doBoxesMeet = (a: Bounds, b: Bounds) =>
  a.xMin < b.xMax && b.xMin < a.xMax && a.yMin < b.yMax && b.yMin < a.yMax;

export const middleOf = ({ xMin, xMax, yMin, yMax }: Bounds) => ({ x: (xMin + xMax) / 2, y: (yMin + yMax) / 2 });
