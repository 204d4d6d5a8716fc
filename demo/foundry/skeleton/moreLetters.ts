// Letters beyond A–Z that carry no accent, and the accents that are set on letters.
import type { Design } from "../design";
import { mapContour } from "../pen";
import { moveStrokes, Sketch, type Draw, type Drawing } from "../sketch";
import { CAPITALS } from "./capitals";
import { SMALL } from "./small";

/** Letters that are not a letter with an accent. */
export const MORE_LETTERS: Record<string, Draw> = {
  ø: struckThrough(SMALL.o!, "xHeight"),
  Ø: struckThrough(CAPITALS.O!, "capHeight"),
  ß: (d) => {
    const g = new Sketch(d);
    const A = d.ascender;
    const w = g.cn * 1.05 + 2 * g.S;
    g.put(
      g
        .path(g.h, 0)
        .line(g.h, A * 0.66)
        .over(w * 0.46, g.top(A))
        .down(w - g.h * 1.4, A * 0.75)
        .over(w * 0.52, A * 0.53),
      { start: "level", end: "across" },
    );
    g.put(
      g
        .path(w * 0.52, A * 0.53)
        .down(w - g.h, A * 0.26)
        .over(w * 0.55, g.bottom)
        .line(w * 0.4, g.bottom),
      { start: "across", end: "upright" },
    );
    return g.done(w, "straight", "round");
  },
  æ: (d) => joined(SMALL.a!(d), SMALL.e!(d), new Sketch(d).S),
  œ: (d) => joined(SMALL.o!(d), SMALL.e!(d), new Sketch(d).S),
  Æ: (d) => joined(CAPITALS.A!(d), CAPITALS.E!(d), new Sketch(d).S * 1.05),
  Œ: (d) => joined(CAPITALS.O!(d), CAPITALS.E!(d), new Sketch(d).S * 1.1),
  ł: (d) => crossed(SMALL.l!(d), d, d.ascender * 0.46),
  Ł: (d) => crossed(CAPITALS.L!(d), d, d.capHeight * 0.46),
  đ: (d) => barred(SMALL.d!(d), d, d.ascender * 0.84, "right"),
  Đ: (d) => barred(CAPITALS.D!(d), d, d.capHeight * 0.52, "left"),
  ð: (d) => barred(SMALL.d!(d), d, d.ascender * 0.84, "right"),
  þ: (d) => {
    const p = SMALL.p!(d);
    const g = new Sketch(d);
    g.stem(g.h, d.descender, d.ascender);
    return { ...p, strokes: [...p.strokes, ...g.strokes] };
  },
  Þ: (d) => {
    const g = new Sketch(d);
    const bowlOf = CAPITALS.P!({ ...d, capHeight: d.capHeight * 0.8, serif: "none" });
    g.stem(g.h, 0, d.capHeight, { foot: "both", head: "both" });
    return { ...bowlOf, strokes: [...bowlOf.strokes.slice(1), ...g.strokes], solids: g.solids };
  },
};

function struckThrough(base: Draw, height: "xHeight" | "capHeight"): Draw {
  return (d) => {
    const drawn = base(d);
    const g = new Sketch(d);
    g.put(g.path(drawn.width * 0.06, -d[height] * 0.04, 0.7).line(drawn.width * 0.94, d[height] * 1.04), {
      start: "across",
      end: "across",
    });
    return { ...drawn, strokes: [...drawn.strokes, ...g.strokes] };
  };
}
function joined(a: Drawing, b: Drawing, overlap: number): Drawing {
  const dx = a.width - overlap;
  const by = (p: { x: number; y: number }) => ({ x: p.x + dx, y: p.y });
  return {
    strokes: [...a.strokes, ...moveStrokes(b.strokes, by)],
    solids: [...a.solids, ...b.solids.map((c) => mapContour(c, by))],
    cuts: [],
    width: dx + b.width,
    left: a.left,
    right: b.right,
  };
}
function crossed(drawn: Drawing, d: Design, y: number): Drawing {
  const g = new Sketch(d);
  g.put(g.path(-g.S * 0.7, y - g.S * 0.45, 0.8).line(g.S * 1.7, y + g.S * 0.55), { start: "across", end: "across" });
  return { ...drawn, strokes: [...drawn.strokes, ...g.strokes] };
}
function barred(drawn: Drawing, d: Design, y: number, at: "left" | "right"): Drawing {
  const g = new Sketch(d);
  const x = at === "left" ? g.h : drawn.width - g.h;
  g.bar(x - g.S * 1.5, x + g.S * 1.2, y, 0.8);
  return { ...drawn, strokes: [...drawn.strokes, ...g.strokes] };
}

/** Accents, drawn above (or below) the origin's x: centre at x = 0, heights as over a small letter. */
export const MARKS: Record<string, (d: Design) => Drawing> = {
  "\u0300": (d) =>
    accent(d, (g, y, r) =>
      g.put(g.path(-r, y + r * 1.5, 0.95).line(r * 0.5, y, 0.7), { start: "across", end: "across" }),
    ),
  "\u0301": (d) =>
    accent(d, (g, y, r) =>
      g.put(g.path(r, y + r * 1.5, 0.95).line(-r * 0.5, y, 0.7), { start: "across", end: "across" }),
    ),
  "\u0302": (d) =>
    accent(d, (g, y, r) => {
      for (const x of [-1.35, 1.35])
        g.put(g.path(x * r, y, 0.75).line(0, y + r * 1.4), { start: "level", end: "level" });
    }),
  "\u030c": (d) =>
    accent(d, (g, y, r) => {
      for (const x of [-1.35, 1.35])
        g.put(g.path(x * r, y + r * 1.4, 0.75).line(0, y), { start: "level", end: "level" });
    }),
  "\u0303": (d) =>
    accent(d, (g, y, r) =>
      g.put(
        g
          .path(-r * 1.6, y + r * 0.2, 0.75)
          .curve(-r * 1.1, y + r * 1.6, -r * 0.3, y + r * 1.2, 0, y + r * 0.7)
          .curve(r * 0.3, y + r * 0.2, r * 1.1, y - r * 0.2, r * 1.6, y + r * 1.2),
        { start: "across", end: "across" },
      ),
    ),
  "\u0308": (d) =>
    accent(d, (g, y, r) =>
      g.dot(-r * 1.15, y + r * 0.7, g.dotSize * 0.88).dot(r * 1.15, y + r * 0.7, g.dotSize * 0.88),
    ),
  "\u030a": (d) => accent(d, (g, y, r) => g.ring(0, y + r * 0.9, r * 0.95, r * 0.95, 0.62)),
  "\u0304": (d) => accent(d, (g, y, r) => g.bar(-r * 1.5, r * 1.5, y + r * 0.7, 0.85)),
  "\u0306": (d) =>
    accent(d, (g, y, r) =>
      g.put(
        g
          .path(-r * 1.4, y + r * 1.5, 0.8)
          .over(0, y + r * 0.2)
          .down(r * 1.4, y + r * 1.5, 0.8),
        { start: "level", end: "level" },
      ),
    ),
  "\u0307": (d) => accent(d, (g, y, r) => g.dot(0, y + r * 0.7)),
  "\u0327": (d) => {
    const g = new Sketch(d);
    const r = g.S * 0.62 + 24;
    g.put(
      g
        .path(0, 6, 0.7)
        .line(0, -r * 0.5)
        .curve(r * 1.5, -r * 0.6, r * 1.2, -r * 2, -r * 0.8, -r * 1.7, 0.6),
      { start: "across", end: "across" },
    );
    return g.done(0, 0, 0);
  },
  "\u0328": (d) => {
    const g = new Sketch(d);
    const r = g.S * 0.62 + 24;
    g.put(g.path(r * 0.6, 8, 0.7).curve(-r * 0.8, -r * 0.7, -r * 0.6, -r * 2.1, r * 1, -r * 1.7, 0.6), {
      start: "across",
      end: "across",
    });
    return g.done(0, 0, 0);
  },
};

function accent(d: Design, paint: (g: Sketch, y: number, r: number) => unknown): Drawing {
  const g = new Sketch(d);
  const r = Math.max(46, g.S * 0.55 + 22) * (0.7 + 0.3 * d.width);
  paint(g, d.xHeight + Math.max(46, (d.capHeight - d.xHeight) * 0.38), r);
  return g.done(0, 0, 0);
}
