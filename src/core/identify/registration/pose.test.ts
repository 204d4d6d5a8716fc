import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine } from "../../../../tests/fixtures/drawLine";
import { readDemo } from "../../../../tests/fixtures/demoFont";
import { boundsOf } from "../../geometry/outline";
import type { OpenFace } from "../../outlines/openFace";
import { leanLine, readPicture, type InkLine } from "../../picture/readPicture";
import { refinePose } from "./fine";
import { placeWord, shapeVariants } from "./place";
import { clonePose, drawPose, imageInk, posePolygons } from "./pose";
import { wordingOf } from "../../picture/wording";

let face: OpenFace;
let line: InkLine;
const WORD = "Harbour";
beforeAll(async () => {
  face = (await readDemo("work-sans", 600)).face;
  line = readPicture(drawLine(face, WORD, { trackingPx: 2 }))!.plain;
});
const placeAll = (text: string, on = line) => {
  const wording = wordingOf(text);
  return placeWord(face, on, wording, shapeVariants(face, wording)[0]!);
};
const place = (text = WORD, on = line) => placeAll(text, on)[0]!;

describe("placing", () => {
  test("by cuts the word lies on the picture at once", () => {
    const result = refinePose(place(), line, { blurPx: 0.6, gain: 0 }, 0);
    expect(result.cost).toBeLessThan(0.25);
    expect(result.letters).toHaveLength(7);
  });

  test("each part lies over its letter", () => {
    const pose = place();
    pose.parts.forEach((part, i) => {
      const b = boundsOf(posePolygons(pose, part))!;
      expect(Math.abs(b.xMin - line.letters[i]!.left)).toBeLessThan(1.5);
      expect(Math.abs(b.yMax - line.letters[i]!.bottom)).toBeLessThan(1.5);
    });
  });

  test("a word of another length is led by its advances", () => {
    const pose = place("Harbours");
    expect(pose.parts).toHaveLength(8);
    const first = boundsOf(posePolygons(pose, pose.parts[0]!))!;
    const seventh = boundsOf(posePolygons(pose, pose.parts[6]!))!;
    const last = boundsOf(posePolygons(pose, pose.parts[7]!))!;
    expect(Math.abs(first.xMin - line.letters[0]!.left)).toBeLessThan(1);
    expect(Math.abs(seventh.xMax - line.letters[6]!.right)).toBeLessThan(2);
    // What has no ink of its own stands beside the last that has.
    expect(last.xMin).toBeGreaterThan(seventh.xMax - 3);
  });

  test("a word that cannot be that long or short is not placed", () => {
    expect(placeAll("l")).toEqual([]);
    expect(placeAll("Harbourandlighthousekeepersandalltheirlamps")).toEqual([]);
    expect(placeAll("  ")).toEqual([]);
  });
});

describe("moving", () => {
  test.each([
    ["sideways", (p: ReturnType<typeof place>) => p.parts.forEach((q) => (q.atPx += 1.2))],
    ["up", (p: ReturnType<typeof place>) => (p.baselinePx -= 1.1)],
    ["larger", (p: ReturnType<typeof place>) => (p.scalePx *= 1.05)],
    ["leaning", (p: ReturnType<typeof place>) => (p.slant = 0.05)],
  ])("a pose put wrong (%s) comes back", (_what, spoil) => {
    const right = refinePose(place(), line, { blurPx: 0.6, gain: 0 }, 6).cost;
    const pose = place();
    spoil(pose);
    const before = refinePose(clonePose(pose), line, { blurPx: 0.6, gain: 0 }, 0).cost;
    const after = refinePose(pose, line, { blurPx: 0.6, gain: 0 }, 8).cost;
    expect(after).toBeLessThan(before);
    expect(after).toBeLessThan(right + 0.03);
  });

  test("a refinement never ends worse than it began", () => {
    for (const blurPx of [0.3, 2.5])
      for (const gain of [-0.2, 0.2]) {
        const began = refinePose(place(), line, { blurPx, gain }, 0).cost;
        expect(refinePose(place(), line, { blurPx, gain }, 5).cost).toBeLessThanOrEqual(began);
      }
  });
});

describe("drawing", () => {
  test("is cut at full ink and keeps inside the strip", () => {
    const { ink } = drawPose(place(), line.strip);
    expect(ink).toHaveLength(line.strip.widthPx * line.strip.heightPx);
    expect(Math.max(...ink)).toBeLessThanOrEqual(1);
    const far = place();
    far.parts.forEach((p) => (p.atPx += 5000));
    expect(drawPose(far, line.strip).ink.every((v) => v === 0)).toBe(true);
  });

  test("gain spreads and thins the ink, blur keeps it", () => {
    const drawn = drawPose(place(), line.strip);
    const sum = (gain: number, blurPx = 0.8) => imageInk(drawn, { blurPx, gain }).reduce((a, b) => a + b, 0);
    expect(sum(0.2)).toBeGreaterThan(sum(0));
    expect(sum(-0.2)).toBeLessThan(sum(0));
    expect(sum(0, 1.6) / sum(0, 0)).toBeCloseTo(1, 2);
  });
});

describe("leaning a line", () => {
  test("there and back changes little", () => {
    const there = leanLine(line, 0.2);
    const back = leanLine(there.line, -0.2);
    const shift = there.lean.shiftPx + back.lean.shiftPx;
    let off = 0;
    let total = 0;
    for (let y = 0; y < line.strip.heightPx; y++)
      for (let x = 0; x < line.strip.widthPx; x++) {
        const was = line.strip.ink[y * line.strip.widthPx + x]!;
        off += Math.abs(was - back.line.strip.ink[y * back.line.strip.widthPx + x + shift]!);
        total += was;
      }
    expect(off / total).toBeLessThan(0.12);
  });

  test("letters that leaned into each other come apart", () => {
    const leaning = readPicture(drawLine(face, "IIIIIIII", { lean: 0.5, trackingPx: -2 }))!.plain;
    const upright = leanLine(leaning, 0.5).line;
    expect(upright.letters).toHaveLength(8);
    const widths = upright.letters.map((b) => b.right - b.left);
    expect(Math.max(...widths)).toBeLessThan((leaning.letters[0]!.right - leaning.letters[0]!.left) * 0.8);
  });
});
