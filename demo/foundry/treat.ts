// What is done to letters after they are drawn: stencil bridges, an inner line, rough edges, pixels, dots.
import { seededRandom } from "../../src/core/geometry/numbers";
import type { Design } from "./design";
import { drawStroke, ellipse, polygon, type Contour, type Piece, type Point, type Stroke } from "./pen";
import type { Drawing } from "./sketch";
import { box } from "./sketch";

/** Strokes and solids → contours, before anything is united. */
export function contoursOf(drawn: Drawing): Contour[] {
  return [...drawn.strokes.flatMap(drawStroke), ...drawn.solids];
}

/** A stencil's bridges: an upright gap through the top and bottom of each closed bowl. */
export function bridges(drawn: Drawing, d: Design): Contour[] {
  const gap = Math.max(26, d.stem * 0.32);
  return drawn.strokes
    .filter((s) => s.closed)
    .flatMap((s) => {
      const points = s.pieces.map((p) => p.p0);
      const xs = points.map((p) => p.x);
      const ys = points.map((p) => p.y);
      const mid = (Math.min(...xs) + Math.max(...xs)) / 2;
      const reach = s.nib.high;
      return [box(mid - gap / 2, Math.min(...ys) - reach, mid + gap / 2, Math.max(...ys) + reach)];
    });
}

/** The light line inside each stroke, a share of the nib, drawn back from free ends. */
export function innerLines(drawn: Drawing, d: Design): Contour[] {
  const share = 0.2;
  return drawn.strokes.flatMap((s) => {
    const back = s.closed ? 0 : d.stem * 0.5;
    const pieces = s.closed ? s.pieces : shorten(s.pieces, back);
    if (!pieces.length) return [];
    return drawStroke({
      ...s,
      pieces,
      nib: { wide: s.nib.wide * share, high: s.nib.wide * share },
      start: "across",
      end: "across",
    });
  });
}

function shorten(pieces: Piece[], back: number): Piece[] {
  const points = sampleStroke({ pieces } as Stroke, 18);
  const total = points[points.length - 1]!.along;
  if (total < back * 2.6) return [];
  const kept = points.filter((p) => p.along >= back && p.along <= total - back);
  return kept.slice(1).map((to, i) => {
    const from = kept[i]!;
    const part = (f: number) => ({ x: from.x + (to.x - from.x) * f, y: from.y + (to.y - from.y) * f });
    return { p0: from, p1: part(1 / 3), p2: part(2 / 3), p3: to, s0: 1, s1: 1 };
  });
}

type Sampled = Point & { along: number };
/** Points of a skeleton, `step` units apart or a little less. */
function sampleStroke(stroke: Stroke, step: number): Sampled[] {
  const out: Sampled[] = [];
  let along = 0;
  for (const { p0, p1, p2, p3 } of stroke.pieces) {
    const length =
      Math.hypot(p1.x - p0.x, p1.y - p0.y) +
      Math.hypot(p2.x - p1.x, p2.y - p1.y) +
      Math.hypot(p3.x - p2.x, p3.y - p2.y);
    const n = Math.max(2, Math.ceil(length / step));
    for (let i = out.length ? 1 : 0; i <= n; i++) {
      const t = i / n;
      const u = 1 - t;
      const p = {
        x: u ** 3 * p0.x + 3 * u * u * t * p1.x + 3 * u * t * t * p2.x + t ** 3 * p3.x,
        y: u ** 3 * p0.y + 3 * u * u * t * p1.y + 3 * u * t * t * p2.y + t ** 3 * p3.y,
      };
      const last = out[out.length - 1];
      if (last) along += Math.hypot(p.x - last.x, p.y - last.y);
      out.push({ ...p, along });
    }
  }
  return out;
}

/** Dots along the skeletons, none on top of another. */
export function dots(drawn: Drawing, d: Design): Contour[] {
  const size = d.stem;
  const step = size * 1.22;
  const placed: Point[] = [];
  for (const stroke of drawn.strokes) {
    const points = sampleStroke(stroke, 4);
    const total = points[points.length - 1]!.along;
    const inset = stroke.closed ? 0 : Math.min(size / 2, total / 3);
    const count = Math.max(1, Math.round((total - 2 * inset) / step));
    for (let i = 0; i <= count - (stroke.closed ? 1 : 0); i++) {
      const along = inset + ((total - 2 * inset) * i) / count;
      const p = points.find((q) => q.along >= along - 1e-6) ?? points[points.length - 1]!;
      if (placed.every((o) => Math.hypot(o.x - p.x, o.y - p.y) > size * 1.04)) placed.push({ x: p.x, y: p.y });
    }
  }
  for (const solid of drawn.solids) {
    const xs = solid.curves.map((c) => c[2].x);
    const ys = solid.curves.map((c) => c[2].y);
    const p = { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: (Math.min(...ys) + Math.max(...ys)) / 2 };
    if (placed.every((o) => Math.hypot(o.x - p.x, o.y - p.y) > size * 1.04)) placed.push(p);
  }
  return placed.map((p) => ellipse(p.x, p.y, size / 2, size / 2));
}

const evaluate = (from: Point, [a, b, c]: [Point, Point, Point], t: number): Point => {
  const u = 1 - t;
  return {
    x: u ** 3 * from.x + 3 * u * u * t * a.x + 3 * u * t * t * b.x + t ** 3 * c.x,
    y: u ** 3 * from.y + 3 * u * u * t * a.y + 3 * u * t * t * b.y + t ** 3 * c.y,
  };
};
/** A contour as points about `step` apart. */
export function flatten({ start, curves }: Contour, step: number): Point[] {
  const out: Point[] = [];
  let from = start;
  for (const curve of curves) {
    const n = Math.max(
      1,
      Math.round(
        (Math.hypot(curve[0].x - from.x, curve[0].y - from.y) +
          Math.hypot(curve[1].x - curve[0].x, curve[1].y - curve[0].y) +
          Math.hypot(curve[2].x - curve[1].x, curve[2].y - curve[1].y)) /
          step,
      ),
    );
    for (let i = 0; i < n; i++) out.push(evaluate(from, curve, i / n));
    from = curve[2];
  }
  return out;
}

/** Worn edges: each point of the outline wanders a little, now and then a chip is missing. */
export function roughen(contours: Contour[], d: Design, seed: number): Contour[] {
  const random = seededRandom(seed);
  const reach = Math.max(5, d.stem * 0.075);
  return contours.map((c) => {
    const points = flatten(c, 13);
    return polygon(
      points.map((p) => {
        const bite = random() < 0.06 ? 1.5 : 1;
        return [p.x + (random() - 0.5) * 2 * reach * bite, p.y + (random() - 0.5) * 2 * reach * bite];
      }),
    );
  });
}

/** Squares of one size wherever the letter's ink covers the middle of a cell; the border is traced as one outline. */
export function pixels(contours: Contour[], cell: number): Contour[] {
  const polygons = contours.map((c) => flatten(c, 6));
  const all = polygons.flat();
  if (!all.length) return [];
  const [x0, x1] = [
    Math.floor(Math.min(...all.map((p) => p.x)) / cell),
    Math.ceil(Math.max(...all.map((p) => p.x)) / cell),
  ];
  const [y0, y1] = [
    Math.floor(Math.min(...all.map((p) => p.y)) / cell),
    Math.ceil(Math.max(...all.map((p) => p.y)) / cell),
  ];
  const isInk = new Set<string>();
  for (let i = x0; i < x1; i++)
    for (let j = y0; j < y1; j++) if (winding(polygons, (i + 0.5) * cell, (j + 0.5) * cell)) isInk.add(`${i} ${j}`);
  // A sign thinner than a cell still takes one column of them.
  if (!isInk.size)
    for (const points of polygons) {
      const xs = points.map((p) => p.x);
      const ys = points.map((p) => p.y);
      const column = Math.floor((Math.min(...xs) + Math.max(...xs)) / 2 / cell);
      for (let j = Math.floor(Math.min(...ys) / cell); j * cell + cell / 2 < Math.max(...ys); j++)
        isInk.add(`${column} ${j}`);
    }
  return traceCells(isInk, cell);
}

function winding(polygons: Point[][], x: number, y: number): boolean {
  let count = 0;
  for (const points of polygons)
    points.forEach((a, i) => {
      const b = points[(i + 1) % points.length]!;
      if (a.y <= y !== b.y <= y && x < a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)) count += a.y <= y ? 1 : -1;
    });
  return count !== 0;
}

/** The border of a set of cells: clockwise around ink, corners only. Cells that touch by a corner stay apart. */
function traceCells(isInk: Set<string>, cell: number): Contour[] {
  const next = new Map<string, [number, number][]>();
  const put = (from: [number, number], to: [number, number]) => {
    const key = from.join(" ");
    next.set(key, [...(next.get(key) ?? []), to]);
  };
  for (const key of isInk) {
    const [i, j] = key.split(" ").map(Number) as [number, number];
    if (!isInk.has(`${i - 1} ${j}`)) put([i, j], [i, j + 1]);
    if (!isInk.has(`${i} ${j + 1}`)) put([i, j + 1], [i + 1, j + 1]);
    if (!isInk.has(`${i + 1} ${j}`)) put([i + 1, j + 1], [i + 1, j]);
    if (!isInk.has(`${i} ${j - 1}`)) put([i + 1, j], [i, j]);
  }
  const contours: Contour[] = [];
  while (next.size) {
    const start = next.keys().next().value!.split(" ").map(Number) as [number, number];
    const points: [number, number][] = [];
    let at = start;
    let came: [number, number] = [0, 0];
    do {
      const ways = next.get(at.join(" "))!;
      // At a corner where two cells touch, turn right: each keeps its own border.
      const pick = ways.length > 1 ? ways.findIndex((w) => (w[0] - at[0]) * came[1] - (w[1] - at[1]) * came[0] > 0) : 0;
      const to = ways.splice(Math.max(0, pick), 1)[0]!;
      if (!ways.length) next.delete(at.join(" "));
      const way: [number, number] = [to[0] - at[0], to[1] - at[1]];
      if (way[0] !== came[0] || way[1] !== came[1]) points.push(at);
      came = way;
      at = to;
    } while (at[0] !== start[0] || at[1] !== start[1]);
    contours.push(polygon(points.map(([x, y]) => [x * cell, y * cell])));
  }
  return contours;
}
