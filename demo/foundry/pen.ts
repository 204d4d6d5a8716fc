// The pen: a skeleton stroke becomes an outline. The nib is an upright ellipse, so a vertical stroke is `stem` thick,
// a horizontal one `thin`, all others between, without a jump. Geometry only; what is drawn stands in skeleton/.

export type Point = { x: number; y: number };
/** One cubic piece of a skeleton; straight pieces have their control points on the line. `s0`, `s1`: share of the nib at its ends. */
export type Piece = { p0: Point; p1: Point; p2: Point; p3: Point; s0: number; s1: number };
/** How an end is cut: across the stroke, level with the baseline, upright, round. */
export type Cut = "across" | "level" | "upright" | "round";
export type Stroke = { pieces: Piece[]; closed: boolean; start: Cut; end: Cut; nib: Nib };
export type Nib = { wide: number; high: number };
/** A closed outline: start and cubic pieces back to it. */
export type Contour = { start: Point; curves: [Point, Point, Point][] };

const { hypot, sqrt, max } = Math;
const SAMPLES = 4;

const at = ({ p0, p1, p2, p3 }: Piece, t: number): Point => {
  const u = 1 - t;
  const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return { x: a * p0.x + b * p1.x + c * p2.x + d * p3.x, y: a * p0.y + b * p1.y + c * p2.y + d * p3.y };
};

/** Direction of travel, length 1; the chord where the curve stands still. */
function direction({ p0, p1, p2, p3 }: Piece, t: number): Point {
  const u = 1 - t;
  let x = u * u * (p1.x - p0.x) + 2 * u * t * (p2.x - p1.x) + t * t * (p3.x - p2.x);
  let y = u * u * (p1.y - p0.y) + 2 * u * t * (p2.y - p1.y) + t * t * (p3.y - p2.y);
  if (hypot(x, y) < 1e-6) [x, y] = [p3.x - p0.x, p3.y - p0.y];
  const length = hypot(x, y) || 1;
  return { x: x / length, y: y / length };
}

/** The point of the nib's edge that lies farthest to one side of the travel. */
function reach(nib: Nib, dir: Point, side: 1 | -1, scale: number): Point {
  const n = { x: -dir.y * side, y: dir.x * side };
  const [a, b] = [(nib.wide / 2) * scale, (nib.high / 2) * scale];
  const length = sqrt(a * a * n.x * n.x + b * b * n.y * n.y) || 1;
  return { x: (a * a * n.x) / length, y: (b * b * n.y) / length };
}

/** Half the thickness across the travel. */
const halfAcross = (nib: Nib, dir: Point, scale: number) =>
  (scale / 2) * sqrt((nib.wide * dir.y) ** 2 + (nib.high * dir.x) ** 2);

const isStraight = ({ p0, p1, p2, p3 }: Piece) => {
  const off = (p: Point) => Math.abs((p3.x - p0.x) * (p.y - p0.y) - (p3.y - p0.y) * (p.x - p0.x));
  return off(p1) + off(p2) < 1e-3 * hypot(p3.x - p0.x, p3.y - p0.y);
};

/** One edge of a piece as cubics: sampled, then joined by curves that keep the direction at each sample. */
function edge(piece: Piece, nib: Nib, side: 1 | -1): { start: Point; curves: [Point, Point, Point][] } {
  const steps = isStraight(piece) ? 1 : SAMPLES;
  const place = (t: number): Point => {
    const p = at(piece, t);
    const dir = direction(piece, t);
    const scale = piece.s0 + (piece.s1 - piece.s0) * t;
    if (steps === 1) {
      const half = halfAcross(nib, dir, scale);
      return { x: p.x - dir.y * side * half, y: p.y + dir.x * side * half };
    }
    const r = reach(nib, dir, side, scale);
    return { x: p.x + r.x, y: p.y + r.y };
  };
  const h = 1e-3;
  const slope = (t: number): Point => {
    const [t0, t1] = [max(0, t - h), Math.min(1, t + h)];
    const [a, b] = [place(t0), place(t1)];
    return { x: (b.x - a.x) / (t1 - t0), y: (b.y - a.y) / (t1 - t0) };
  };
  const curves: [Point, Point, Point][] = [];
  for (let i = 0; i < steps; i++) {
    const [t0, t1] = [i / steps, (i + 1) / steps];
    const [a, b, da, db] = [place(t0), place(t1), slope(t0), slope(t1)];
    const third = (t1 - t0) / 3;
    curves.push([
      { x: a.x + da.x * third, y: a.y + da.y * third },
      { x: b.x - db.x * third, y: b.y - db.y * third },
      b,
    ]);
  }
  return { start: place(0), curves };
}

const straight = (a: Point, b: Point): [Point, Point, Point] => [
  { x: a.x + (b.x - a.x) / 3, y: a.y + (b.y - a.y) / 3 },
  { x: a.x + ((b.x - a.x) * 2) / 3, y: a.y + ((b.y - a.y) * 2) / 3 },
  b,
];

function reversed(start: Point, curves: [Point, Point, Point][]): Contour {
  const points = [start, ...curves.map((c) => c[2])];
  const out = curves.map(([c1, c2], i): [Point, Point, Point] => [c2, c1, points[i]!]).reverse();
  return { start: points[points.length - 1]!, curves: out };
}

/** Slides the end of an edge along the travel until it lies on the cut. */
function cutEnd(p: Point, centre: Point, dir: Point, cut: Cut): Point {
  if (cut === "level" && Math.abs(dir.y) > 0.25) {
    const k = (centre.y - p.y) / dir.y;
    return { x: p.x + dir.x * k, y: centre.y };
  }
  if (cut === "upright" && Math.abs(dir.x) > 0.25) {
    const k = (centre.x - p.x) / dir.x;
    return { x: centre.x, y: p.y + dir.y * k };
  }
  return p;
}

/** Two quarter turns around an end, from one edge to the other. */
function roundEnd(from: Point, to: Point, dir: Point): [Point, Point, Point][] {
  const centre = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  const radius = hypot(from.x - to.x, from.y - to.y) / 2;
  const tip = { x: centre.x + dir.x * radius, y: centre.y + dir.y * radius };
  const k = 0.5523;
  const toward = (a: Point, b: Point, f: number): Point => ({ x: a.x + (b.x - a.x) * f, y: a.y + (b.y - a.y) * f });
  const corner = (p: Point): Point => ({ x: p.x + dir.x * radius, y: p.y + dir.y * radius });
  return [
    [toward(from, corner(from), k), toward(tip, corner(from), k), tip],
    [toward(tip, corner(to), k), toward(to, corner(to), k), to],
  ];
}

/**
 * Draws one stroke.
 * @returns one contour for an open stroke; two (outer, inner) for a closed one. Always the same number of curves for the
 *   same skeleton, whatever the nib: masters of a variable font match point by point.
 */
export function drawStroke({ pieces, closed, start, end, nib }: Stroke): Contour[] {
  const left = pieces.map((p) => edge(p, nib, 1));
  const right = pieces.map((p) => edge(p, nib, -1));
  const chain = (edges: typeof left) => {
    const curves = [...edges[0]!.curves];
    for (const next of edges.slice(1)) curves.push(straight(curves[curves.length - 1]![2], next.start), ...next.curves);
    return { start: edges[0]!.start, curves };
  };
  const [l, r] = [chain(left), chain(right)];
  if (closed) return [{ start: l.start, curves: l.curves }, reversed(r.start, r.curves)];
  const [first, last] = [pieces[0]!, pieces[pieces.length - 1]!];
  const [d0, d1] = [direction(first, 0), direction(last, 1)];
  const back = { x: -d0.x, y: -d0.y };
  moveEnds(l, r, first.p0, d0, start, "start");
  moveEnds(l, r, last.p3, d1, end, "end");
  const turned = reversed(r.start, r.curves);
  const lastLeft = l.curves[l.curves.length - 1]![2];
  const over = end === "round" ? roundEnd(lastLeft, turned.start, d1) : [straight(lastLeft, turned.start)];
  const lastRight = turned.curves[turned.curves.length - 1]![2];
  const home = start === "round" ? roundEnd(lastRight, l.start, back) : [straight(lastRight, l.start)];
  return [{ start: l.start, curves: [...l.curves, ...over, ...turned.curves, ...home] }];
}

type Chain = { start: Point; curves: [Point, Point, Point][] };
function moveEnds(l: Chain, r: Chain, centre: Point, dir: Point, cut: Cut, which: "start" | "end") {
  for (const chain of [l, r]) {
    const i = which === "start" ? 0 : chain.curves.length - 1;
    const [c1, c2, to] = chain.curves[i]!;
    const from = i ? chain.curves[i - 1]![2] : chain.start;
    const wasLine = isLine(from, [c1, c2, to]);
    const old = which === "start" ? from : to;
    const moved = cutEnd(old, centre, dir, cut);
    const nudge = (p: Point): Point => ({ x: p.x + (moved.x - old.x) * 0.67, y: p.y + (moved.y - old.y) * 0.67 });
    if (which === "start") {
      chain.start = moved;
      chain.curves[i] = wasLine ? straight(moved, to) : [nudge(c1), c2, to];
    } else chain.curves[i] = wasLine ? straight(from, moved) : [c1, nudge(c2), moved];
  }
}

function isLine(from: Point, [c1, c2, to]: [Point, Point, Point]): boolean {
  const off = (p: Point) => Math.abs((to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x));
  return off(c1) + off(c2) < 1e-3 * (hypot(to.x - from.x, to.y - from.y) + 1);
}

/** A closed polygon as a contour. */
export function polygon(points: [number, number][]): Contour {
  const list = points.map(([x, y]) => ({ x, y }));
  return { start: list[0]!, curves: list.map((p, i) => straight(p, list[(i + 1) % list.length]!)) };
}

/** An ellipse in four pieces; `k` as for squareness. Counter-clockwise. */
export function ellipse(cx: number, cy: number, rx: number, ry: number, k = 0.5523): Contour {
  const p = (x: number, y: number): Point => ({ x: cx + x * rx, y: cy + y * ry });
  return {
    start: p(1, 0),
    curves: [
      [p(1, k), p(k, 1), p(0, 1)],
      [p(-k, 1), p(-1, k), p(-1, 0)],
      [p(-1, -k), p(-k, -1), p(0, -1)],
      [p(k, -1), p(1, -k), p(1, 0)],
    ],
  };
}

export const mapContour = ({ start, curves }: Contour, by: (p: Point) => Point): Contour => ({
  start: by(start),
  curves: curves.map(([a, b, c]) => [by(a), by(b), by(c)]),
});
