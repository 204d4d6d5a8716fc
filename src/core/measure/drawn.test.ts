// Measures on letters drawn here with known answers: rings, bars, brackets and wedges made of points.
import { describe, expect, test } from "@jest/globals";
import { boundsOf, type Polygons } from "../geometry/outline";
import { measureCorners } from "./contour";
import { measureHeights } from "./heights";
import { measureCapitalLean } from "./lean";
import type { Letter, Letters } from "./letters";
import { measureOpenings } from "./openings";
import { measureStress } from "./stress";
import { measureStrokes } from "./strokes";

const EM = 1000;
type Point = readonly [number, number];
const polygon = (points: readonly Point[]) => Float64Array.from(points.flat());

/** Letters from polygons; nothing is drawn by a font. */
function lettersFrom(shapes: Record<string, Polygons>): Letters {
  const letters = new Map<string, Letter>();
  for (const [char, polygons] of Object.entries(shapes))
    letters.set(char, { char, glyphId: 1, polygons, bounds: boundsOf(polygons)!, advanceFu: 500 });
  return { face: null as never, em: EM, get: (char) => letters.get(char) ?? null };
}

const box = (x0: number, y0: number, x1: number, y1: number): Point[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
/** An ellipse, counter-clockwise; turned by `tiltDeg`. */
function ellipse(cx: number, cy: number, rx: number, ry: number, tiltDeg = 0, clockwise = false): Float64Array {
  const t = (tiltDeg * Math.PI) / 180;
  const points: Point[] = Array.from({ length: 180 }, (_, k) => {
    const a = ((clockwise ? -k : k) / 180) * 2 * Math.PI;
    const [x, y] = [rx * Math.cos(a), ry * Math.sin(a)];
    return [cx + x * Math.cos(t) - y * Math.sin(t), cy + x * Math.sin(t) + y * Math.cos(t)];
  });
  return polygon(points);
}
/** A round letter with a counter that is turned: thin where the counter's long axis points. */
const ring = (tiltDeg: number, thin: number, thick: number): Polygons => [
  ellipse(250, 250, 250, 250),
  ellipse(250, 250, 250 - thick, 250 - thin, tiltDeg, true),
];

describe("stress", () => {
  test.each([0, 12, -12, 25])("of a counter turned by %d°", (tilt) => {
    const letters = lettersFrom({ o: ring(tilt, 40, 110), O: ring(tilt, 40, 110), Q: ring(tilt, 40, 110) });
    expect(measureStress(letters, 0)!).toBeCloseTo(tilt, 0);
  });
  test("an even ring has none", () => {
    expect(measureStress(lettersFrom({ o: ring(0, 80, 80), O: ring(0, 80, 80) }), 0)).toBeNull();
  });
});

/** C as a ring cut open at the right, by so much of its height. */
function openRing(gap: number): Polygons {
  const outer: Point[] = [];
  const inner: Point[] = [];
  const from = Math.asin(gap);
  for (let k = 0; k <= 120; k++) {
    const a = from + (k / 120) * (2 * Math.PI - 2 * from);
    outer.push([250 + 250 * Math.cos(a), 250 + 250 * Math.sin(a)]);
    inner.push([250 + 170 * Math.cos(a), 250 + 170 * Math.sin(a)]);
  }
  return [polygon([...outer, ...inner.reverse()])];
}

describe("openings", () => {
  test.each([
    [0.2, 0.1, 0.26],
    [0.5, 0.4, 0.56],
    [0.8, 0.66, 0.86],
  ])("c open by %d of its radius", (gap, low, high) => {
    const { aperture } = measureOpenings(lettersFrom({ c: openRing(gap), e: openRing(gap), C: openRing(gap) }), 0);
    expect(aperture!).toBeGreaterThan(low);
    expect(aperture!).toBeLessThan(high);
  });
  const bars = (count: number): Polygons =>
    Array.from({ length: count }, (_, k) => polygon(box(0, k * 120, 400, k * 120 + 50)));
  test.each([
    [2, 1],
    [3, 2],
  ])("%d strokes over each other in a: %d storeys", (count, storeys) =>
    expect(measureOpenings(lettersFrom({ a: bars(count) }), 0).storeysA).toBe(storeys),
  );
  test.each([
    [3, 1],
    [4, 2],
  ])("%d strokes in g: %d storeys", (count, storeys) =>
    expect(measureOpenings(lettersFrom({ g: bars(count) }), 0).storeysG).toBe(storeys),
  );
  test("the narrowest white is the one between the nearest strokes", () => {
    const shapes = Object.fromEntries([..."easgB8"].map((c) => [c, bars(3)]));
    expect(measureOpenings(lettersFrom(shapes), 0).gapEm!).toBeCloseTo(0.07, 5);
    expect(measureOpenings(lettersFrom({ e: bars(3) }), 0).gapEm).toBeNull();
  });
  test("an absent letter has no storeys", () => {
    expect(measureOpenings(lettersFrom({ x: bars(1) }), 0)).toMatchObject({
      storeysA: null,
      storeysG: null,
      aperture: null,
    });
  });
});

/** A stem 80 wide with feet 60 beyond it on both sides; `profile` gives the reach at a height. */
function stemWith(reachAt: (y: number) => number, height: number): Polygons {
  const left: Point[] = [];
  const right: Point[] = [];
  for (let y = 0; y <= height; y += height / 280) {
    const reach = reachAt(y);
    left.push([100 - reach, y]);
    right.push([180 + reach, y]);
  }
  return [polygon([...right, ...left.reverse()])];
}
const SERIFED = "hnmrikpHNIFTPRM";
const faceOf = (reachAt: (y: number, height: number) => number) =>
  lettersFrom(
    Object.fromEntries(
      [...SERIFED].map((c) => {
        const height = /[a-z]/.test(c) ? 500 : 700;
        return [c, stemWith((y) => reachAt(y, height), height)];
      }),
    ),
  );

describe("serifs", () => {
  test.each<[string, (y: number) => number, string | null]>([
    ["a block", (y) => (y < 62 ? 60 : 0), "slab"],
    ["a hair line", (y) => (y < 16 ? 60 : 0), "hairline"],
    ["a bracket", (y) => 60 * Math.exp(-y / 24), "bracketed"],
    ["none", () => 0, null],
  ])("%s", (_name, reachAt, form) => {
    const strokes = measureStrokes(faceOf(reachAt));
    expect(strokes.serifForm).toBe(form);
    expect(strokes.stemEm).toBeCloseTo(0.08, 3);
    if (form) expect(strokes.serif!).toBeGreaterThan(0.9);
    else expect(strokes.serif).toBe(0);
  });
});

describe("lean", () => {
  const leaning = (deg: number, height: number): Polygons => {
    const t = Math.tan((deg * Math.PI) / 180);
    return [
      polygon([
        [0, 0],
        [80, 0],
        [80 + t * height, height],
        [t * height, height],
      ]),
    ];
  };
  test.each([0, 3, 9.5, 21, -6])("capitals that lean by %d°", (deg) => {
    const letters = lettersFrom(Object.fromEntries([..."HIEFLTDBPRN"].map((c) => [c, leaning(deg, 700)])));
    expect(measureCapitalLean(letters)!).toBeCloseTo(deg, 4);
  });
  test("capitals that disagree, or are few, say nothing", () => {
    const odd = lettersFrom(Object.fromEntries([..."HIEFLTDBPRN"].map((c, i) => [c, leaning(i * 4 - 20, 700)])));
    expect(measureCapitalLean(odd)).toBeNull();
    expect(measureCapitalLean(lettersFrom({ H: leaning(5, 700), I: leaning(5, 700) }))).toBeNull();
  });
});

describe("heights", () => {
  const tall = (top: number, bottom = 0): Polygons => [polygon(box(0, bottom, 300, top))];
  test("flat letters stand as they are, round ones less their overshoot", () => {
    const letters = lettersFrom({
      x: tall(500),
      z: tall(500),
      o: tall(512, -12),
      u: tall(500, -12),
      H: tall(700),
      I: tall(700),
      E: tall(700),
      T: tall(700),
      O: tall(714, -14),
    });
    expect(measureHeights(letters, false)).toMatchObject({ xHeightEm: 0.5, capHeightEm: 0.7 });
  });
  test("an italic without a flat letter", () => {
    const letters = lettersFrom({ x: tall(511, -11), z: tall(512, -12), o: tall(511, -11), u: tall(500, -11) });
    expect(measureHeights(letters, false).xHeightEm!).toBeCloseTo(0.5, 2);
  });
  test("pixels that all hang alike have no overshoot, shadows are none either", () => {
    const hung = (c: string): [string, Polygons] => [c, tall(450, -12)];
    expect(measureHeights(lettersFrom(Object.fromEntries([..."xzouHIETO"].map(hung))), false).xHeightEm).toBeCloseTo(
      0.45,
      5,
    );
    const shaded = lettersFrom({
      x: tall(700, -60),
      z: tall(700, -60),
      o: tall(700, -60),
      u: tall(700, -60),
      H: tall(700, -60),
      I: tall(690, -40),
      E: tall(700, -60),
    });
    expect(measureHeights(shaded, false).xHeightEm).toBeCloseTo(0.7, 5);
  });
});

describe("corners", () => {
  /** A cross: four ends of two corners that stick out, four joins that reach in; some of them rounded off. */
  function cross(endRadius: number, joinRadius: number): Polygons {
    const corners: { at: Point; out: boolean }[] = [
      { at: [200, 0], out: true },
      { at: [300, 0], out: true },
      { at: [300, 200], out: false },
      { at: [500, 200], out: true },
      { at: [500, 300], out: true },
      { at: [300, 300], out: false },
      { at: [300, 500], out: true },
      { at: [200, 500], out: true },
      { at: [200, 300], out: false },
      { at: [0, 300], out: true },
      { at: [0, 200], out: true },
      { at: [200, 200], out: false },
    ];
    const points: Point[] = corners.flatMap(({ at, out }, i) => {
      const radius = out ? endRadius : joinRadius;
      if (!radius) return [at];
      const before = corners[(i + corners.length - 1) % corners.length]!.at;
      const after = corners[(i + 1) % corners.length]!.at;
      const towards = (p: Point): Point => {
        const d = Math.hypot(p[0] - at[0], p[1] - at[1]);
        return [(p[0] - at[0]) / d, (p[1] - at[1]) / d];
      };
      const [u, v] = [towards(before), towards(after)];
      return Array.from({ length: 17 }, (_, k): Point => {
        const t = k / 16;
        const w = (1 - t) ** 2;
        return [at[0] + radius * (u[0] * w + v[0] * t * t), at[1] + radius * (u[1] * w + v[1] * t * t)];
      });
    });
    return [polygon(points)];
  }
  const face = (ends: number, joins: number) =>
    measureCorners(lettersFrom(Object.fromEntries([..."HELTNIFM"].map((c) => [c, cross(ends, joins)]))));
  test.each([
    [0, 0, 0, 0],
    [50, 0, 1, 0],
    [0, 60, 0, 1],
    [50, 60, 1, 1],
  ])("ends by %d, joins by %d", (ends, joins, roundEnds, roundJoins) => {
    const found = face(ends, joins);
    expect(found.ends!).toBeCloseTo(roundEnds, 0);
    expect(found.joins!).toBeCloseTo(roundJoins, 0);
  });
});
