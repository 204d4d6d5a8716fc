// Punctuation, symbols and the accents that are set on letters.
import { capCounterOf, type Design } from "../design";
import { ellipse, mapContour, polygon } from "../pen";
import { moveStrokes, Sketch, type Draw, type Drawing } from "../sketch";
import { CAPITALS } from "./capitals";
import { SMALL } from "./small";

const side = (g: Sketch) => 0.6 * g.d.spacing * (0.27 * g.cn + 4) + 6;
const mid = (d: Design) => d.xHeight * 0.52;

const comma = (g: Sketch, x: number, y: number): void => {
  const s = g.dotSize;
  g.dot(x, y);
  g.solids.push(
    polygon([
      [x + s / 2, y],
      [x + s * 0.05, y - s * 1.35],
      [x - s * 0.42, y - s * 1.35],
      [x - s * 0.1, y],
    ]),
  );
};
const stop: Draw = (d) => {
  const g = new Sketch(d);
  g.dot(g.dotSize / 2, g.dotSize / 2);
  return g.done(g.dotSize, side(g), side(g));
};
const commaSign: Draw = (d) => {
  const g = new Sketch(d);
  comma(g, g.dotSize / 2, g.dotSize / 2);
  return g.done(g.dotSize, side(g), side(g));
};
const colon: Draw = (d) => {
  const g = new Sketch(d);
  g.dot(g.dotSize / 2, g.dotSize / 2).dot(g.dotSize / 2, d.xHeight - g.dotSize / 2);
  return g.done(g.dotSize, side(g), side(g));
};
const semicolon: Draw = (d) => {
  const g = new Sketch(d);
  comma(g, g.dotSize / 2, g.dotSize / 2);
  g.dot(g.dotSize / 2, d.xHeight - g.dotSize / 2);
  return g.done(g.dotSize, side(g), side(g));
};
const exclamation: Draw = (d) => {
  const g = new Sketch(d);
  g.stem(g.dotSize / 2, g.dotSize * 1.7, d.capHeight);
  g.dot(g.dotSize / 2, g.dotSize / 2);
  return g.done(g.dotSize, side(g), side(g));
};
const question: Draw = (d) => {
  const g = new Sketch(d);
  const C = d.capHeight;
  const w = g.cn * 0.72 + 1.7 * g.S;
  const xr = w - g.h;
  g.put(
    g
      .path(g.h, C * 0.76)
      .over(w * 0.46, g.top(C))
      .down(xr, C * 0.73)
      .curve(xr, C * 0.5, w * 0.48, C * 0.52, w * 0.48, g.dotSize * 1.7),
    { end: "level" },
  );
  g.dot(w * 0.48, g.dotSize / 2);
  return g.done(w, side(g), side(g));
};
const turned =
  (draw: Draw): Draw =>
  (d) => {
    const drawn = draw(d);
    const by = (p: { x: number; y: number }) => ({ x: drawn.width - p.x, y: d.xHeight - p.y });
    return {
      ...drawn,
      solids: drawn.solids.map((c) => mapContour(c, by)),
      strokes: moveStrokes(drawn.strokes, by),
    };
  };
const tick =
  (count: number): Draw =>
  (d) => {
    const g = new Sketch(d);
    const step = g.S * 1.5;
    for (let i = 0; i < count; i++) g.stem(g.h + i * step, d.capHeight * 0.64, d.capHeight, {}, 0.9);
    return g.done(g.S + (count - 1) * step, side(g), side(g));
  };
/** Quotes: commas at capital height, at the baseline, or turned over. */
const quotes =
  (count: number, at: "high" | "low", flip: boolean): Draw =>
  (d) => {
    const g = new Sketch(d);
    const step = g.dotSize * 1.35;
    const y = at === "low" ? g.dotSize / 2 : d.capHeight - g.dotSize * 0.5;
    for (let i = 0; i < count; i++) comma(g, g.dotSize / 2 + i * step, y);
    const w = g.dotSize + (count - 1) * step;
    const middle = y - g.dotSize * 0.5;
    const solids = flip ? g.solids.map((c) => mapContour(c, (p) => ({ x: w - p.x, y: 2 * middle - p.y }))) : g.solids;
    return { ...g.done(w, side(g), side(g)), solids };
  };
const dash =
  (em: number): Draw =>
  (d) => {
    const g = new Sketch(d);
    g.bar(0, em, mid(d), 1, { start: "upright", end: "upright" });
    return g.done(em, side(g) * 0.6, side(g) * 0.6);
  };
const slash =
  (flip: boolean): Draw =>
  (d) => {
    const g = new Sketch(d);
    const w = g.cn * 0.9 + g.S;
    const [x0, x1] = flip ? [w - g.h, g.h] : [g.h, w - g.h];
    g.slope(x0, -d.capHeight * 0.06, x1, d.capHeight * 1.06, 0.9);
    return g.done(w, 8, 8);
  };
const paren =
  (right: boolean): Draw =>
  (d) => {
    const g = new Sketch(d);
    const w = g.cn * 0.34 + g.S;
    const [out, inn] = right ? [w - g.h, g.h] : [g.h, w - g.h];
    const [y0, y1] = [d.descender * 0.75, d.ascender * 1.02];
    const m = (y0 + y1) / 2;
    g.put(
      g
        .path(inn, y1)
        .curve(inn, y1, out, m + (y1 - m) * 0.55, out, m)
        .curve(out, m - (m - y0) * 0.55, inn, y0, inn, y0),
      {
        start: "level",
        end: "level",
      },
    );
    return g.done(w, side(g), side(g));
  };
const bracket =
  (right: boolean): Draw =>
  (d) => {
    const g = new Sketch(d);
    const w = g.cn * 0.36 + g.S;
    const [y0, y1] = [d.descender * 0.75, d.ascender * 1.02];
    const x = right ? w - g.h : g.h;
    g.stem(x, y0, y1);
    g.bar(right ? 0 : x, right ? x : w, y0 + g.t).bar(right ? 0 : x, right ? x : w, y1 - g.t);
    return g.done(w, side(g), side(g));
  };
const brace =
  (right: boolean): Draw =>
  (d) => {
    const g = new Sketch(d);
    const w = g.cn * 0.5 + g.S;
    const [y0, y1] = [d.descender * 0.75, d.ascender * 1.02];
    const m = (y0 + y1) / 2;
    const x = w / 2;
    const [tip, end] = right ? [w - g.h * 0.4, g.h * 0.4] : [g.h * 0.4, w - g.h * 0.4];
    const half = (y: number) =>
      g.put(
        g
          .path(end, y)
          .curve(x, y, x, y, x, y + (m - y) * 0.4)
          .curve(x, m - (m - y) * 0.15, x, m, tip, m),
        { start: "across", end: "across" },
      );
    half(y1 - g.t);
    half(y0 + g.t);
    return g.done(w, side(g) * 0.6, side(g) * 0.6);
  };
const pipe: Draw = (d) => {
  const g = new Sketch(d);
  g.stem(g.h, d.descender, d.ascender, {}, 0.85);
  return g.done(g.S, side(g), side(g));
};

const maths =
  (paint: (g: Sketch, w: number, m: number) => void): Draw =>
  (d) => {
    const g = new Sketch(d);
    const w = g.cn * 1.02 + g.S;
    paint(g, w, d.capHeight * 0.46);
    return g.done(w, side(g), side(g));
  };
const plus = maths((g, w, m) => {
  g.bar(0, w, m);
  g.put(g.path(w / 2, m - w / 2).line(w / 2, m + w / 2), { start: "level", end: "level" });
});
const minus = maths((g, w, m) => void g.bar(0, w, m));
const equal = maths((g, w, m) => void g.bar(0, w, m + g.T * 1.1).bar(0, w, m - g.T * 1.1));
const times = maths((g, w, m) => {
  const r = w * 0.4;
  g.put(g.path(w / 2 - r, m - r).line(w / 2 + r, m + r), { start: "across", end: "across" });
  g.put(g.path(w / 2 - r, m + r).line(w / 2 + r, m - r), { start: "across", end: "across" });
});
const divide = maths((g, w, m) => {
  g.bar(0, w, m);
  g.dot(w / 2, m + w * 0.36, g.dotSize * 0.9).dot(w / 2, m - w * 0.36, g.dotSize * 0.9);
});
const less = (flip: boolean) =>
  maths((g, w, m) => {
    const [tip, back] = flip ? [w - g.h * 0.5, g.h * 0.5] : [g.h * 0.5, w - g.h * 0.5];
    g.put(g.path(back, m + w * 0.4).line(tip, m), { start: "across", end: "across" });
    g.put(g.path(tip, m).line(back, m - w * 0.4), { start: "across", end: "across" });
  });
const tilde = maths((g, w, m) => {
  g.put(
    g
      .path(g.h * 0.6, m - g.T * 0.7)
      .curve(w * 0.2, m + g.T * 2.2, w * 0.45, m + g.T, w * 0.5, m)
      .curve(w * 0.55, m - g.T, w * 0.8, m - g.T * 2.2, w - g.h * 0.6, m + g.T * 0.7),
    { start: "across", end: "across" },
  );
});
const asterisk: Draw = (d) => {
  const g = new Sketch(d);
  const r = g.cn * 0.42 + g.h * 0.4;
  const [cx, cy] = [r, d.capHeight - r];
  for (let i = 0; i < 3; i++) {
    const a = Math.PI / 2 + (i * Math.PI) / 3;
    const [dx, dy] = [Math.cos(a) * r, Math.sin(a) * r];
    g.put(g.path(cx - dx, cy - dy, 0.8).line(cx + dx, cy + dy), { start: "across", end: "across" });
  }
  return g.done(2 * r, side(g), side(g));
};
const hash: Draw = (d) => {
  const g = new Sketch(d);
  const w = g.cn * 1.25 + 1.5 * g.S;
  const C = d.capHeight;
  for (const share of [0.3, 0.72]) g.slope(w * share - w * 0.06, 0, w * share + w * 0.06, C, 0.85);
  for (const share of [0.33, 0.67]) g.bar(0, w, C * share, 0.9);
  return g.done(w, side(g), side(g));
};
const at: Draw = (d) => {
  const g = new Sketch({ ...d, stem: d.stem * 0.72, thin: d.thin * 0.72 });
  const C = d.capHeight;
  const w = C * 1.08 * (0.6 + 0.4 * d.width);
  const [cx, cy] = [w / 2, C * 0.42];
  const [rx, ry] = [w / 2 - g.h, C * 0.56];
  const [ix, iy] = [rx * 0.46, ry * 0.46];
  g.ring(cx, cy, ix, iy);
  g.put(
    g
      .path(cx + ix, cy + iy)
      .line(cx + ix, cy - iy * 0.5)
      .curve(cx + ix, cy - iy * 1.35, cx + rx, cy - iy * 1.25, cx + rx, cy)
      .over(cx, cy + ry)
      .down(cx - rx, cy)
      .over(cx, cy - ry)
      .curve(cx + rx * 0.4, cy - ry, cx + rx * 0.6, cy - ry * 0.92, cx + rx * 0.66, cy - ry * 0.85),
    { start: "level", end: "across" },
  );
  return g.done(w, side(g), side(g));
};
const ampersand: Draw = (d) => {
  const g = new Sketch(d);
  const C = d.capHeight;
  const w = capCounterOf(d) * 1.12 + 2 * g.S;
  const [lx, rx] = [g.h, w * 0.7];
  const ux = w * 0.42;
  // One stroke: from the lower right up the diagonal, round the upper eye, down into the bowl, up to the right arm.
  g.put(
    g
      .path(w - g.h * 0.7, 0)
      .line(w * 0.27, C * 0.63)
      .curve(w * 0.2, C * 0.72, w * 0.19, g.top(C), ux, g.top(C))
      .curve(w * 0.66, g.top(C), w * 0.66, C * 0.68, w * 0.5, C * 0.58)
      .curve(w * 0.3, C * 0.47, lx, C * 0.42, lx, C * 0.22)
      .curve(lx, C * 0.02, w * 0.22, g.bottom, w * 0.4, g.bottom)
      .curve(rx, g.bottom, w - g.h * 1.3, C * 0.2, w - g.h * 1.1, C * 0.44),
    { start: "level", end: "level" },
  );
  return g.done(w, "round", "diagonal");
};
const percent: Draw = (d) => {
  const g = new Sketch({ ...d, stem: d.stem * 0.8, thin: d.thin * 0.8 });
  const C = d.capHeight;
  const r = C * 0.2 * (0.5 + 0.5 * d.width);
  const w = C * 0.95 * (0.6 + 0.4 * d.width);
  g.ring(r + g.h, C - r * 1.15 - g.t, r, r * 1.15).ring(w - r - g.h, r * 1.15 + g.t, r, r * 1.15);
  g.slope(w * 0.22, 0, w * 0.78, C, 0.9);
  return g.done(w, side(g), side(g));
};
const degree: Draw = (d) => {
  const g = new Sketch({ ...d, stem: d.stem * 0.75, thin: d.thin * 0.75 });
  const r = d.capHeight * 0.15;
  g.ring(r + g.h, d.capHeight - r - g.t, r, r);
  return g.done(2 * r + g.S, side(g), side(g));
};
const bullet: Draw = (d) => {
  const g = new Sketch(d);
  const r = g.dotSize * 0.85;
  g.solids.push(ellipse(r, mid(d), r, r));
  return g.done(2 * r, side(g), side(g));
};
const middot: Draw = (d) => {
  const g = new Sketch(d);
  g.dot(g.dotSize / 2, mid(d));
  return g.done(g.dotSize, side(g), side(g));
};
const ellipsis: Draw = (d) => {
  const g = new Sketch(d);
  const step = g.dotSize + side(g) * 1.6;
  for (let i = 0; i < 3; i++) g.dot(g.dotSize / 2 + i * step, g.dotSize / 2);
  return g.done(g.dotSize + 2 * step, side(g), side(g));
};
const guillemet =
  (count: number, right: boolean): Draw =>
  (d) => {
    const g = new Sketch(d);
    const half = g.cn * 0.34;
    const m = mid(d);
    const step = g.S * 1.1 + half * 0.35;
    for (let i = 0; i < count; i++) {
      const x0 = g.h + i * step;
      const [tip, back] = right ? [x0 + half * 0.8, x0] : [x0, x0 + half * 0.8];
      for (const up of [1, -1])
        g.put(g.path(back, m + up * half, 0.9).line(tip, m), { start: "across", end: "across" });
    }
    return g.done(g.S + half * 0.8 + (count - 1) * step, side(g), side(g));
  };
/** A sign inside a ring: © and ®. */
const ringed =
  (letter: string): Draw =>
  (d) => {
    const small = {
      ...d,
      stem: d.stem * 0.55,
      thin: d.thin * 0.55,
      capHeight: d.capHeight * 0.52,
      serif: "none" as const,
      width: d.width * 1.1,
    };
    const g = new Sketch(small);
    const inside = CAPITALS[letter]!(small);
    const r = d.capHeight * 0.5;
    const [cx, cy] = [r + g.h, d.capHeight / 2];
    const by = (p: { x: number; y: number }) => ({ x: p.x + cx - inside.width / 2, y: p.y + cy - small.capHeight / 2 });
    g.ring(cx, cy, r, r);
    g.strokes.push(...moveStrokes(inside.strokes, by));
    return g.done(2 * r + g.S, side(g), side(g));
  };
const euro: Draw = (d) => {
  const c = CAPITALS.C!(d);
  const g = new Sketch(d);
  for (const y of [0.58, 0.42]) g.bar(-g.S * 0.25, c.width * 0.66, d.capHeight * y, 0.9);
  return { ...c, strokes: [...c.strokes, ...g.strokes] };
};
const pound: Draw = (d) => {
  const g = new Sketch(d);
  const C = d.capHeight;
  const w = capCounterOf(d) * 0.85 + 2 * g.S;
  const x = w * 0.34;
  g.put(
    g
      .path(w - g.h, C * 0.78)
      .over(w * 0.6, g.top(C))
      .down(x, C * 0.7)
      .line(x, g.t),
    { end: "across" },
  );
  g.bar(0, w, g.t).bar(0, w * 0.72, C * 0.45);
  return g.done(w, "round", "round");
};
const struck =
  (base: Draw, x: number, over: number): Draw =>
  (d) => {
    const drawn = base(d);
    const g = new Sketch(d);
    const H = d.capHeight;
    g.stem(drawn.width * x, -H * over, H * (1 + over), {}, 0.8);
    return { ...drawn, strokes: [...drawn.strokes, ...g.strokes] };
  };
const cent: Draw = (d) => {
  const drawn = SMALL.c!(d);
  const g = new Sketch(d);
  g.stem(drawn.width * 0.54, -d.xHeight * 0.16, d.xHeight * 1.16, {}, 0.8);
  return { ...drawn, strokes: [...drawn.strokes, ...g.strokes] };
};
const section: Draw = (d) => {
  const upper = SMALL.s!({ ...d, xHeight: d.capHeight * 0.62 });
  const move = (dy: number) => moveStrokes(upper.strokes, (p) => ({ x: p.x, y: p.y + dy }));
  return { ...upper, strokes: [...move(d.capHeight * 0.38), ...move(-d.capHeight * 0.08)] };
};
const underscore: Draw = (d) => {
  const g = new Sketch(d);
  g.bar(0, 500, -g.T * 1.6);
  return g.done(500, 0, 0);
};
const caret: Draw = (d) => {
  const g = new Sketch(d);
  const w = g.cn * 0.9 + g.S;
  for (const x of [g.h * 0.6, w - g.h * 0.6])
    g.put(g.path(x, d.capHeight * 0.55, 0.85).line(w / 2, d.capHeight), { start: "level", end: "level" });
  return g.done(w, side(g), side(g));
};
const trademark: Draw = (d) => {
  const small = { ...d, stem: d.stem * 0.5, thin: d.thin * 0.5, capHeight: d.capHeight * 0.42, serif: "none" as const };
  const [t, m] = [CAPITALS.T!(small), CAPITALS.M!(small)];
  const g = new Sketch(small);
  const place = (drawn: Drawing, x: number) => {
    const by = (p: { x: number; y: number }) => ({ x: p.x + x, y: p.y + d.capHeight * 0.58 });
    g.strokes.push(...moveStrokes(drawn.strokes, by));
  };
  place(t, 0);
  place(m, t.width + 24);
  return g.done(t.width + 24 + m.width, side(g), side(g));
};

export const SIGNS: Record<string, Draw> = {
  ".": stop,
  ",": commaSign,
  ":": colon,
  ";": semicolon,
  "!": exclamation,
  "?": question,
  "¡": turned(exclamation),
  "¿": turned(question),
  "'": tick(1),
  '"': tick(2),
  "‘": quotes(1, "high", true),
  "’": quotes(1, "high", false),
  "‚": quotes(1, "low", false),
  "“": quotes(2, "high", true),
  "”": quotes(2, "high", false),
  "„": quotes(2, "low", false),
  "-": dash(260),
  "–": dash(480),
  "—": dash(900),
  _: underscore,
  "/": slash(false),
  "\\": slash(true),
  "|": pipe,
  "(": paren(false),
  ")": paren(true),
  "[": bracket(false),
  "]": bracket(true),
  "{": brace(false),
  "}": brace(true),
  "+": plus,
  "−": minus,
  "=": equal,
  "×": times,
  "÷": divide,
  "<": less(false),
  ">": less(true),
  "~": tilde,
  "^": caret,
  "*": asterisk,
  "#": hash,
  "@": at,
  "&": ampersand,
  "%": percent,
  "°": degree,
  "•": bullet,
  "·": middot,
  "…": ellipsis,
  "«": guillemet(2, false),
  "»": guillemet(2, true),
  "‹": guillemet(1, false),
  "›": guillemet(1, true),
  "©": ringed("C"),
  "®": ringed("R"),
  "™": trademark,
  "€": euro,
  "£": pound,
  $: struck(CAPITALS.S!, 0.5, 0.09),
  "¢": cent,
  "§": section,
  "¥": (d) => {
    const drawn = CAPITALS.Y!(d);
    const g = new Sketch(d);
    for (const y of [0.36, 0.2]) g.bar(drawn.width * 0.16, drawn.width * 0.84, d.capHeight * y, 0.9);
    return { ...drawn, strokes: [...drawn.strokes, ...g.strokes] };
  },
};
