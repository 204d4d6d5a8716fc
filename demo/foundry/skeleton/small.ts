// The lowercase letters a–z. Own skeletons: stems, arches and bowls placed by the design's numbers; nothing is traced.
import type { Design } from "../design";
import { Sketch, type Draw, type Feet } from "../sketch";

const BRANCH = 0.62;
/** Share of the nib where an arch leaves its stem: thinner in contrast, so that joins do not clog. */
const THIN_JOIN = 0.6;

const foot = (feet: Feet = "both") => ({ foot: feet });
const footAndFlag = { foot: "both", head: "left" } as const;

/** An arch from one stem into the next, ending at the baseline or as a hook. */
function arch(g: Sketch, from: number, to: number, height: number, down = 0) {
  const y = height * BRANCH;
  const path = g
    .path(from, y, THIN_JOIN)
    .over((from + to) / 2 + g.h * 0.1, g.top(height), 1)
    .down(to, height * 0.6)
    .line(to, down);
  return g.put(path, { start: "across", end: "level" });
}

/** A bowl beside a stem at `stemX`; `far` is the other side's skeleton. */
function bowl(g: Sketch, stemX: number, far: number, height: number) {
  const mid = (stemX + far) / 2 + (far > stemX ? 1 : -1) * g.h * 0.12;
  const path = g
    .path(stemX, height * 0.68, THIN_JOIN)
    .over(mid, g.top(height), 1)
    .down(far, height / 2)
    .over(mid, g.bottom)
    .down(stemX, height * 0.32, THIN_JOIN);
  return g.put(path, { start: "across", end: "across" });
}

const bowlWidth = (g: Sketch) => g.cn + 2 * g.S + 0.02 * g.d.width * g.d.xHeight;
const roundWidth = (g: Sketch) => g.cn + 2 * g.S + 0.09 * g.d.width * g.d.xHeight;

/** c, and the part of e below its bar: an open bowl. */
function openBowl(g: Sketch, w: number, X: number, from: { x: number; y: number }, low: number) {
  const path = g
    .path(from.x, from.y)
    .over(w / 2, g.top(X))
    .down(g.h, X / 2)
    .over(w / 2 + g.h * 0.1, g.bottom)
    .down(w - g.h * 1.05, low);
  return path;
}

const a2: Draw = (d) => {
  const g = new Sketch(d);
  const X = d.xHeight;
  const w = g.cn * 0.94 + 2 * g.S;
  const xr = w - g.h;
  g.put(
    g
      .path(g.h * 1.1, X * 0.74)
      .over(w * 0.47, g.top(X))
      .down(xr, X * 0.66)
      .line(xr, 0),
    { end: "level" },
  );
  if (d.serif !== "none") g.serif(xr, 0, 1, "right");
  const bowlTop = X * 0.56;
  g.put(
    g
      .path(xr, bowlTop, 0.8)
      .line(w * 0.5, bowlTop, 0.9)
      .down(g.h, X * 0.285, 1)
      .over(w * 0.46, g.bottom, 1)
      .down(xr, X * 0.27, THIN_JOIN),
    { start: "across", end: "across" },
  );
  return g.done(w, 0.7 * sideOf(g), "straight");
};
const sideOf = (g: Sketch) => g.d.spacing * (0.27 * g.cn + 4);

const a1: Draw = (d) => {
  const g = new Sketch(d);
  const w = bowlWidth(g);
  bowl(g, w - g.h, g.h, d.xHeight);
  g.stem(w - g.h, 0, d.xHeight, d.serif === "none" ? {} : foot("right"));
  return g.done(w, "round", "straight");
};

const b: Draw = (d) => {
  const g = new Sketch(d);
  const w = bowlWidth(g);
  g.stem(g.h, 0, d.ascender, { head: "left" });
  bowl(g, g.h, w - g.h, d.xHeight);
  return g.done(w, "straight", "round");
};

const c: Draw = (d) => {
  const g = new Sketch(d);
  const X = d.xHeight;
  const w = roundWidth(g) * 0.86;
  g.put(openBowl(g, w, X, { x: w - g.h * 1.05, y: X * 0.73 }, X * 0.27));
  return g.done(w, "round", "open");
};

const dd: Draw = (d) => {
  const g = new Sketch(d);
  const w = bowlWidth(g);
  bowl(g, w - g.h, g.h, d.xHeight);
  g.stem(w - g.h, 0, d.ascender, { head: "left", foot: "right" });
  return g.done(w, "round", "straight");
};

const e: Draw = (d) => {
  const g = new Sketch(d);
  const X = d.xHeight;
  const w = roundWidth(g) * 0.95;
  const bar = X * 0.51;
  g.put(openBowl(g, w, X, { x: w - g.h, y: bar }, X * 0.26), { start: "across" });
  g.bar(g.h, w - g.h * 0.6, bar, 0.96, { start: "across", end: "across" });
  return g.done(w, "round", "open");
};

const f: Draw = (d) => {
  const g = new Sketch(d);
  const w = g.cn * 0.42 + g.S * 1.75;
  const x = w * 0.42;
  const r = Math.max(g.S * 0.9, w - x);
  if (d.serif !== "none") g.serif(x, 0, 1, "both");
  g.put(
    g
      .path(x, 0)
      .line(x, d.ascender - r)
      .over(x + r * 0.92, g.top(d.ascender)),
    { start: "level", end: "upright" },
  );
  g.bar(x - w * 0.42, x + w * 0.5, d.xHeight - g.t);
  return g.done(w, "diagonal", 0.05 * g.cn);
};

const gg: Draw = (d) => {
  const g = new Sketch(d);
  const w = bowlWidth(g);
  const xr = w - g.h;
  bowl(g, xr, g.h, d.xHeight);
  const low = d.descender + g.t;
  g.put(
    g
      .path(xr, d.xHeight)
      .line(xr, low + Math.max(g.S, -d.descender * 0.7))
      .over(w * 0.48, low)
      .line(w * 0.48 - g.cn * 0.34, low),
    { start: "level", end: "upright" },
  );
  if (d.serif !== "none") g.serif(xr, d.xHeight, -1, "right");
  return g.done(w, "round", "straight");
};

/** A stem as high as asked, and an arch that springs from it. */
const stemAndArch =
  (top: (d: Design) => number): Draw =>
  (d) => {
    const g = new Sketch(d);
    const w = g.cn + 2 * g.S;
    g.stem(g.h, 0, top(d), footAndFlag);
    arch(g, g.h, w - g.h, d.xHeight);
    g.serif(w - g.h, 0, 1, "both");
    return g.done(w, "straight", "straight");
  };
const h = stemAndArch((d) => d.ascender);

/** In a monospaced face, i and l stand on a broad foot so that the pitch is filled. */
function broadFoot(g: Sketch, x: number, top: number) {
  const reach = g.d.monospaced! * 0.27;
  g.bar(x - reach, x + reach, g.t);
  g.bar(x - reach, x, top - g.t, 1, { end: "across" });
}

const i: Draw = (d) => {
  const g = new Sketch(d);
  g.stem(g.h, 0, d.xHeight, d.monospaced ? {} : footAndFlag);
  if (d.monospaced) broadFoot(g, g.h, d.xHeight);
  g.dot(g.h, Math.max(d.xHeight + g.dotSize * 1.15, d.capHeight - g.dotSize * 0.45));
  return g.done(g.S, "straight", "straight");
};

const j: Draw = (d) => {
  const g = new Sketch(d);
  const x = g.h;
  const r = g.cn * 0.42;
  g.put(
    g
      .path(x, d.xHeight)
      .line(x, d.descender + g.t + r)
      .over(x - r, d.descender + g.t),
    { start: "level", end: "upright" },
  );
  if (d.serif !== "none") g.serif(x, d.xHeight, -1, "left");
  g.dot(g.h, Math.max(d.xHeight + g.dotSize * 1.15, d.capHeight - g.dotSize * 0.45));
  return g.done(g.S, "straight", "straight");
};

const k: Draw = (d) => {
  const g = new Sketch(d);
  const X = d.xHeight;
  const w = g.cn * 1.02 + 2 * g.S;
  g.stem(g.h, 0, d.ascender, footAndFlag);
  const arm = w - g.h * 1.2;
  g.slope(g.h, X * 0.34, arm, X, g.slim, { start: "across" });
  const meet = { x: g.h + (arm - g.h) * 0.28, y: X * 0.34 + X * 0.66 * 0.28 };
  g.slope(meet.x, meet.y, w - g.h * 0.95, 0, 1, { start: "across" });
  if (d.serif !== "none") g.serif(arm, X, -1, "both", g.slim).serif(w - g.h * 0.95, 0, 1, "both");
  return g.done(w, "straight", "diagonal");
};

const l: Draw = (d) => {
  const g = new Sketch(d);
  g.stem(g.h, 0, d.ascender, d.monospaced ? {} : footAndFlag);
  if (d.monospaced) broadFoot(g, g.h, d.ascender);
  return g.done(g.S, "straight", "straight");
};

const m: Draw = (d) => {
  const g = new Sketch(d);
  const step = g.cn * 0.93 + g.S;
  const w = 2 * step + g.S;
  g.stem(g.h, 0, d.xHeight, footAndFlag);
  arch(g, g.h, g.h + step, d.xHeight);
  arch(g, g.h + step, g.h + 2 * step, d.xHeight);
  if (d.serif !== "none") {
    const tight = d.serifLength * 2 > g.cn * 0.8;
    g.serif(g.h + step, 0, 1, tight ? "left" : "both").serif(g.h + 2 * step, 0, 1, "both");
  }
  return g.done(w, "straight", "straight");
};

const n = stemAndArch((d) => d.xHeight);

const o: Draw = (d) => {
  const g = new Sketch(d);
  const w = roundWidth(g);
  g.ring(w / 2, d.xHeight / 2, w / 2 - g.h, d.xHeight / 2 + (g.top(d.xHeight) - d.xHeight));
  return g.done(w, "round", "round");
};

const p: Draw = (d) => {
  const g = new Sketch(d);
  const w = bowlWidth(g);
  g.stem(g.h, d.descender, d.xHeight, footAndFlag);
  bowl(g, g.h, w - g.h, d.xHeight);
  return g.done(w, "straight", "round");
};

const q: Draw = (d) => {
  const g = new Sketch(d);
  const w = bowlWidth(g);
  bowl(g, w - g.h, g.h, d.xHeight);
  g.stem(w - g.h, d.descender, d.xHeight, foot());
  return g.done(w, "round", "straight");
};

const r: Draw = (d) => {
  const g = new Sketch(d);
  const X = d.xHeight;
  const w = g.cn * 0.56 + g.S * 1.3;
  const x = d.monospaced ? w * 0.34 : g.h;
  g.stem(x, 0, X, footAndFlag);
  g.put(
    g
      .path(x, X * 0.58, THIN_JOIN)
      .curve(x, X * 0.8, x + (w - x) * 0.42, g.top(X), w - g.h * 0.15, g.top(X) - g.d.xHeight * 0.012, 1),
    { start: "across", end: "upright" },
  );
  return g.done(w, "straight", 0.08 * g.cn);
};

const s: Draw = (d) => {
  const g = new Sketch(d);
  return g.put(spine(g, g.cn * 0.82 + 2 * g.S, d.xHeight)).done(g.cn * 0.82 + 2 * g.S, "round", "round");
};
/** The double turn of s and S. */
export function spine(g: Sketch, w: number, height: number) {
  const [xl, xr] = [g.h, w - g.h];
  const [top, bottom] = [g.top(height), g.bottom];
  const upper = height * 0.735;
  const lower = height * 0.265;
  const pull = height * 0.19;
  return g
    .path(xr - g.S * 0.08, height * 0.76)
    .over(w / 2, top)
    .down(xl + w * 0.015, upper)
    .curve(xl + w * 0.015, upper - pull, xr, lower + pull, xr, lower)
    .over(w / 2, bottom)
    .down(xl, height * 0.24);
}

const t: Draw = (d) => {
  const g = new Sketch(d);
  const X = d.xHeight;
  const w = g.cn * 0.5 + g.S * 1.55;
  const x = w * 0.36;
  const r = Math.max(g.S * 0.75, w - x);
  g.put(
    g
      .path(x, X * 1.27)
      .line(x, r * 0.85)
      .over(x + r * 0.95, g.bottom + 4),
    { start: "level", end: "upright" },
  );
  g.bar(0, x + w * 0.55, X - g.t);
  return g.done(w, "diagonal", 0.1 * g.cn);
};

const u: Draw = (d) => {
  const g = new Sketch(d);
  const w = g.cn + 2 * g.S;
  const X = d.xHeight;
  const xr = w - g.h;
  g.put(
    g
      .path(g.h, X)
      .line(g.h, X * 0.4)
      .over(w / 2 - g.h * 0.1, g.bottom)
      .down(xr, X * (1 - BRANCH), THIN_JOIN),
    { start: "level", end: "across" },
  );
  g.stem(xr, 0, X, { foot: "right", head: "left" });
  g.serif(g.h, X, -1, "left");
  return g.done(w, "straight", "straight");
};

/** Two slopes meeting below; shared by v, w, y. */
function vee(g: Sketch, x0: number, x1: number, height: number, thin: [number, number]) {
  const low = (x0 + x1) / 2;
  g.slope(x0, height, low, 0, thin[0]);
  g.slope(x1, height, low, 0, thin[1]);
}

const v: Draw = (d) => {
  const g = new Sketch(d);
  const w = g.cn * 0.98 + 2 * g.S;
  vee(g, g.h, w - g.h, d.xHeight, [1, g.slim]);
  if (d.serif !== "none") g.serif(g.h, d.xHeight, -1, "both").serif(w - g.h, d.xHeight, -1, "both", g.slim);
  return g.done(w, "diagonal", "diagonal");
};

const w_: Draw = (d) => {
  const g = new Sketch(d);
  const step = (g.cn * 0.98 + 2 * g.S) * 0.78;
  const width = 2 * step;
  const third = (width - g.S) / 2;
  vee(g, g.h, g.h + third, d.xHeight, [1, g.slim]);
  vee(g, g.h + third, g.h + 2 * third, d.xHeight, [1, g.slim]);
  if (d.serif !== "none") g.serif(g.h, d.xHeight, -1, "both").serif(g.h + 2 * third, d.xHeight, -1, "both", g.slim);
  return g.done(width, "diagonal", "diagonal");
};

const x: Draw = (d) => {
  const g = new Sketch(d);
  const w = g.cn * 0.96 + 2 * g.S;
  const X = d.xHeight;
  g.slope(g.h, X, w - g.h, 0, 1);
  g.slope(g.h, 0, w - g.h, X, g.slim);
  if (d.serif !== "none")
    for (const [px, py, up, s_] of [
      [g.h, X, -1, 1],
      [w - g.h, 0, 1, 1],
      [g.h, 0, 1, g.slim],
      [w - g.h, X, -1, g.slim],
    ] as const)
      g.serif(px, py, up, "both", s_);
  return g.done(w, "diagonal", "diagonal");
};

const y: Draw = (d) => {
  const g = new Sketch(d);
  const w = g.cn * 0.98 + 2 * g.S;
  const X = d.xHeight;
  const [x0, x1] = [g.h, w - g.h];
  const low = (x0 + x1) / 2;
  g.slope(x0, X, low, 0, 1);
  const slopeX = (x1 - low) / X;
  g.slope(x1, X, low + slopeX * d.descender, d.descender, g.slim);
  if (d.serif !== "none") g.serif(x0, X, -1, "both").serif(x1, X, -1, "both", g.slim);
  return g.done(w, "diagonal", "diagonal");
};

const z: Draw = (d) => {
  const g = new Sketch(d);
  const w = g.cn * 0.86 + 2 * g.S;
  const X = d.xHeight;
  g.bar(g.S * 0.1, w - g.S * 0.1, X - g.t);
  g.bar(g.S * 0.05, w - g.S * 0.05, g.t);
  g.slope(g.h * 1.1, g.t * 0.6, w - g.h * 1.1, X - g.t * 0.6, 1, { start: "level", end: "level" });
  return g.done(w, "open", "open");
};

export const SMALL: Record<string, Draw> = {
  a: (d) => (d.storeys === 2 ? a2 : a1)(d),
  b,
  c,
  d: dd,
  e,
  f,
  g: gg,
  h,
  i,
  j,
  k,
  l,
  m,
  n,
  o,
  p,
  q,
  r,
  s,
  t,
  u,
  v,
  w: w_,
  x,
  y,
  z,
};
/** i and j without their dots, for accents. */
export const DOTLESS: Record<string, Draw> = {
  ı: (d) => {
    const drawn = i(d);
    return { ...drawn, solids: drawn.solids.slice(0, -1) };
  },
  ȷ: (d) => {
    const drawn = j(d);
    return { ...drawn, solids: drawn.solids.slice(0, -1) };
  },
};
