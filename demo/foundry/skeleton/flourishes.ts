// Flourishes of the script: long ends of words, swash capitals, ornaments for the private use area. Own skeletons, nothing traced.
import type { Design } from "../design";
import { ellipse } from "../pen";
import { moveStrokes, Sketch, type Draw, type Drawing } from "../sketch";
import { CAPITALS } from "./capitals";
import { ends, HAIR, JOINED, pen } from "./script";

/** Ends of words: the same letter with its way out drawn long. */
export const TAILED = "adehlmnrtu";
export const tailed =
  (char: string): Draw =>
  (d) => {
    const drawn = JOINED[char]!(d);
    const p = pen(d);
    const w = drawn.width;
    const long = p.step * 2.2;
    p.g.put(
      p.g
        .path(w, p.J, HAIR)
        .curve(w + long * 0.3, p.J + p.X * 0.5, w + long * 0.5, p.X * 0.1, w + long * 0.75, p.X * 0.24, 1)
        .curve(w + long * 0.9, p.X * 0.34, w + long, p.X * 0.7, w + long * 1.02, p.X * 0.95, 0.6),
      { start: "across", end: "round" },
    );
    return { ...drawn, strokes: [...drawn.strokes, ...p.g.strokes], width: w + long, right: 10 };
  };

/** Capitals with a flourish that starts below to the left. */
export const SWASHED = "ABDEFHKLMNPRT";
export const swashed =
  (char: string): Draw =>
  (d) => {
    const drawn = CAPITALS[char]!(d);
    const g = new Sketch(d);
    const C = d.capHeight;
    g.put(
      g
        .path(g.h + 4, C - g.t, 0.9)
        .curve(-C * 0.15, C * 1.12, -C * 0.5, C * 0.95, -C * 0.46, C * 0.7, 0.8)
        .curve(-C * 0.43, C * 0.55, -C * 0.28, C * 0.56, -C * 0.24, C * 0.68, 0.6),
      { start: "across", end: "round" },
    );
    const shiftX = C * 0.42;
    return {
      ...drawn,
      strokes: moveStrokes([...drawn.strokes, ...g.strokes], (q) => ({ x: q.x + shiftX, y: q.y })),
      width: drawn.width + shiftX,
      left: 20,
    };
  };

/** Ornaments in the private use area: flourishes, a heart, a wave, a lamp's rays. */
export const ORNAMENTS: Record<string, Draw> = {
  "flourish.left": (d) => flourish(d, -1),
  "flourish.right": (d) => flourish(d, 1),
  underline: (d) => {
    const g = new Sketch(d);
    const w = d.xHeight * 5;
    g.put(
      g
        .path(0, -60, 0.5)
        .curve(w * 0.3, 40, w * 0.5, -160, w * 0.7, -90, 1)
        .curve(w * 0.85, -40, w * 0.95, -60, w, -20, 0.4),
      { start: "round", end: "round" },
    );
    return g.done(w, 20, 20);
  },
  heart: (d) => {
    const g = new Sketch(d);
    const r = d.xHeight * 0.5;
    g.put(
      g
        .path(r, 0)
        .curve(r * 0.3, r * 0.7, 0, r * 1.1, 0, r * 1.5)
        .curve(0, r * 2.1, r * 0.9, r * 2.1, r, r * 1.45)
        .curve(r * 1.1, r * 2.1, r * 2, r * 2.1, r * 2, r * 1.5)
        .curve(r * 2, r * 1.1, r * 1.7, r * 0.7, r, 0),
      ends,
    );
    return g.done(2 * r, 40, 40);
  },
  wave: (d) => {
    const g = new Sketch(d);
    const s0 = d.xHeight * 0.7;
    const path = g.path(0, 100, 0.7);
    for (let k = 0; k < 3; k++)
      path
        .curve(s0 * (k + 0.3), 320, s0 * (k + 0.7), 320, s0 * (k + 0.8), 160)
        .curve(s0 * (k + 0.85), 60, s0 * (k + 1), 60, s0 * (k + 1), 140);
    g.put(path, { start: "round", end: "round" });
    return g.done(3 * s0, 30, 30);
  },
  lamp: (d) => {
    const g = new Sketch(d);
    const r = d.xHeight * 0.26;
    const c0 = d.xHeight * 0.75;
    g.solids.push(ellipse(c0, c0, r, r));
    for (let k = 0; k < 8; k++) {
      const angle = (k * Math.PI) / 4;
      const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
      g.put(g.path(c0 + dx * r * 1.5, c0 + dy * r * 1.5).line(c0 + dx * r * 2.5, c0 + dy * r * 2.5, 0.6), {
        start: "round",
        end: "round",
      });
    }
    return g.done(2 * c0, 30, 30);
  },
};
function flourish(d: Design, side: 1 | -1): Drawing {
  const g = new Sketch(d);
  const w = d.xHeight * 2.4;
  const x = (v: number) => (side > 0 ? v : w - v);
  g.put(
    g
      .path(x(0), 120, 0.5)
      .curve(x(w * 0.3), 360, x(w * 0.5), 0, x(w * 0.72), 90, 1)
      .curve(x(w), 190, x(w), 420, x(w * 0.82), 400, 0.8)
      .curve(x(w * 0.7), 390, x(w * 0.7), 270, x(w * 0.82), 270, 0.5),
    { start: "round", end: "round" },
  );
  return g.done(w, 24, 24);
}
