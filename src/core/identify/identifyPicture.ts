// The whole of identifying: coarse over all styles, fine over the best, agreement per letter, chance. See README for the method.
import { writePath } from "../geometry/outline";
import type { OpenFace } from "../outlines/openFace";
import type { InkLine } from "../picture/readPicture";
import { rankCoarse } from "./coarse";
import { chancesOf } from "./chance";
import {
  drawPose,
  imageInk,
  placeWord,
  posePolygons,
  refinePose,
  type FineResult,
  type Imaging,
  type Pose,
} from "./fine";
import type { SignatureIndex } from "./signature";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, max, min } = Math;

export type FaceLoader = (styleId: string) => OpenFace | null;
export type Match = {
  styleId: string;
  family: string;
  /** 0–1: share of ink that agrees. */
  score: number;
  chance: number;
  letters: { char: string; agreement: number }[];
  /** Outline laid over the strip, SVG path in strip pixels. */
  overlayPath: string;
};
export type IdentifyResult = { matches: Match[]; noneChance: number; compared: number; imaging: Imaging };

export const EFFORT = { coarse: 48, fine: 36, finest: 10, firstRounds: 2, lastRounds: 4 };
const SPACING_WEIGHT = 1.2;
const START: Imaging = { blurPx: 0.7, gain: 0 };

type Tried = { style: number; result: FineResult; total: number };

/**
 * Identifies the face of a line.
 * @param text - what stands there, spaces included. @param limit - matches wanted.
 * @returns matches best first, and the chance that none of the styles is the one. No matches when nothing can be compared.
 */
export function identifyPicture(
  line: InkLine,
  text: string,
  index: SignatureIndex,
  load: FaceLoader,
  limit: number,
): IdentifyResult {
  const words = text.normalize("NFC").trim().split(/\s+/);
  const characters = words.flatMap((w) => [...w]);
  const wordStarts: number[] = [];
  words.reduce((at, w) => {
    wordStarts.push(at);
    return at + [...w].length;
  }, 0);
  const clean = words.join(" ");
  const coarse = rankCoarse(line, characters, wordStarts, index, EFFORT.coarse);
  const tried: Tried[] = [];
  const poses = new Map<number, Pose>();
  const tryStyle = (style: number, imaging: Imaging, rounds: number, giveUpAbove = Infinity): Tried | null => {
    let pose = poses.get(style);
    if (!pose) {
      const face = load(index.ids[style]!);
      const placed = face && placeWord(face, line, clean, characters, wordStarts);
      if (!placed) return null;
      poses.set(style, (pose = placed));
    }
    const result = refinePose(pose, line, imaging, rounds, giveUpAbove);
    return { style, result, total: result.cost + SPACING_WEIGHT * result.spacing };
  };
  let imaging = START;
  const first = coarse.slice(0, 6).flatMap((c) => tryStyle(c.style, imaging, EFFORT.firstRounds) ?? []);
  if (!first.length) return { matches: [], noneChance: 1, compared: index.ids.length, imaging };
  first.sort((a, b) => a.total - b.total);
  imaging = estimateImaging(
    first.slice(0, 4).map((t) => t.result.pose),
    line,
  );
  let lowest = first[0]!.result.cost;
  for (const { style } of coarse.slice(0, EFFORT.fine)) {
    const t = tryStyle(style, imaging, EFFORT.firstRounds, lowest * 2 + 0.1);
    if (!t) continue;
    tried.push(t);
    lowest = min(lowest, t.result.cost);
  }
  tried.sort((a, b) => a.total - b.total);
  imaging = estimateImaging(
    tried.slice(0, 3).map((t) => t.result.pose),
    line,
  );
  const last = tried.slice(0, EFFORT.finest).flatMap((t) => tryStyle(t.style, imaging, EFFORT.lastRounds) ?? []);
  last.sort((a, b) => a.total - b.total);
  const ranked = [...last, ...tried.slice(EFFORT.finest)];
  const { chances, none } = chancesOf(
    ranked.map((t) => ({ cost: t.total, family: index.families[t.style]! })),
    characters.length,
  );
  const matches = ranked.slice(0, limit).map((t, i) => ({
    styleId: index.ids[t.style]!,
    family: index.families[t.style]!,
    score: max(0, 1 - t.total),
    chance: chances[i]!,
    letters: lettersOf(t.result, characters),
    overlayPath: pathOf(t.result.pose),
  }));
  return { matches, noneChance: none, compared: index.ids.length, imaging };
}

/** Blur and ink gain that make the best few poses differ least from the picture. */
function estimateImaging(poses: Pose[], line: InkLine): Imaging {
  let best = { cost: Infinity, imaging: START };
  const drawings = poses.map((p) => drawPose(p, line.strip));
  const wanted = line.strip.ink;
  for (const blurPx of [0.3, 0.6, 0.9, 1.3, 1.8, 2.5]) {
    const blurred = drawings.map((d) => imageInk(d, line.strip, { blurPx, gain: 0 }));
    for (const gain of [-0.2, -0.1, 0, 0.1, 0.2]) {
      let cost = 0;
      for (const ink of blurred)
        for (let i = 0; i < ink.length; i++) {
          const v = ink[i]!;
          cost += abs(v + gain * 4 * v * (1 - v) - wanted[i]!);
        }
      if (cost < best.cost) best = { cost, imaging: { blurPx, gain } };
    }
  }
  return best.imaging;
}

function lettersOf({ letters, pose }: FineResult, characters: string[]): Match["letters"] {
  const per = new Array<number | null>(characters.length).fill(null);
  pose.parts.forEach((p, i) => {
    for (let k = p.first; k < p.first + p.count && k < per.length; k++) per[k] = min(per[k] ?? 1, letters[i]!);
  });
  return characters.map((char, i) => ({ char, agreement: Number((per[i] ?? 0).toFixed(3)) }));
}

function pathOf(pose: Pose): string {
  const one = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };
  return pose.parts
    .flatMap((part) => posePolygons(pose, part))
    .map((p) => writePath({ verbs: "M" + "L".repeat(p.length / 2 - 1) + "Z", coords: p }, one, 1))
    .join("");
}
