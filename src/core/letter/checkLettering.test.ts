// What is measured and found: shapes whose answers are known, words in faces of the demo library.
import { beforeAll, describe, expect, test } from "@jest/globals";
import type { Block, LetteringCheck, Material } from "@/contracts/lettering";
import { seededRandom } from "../geometry/numbers";
import { areaOf, flattenOutline, type Polygons } from "../geometry/outline";
import { piecesOf, unitePolygons } from "../geometry/polygons";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { blockOf, documentOf, openForLettering, type OpenedFace } from "../../../tests/fixtures/lettering";
import { checkLettering } from "./checkLettering";
import { findGaps } from "./gaps";
import { layoutLettering } from "./layoutLettering";
import { shapeBlock } from "./shapeBlock";
import { findThinStrokes } from "./thinStrokes";

const VINYL: Material = { minStrokeMm: 1, minGapMm: 1, minPieceMm2: 4 };

type Point = [number, number];
const polygon = (...points: Point[]) => Float64Array.from(points.flat());
const turned = (p: Float64Array, angle: number): Float64Array => {
  const out = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 2) {
    out[i] = p[i]! * Math.cos(angle) - p[i + 1]! * Math.sin(angle);
    out[i + 1] = p[i]! * Math.sin(angle) + p[i + 1]! * Math.cos(angle);
  }
  return out;
};
const circle = (r: number, x = 0, y = 0, n = 400) =>
  polygon(
    ...Array.from({ length: n }, (_, i): Point => [
      x + r * Math.cos((2 * Math.PI * i) / n),
      y + r * Math.sin((2 * Math.PI * i) / n),
    ]),
  );
const rectangle = (w: number, h: number, x = 0, y = 0) => polygon([x, y], [x + w, y], [x + w, y + h], [x, y + h]);
const thinnest = (shape: Polygons, wanted = 3) => findThinStrokes(unitePolygons([shape]), wanted, wanted * 1.5);

describe("the thinnest stroke", () => {
  /** Made shapes of a known thickness. */
  const MAKERS: Record<string, (t: number, angle: number) => Polygons> = {
    bar: (t, angle) => [turned(rectangle(30, t), angle)],
    ring: (t) => [
      circle(10),
      circle(10 - t)
        .reverse()
        .map((_, i, all) => all[i % 2 ? i - 1 : i + 1]!),
    ],
    // Two bulbs with a waist whose sides are circles.
    waist: (t, angle) => {
      const r = 8;
      const side = (sign: number, k: number): Point => {
        const a = (-60 + (120 * k) / 200) * (Math.PI / 180);
        return [r * Math.sin(a), sign * (t / 2 + r - r * Math.cos(a))];
      };
      const top = Array.from({ length: 201 }, (_, k) => side(-1, k));
      const bottom = Array.from({ length: 201 }, (_, k) => side(1, 200 - k));
      return [turned(polygon(...top, ...bottom), angle)];
    },
    // A stroke that gets thicker to both ends.
    bow: (t, angle) => [
      turned(polygon([0, 0], [15, 1.5], [30, 0], [30, 6 + t - 3], [15, 1.5 + t], [0, 6 + t - 3]), angle),
    ],
  };
  const random = seededRandom(181);
  const cases = Object.keys(MAKERS).flatMap((kind) =>
    Array.from({ length: 25 }, () => [kind, Number((0.4 + 2 * random()).toFixed(3)), random() * Math.PI] as const),
  );

  test("of 100 made shapes is within 0.03 mm", () => {
    const off = cases.filter(([kind, t, angle]) => {
      const { thin, thinnestMm } = thinnest(MAKERS[kind]!(t, angle));
      return thinnestMm === null || Math.abs(thinnestMm - t) > 0.03 || thin.length === 0;
    });
    expect(off).toEqual([]);
  });

  test("corners, square ends and pointed ends are no strokes", () => {
    const wedge = polygon([0, 0], [20, -1.2], [20, 1.2]);
    expect(thinnest([wedge], 0.5).thin).toEqual([]);
    expect(thinnest([polygon([0, 0], [20, 0], [20, 20])], 0.5).thin).toEqual([]);
    expect(thinnest([rectangle(20, 5)], 2).thin).toEqual([]);
  });

  test("a hairline between two stems is one place, told at its narrowest", () => {
    const h = unitePolygons([[rectangle(6, 40)], [rectangle(6, 40, 20, 0)], [rectangle(16, 0.8, 5, 20)]]);
    const { thin } = findThinStrokes(h, 1.5, 8);
    expect(thin).toHaveLength(1);
    expect(thin[0]!.measuredMm).toBeCloseTo(0.8, 3);
    expect(thin[0]!.yMm).toBeCloseTo(20.4, 2);
  });
});

describe("the smallest gap", () => {
  test("between 60 pairs of made shapes is within 0.03 mm", () => {
    const random = seededRandom(182);
    for (let i = 0; i < 60; i++) {
      const gap = Number((0.1 + 3 * random()).toFixed(3));
      const angle = random() * 2 * Math.PI;
      const [r, s] = [2 + 4 * random(), 2 + 4 * random()];
      const away = r + s + gap;
      const shapes =
        i % 2
          ? [[circle(r)], [circle(s, away * Math.cos(angle), away * Math.sin(angle))]]
          : [[turned(rectangle(10, 4), angle)], [turned(rectangle(10, 4, 3, 4 + gap), angle)]];
      const [first] = findGaps(piecesOf(shapes), 10);
      expect(Math.abs(first!.distanceMm - gap)).toBeLessThan(0.03);
    }
  });

  test("pieces far from each other are not measured", () => {
    expect(findGaps(piecesOf([[circle(2)], [circle(2, 20, 0)]]), 10)).toEqual([]);
  });
});

describe("a lettering", () => {
  let plain: OpenedFace;
  beforeAll(async () => {
    plain = await openForLettering(makeFont({ stem: 160, thin: 160 }));
  });
  const check = (face: OpenedFace, material: Material, ...blocks: Block[]): LetteringCheck => {
    const laid = layoutLettering(documentOf(...blocks), face.faceOf);
    if (!laid.ok) throw new Error(laid.code);
    return checkLettering(laid.blocks.map(shapeBlock), material);
  };
  const kinds = ({ findings }: LetteringCheck) => [...new Set(findings.map((f) => f.kind))];

  test("a sturdy word has no findings; its pieces, counters, area and cut length are counted", () => {
    const found = check(plain, VINYL, blockOf("HI"));
    expect(found).toMatchObject({ findings: [], pieces: 2, islands: 0 });
    const laid = layoutLettering(documentOf(blockOf("HI")), plain.faceOf);
    const area = (laid.ok ? laid.blocks[0]!.letters : [])
      .flatMap((l) => l.glyphs)
      .map((g) => unitePolygons([flattenOutline(g.outline, 0.001)]).reduce((sum, p) => sum + areaOf(p), 0))
      .reduce((a, b) => a + b);
    expect(found.areaMm2).toBeCloseTo(area, 2);
    expect(found.thinnestMm).toBeCloseTo(8, 2);
  });

  test("thin strokes are told by letter, with what was measured and what is wanted", () => {
    const found = check(plain, { ...VINYL, minStrokeMm: 9 }, blockOf("I"));
    expect(found.findings).toEqual([
      expect.objectContaining({ kind: "thin", blockId: "line-1", letters: [0], wantedMm: 9 }),
    ]);
    expect(found.findings[0]!.measuredMm).toBeCloseTo(8, 2);
  });

  test("letters that come too near, overlap, or are too small are told", () => {
    const at = (dxMm: number) => blockOf("II", { letters: [{ at: 1, dxMm }] });
    const plainGap = check(plain, { ...VINYL, minGapMm: 0 }, blockOf("II")).smallestGapMm!;
    const near = check(plain, VINYL, at(0.4 - plainGap));
    expect(near.findings).toEqual([expect.objectContaining({ kind: "gap", letters: [0, 1], wantedMm: 1 })]);
    expect(near.findings[0]!.measuredMm).toBeCloseTo(0.4, 3);
    expect(kinds(check(plain, VINYL, at(-plainGap - 2)))).toEqual(["overlap"]);
    expect(kinds(check(plain, { ...VINYL, minPieceMm2: 1000 }, blockOf("I")))).toEqual(["small-piece"]);
  });

  test("joined letters that do not meet are apart; a bridge brings them together", () => {
    const apart = check(plain, VINYL, blockOf("II", { joined: true }));
    expect(apart.findings).toEqual([expect.objectContaining({ kind: "apart", letters: [0, 1] })]);
    expect(apart.pieces).toBe(2);
    const bridged = check(plain, VINYL, blockOf("II", { joined: true, bridges: [{ at: 0, to: 1, widthMm: 3 }] }));
    expect(bridged).toMatchObject({ findings: [], pieces: 1 });
    expect(bridged.thinnestMm).toBeCloseTo(3, 2);
  });

  test("a counter that a neighbour covers is told when joined, and can be kept open", () => {
    // The stem of the I is moved into the counter of the O.
    const covered = (more: Partial<Block>) =>
      blockOf("OI", { joined: true, size: { emMm: 100 }, letters: [{ at: 1, dxMm: -38, scale: 0.9 }], ...more });
    const found = check(plain, VINYL, covered({}));
    expect(kinds(found)).toContain("filled-counter");
    expect(found.findings.find((f) => f.kind === "filled-counter")!.letters).toEqual([0, 1]);
    const kept = check(plain, VINYL, covered({ keepsCounters: true }));
    expect(kinds(kept)).not.toContain("filled-counter");
    expect(kept.islands).toBeGreaterThanOrEqual(1);
  });

  test("counters are islands: all of a stencil, else the ones too small to weed; a strip opens them", async () => {
    const face = await openForLettering(demoBytes("work-sans", 700));
    const word = blockOf("AOB", { size: { emMm: 60 } });
    const found = check(face, VINYL, word);
    expect(found.islands).toBe(4);
    expect(kinds(found)).not.toContain("island");
    const stencil = check(face, { ...VINYL, isStencil: true }, word);
    const islands = stencil.findings.filter((f) => f.kind === "island").map((f) => f.letters[0]!);
    expect(islands.sort()).toEqual([0, 1, 2, 2]);
    const opened = check(
      face,
      { ...VINYL, isStencil: true },
      { ...word, bridges: [0, 1, 2].map((at) => ({ at, widthMm: 3 })) },
    );
    expect(opened.islands).toBe(0);
    expect(kinds(check(face, VINYL, { ...word, size: { emMm: 4 } }))).toContain("island");
  });

  test("a thin outline grown is thin no longer", async () => {
    const face = await openForLettering(demoBytes("josefin-sans", 100));
    const word = blockOf("Wren", { size: { emMm: 40 } });
    const thin = check(face, VINYL, word);
    expect(kinds(thin)).toContain("thin");
    const grown = check(face, VINYL, { ...word, growMm: 0.6 });
    expect(kinds(grown)).not.toContain("thin");
    expect(grown.thinnestMm! - thin.thinnestMm!).toBeGreaterThan(1.19);
  });

  test("script words joined are one piece where their letters meet", async () => {
    const face = await openForLettering(demoBytes("pacifico"));
    const joined = check(face, { minStrokeMm: 0.2, minGapMm: 0.2 }, blockOf("lanterns", { joined: true }));
    expect(joined.pieces).toBe(1);
    expect(kinds(check(face, { minStrokeMm: 0.2, minGapMm: 0.2 }, blockOf("lanterns")))).toContain("overlap");
  });
});
