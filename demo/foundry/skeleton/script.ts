// A connected script: every small letter comes in from the left at one height and goes out to the right at the same.
// Written as with a pen that stays on the paper; capitals are looser and do not join. Own skeletons, nothing traced.
import type { Design } from "../design";
import { Sketch, type Draw, type Drawing } from "../sketch";

/** X: skeleton height of round tops, which reach the x-height without overshoot; H: where flat ends of stems stand. */
type Pen = { g: Sketch; X: number; H: number; J: number; step: number; turn: number };

/** How far strokes reach over the frame, so that neighbours' outlines meet. */
const OVER = 9;
export const pen = (d: Design): Pen => {
  const g = new Sketch(d);
  const step = d.width * d.xHeight * 0.5 + d.stem * 0.25;
  return {
    g,
    X: d.xHeight - g.t,
    H: d.xHeight,
    J: d.xHeight * 0.44,
    step,
    turn: Math.min(step * 0.42, d.xHeight * 0.34),
  };
};
export const ends = { start: "across", end: "across" } as const;
export const HAIR = 0.72;

/** From the left edge up to a point, arriving upward. */
const rise = ({ g, J }: Pen, x: number, y: number) =>
  g.path(-OVER, J - 4, HAIR).curve(x * 0.4, J + (y - J) * 0.25, x, y - (y - J) * 0.35, x, y, 1);
/** Down a stem to the baseline, round the turn and out to the right edge. */
const leave = (p: Pen, path: ReturnType<Sketch["path"]>, x: number, w: number) =>
  path
    .line(x, p.turn + p.g.bottom)
    .over(x + p.turn * 0.85, p.g.bottom, 0.9)
    .curve(x + p.turn * 1.6, p.g.bottom, w - (w - x) * 0.12, p.J * 0.6, w + OVER, p.J + 4, HAIR);
const done = (g: Sketch, w: number): Drawing => g.done(w, 0, 0);

const stemOut = (p: Pen, x: number, top: number, w: number) => p.g.put(leave(p, p.g.path(x, top), x, w), ends);
/** An arch out of a stem at x0, down the stem at x1; the stem goes on to the baseline. */
const overTo = (p: Pen, path: ReturnType<Sketch["path"]>, x1: number) => {
  return path
    .curve(x1 - p.step * 0.62, p.X * 0.92, x1 - p.step * 0.42, p.X, x1 - p.step * 0.22, p.X, 0.9)
    .down(x1, p.X - p.turn * 0.9, 1);
};
const archFrom = (p: Pen, x0: number, x1: number) => overTo(p, p.g.path(x0, p.X * 0.35, HAIR), x1);

const i: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.62;
  const w = x + p.step * 0.62;
  p.g.put(rise(p, x, p.X), ends);
  stemOut(p, x, p.H, w);
  p.g.dot(x, d.xHeight * 1.42);
  return done(p.g, w);
};
const withoutDot =
  (draw: Draw): Draw =>
  (d) => ({ ...draw(d), solids: [] });

const n: Draw = (d) => humps(d, 2);
const m: Draw = (d) => humps(d, 3);
function humps(d: Design, count: number): Drawing {
  const p = pen(d);
  const first = p.step * 0.66;
  const at = Array.from({ length: count }, (_, k) => first + k * p.step * 1.02);
  const w = at[count - 1]! + p.step * 0.6;
  at.forEach((x, k) => {
    const path = k === 0 ? overTo(p, p.g.path(-OVER, p.J - 4, HAIR), x) : archFrom(p, at[k - 1]!, x);
    p.g.put(k === count - 1 ? leave(p, path, x, w) : path.line(x, 0), {
      start: "across",
      end: k === count - 1 ? "across" : "round",
    });
  });
  return done(p.g, w);
}
/** Up to x0, down, round the bottom and up to x1: the left of u and y. */
function cup(p: Pen, x0: number, x1: number) {
  p.g.put(rise(p, x0, p.X), ends);
  p.g.put(
    p.g
      .path(x0, p.H)
      .line(x0, p.turn + p.g.bottom)
      .over(x0 + p.turn, p.g.bottom, 0.9)
      .curve(x0 + p.turn * 1.7, p.g.bottom, x1, p.X * 0.4, x1, p.H, HAIR),
    ends,
  );
}
const u: Draw = (d) => {
  const p = pen(d);
  const x0 = p.step * 0.62;
  const x1 = x0 + p.step;
  const w = x1 + p.step * 0.6;
  cup(p, x0, x1);
  stemOut(p, x1, p.H, w);
  return done(p.g, w);
};
/** The round of a, d, g, q, o: its left edge meets the entry. */
function round(p: Pen, from: number): { right: number; cy: number } {
  const rx = p.step * 0.5;
  const cy = p.X / 2 + p.g.bottom / 2;
  p.g.ring(from + rx, cy, rx, p.X - cy);
  p.g.put(p.g.path(-OVER, p.J - 4, HAIR).curve(from * 0.4, p.J, from * 0.8, p.J + 6, from + 6, p.J + 18, HAIR), ends);
  return { right: from + 2 * rx, cy };
}
/** A round and a stem beside it, as high as asked. */
const roundAndStem =
  (top: (p: Pen, d: Design) => number): Draw =>
  (d) => {
    const p = pen(d);
    const { right } = round(p, p.step * 0.3);
    const w = right + p.step * 0.6;
    stemOut(p, right, top(p, d), w);
    return done(p.g, w);
  };
const a = roundAndStem((p) => p.H);
const dd = roundAndStem((_, d) => d.ascender);
const o: Draw = (d) => {
  const p = pen(d);
  const { right } = round(p, p.step * 0.3);
  const w = right + p.step * 0.42;
  p.g.put(
    p.g
      .path(right - p.step * 0.34, p.X * 0.93, HAIR)
      .curve(right - p.step * 0.1, p.X * 0.66, w - p.step * 0.25, p.J * 0.98, w + OVER, p.J + 4, HAIR),
    ends,
  );
  return done(p.g, w);
};
/** A loop below: down from x, round to the left, and up across the stem to the right edge. */
function loopBelow(p: Pen, d: Design, x: number, top: number, w: number) {
  const low = d.descender + p.g.t;
  const reach = p.step * 0.62;
  p.g.put(
    p.g
      .path(x, top)
      .line(x, low + reach * 0.6)
      .curve(x, low + reach * 0.1, x - reach * 0.25, low, x - reach * 0.55, low, 0.9)
      .curve(x - reach * 1.1, low, x - reach * 1.05, low * 0.3, x, -p.turn * 0.05, HAIR)
      .curve(x + p.step * 0.2, p.J * 0.35, w - p.step * 0.1, p.J * 0.8, w + OVER, p.J + 4, HAIR),
    ends,
  );
}
const g_: Draw = (d) => {
  const p = pen(d);
  const { right } = round(p, p.step * 0.3);
  const w = right + p.step * 0.55;
  loopBelow(p, d, right, p.X, w);
  return done(p.g, w);
};
const q: Draw = (d) => {
  const p = pen(d);
  const { right } = round(p, p.step * 0.3);
  const w = right + p.step * 0.6;
  p.g.put(p.g.path(right, p.X).line(right, d.descender), { start: "across", end: "round" });
  p.g.put(p.g.path(right, 0, HAIR).curve(right + p.step * 0.25, p.J * 0.3, w - 10, p.J * 0.8, w + OVER, p.J + 4), ends);
  return done(p.g, w);
};
const y: Draw = (d) => {
  const p = pen(d);
  const x0 = p.step * 0.62;
  const x1 = x0 + p.step;
  const w = x1 + p.step * 0.55;
  cup(p, x0, x1);
  loopBelow(p, d, x1, p.X, w);
  return done(p.g, w);
};
const j: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.62;
  const w = x + p.step * 0.55;
  p.g.put(rise(p, x, p.X), ends);
  loopBelow(p, d, x, p.X, w);
  p.g.dot(x, d.xHeight * 1.42);
  return done(p.g, w);
};
const e: Draw = (d) => {
  const p = pen(d);
  const from = p.step * 0.34;
  const rx = p.step * 0.44;
  const w = from + 2 * rx + p.step * 0.42;
  p.g.put(
    p.g
      .path(-OVER, p.J - 4, HAIR)
      .curve(from + rx * 0.6, p.J * 1.02, from + 2 * rx, p.X * 0.62, from + 2 * rx * 0.94, p.X * 0.78, 0.9)
      .over(from + rx, p.X)
      .down(from, p.X * 0.46, 1)
      .over(from + rx * 1.05, p.g.bottom, 1)
      .curve(from + rx * 1.9, p.g.bottom, w - p.step * 0.12, p.J * 0.55, w + OVER, p.J + 4, HAIR),
    ends,
  );
  return done(p.g, w);
};
const c: Draw = (d) => {
  const p = pen(d);
  const from = p.step * 0.3;
  const rx = p.step * 0.45;
  const w = from + 2 * rx + p.step * 0.38;
  p.g.put(p.g.path(-OVER, p.J - 4, HAIR).curve(from * 0.5, p.J, from * 0.8, p.J + 4, from + 4, p.J + 12), ends);
  p.g.put(
    p.g
      .path(from + 1.8 * rx, p.X * 0.8)
      .over(from + rx, p.X)
      .down(from, p.X * 0.48)
      .over(from + rx * 1.05, p.g.bottom)
      .curve(from + rx * 1.9, p.g.bottom, w - p.step * 0.12, p.J * 0.55, w + OVER, p.J + 4, HAIR),
    { start: "round", end: "across" },
  );
  return done(p.g, w);
};
/** A tall loop: up on the right, over, down on x. */
function loopAbove(p: Pen, d: Design, x: number) {
  const top = p.g.top(d.ascender);
  const wide = p.step * 0.42;
  return p.g
    .path(-OVER, p.J - 4, HAIR)
    .curve(x * 0.7, p.J + 10, x + wide, d.ascender * 0.6, x + wide, top - wide * 0.75, HAIR)
    .over(x + wide * 0.5, top, 0.85)
    .down(x, top - wide * 1.1, 1);
}
const l: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.42;
  const w = x + p.step * 0.66;
  p.g.put(leave(p, loopAbove(p, d, x), x, w), ends);
  return done(p.g, w);
};
const h: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.42;
  const x1 = x + p.step * 1.02;
  const w = x1 + p.step * 0.6;
  p.g.put(loopAbove(p, d, x).line(x, 0), { start: "across", end: "round" });
  p.g.put(leave(p, archFrom(p, x, x1), x1, w), ends);
  return done(p.g, w);
};
const b: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.42;
  const far = x + p.step * 0.95;
  const w = far + p.step * 0.42;
  p.g.put(
    loopAbove(p, d, x)
      .line(x, p.turn + p.g.bottom)
      .over(x + p.step * 0.46, p.g.bottom)
      .down(far, p.X * 0.5)
      .over(far - p.step * 0.34, p.X, 0.8),
    { start: "across", end: "across" },
  );
  p.g.put(
    p.g
      .path(far - p.step * 0.36, p.X * 0.98, HAIR)
      .curve(far - p.step * 0.1, p.X * 0.64, w - p.step * 0.25, p.J * 0.95, w + OVER, p.J + 4),
    ends,
  );
  return done(p.g, w);
};
const k: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.42;
  const eye = x + p.step * 0.86;
  const w = eye + p.step * 0.6;
  p.g.put(loopAbove(p, d, x).line(x, 0), { start: "across", end: "round" });
  p.g.put(
    archFrom(p, x, eye).curve(eye, p.X * 0.5, x + p.step * 0.5, p.X * 0.46, x + p.step * 0.12, p.X * 0.46, 0.85),
    ends,
  );
  p.g.put(
    p.g
      .path(x + p.step * 0.3, p.X * 0.46)
      .curve(x + p.step * 0.7, p.X * 0.4, x + p.step * 0.55, p.g.bottom, x + p.step * 1.02, p.g.bottom)
      .curve(x + p.step * 1.25, p.g.bottom, w - p.step * 0.12, p.J * 0.6, w + OVER, p.J + 4, HAIR),
    ends,
  );
  return done(p.g, w);
};
const f: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.42;
  const w = x + p.step * 0.66;
  const low = d.descender + p.g.t;
  const wide = p.step * 0.4;
  p.g.put(
    loopAbove(p, d, x)
      .line(x, low + wide)
      .over(x + wide * 0.5, low, 0.85)
      .curve(x + wide * 1.2, low, x + wide * 0.9, -p.turn * 0.2, x, p.g.bottom + 6, HAIR),
    ends,
  );
  p.g.put(
    p.g.path(x, p.J * 0.12, HAIR).curve(x + p.step * 0.2, p.J * 0.2, w - 12, p.J * 0.75, w + OVER, p.J + 4),
    ends,
  );
  return done(p.g, w);
};
const t: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.5;
  const w = x + p.step * 0.64;
  p.g.put(rise(p, x, p.X * 1.1), ends);
  stemOut(p, x, d.xHeight * 1.5, w);
  p.g.put(p.g.path(x - p.step * 0.42, d.xHeight * 1.06, 0.9).line(x + p.step * 0.5, d.xHeight * 1.12), {
    start: "round",
    end: "round",
  });
  return done(p.g, w);
};
const r: Draw = (d) => {
  const p = pen(d);
  const x0 = p.step * 0.5;
  const x1 = x0 + p.step * 0.62;
  const w = x1 + p.step * 0.6;
  p.g.put(rise(p, x0, p.X * 1.04), { start: "across", end: "round" });
  p.g.put(
    p.g.path(x0 - 2, p.X, 0.9).curve(x0 + p.step * 0.12, p.X * 0.84, x1 - p.step * 0.3, p.X * 0.98, x1, p.X * 0.92),
    ends,
  );
  stemOut(p, x1, p.X * 0.94, w);
  return done(p.g, w);
};
const s: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.52;
  const w = x + p.step * 0.92;
  p.g.put(rise(p, x, p.X * 1.02), { start: "across", end: "round" });
  p.g.put(
    p.g
      .path(x, p.X * 0.98)
      .curve(x + p.step * 0.1, p.X * 0.62, x + p.step * 0.48, p.X * 0.52, x + p.step * 0.44, p.X * 0.24)
      .curve(x + p.step * 0.4, p.g.bottom, x + p.step * 0.02, p.g.bottom, x - p.step * 0.16, p.X * 0.1, 0.8),
    { start: "across", end: "round" },
  );
  p.g.put(
    p.g
      .path(x + p.step * 0.18, p.g.bottom + 3, HAIR)
      .curve(x + p.step * 0.6, p.g.bottom, w - p.step * 0.14, p.J * 0.6, w + OVER, p.J + 4),
    ends,
  );
  return done(p.g, w);
};
const pp: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.58;
  const far = x + p.step * 0.98;
  const w = far + p.step * 0.36;
  p.g.put(rise(p, x, p.X), ends);
  p.g.put(p.g.path(x, p.X).line(x, d.descender), { start: "across", end: "round" });
  p.g.put(
    p.g
      .path(x, p.X * 0.4, HAIR)
      .curve(x + p.step * 0.2, p.X * 0.9, x + p.step * 0.3, p.X, x + p.step * 0.5, p.X, 0.9)
      .down(far, p.X * 0.5, 1)
      .over(x + p.step * 0.45, p.g.bottom, 0.9)
      .down(x, p.X * 0.16, HAIR),
    ends,
  );
  p.g.put(
    p.g
      .path(x + p.step * 0.55, p.g.bottom + 4, HAIR)
      .curve(far - 10, p.g.bottom, w - p.step * 0.1, p.J * 0.6, w + OVER, p.J + 4),
    ends,
  );
  return done(p.g, w);
};
/** v and w end high; the way out dips to the joining height. */
const dip = (p: Pen, x: number, w: number) =>
  p.g.put(
    p.g.path(x, p.X * 0.96, HAIR).curve(x + p.step * 0.1, p.X * 0.6, w - p.step * 0.24, p.J * 0.96, w + OVER, p.J + 4),
    ends,
  );
const cups =
  (count: number): Draw =>
  (d) => {
    const p = pen(d);
    let x = p.step * 0.6;
    p.g.put(rise(p, x, p.X), ends);
    for (let c0 = 0; c0 < count; c0++) {
      const x1 = x + p.step * 0.84;
      p.g.put(
        p.g
          .path(x, p.H)
          .line(x, p.turn + p.g.bottom)
          .over(x + p.turn * 0.9, p.g.bottom, 0.9)
          .curve(x + p.turn * 1.7, p.g.bottom, x1, p.X * 0.4, x1, p.H, 0.85),
        { start: "across", end: "across" },
      );
      x = x1;
    }
    const w = x + p.step * 0.42;
    dip(p, x, w);
    return done(p.g, w);
  };
const x_: Draw = (d) => {
  const p = pen(d);
  const x = p.step * 0.6;
  const w = x + p.step * 1.1;
  p.g.put(
    overTo(p, p.g.path(-OVER, p.J - 4, HAIR), x)
      .curve(x, p.X * 0.3, x + p.step * 0.2, p.g.bottom, x + p.step * 0.5, p.g.bottom)
      .curve(x + p.step * 0.8, p.g.bottom, w - p.step * 0.1, p.J * 0.6, w + OVER, p.J + 4, HAIR),
    ends,
  );
  p.g.slope(x - p.step * 0.42, 0, x + p.step * 0.52, p.H, 0.85, { start: "across", end: "across" });
  return done(p.g, w);
};
const z: Draw = (d) => {
  const p = pen(d);
  const x0 = p.step * 0.35;
  const x1 = x0 + p.step * 0.8;
  const w = x1 + p.step * 0.5;
  p.g.put(p.g.path(-OVER, p.J - 4, HAIR).curve(x0 * 0.5, p.J + 20, x0, p.X * 0.8, x0 + 4, p.X), ends);
  p.g.put(p.g.path(x0, p.X).line(x1, p.X), { start: "round", end: "across" });
  p.g.put(p.g.path(x1 - p.g.h * 0.5, p.X).line(x0, p.g.bottom), ends);
  p.g.put(
    p.g
      .path(x0, p.g.bottom)
      .line(x1 - p.step * 0.2, p.g.bottom)
      .curve(x1 + p.step * 0.1, p.g.bottom, w - p.step * 0.1, p.J * 0.6, w + OVER, p.J + 4, HAIR),
    ends,
  );
  return done(p.g, w);
};

export const JOINED: Record<string, Draw> = {
  a,
  b,
  c,
  d: dd,
  e,
  f,
  g: g_,
  h,
  i,
  j,
  k,
  l,
  m,
  n,
  o,
  p: pp,
  q,
  r,
  s,
  t,
  u,
  v: cups(1),
  w: cups(2),
  x: x_,
  y,
  z,
};
export const JOINED_DOTLESS: Record<string, Draw> = { ı: withoutDot(i), ȷ: withoutDot(j) };
