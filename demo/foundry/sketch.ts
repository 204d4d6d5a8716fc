// What a letter is drawn with: stems, bars, bowls, feet. Collects strokes and solid parts, and knows the frame the letter stands in.
import { OVERSHOOT, bearingOf, counterOf, stemAlong, type Design } from "./design";
import { ellipse, polygon, type Contour, type Cut, type Piece, type Point, type Stroke } from "./pen";

/** How a side of a letter stands to its neighbour: decides its bearing. */
export type Side = "straight" | "round" | "open" | "diagonal" | number;

export type Drawing = {
  strokes: Stroke[];
  /** Solid parts: serifs, dots. */
  solids: Contour[];
  /** Parts cut out of all the rest: bridges of a stencil. */
  cuts: Contour[];
  /** Frame: from the left bearing's end to the right bearing's beginning. */
  width: number;
  left: Side;
  right: Side;
};

/** Draws one character of a design. */
export type Draw = (d: Design) => Drawing;

/** A path of a skeleton under way: moves like a pen that knows quarter turns. */
class Path {
  pieces: Piece[] = [];
  private at: Point;
  constructor(
    x: number,
    y: number,
    private scale: number,
    private readonly k: number,
  ) {
    this.at = { x, y };
  }
  private add(p1: Point, p2: Point, p3: Point, s: number) {
    this.pieces.push({ p0: this.at, p1, p2, p3, s0: this.scale, s1: s });
    this.at = p3;
    this.scale = s;
    return this;
  }
  /** A straight line. */
  line(x: number, y: number, s = this.scale) {
    const { x: x0, y: y0 } = this.at;
    return this.add(
      { x: x0 + (x - x0) / 3, y: y0 + (y - y0) / 3 },
      { x: x0 + ((x - x0) * 2) / 3, y: y0 + ((y - y0) * 2) / 3 },
      { x, y },
      s,
    );
  }
  /** A quarter turn that leaves upright and arrives level. */
  over(x: number, y: number, s = this.scale, k = this.k) {
    const { x: x0, y: y0 } = this.at;
    return this.add({ x: x0, y: y0 + (y - y0) * k }, { x: x - (x - x0) * k, y }, { x, y }, s);
  }
  /** A quarter turn that leaves level and arrives upright. */
  down(x: number, y: number, s = this.scale, k = this.k) {
    const { x: x0, y: y0 } = this.at;
    return this.add({ x: x0 + (x - x0) * k, y: y0 }, { x, y: y - (y - y0) * k }, { x, y }, s);
  }
  curve(x1: number, y1: number, x2: number, y2: number, x: number, y: number, s = this.scale) {
    return this.add({ x: x1, y: y1 }, { x: x2, y: y2 }, { x, y }, s);
  }
}

export class Sketch {
  readonly strokes: Stroke[] = [];
  readonly solids: Contour[] = [];
  readonly cuts: Contour[] = [];
  /** Stem along the baseline, its half; thin stroke, its half. */
  readonly S: number;
  readonly h: number;
  readonly T: number;
  readonly t: number;
  readonly cn: number;
  /** Nib share of an upright or leaning stroke that is thin by tradition (the left of A, the uprights of N). */
  readonly slim: number;

  constructor(readonly d: Design) {
    this.S = stemAlong(d);
    this.h = this.S / 2;
    this.T = d.thin;
    this.t = d.thin / 2;
    this.cn = counterOf(d);
    this.slim = Math.min(1, Math.max(0.3, (d.thin / d.stem) * 1.1));
  }

  path(x: number, y: number, s = 1) {
    return new Path(x, y, s, this.d.squareness);
  }
  /** Takes a finished path as a stroke. Ends default to what the design says of terminals. */
  put(path: Path, ends: { start?: Cut; end?: Cut } = {}) {
    const usual: Cut = this.d.terminal;
    this.strokes.push({
      pieces: path.pieces,
      closed: false,
      start: this.soft(ends.start ?? usual),
      end: this.soft(ends.end ?? usual),
      nib: { wide: this.S, high: this.T },
    });
    return this;
  }
  /** Where terminals are round, free ends are too; ends inside other strokes are given as "across" by name. */
  private soft(cut: Cut): Cut {
    return this.d.terminal === "round" && cut !== "across" ? "round" : cut;
  }

  /** An upright stem with its feet. `feet`: which ends carry a serif, and on which sides. */
  stem(x: number, y0: number, y1: number, feet: { foot?: Feet; head?: Feet } = {}, s = 1) {
    const round = this.d.terminal === "round";
    // Round ends keep the height: the stroke is drawn back by the radius.
    const back = round ? this.h * s : 0;
    this.put(this.path(x, y0 + back, s).line(x, y1 - back), { start: "level", end: "level" });
    if (feet.foot) this.serif(x, y0, 1, feet.foot, s);
    if (feet.head) this.serif(x, y1, -1, feet.head, s);
    return this;
  }
  /** A level bar; both ends upright unless said otherwise. */
  bar(x0: number, x1: number, y: number, s = 1, ends: { start?: Cut; end?: Cut } = {}) {
    return this.put(this.path(x0, y, s).line(x1, y), { start: "upright", end: "upright", ...ends });
  }
  /** A leaning straight stroke, cut level at both ends. */
  slope(x0: number, y0: number, x1: number, y1: number, s = 1, ends: { start?: Cut; end?: Cut } = {}) {
    if (this.d.terminal === "round" && !ends.start && !ends.end) {
      // Round ends keep the height, as they do on upright stems.
      const share = (this.h * s) / Math.max(1, Math.abs(y1 - y0));
      const [dx, dy] = [(x1 - x0) * share, (y1 - y0) * share];
      return this.put(this.path(x0 + dx, y0 + dy, s).line(x1 - dx, y1 - dy), { start: "level", end: "level" });
    }
    return this.put(this.path(x0, y0, s).line(x1, y1), { start: "level", end: "level", ...ends });
  }
  /** A closed bowl. Radii are of the skeleton. */
  ring(cx: number, cy: number, rx: number, ry: number, s = 1) {
    const path = this.path(cx + rx, cy, s)
      .over(cx, cy + ry)
      .down(cx - rx, cy)
      .over(cx, cy - ry)
      .down(cx + rx, cy);
    this.strokes.push({
      pieces: path.pieces,
      closed: true,
      start: "across",
      end: "across",
      nib: { wide: this.S, high: this.T },
    });
    return this;
  }
  /** A dot: round where terminals are round or the letters are drawn with a pen, else square. */
  dot(cx: number, cy: number, size = this.dotSize) {
    const r = size / 2;
    const isRound = this.d.terminal !== "level" || this.d.serif !== "none";
    this.solids.push(isRound ? ellipse(cx, cy, r, r) : box(cx - r, cy - r, cx + r, cy + r));
    return this;
  }
  get dotSize() {
    return Math.max(this.S * 1.12, 34);
  }

  /**
   * One serif at the end of a stem. @param up - 1 at a foot (the stem rises from it), -1 at a head.
   */
  serif(x: number, y: number, up: 1 | -1, feet: Feet, s = 1) {
    const { serif, serifLength, serifThickness } = this.d;
    if (serif === "none") return this;
    const half = this.h * s;
    const L = (side: -1 | 1) => (feet === "both" || (feet === "left") === side < 0 ? serifLength : 0);
    const [x0, x1] = [x - half - L(-1), x + half + L(1)];
    const th = serifThickness * up;
    if (serif === "slab" || serif === "hairline") this.solids.push(box(x0, y, x1, y + th));
    else if (serif === "wedge")
      this.solids.push(
        polygon([
          [x0, y],
          [x1, y],
          [x1, y + th * 0.35],
          [x + half, y + th + serifLength * 0.95 * up],
          [x - half, y + th + serifLength * 0.95 * up],
          [x0, y + th * 0.35],
        ]),
      );
    else this.solids.push(this.bracketed(x, y, up, x0, x1, half));
    return this;
  }
  /** A serif that flows into its stem. */
  private bracketed(x: number, y: number, up: 1 | -1, x0: number, x1: number, half: number): Contour {
    const th = this.d.serifThickness * up;
    const rise = y + th + this.d.serifLength * 0.9 * up;
    const p = (px: number, py: number): Point => ({ x: px, y: py });
    const flat = (a: Point, b: Point): [Point, Point, Point] => [
      p(a.x + (b.x - a.x) / 3, a.y + (b.y - a.y) / 3),
      p(a.x + ((b.x - a.x) * 2) / 3, a.y + ((b.y - a.y) * 2) / 3),
      b,
    ];
    const [a, b, c, e] = [p(x0, y), p(x1, y), p(x1, y + th), p(x0, y + th)];
    const [right, left] = [p(x + half, rise), p(x - half, rise)];
    const into = (from: Point, to: Point): [Point, Point, Point] => [
      p(from.x + (to.x - from.x) * 0.75, from.y),
      p(to.x, from.y + (to.y - from.y) * 0.25),
      to,
    ];
    const out = (from: Point, to: Point): [Point, Point, Point] => {
      const [c1, c2] = into(to, from);
      return [c2, c1, to];
    };
    return { start: a, curves: [flat(a, b), flat(b, c), into(c, right), flat(right, left), out(left, e), flat(e, a)] };
  }

  /** Heights of round letters' skeletons. */
  top(height: number) {
    return height + OVERSHOOT - this.t;
  }
  get bottom() {
    return this.t - OVERSHOOT;
  }

  done(width: number, left: Side, right: Side): Drawing {
    return { strokes: this.strokes, solids: this.solids, cuts: this.cuts, width, left, right };
  }
}

/** Strokes with every point of their skeletons moved; no mirroring, which would turn them inside out. */
export const moveStrokes = (strokes: Stroke[], by: (p: Point) => Point): Stroke[] =>
  strokes.map((s) => ({
    ...s,
    pieces: s.pieces.map((q) => ({ ...q, p0: by(q.p0), p1: by(q.p1), p2: by(q.p2), p3: by(q.p3) })),
  }));

export type Feet = "left" | "right" | "both";
export const box = (x0: number, y0: number, x1: number, y1: number): Contour =>
  polygon([
    [Math.min(x0, x1), Math.min(y0, y1)],
    [Math.max(x0, x1), Math.min(y0, y1)],
    [Math.max(x0, x1), Math.max(y0, y1)],
    [Math.min(x0, x1), Math.max(y0, y1)],
  ]);

/** The bearing of one side. */
export function bearing(d: Design, side: Side): number {
  const straight = bearingOf(d);
  if (typeof side === "number") return side;
  const share = { straight: 1, round: 0.55, open: 0.45, diagonal: 0.16 }[side];
  return Math.max(share * straight, side === "diagonal" && d.serif !== "none" ? 4 : 0) + (d.serif !== "none" ? 6 : 0);
}
