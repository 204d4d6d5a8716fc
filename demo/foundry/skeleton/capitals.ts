// The capitals A–Z. Own skeletons, as for the lowercase letters.
import { capCounterOf, type Design } from "../design";
import { box, Sketch, type Draw, type Drawing } from "../sketch";
import { spine } from "./small";

const frame = (d: Design) => ({ g: new Sketch(d), C: d.capHeight, cc: capCounterOf(d) });
const both = { foot: "both", head: "both" } as const;
const hasFeet = (g: Sketch) => g.d.serif !== "none";

/** The free end of a bar carries an upright beak in a seriffed face. @param toward - 1 when it points up. */
function beak(g: Sketch, x: number, y: number, toward: 1 | -1) {
  if (!hasFeet(g)) return;
  const wide = Math.max(g.d.serifThickness * 0.9, g.T * 0.7);
  const reach = Math.max(g.d.serifLength * 0.75, g.T) + g.T;
  g.solids.push(box(x - wide, y - g.t * toward, x, y + (reach - g.t) * toward));
}
/** Feet of slopes. */
function feet(g: Sketch, places: [number, number, 1 | -1, number][]) {
  if (hasFeet(g)) for (const [x, y, up, s] of places) g.serif(x, y, up, "both", s);
}

const A: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 1.12 + 2 * g.S;
  const mid = w / 2;
  g.slope(g.h * g.slim, 0, mid, C, g.slim);
  g.slope(w - g.h, 0, mid, C, 1);
  const bar = C * 0.27;
  const at = (y: number) => (mid - g.h) * (y / C) + g.h;
  g.bar(at(bar), w - at(bar), bar, 0.95, { start: "across", end: "across" });
  feet(g, [
    [g.h * g.slim, 0, 1, g.slim],
    [w - g.h, 0, 1, 1],
  ]);
  return g.done(w, "diagonal", "diagonal");
};

/** A bowl that depends on a stem between two heights, closed by level strokes. */
function hangingBowl(g: Sketch, stemX: number, far: number, low: number, high: number) {
  const turn = Math.min((high - low) / 2, Math.max(g.S * 0.6, far - stemX - g.h));
  g.put(
    g
      .path(stemX, high, 1)
      .line(far - turn, high)
      .down(far, (low + high) / 2)
      .over(far - turn, low)
      .line(stemX, low),
    { start: "across", end: "across" },
  );
}

const B: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 0.86 + 2 * g.S;
  const mid = C * 0.53;
  g.stem(g.h, 0, C, { foot: "left", head: "left" });
  hangingBowl(g, g.h, w - g.h * 1.3, mid, C - g.t);
  hangingBowl(g, g.h, w - g.h, g.t, mid);
  return g.done(w, "straight", "round");
};

function openRound(g: Sketch, w: number, C: number, low: number) {
  return g
    .path(w - g.h, C * 0.74)
    .over(w / 2 + g.h * 0.1, g.top(C))
    .down(g.h, C / 2)
    .over(w / 2 + g.h * 0.1, g.bottom)
    .down(w - g.h, low);
}
const Cc: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 1.06 + 2 * g.S;
  return g.put(openRound(g, w, C, C * 0.26)).done(w, "round", "open");
};

const D: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 1.05 + 2 * g.S;
  g.stem(g.h, 0, C, { foot: "left", head: "left" });
  hangingBowl(g, g.h, w - g.h, g.t, C - g.t);
  return g.done(w, "straight", "round");
};

function arms(d: Design, lower: boolean): Drawing {
  const { g, C, cc } = frame(d);
  const w = cc * 0.74 + 1.7 * g.S;
  g.stem(g.h, 0, C, lower ? { foot: "left", head: "left" } : { foot: "both", head: "left" });
  g.bar(g.h, w - g.S * 0.1, C - g.t, 1, { start: "across" });
  g.bar(g.h, w - g.S * 0.35, C * 0.52, 1, { start: "across" });
  beak(g, w - g.S * 0.1, C - g.t, -1);
  if (lower) {
    g.bar(g.h, w, g.t, 1, { start: "across" });
    beak(g, w, g.t, 1);
  }
  return g.done(w, "straight", "open");
}

const G: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 1.12 + 2 * g.S;
  const bar = C * 0.42;
  g.put(
    g
      .path(w - g.h, C * 0.75)
      .over(w / 2, g.top(C))
      .down(g.h, C / 2)
      .over(w / 2, g.bottom)
      .down(w - g.h, C * 0.3)
      .line(w - g.h, bar + g.t),
    { end: "level" },
  );
  g.bar(w * 0.56, w - g.h, bar, 1, { end: "across" });
  return g.done(w, "round", "straight");
};

const H: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc + 2 * g.S;
  g.stem(g.h, 0, C, both).stem(w - g.h, 0, C, both);
  g.bar(g.h, w - g.h, C * 0.52, 1, { start: "across", end: "across" });
  return g.done(w, "straight", "straight");
};

const I: Draw = (d) => {
  const { g, C } = frame(d);
  g.stem(g.h, 0, C, both);
  if (d.monospaced) {
    const reach = d.monospaced * 0.25;
    g.bar(g.h - reach, g.h + reach, g.t).bar(g.h - reach, g.h + reach, C - g.t);
  }
  return g.done(g.S, "straight", "straight");
};

const J: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 0.55 + 1.6 * g.S;
  const x = w - g.h;
  g.put(
    g
      .path(x, C)
      .line(x, C * 0.28)
      .over(w * 0.45, g.bottom)
      .down(g.h, C * 0.22),
    { start: "level" },
  );
  if (hasFeet(g)) g.serif(x, C, -1, "both");
  return g.done(w, "open", "straight");
};

const K: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 0.98 + 2 * g.S;
  g.stem(g.h, 0, C, both);
  const arm = w - g.h * 1.2;
  g.slope(g.h, C * 0.34, arm, C, g.slim, { start: "across" });
  const share = 0.3;
  g.slope(g.h + (arm - g.h) * share, C * (0.34 + 0.66 * share), w - g.h * 0.95, 0, 1, { start: "across" });
  feet(g, [
    [arm, C, -1, g.slim],
    [w - g.h * 0.95, 0, 1, 1],
  ]);
  return g.done(w, "straight", "diagonal");
};

const L: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 0.68 + 1.7 * g.S;
  g.stem(g.h, 0, C, { foot: "left", head: "both" });
  g.bar(g.h, w, g.t, 1, { start: "across" });
  beak(g, w, g.t, 1);
  return g.done(w, "straight", "open");
};

const M: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 1.24 + 2 * g.S;
  const slim = g.slim;
  const [xl, xr] = [g.h * slim, w - g.h];
  g.stem(xl, 0, C, { foot: "both" }, slim).stem(xr, 0, C, both);
  const mid = (xl + xr) / 2;
  g.slope(xl + g.h * (1 - slim) * 0.4, C, mid, C * 0.16, 1);
  g.slope(xr - g.h * 0.2, C, mid, C * 0.16, slim);
  if (hasFeet(g)) g.serif(xl, C, -1, "left", slim);
  return g.done(w, "straight", "straight");
};

const N: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 1.04 + 2 * g.S;
  const slim = g.slim;
  g.stem(g.h * slim, 0, C, { foot: "both" }, slim).stem(w - g.h * slim, 0, C, { head: "both" }, slim);
  g.slope(g.h, C, w - g.h, 0, 1);
  if (hasFeet(g)) g.serif(g.h * slim, C, -1, "left", slim);
  return g.done(w, "straight", "straight");
};

const roundCap = (cc: number, g: Sketch) => cc * 1.2 + 2 * g.S;
const O: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = roundCap(cc, g);
  g.ring(w / 2, C / 2, w / 2 - g.h, C / 2 + (g.top(C) - C));
  return g.done(w, "round", "round");
};

const P: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 0.84 + 2 * g.S;
  g.stem(g.h, 0, C, { foot: "both", head: "left" });
  hangingBowl(g, g.h, w - g.h, C * 0.44, C - g.t);
  return g.done(w, "straight", "open");
};

const Q: Draw = (d) => {
  const drawn = O(d);
  const { g, C, cc } = frame(d);
  const w = roundCap(cc, g);
  g.slope(w * 0.56, C * 0.24, w * 0.98, -C * 0.1, 0.95, { start: "across" });
  return { ...drawn, strokes: [...drawn.strokes, ...g.strokes] };
};

const R: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 0.9 + 2 * g.S;
  const far = w - g.h * 1.25;
  g.stem(g.h, 0, C, { foot: "both", head: "left" });
  hangingBowl(g, g.h, far, C * 0.46, C - g.t);
  g.slope(g.h + (far - g.h) * 0.42, C * 0.46, w - g.h * 0.8, 0, 1, { start: "across" });
  feet(g, [[w - g.h * 0.8, 0, 1, 1]]);
  return g.done(w, "straight", "diagonal");
};

const S: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 0.8 + 2 * g.S;
  return g.put(spine(g, w, C)).done(w, "round", "round");
};

const T: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 0.98 + 1.5 * g.S;
  g.stem(w / 2, 0, C - g.t * 0.5, { foot: "both" });
  g.bar(0, w, C - g.t);
  if (hasFeet(g)) {
    beak(g, w, C - g.t, -1);
    beak(g, Math.max(d.serifThickness * 0.9, g.T * 0.7), C - g.t, -1);
  }
  return g.done(w, "diagonal", "diagonal");
};

const U: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc + 2 * g.S;
  g.put(
    g
      .path(g.h, C)
      .line(g.h, C * 0.36)
      .over(w / 2, g.bottom)
      .down(w - g.h * g.slim, C * 0.36, g.slim)
      .line(w - g.h * g.slim, C),
    { start: "level", end: "level" },
  );
  feet(g, [
    [g.h, C, -1, 1],
    [w - g.h * g.slim, C, -1, g.slim],
  ]);
  return g.done(w, "straight", "straight");
};

const V: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 1.08 + 2 * g.S;
  g.slope(g.h, C, w / 2, 0, 1).slope(w - g.h, C, w / 2, 0, g.slim);
  feet(g, [
    [g.h, C, -1, 1],
    [w - g.h, C, -1, g.slim],
  ]);
  return g.done(w, "diagonal", "diagonal");
};

const W: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const step = cc * 0.88 + 1.3 * g.S;
  const w = 2 * step + g.S;
  for (const from of [g.h, g.h + step]) {
    g.slope(from, C, from + step / 2, 0, 1);
    g.slope(from + step, C, from + step / 2, 0, g.slim);
  }
  feet(g, [
    [g.h, C, -1, 1],
    [g.h + 2 * step, C, -1, g.slim],
  ]);
  return g.done(w, "diagonal", "diagonal");
};

const X: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc + 2 * g.S;
  g.slope(g.h, C, w - g.h, 0, 1).slope(g.h, 0, w - g.h, C, g.slim);
  feet(g, [
    [g.h, C, -1, 1],
    [w - g.h, 0, 1, 1],
    [g.h, 0, 1, g.slim],
    [w - g.h, C, -1, g.slim],
  ]);
  return g.done(w, "diagonal", "diagonal");
};

const Y: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 1.02 + 2 * g.S;
  const meet = C * 0.42;
  g.stem(w / 2, 0, meet + g.S * 0.2, { foot: "both" });
  g.slope(g.h, C, w / 2, meet, 1, { end: "level" }).slope(w - g.h, C, w / 2, meet, g.slim, { end: "level" });
  feet(g, [
    [g.h, C, -1, 1],
    [w - g.h, C, -1, g.slim],
  ]);
  return g.done(w, "diagonal", "diagonal");
};

const Z: Draw = (d) => {
  const { g, C, cc } = frame(d);
  const w = cc * 0.92 + 2 * g.S;
  g.bar(g.S * 0.15, w - g.S * 0.1, C - g.t).bar(g.S * 0.05, w, g.t);
  g.slope(g.h * 1.1, g.t * 0.6, w - g.h * 1.15, C - g.t * 0.6, 1);
  beak(g, w, g.t, 1);
  return g.done(w, "open", "open");
};

export const CAPITALS: Record<string, Draw> = {
  A,
  B,
  C: Cc,
  D,
  E: (d) => arms(d, true),
  F: (d) => arms(d, false),
  G,
  H,
  I,
  J,
  K,
  L,
  M,
  N,
  O,
  P,
  Q,
  R,
  S,
  T,
  U,
  V,
  W,
  X,
  Y,
  Z,
};
