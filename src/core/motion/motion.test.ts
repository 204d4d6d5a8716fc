// Easing against an independent implementation, tracks, order, and what is drawn at a moment.
import { beforeAll, describe, expect, test } from "@jest/globals";
import BezierEasing from "bezier-easing";
import type { Block } from "@/contracts/lettering";
import type { Motion, Track } from "@/contracts/motion";
import type { PosedMotion } from "@/contracts/poses";
import { seededRandom } from "@/core/geometry/numbers";
import { mapOutline } from "@/core/geometry/outline";
import { openFont } from "@/core/open/openFont";
import { openFace, openMovingFace, type MovingFace } from "@/core/outlines/openFace";
import { demoVariableBytes } from "../../../tests/fixtures/demoFont";
import { blockOf, documentOf } from "../../../tests/fixtures/lettering";
import { furthest, openInstance } from "../../../tests/fixtures/instanceOutline";
import { layoutLettering } from "../letter/layoutLettering";
import { drawFrame, newFrameMemory } from "./drawFrame";
import { easeAt } from "./ease";
import { countFrames, frameMs, frameSize, rateOf } from "./frames";
import { turnsOf } from "./order";
import { posesToTracks } from "./posesToTracks";
import { mixColours, valueAt } from "./valueAt";

describe("easing", () => {
  test("is the independent cubic Bézier within a thousandth", () => {
    const random = seededRandom(7);
    for (let n = 0; n < 300; n++) {
      const curve = [random(), random() * 3 - 1, random(), random() * 3 - 1] as [number, number, number, number];
      const other = BezierEasing(...curve);
      for (let i = 0; i <= 40; i++) expect(Math.abs(easeAt(curve, i / 40) - other(i / 40))).toBeLessThan(1e-3);
    }
  });

  test("curves of CSS, steps and ends", () => {
    expect(easeAt("in", 0.5)).toBeCloseTo(0.3153, 3);
    expect(easeAt("out", 0.5)).toBeCloseTo(0.6847, 3);
    expect(easeAt("in-out", 0.5)).toBeCloseTo(0.5, 6);
    expect([easeAt("hold", 0.99), easeAt("hold", 1), easeAt("linear", 0.3)]).toEqual([0, 1, 0.3]);
    // Handles straight above and below one another: the steepest there is.
    expect(easeAt([1, 0, 0, 1], 0.5)).toBeCloseTo(0.5, 6);
    expect(easeAt([1, 0, 0, 1], 0.4)).toBeLessThan(0.2);
  });
});

describe("values", () => {
  const keys = [
    { timeMs: 500, value: 10, ease: "hold" as const },
    { timeMs: 1000, value: 20 },
    { timeMs: 2000, value: 40 },
  ];
  test("hold before the first and after the last key, in any order", () => {
    for (const list of [keys, [...keys].reverse()]) {
      expect([0, 500, 999, 1000, 1500, 9000].map((t) => valueAt(list, t))).toEqual([10, 10, 10, 20, 30, 40]);
    }
  });
  test("of two keys at one time the later rules from there", () => {
    const jump = [
      { timeMs: 0, value: 0 },
      { timeMs: 1000, value: 1 },
      { timeMs: 1000, value: 5 },
    ];
    expect([valueAt(jump, 500), valueAt(jump, 1000), valueAt(jump, 2000)]).toEqual([0.5, 5, 5]);
  });
  test("colours are mixed by channel, and fade without turning dark", () => {
    expect(mixColours("#000000", "#ffffff", 0.5)).toBe("#808080");
    expect(mixColours("#ff000000", "#00ff00", 0.5)).toBe("#00ff0080");
    expect(mixColours("#102030", "#405060", 0)).toBe("#102030");
  });
});

test("frames: broadcast rates, counts, even sizes", () => {
  expect(rateOf(23.976)).toEqual({ frames: 24_000, seconds: 1001 });
  expect(rateOf(29.97)).toEqual({ frames: 30_000, seconds: 1001 });
  expect(rateOf(25)).toEqual({ frames: 25, seconds: 1 });
  expect(countFrames({ durationMs: 5000, fps: 25 })).toBe(125);
  expect(countFrames({ durationMs: 1001, fps: 29.97 })).toBe(30);
  expect(frameMs({ fps: 25 }, 37)).toBe(1480);
  expect(frameSize({ widthMm: 320, heightMm: 180 }, 1919)).toEqual({ widthPx: 1920, heightPx: 1080 });
  expect(frameSize({ widthMm: 300, heightMm: 133 }, 640)).toEqual({ widthPx: 640, heightPx: 284 });
});

describe("order", () => {
  const letters = [..."ab cd"].map((text, at) => ({ at, text, line: 0 }));
  const turns = (more: object) => [...turnsOf(letters, { staggerMs: 40, order: "first", ...more }).values()];
  test("letters from the first, the last, the middle, and shuffled the same each time", () => {
    expect(turns({})).toEqual([0, 1, 2, 3, 4]);
    expect(turns({ order: "last" })).toEqual([4, 3, 2, 1, 0]);
    expect(turns({ order: "middle" })).toEqual([2, 1, 0, 1, 2]);
    const shuffled = turns({ order: "shuffled" });
    expect([...shuffled].sort()).toEqual([0, 1, 2, 3, 4]);
    expect(turns({ order: "shuffled" })).toEqual(shuffled);
    expect(shuffled).not.toEqual([0, 1, 2, 3, 4]);
  });
  test("by word and by line", () => {
    expect(turns({ unit: "word" })).toEqual([0, 0, 0, 1, 1]);
    const two = letters.map((l) => ({ ...l, line: l.at < 2 ? 0 : 1 }));
    expect([...turnsOf(two, { staggerMs: 1, order: "last", unit: "line" }).values()]).toEqual([1, 1, 0, 0, 0]);
  });
});

describe("a moment", () => {
  let sfnt: Uint8Array;
  let moving: MovingFace;
  /** All axes where they rest: an instance must say each. */
  let atRest: Record<string, number>;
  beforeAll(async () => {
    const font = await openFont(demoVariableBytes("commissioner"));
    ({ sfnt } = font);
    atRest = Object.fromEntries(font.axes.map((a) => [a.tag, a.default]));
    moving = openMovingFace(sfnt);
  });
  const track = (property: string, keys: Track["keys"], more: Partial<Track> = {}): Track => ({
    ...{ target: "line-1", property, keys },
    ...more,
  });
  const ramp = (from: number, to: number, ease: Track["keys"][number]["ease"] = "linear") => [
    { timeMs: 0, value: from, ease },
    { timeMs: 1000, value: to },
  ];
  const motionOf = (...tracks: Track[]): Motion => ({ durationMs: 2000, fps: 25, tracks });
  const draw = (block: Block, motion: Motion, timeMs: number, memory = newFrameMemory()) => {
    const frame = drawFrame(documentOf(block), motion, timeMs, () => moving, memory);
    if (!frame.ok) throw new Error(frame.code);
    return frame;
  };
  const still = (block: Block) => {
    const laid = layoutLettering(documentOf(block), (b) => openFace(sfnt, b.coordinates));
    if (!laid.ok) throw new Error(laid.code);
    return laid.blocks[0]!.letters;
  };

  test("an axis on its way gives the outlines of the instance, as hb-shape draws them", () => {
    const block = blockOf("Keepers");
    const motion = motionOf(track("axis:wght", ramp(100, 900, "in-out")));
    for (const timeMs of [0, 130, 260, 500, 777, 1000, 1500]) {
      const weight = 100 + 800 * easeAt("in-out", timeMs / 1000);
      const frame = draw(block, motion, timeMs);
      const { emMm } = frame.groups[0]!;
      const instance = openInstance(sfnt, { ...atRest, wght: weight });
      for (const letter of frame.groups[0]!.letters)
        for (const glyph of letter.glyphs) {
          // Back into font units, from the glyph's own origin.
          const s = moving.face.unitsPerEm / emMm;
          const by = { a: s, b: 0, c: 0, d: -s, e: -glyph.origin.xMm * s, f: glyph.origin.yMm * s };
          const own = mapOutline(glyph.outline, by).coords;
          const theirs = instance(glyph.glyphId);
          expect(theirs.length).toBeGreaterThan(6);
          // Rounded to whole units: half a unit off at most.
          expect(furthest(own, theirs)).toBeLessThan(0.501);
          expect(furthest(theirs, own)).toBeLessThan(0.501);
        }
    }
  });

  test("all letters together stand where the still has them", () => {
    const block = blockOf("Keepers of the Lamp", { trackingEm: 0.05 });
    const motion = motionOf(
      track("axis:wght", ramp(100, 900)),
      track("xMm", ramp(20, 60)),
      track("trackingEm", ramp(0.4, 0)),
    );
    const { groups } = draw(block, motion, 250);
    const wanted = still(
      blockOf("Keepers of the Lamp", {
        coordinates: { wght: 300 },
        trackingEm: 0.3,
        at: { xMm: 30, yMm: 80 },
        features: { liga: 0, clig: 0 },
      }),
    );
    expect(groups).toHaveLength(1);
    const { by, letters } = groups[0]!;
    letters.forEach((letter, i) => {
      expect(letter.from.xMm + by.e).toBeCloseTo(wanted[i]!.from.xMm, 6);
      expect(letter.from.yMm + by.f).toBeCloseTo(wanted[i]!.from.yMm, 6);
    });
  });

  test("letters one after another: each is as its own late moment has it, and stands after those before", () => {
    const block = blockOf("Lamp");
    const perLetter = { staggerMs: 200, order: "first" as const };
    const motion = motionOf(
      track("axis:wght", ramp(100, 900), { perLetter }),
      track("opacity", ramp(0, 1), { perLetter }),
    );
    const { groups } = draw(block, motion, 600);
    expect(groups.map((g) => g.opacity)).toEqual([0.6, 0.4, 0.2, 0].map((v) => expect.closeTo(v, 9)));
    const advances = [0.6, 0.4, 0.2].map((share, i) => {
      const letters = still(blockOf("Lamp", { coordinates: { wght: 100 + 800 * share } }));
      return letters[i + 1]!.from.xMm - letters[i]!.from.xMm;
    });
    let xMm = 0;
    groups.forEach(({ letters }, i) => {
      expect(letters[0]!.from.xMm).toBeCloseTo(xMm, 6);
      xMm += advances[i] ?? 0;
    });
  });

  test("nothing jumps: between two moments a 1/600 s apart no letter moves further than its speed allows", () => {
    const block = blockOf("Keepers of the Lamp", { align: "centre", at: { xMm: 150, yMm: 80 } });
    const perLetter = { staggerMs: 40, order: "middle" as const };
    const motion = motionOf(track("axis:wght", ramp(100, 900, "out"), { perLetter }));
    const memory = newFrameMemory();
    let before: number[] | null = null;
    for (let timeMs = 0; timeMs < 1500; timeMs += 1000 / 600) {
      const now = draw(block, motion, timeMs, memory).groups.map((g) => g.letters[0]!.from.xMm);
      if (before) now.forEach((x, i) => expect(Math.abs(x - before![i]!)).toBeLessThan(0.35));
      before = now;
    }
  });

  test("scale and turn are about the block's place, or about the letter's own middle", () => {
    const motion = motionOf(track("scale", ramp(0, 2)));
    const { by } = draw(blockOf("L"), motion, 750).groups[0]!;
    expect([by.a, by.d, by.e, by.f]).toEqual([1.5, 1.5, 20, 80].map((v) => expect.closeTo(v, 9)));
    const perLetter = { staggerMs: 0, order: "first" as const, about: "letter" as const };
    const own = motionOf(track("turnDeg", ramp(0, 180), { perLetter }));
    const rest = draw(blockOf("o"), motionOf(), 0).groups[0]!;
    const turned = draw(blockOf("o"), own, 1000).groups[0]!;
    const middle = (coords: Float64Array, m: typeof by) => {
      const xs = [];
      for (let i = 0; i < coords.length; i += 2) xs.push(m.a * coords[i]! + m.c * coords[i + 1]! + m.e);
      return (Math.min(...xs) + Math.max(...xs)) / 2;
    };
    expect(turned.by.a).toBeCloseTo(-1, 9);
    expect(middle(turned.parts[0]!.outline.coords, turned.by)).toBeCloseTo(
      middle(rest.parts[0]!.outline.coords, rest.by),
      1,
    );
  });

  test("the sheet moves and fades with all that stands on it; a mask keeps what lies under the line", () => {
    const motion: Motion = {
      ...motionOf(
        { ...track("opacity", ramp(0, 1)), target: "sheet" },
        track("yMm", ramp(120, 80)),
        track("opacity", ramp(1, 0.5)),
      ),
      masks: ["line-1"],
    };
    const { groups } = draw(blockOf("Lamp"), motion, 500);
    expect(groups[0]!.opacity).toBeCloseTo(0.5 * 0.75, 9);
    // The edge lies under the p as it rests, not where it moves.
    const bottoms = [groups[0]!.clip![5]!, groups[0]!.clip![7]!];
    expect(bottoms[0]).toBeCloseTo(bottoms[1]!, 9);
    expect(bottoms[0]).toBeGreaterThan(80);
    expect(bottoms[0]).toBeLessThan(100);
  });

  test("what cannot be laid out is told, not drawn", () => {
    const frame = drawFrame(
      documentOf(blockOf("Lamp", { path: { kind: "drawn", d: "nonsense" } })),
      motionOf(),
      0,
      () => moving,
      newFrameMemory(),
    );
    expect(frame).toMatchObject({ ok: false, code: "path-unread", blockId: "line-1" });
  });
});

test("poses become tracks: a key per pose, what is absent as the document has it", () => {
  const block = blockOf("Lamp", { at: { xMm: 20, yMm: 80 }, turnDeg: 10, coordinates: { wght: 500 } });
  const motion: PosedMotion = {
    durationMs: 4000,
    fps: 25,
    poses: [
      { id: "p_b", name: "Stands", timeMs: 1200, ease: "hold", blocks: {} },
      {
        id: "p_a",
        name: "Arrives",
        timeMs: 0,
        ease: [0.2, 0, 0, 1],
        blocks: { "line-1": { dxMm: -8, opacity: 0, axes: { wght: 100, wdth: 80 }, turnDeg: -5 } },
      },
    ],
    stagger: { unit: "letter", order: "first", stepMs: 40 },
    mask: "baseline",
  };
  const { tracks, masks } = posesToTracks(documentOf(block), motion, (_, tag) => (tag === "wdth" ? 100 : 0));
  const valuesOf = (property: string) => tracks.find((t) => t.property === property)?.keys.map((k) => k.value);
  expect(valuesOf("xMm")).toEqual([12, 20]);
  expect(valuesOf("turnDeg")).toEqual([5, 10]);
  expect(valuesOf("opacity")).toEqual([0, 1]);
  expect(valuesOf("axis:wght")).toEqual([100, 500]);
  expect(valuesOf("axis:wdth")).toEqual([80, 100]);
  expect(valuesOf("scale")).toBeUndefined();
  expect(tracks[0]!.keys[0]).toMatchObject({ timeMs: 0, ease: [0.2, 0, 0, 1] });
  expect(tracks[0]!.perLetter).toEqual({ staggerMs: 40, order: "first", unit: "letter", about: "letter" });
  expect(masks).toEqual(["line-1"]);
});
