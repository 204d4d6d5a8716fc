// Cubic contours → TrueType outlines (glyf, loca): quadratic curves in whole font units. OpenType 1.9.1, "glyf".
import type { Contour, Point } from "../pen";
import type { DrawnGlyph } from "../face";
import { Bytes } from "./bytes";

export type GlyfPoint = { x: number; y: number; on: boolean };
const mid = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });

const isStraight = (from: Point, [a, b, to]: [Point, Point, Point]) => {
  const off = (p: Point) => Math.abs((to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x));
  return off(a) + off(b) < 0.35 * (Math.hypot(to.x - from.x, to.y - from.y) + 1);
};
export const straightness = (c: Contour): boolean[] =>
  c.curves.map((k, i) => isStraight(i ? c.curves[i - 1]![2] : c.start, k));

/**
 * One contour as TrueType points: every cubic becomes two quadratics, every straight one a line.
 * @param lines - which curves are lines; masters of one variable font have the same ones. @param keepAll - no point is left out.
 */
export function toQuadratic(c: Contour, lines: boolean[], keepAll: boolean): GlyfPoint[] {
  const out: GlyfPoint[] = [];
  const put = (p: Point, on: boolean) => {
    const point = { x: Math.round(p.x), y: Math.round(p.y), on };
    const last = out[out.length - 1];
    if (keepAll || !last || last.x !== point.x || last.y !== point.y || !(last.on && on)) out.push(point);
  };
  let from = c.start;
  c.curves.forEach(([a, b, to], i) => {
    if (!lines[i]) {
      const [ab, bc, cd] = [mid(from, a), mid(a, b), mid(b, to)];
      const [l, r] = [mid(ab, bc), mid(bc, cd)];
      const centre = mid(l, r);
      const control = (p0: Point, c1: Point, c2: Point, p3: Point): Point => ({
        x: (3 * (c1.x + c2.x) - p0.x - p3.x) / 4,
        y: (3 * (c1.y + c2.y) - p0.y - p3.y) / 4,
      });
      put(control(from, ab, l, centre), false);
      put(centre, true);
      put(control(centre, r, cd, to), false);
    }
    put(to, true);
    from = to;
  });
  const [first, last] = [out[0]!, out[out.length - 1]!];
  if (!keepAll && out.length > 1 && first.on && last.on && first.x === last.x && first.y === last.y) out.pop();
  return out;
}

export type GlyfData = { simple: GlyfPoint[][] } | { parts: { index: number; dx: number; dy: number }[] };

export function glyfDataOf(glyph: DrawnGlyph, indexOf: Map<string, number>): GlyfData {
  if (glyph.parts)
    return {
      parts: glyph.parts.map((p) => ({ index: indexOf.get(p.glyph)!, dx: Math.round(p.dx), dy: Math.round(p.dy) })),
    };
  return { simple: glyph.contours.map((c) => toQuadratic(c, straightness(c), false)).filter((c) => c.length > 1) };
}

export type Box = { xMin: number; yMin: number; xMax: number; yMax: number };
export function boundsOfGlyph(data: GlyfData, all: GlyfData[]): Box | null {
  const points = pointsOf(data, all);
  if (!points.length) return null;
  // Control points count: the box of TrueType holds them, and ours touch the curve at its extremes.
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  return { xMin: Math.min(...xs), yMin: Math.min(...ys), xMax: Math.max(...xs), yMax: Math.max(...ys) };
}
const pointsOf = (data: GlyfData, all: GlyfData[]): { x: number; y: number }[] =>
  "simple" in data
    ? data.simple.flat()
    : data.parts.flatMap((p) => pointsOf(all[p.index]!, all).map(({ x, y }) => ({ x: x + p.dx, y: y + p.dy })));

/** @param overlaps - sets the flag that says contours lie over one another on purpose. */
export function writeGlyf(all: GlyfData[], overlaps: boolean) {
  const glyf = new Bytes();
  const offsets = [0];
  for (const data of all) {
    const box = boundsOfGlyph(data, all);
    if (box) {
      glyf.i16("simple" in data ? data.simple.length : -1, box.xMin, box.yMin, box.xMax, box.yMax);
      if ("simple" in data) writeSimple(glyf, data.simple, overlaps);
      else writeParts(glyf, data.parts);
      glyf.pad(4);
    }
    offsets.push(glyf.length);
  }
  const loca = new Bytes();
  loca.u32(...offsets);
  return { glyf: glyf.done(), loca: loca.done() };
}

function writeSimple(out: Bytes, contours: GlyfPoint[][], overlaps: boolean) {
  let end = -1;
  for (const c of contours) out.u16((end += c.length));
  out.u16(0);
  const points = contours.flat();
  const flags: number[] = [];
  const xs = new Bytes();
  const ys = new Bytes();
  let [px, py] = [0, 0];
  points.forEach((p, i) => {
    let flag = (p.on ? 1 : 0) | (i === 0 && overlaps ? 0x40 : 0);
    flag |= writeStep(xs, p.x - px, 0x02, 0x10);
    flag |= writeStep(ys, p.y - py, 0x04, 0x20);
    [px, py] = [p.x, p.y];
    flags.push(flag);
  });
  out
    .u8(...flags)
    .bytes(xs.done())
    .bytes(ys.done());
}
function writeStep(out: Bytes, step: number, short: number, same: number): number {
  if (step === 0) return same;
  if (Math.abs(step) < 256) {
    out.u8(Math.abs(step));
    return short | (step > 0 ? same : 0);
  }
  out.i16(step);
  return 0;
}
function writeParts(out: Bytes, parts: { index: number; dx: number; dy: number }[]) {
  parts.forEach((p, i) => {
    const more = i < parts.length - 1 ? 0x20 : 0;
    // Words, offsets as x and y, rounded to the grid; the first part lends its metrics.
    out.u16(0x0001 | 0x0002 | 0x0004 | more | (i === 0 ? 0x0200 : 0), p.index).i16(p.dx, p.dy);
  });
}
