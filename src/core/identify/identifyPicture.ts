// The whole of identifying: coarse over all styles, fine over the best, agreement per letter, chance. See README for the method.
import { writePath } from "../geometry/outline";
import type { OpenFace } from "../outlines/openFace";
import { leanLine, type InkLine } from "../picture/readPicture";
import { UPRIGHT, type Lean } from "../picture/straighten";
import { rankCoarse, type CoarseRank } from "./coarse";
import { chancesOf } from "./chance";
import { placeWord, refinePose, type FineResult } from "./fine";
import { drawPose, imageInk, posePolygons, type Imaging, type Pose } from "./pose";
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

export const EFFORT = { coarse: 60, fine: 40, finest: 10, firstRounds: 3, lastRounds: 5 };
const SPACING_WEIGHT = 1.2;
const START: Imaging = { blurPx: 0.7, gain: 0 };

/** The line under one supposition of how far perspective made its letters lean. */
type View = { line: InkLine; lean: Lean };
/** A style to be looked at closely, under the view in which it came nearest. */
type Candidate = { style: number; view: View; cost: number };
type Tried = { style: number; view: View; result: FineResult; total: number };

/** Leans that are supposed (tangents), and what a supposition costs: a face that fits as it stands is believed first. */
const LEANS = [-0.26, -0.13, 0.13, 0.26];
const LEAN_COST_COARSE = 1.1;
const LEAN_COST_FINE = 0.12;
/** A coarse cost by cuts under which nothing is supposed. */
const NEAR_ENOUGH = 0.3;

/** The best candidates over all views; each style once, under its best view. */
function gatherCandidates(line: InkLine, rank: (l: InkLine, cutsOnly: boolean) => CoarseRank[]): Candidate[] {
  const upright: View = { line, lean: UPRIGHT };
  const list: Candidate[] = rank(line, false).map((r) => ({ style: r.style, view: upright, cost: r.cost }));
  if ((list[0]?.cost ?? 0) >= NEAR_ENOUGH)
    for (const tan of LEANS) {
      const view = leanLine(line, tan);
      for (const r of rank(view.line, true)) list.push({ style: r.style, view, cost: r.cost * LEAN_COST_COARSE });
    }
  const seen = new Set<number>();
  return list.sort((a, b) => a.cost - b.cost).filter((c) => !seen.has(c.style) && seen.add(c.style));
}

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
  const coarse = gatherCandidates(line, (l, cutsOnly) =>
    rankCoarse(l, characters, wordStarts, index, EFFORT.coarse, cutsOnly),
  );
  const tried: Tried[] = [];
  const poses = new Map<number, Pose>();
  const tryStyle = (
    { style, view }: Pick<Candidate, "style" | "view">,
    imaging: Imaging,
    rounds: number,
    giveUpAbove = Infinity,
  ): Tried | null => {
    let pose = poses.get(style);
    if (!pose) {
      const face = load(index.ids[style]!);
      const placed = face && placeWord(face, view.line, clean, characters, wordStarts);
      if (!placed) return null;
      poses.set(style, (pose = placed));
    }
    const result = refinePose(pose, view.line, imaging, rounds, giveUpAbove);
    const total = result.cost + SPACING_WEIGHT * result.spacing + LEAN_COST_FINE * abs(view.lean.tan);
    return { style, view, result, total };
  };
  let imaging = START;
  const first = coarse.slice(0, 6).flatMap((c) => tryStyle(c, imaging, EFFORT.firstRounds) ?? []);
  if (!first.length) return { matches: [], noneChance: 1, compared: index.ids.length, imaging };
  first.sort((a, b) => a.total - b.total);
  imaging = estimateImaging(first.slice(0, 4));
  let lowest = first[0]!.result.cost;
  for (const candidate of coarse.slice(0, EFFORT.fine)) {
    const t = tryStyle(candidate, imaging, EFFORT.firstRounds, lowest * 2 + 0.1);
    if (!t) continue;
    tried.push(t);
    lowest = min(lowest, t.result.cost);
  }
  tried.sort((a, b) => a.total - b.total);
  imaging = estimateImaging(tried.slice(0, 3));
  const last = tried.slice(0, EFFORT.finest).flatMap((t) => tryStyle(t, imaging, EFFORT.lastRounds) ?? []);
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
    overlayPath: pathOf(t.result.pose, t.view.lean),
  }));
  return { matches, noneChance: none, compared: index.ids.length, imaging };
}

/**
 * Blur and ink gain of the picture: those under which one of the best few comes nearest. Not their mean: a wrong face
 * asks for blur to hide what differs, the right one does not.
 */
function estimateImaging(tried: Tried[]): Imaging {
  let best = { cost: Infinity, imaging: START };
  for (const { result, view } of tried) {
    const { strip } = view.line;
    const drawn = drawPose(result.pose, strip);
    const total = strip.ink.reduce((a, v) => a + v, 0);
    for (const blurPx of [0.3, 0.6, 0.9, 1.3, 1.8, 2.5]) {
      const ink = imageInk(drawn, strip, { blurPx, gain: 0 });
      for (const gain of [-0.2, -0.1, 0, 0.1, 0.2]) {
        let cost = 0;
        for (let i = 0; i < ink.length; i++) {
          const v = ink[i]!;
          cost += abs(v + gain * 4 * v * (1 - v) - strip.ink[i]!);
        }
        if (cost / total < best.cost) best = { cost: cost / total, imaging: { blurPx, gain } };
      }
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

/** The face's outline over the strip as it was read: a supposed lean is put back. */
function pathOf(pose: Pose, { tan, middlePx, shiftPx }: Lean): string {
  const back = { a: 1, b: 0, c: -tan, d: 1, e: tan * middlePx - shiftPx, f: 0 };
  return pose.parts
    .flatMap((part) => posePolygons(pose, part))
    .map((p) => writePath({ verbs: "M" + "L".repeat(p.length / 2 - 1) + "Z", coords: p }, back, 1))
    .join("");
}
