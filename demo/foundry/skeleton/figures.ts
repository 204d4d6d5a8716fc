// Figures: lining by default; the same skeletons at small height and below the line make old-style ones.
import { capCounterOf, counterOf, type Design } from "../design";
import { moveStrokes, Sketch, type Drawing } from "../sketch";

type Draw = (d: Design, height: number) => Drawing;
/** Width of a figure's counter; all figures but 1 are drawn to one width, so that tabular ones look even. */
const inner = (d: Design) => (capCounterOf(d) * 0.86 + counterOf(d)) / 2;

const zero: Draw = (d, H) => {
  const g = new Sketch(d);
  const w = inner(d) * 1.02 + 2 * g.S;
  g.ring(w / 2, H / 2, w / 2 - g.h, H / 2 + (g.top(H) - H));
  return g.done(w, "round", "round");
};
const one: Draw = (d, H) => {
  const g = new Sketch(d);
  const w = inner(d) * 0.45 + 1.2 * g.S;
  const x = w - g.h;
  g.stem(x, 0, H, d.serif === "none" ? {} : { foot: "both" });
  g.put(g.path(x, H - g.t * 0.8).line(0, H * 0.8), { start: "across", end: "upright" });
  return g.done(w, "open", "straight");
};
const two: Draw = (d, H) => {
  const g = new Sketch(d);
  const w = inner(d) * 0.94 + 2 * g.S;
  const xr = w - g.h * 1.1;
  g.put(
    g
      .path(g.h, H * 0.72)
      .over(w * 0.48, g.top(H))
      .down(xr, H * 0.71)
      .curve(xr, H * 0.5, g.h * 1.25, H * 0.3, g.h * 1.25, g.t),
    { end: "level" },
  );
  g.bar(g.h * 0.25, w - g.S * 0.05, g.t);
  return g.done(w, "round", "round");
};
const three: Draw = (d, H) => {
  const g = new Sketch(d);
  const w = inner(d) * 0.94 + 2 * g.S;
  const mid = H * 0.525;
  g.put(
    g
      .path(g.h * 1.1, H * 0.77)
      .over(w * 0.47, g.top(H))
      .down(w - g.h * 1.25, (mid + H) / 2)
      .over(w * 0.5, mid)
      .line(w * 0.38, mid),
    { end: "across" },
  );
  g.put(
    g
      .path(w * 0.38, mid)
      .line(w * 0.5, mid)
      .down(w - g.h, (mid + g.bottom) / 2)
      .over(w * 0.47, g.bottom)
      .down(g.h, H * 0.24),
    { start: "across" },
  );
  return g.done(w, "round", "round");
};
const four: Draw = (d, H) => {
  const g = new Sketch(d);
  const w = inner(d) * 1.05 + 2 * g.S;
  const x = w * 0.72;
  const bar = H * 0.25;
  g.stem(x, 0, H);
  g.slope(x - g.h * 0.2, H, g.h * 0.7, bar, g.slim, { end: "level" });
  g.bar(g.h * 0.1, w, bar);
  return g.done(w, "diagonal", "diagonal");
};
const five: Draw = (d, H) => {
  const g = new Sketch(d);
  const w = inner(d) * 0.92 + 2 * g.S;
  g.bar(g.S * 0.35, w - g.S * 0.25, H - g.t);
  g.put(g.path(g.S * 0.35 + g.h, H - g.t).line(g.h * 1.1, H * 0.5), { start: "across", end: "level" });
  g.put(
    g
      .path(g.h * 1.1, H * 0.52)
      .curve(w * 0.3, H * 0.66, w - g.h, H * 0.68, w - g.h, H * 0.32)
      .over(w * 0.46, g.bottom)
      .down(g.h, H * 0.2),
    { start: "across" },
  );
  return g.done(w, "round", "round");
};
const six: Draw = (d, H) => {
  const g = new Sketch(d);
  const w = inner(d) * 0.98 + 2 * g.S;
  const ry = H * 0.31;
  g.ring(w / 2, g.bottom + ry, w / 2 - g.h, ry);
  g.put(
    g
      .path(g.h, g.bottom + ry)
      .line(g.h, H * 0.45)
      .over(w * 0.56, g.top(H))
      .down(w - g.h * 1.1, H * 0.8),
    { start: "across" },
  );
  return g.done(w, "round", "round");
};
const seven: Draw = (d, H) => {
  const g = new Sketch(d);
  const w = inner(d) * 0.9 + 2 * g.S;
  g.bar(0, w - g.S * 0.1, H - g.t);
  g.slope(w - g.h * 1.1, H - g.t * 0.5, w * 0.36, 0, 1);
  return g.done(w, "diagonal", "diagonal");
};
const eight: Draw = (d, H) => {
  const g = new Sketch(d);
  const w = inner(d) * 1 + 2 * g.S;
  const waist = H * 0.53;
  const [low, high] = [(waist - g.bottom) / 2, (g.top(H) - waist) / 2];
  g.ring(w / 2, g.bottom + low, w / 2 - g.h, low);
  g.ring(w / 2, waist + high, w / 2 - g.h * 1.25, high);
  return g.done(w, "round", "round");
};
/** Nine is six turned about its middle. */
const nine: Draw = (d, H) => {
  const drawn = six(d, H);
  const turn = (p: { x: number; y: number }) => ({ x: drawn.width - p.x, y: H - p.y });
  return { ...drawn, strokes: moveStrokes(drawn.strokes, turn) };
};

export const FIGURES: Draw[] = [zero, one, two, three, four, five, six, seven, eight, nine];
/** Old-style: 0–2 stand at the lowercase letters' height, 6 and 8 rise, the rest sink. Height and drop of each. */
export function oldStyle(d: Design, figure: number): { height: number; drop: number } {
  const small = d.xHeight * 1.03;
  if (figure <= 2) return { height: small, drop: 0 };
  if (figure === 6 || figure === 8) return { height: d.capHeight * 0.96, drop: 0 };
  const drop = Math.min(-d.descender * 0.9, d.capHeight - small);
  return { height: small + drop, drop };
}
