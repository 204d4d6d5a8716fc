// The whole of identifying: coarse over all styles, fine over the best, agreement per letter, chance. See README for the method.
import { writePath } from "../geometry/outline";
import type { OpenFace } from "../outlines/openFace";
import { halveLine, leanLine, type InkLine, type InkReadings } from "../picture/readPicture";
import { UPRIGHT, type Lean } from "../picture/straighten";
import { rankCoarse, setWord, type CoarseRank } from "./coarse";
import { chancesOf, type AnswerEvidence } from "./chance";
import { refinePose, type FineResult } from "./fine";
import type { Coordinates } from "./instances";
import { placeWord, setText } from "./place";
import { drawPose, imageInk, posePolygons, scalePose, type Imaging, type Pose } from "./pose";
import type { SignatureIndex } from "./signature";
import { likenessOf, type Likeness } from "./twins";
import { wordingOf, type Wording } from "./wording";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, max, min } = Math;

/** Opens a style's face, at a setting of its axes. */
export type FaceLoader = (styleId: string, coordinates: Coordinates | null) => OpenFace | null;

/** Faces that stay open between questions: nearly every question asks for the same few hundred. */
const FACES_KEPT = 400;

/** A loader that keeps what it opened. */
export function keepFaces(load: FaceLoader): FaceLoader {
  const kept = new Map<string, OpenFace | null>();
  return (styleId, coordinates) => {
    const key = coordinates ? `${styleId} ${JSON.stringify(coordinates)}` : styleId;
    const known = kept.get(key);
    const face = known === undefined ? load(styleId, coordinates) : known;
    // Last asked for, last to go.
    kept.delete(key);
    kept.set(key, face);
    if (kept.size > FACES_KEPT) kept.delete(kept.keys().next().value!);
    return face;
  };
}

export type Match = {
  styleId: string;
  family: string;
  /** The setting of a variable font that comes nearest; null for any other. */
  coordinates: Coordinates | null;
  /** 0–1: share of ink that agrees. */
  score: number;
  chance: number;
  letters: { char: string; agreement: number }[];
  /** Beside the first match: whether the letters of the picture can tell the two apart, and which letter would. Null for the first. */
  besideFirst: Likeness | null;
  /** Outline laid over the strip, SVG path in strip pixels. */
  overlayPath: string;
};
export type IdentifyResult = {
  /** The line under the supposition that was answered: its strip is what the overlays lie on. */
  line: InkLine;
  /** Tangent of the lean that was supposed of it; 0 = as it stands. */
  leanTan: number;
  matches: Match[];
  noneChance: number;
  compared: number;
  imaging: Imaging;
  /** What the chances were told from; null when there is no match. */
  evidence: AnswerEvidence | null;
};

/** Entries that are looked at, from all that the coarse stage left to the few that are looked at closely; rounds of fitting each. */
export const EFFORT = {
  coarse: 60,
  perReading: 3,
  glances: 36,
  glanceRounds: 1,
  looks: 14,
  lookRounds: 2,
  closest: 6,
  closestRounds: 4,
};
const SPACING_WEIGHT = 1.2;
const START: Imaging = { blurPx: 0.7, gain: 0 };
/** Ink of fewer pixels than this is not halved for the first look. */
const HALVE_FROM_PX = 44;

/** The line under one supposition of its ink and of how far perspective made its letters lean. */
type View = { line: InkLine; lean: Lean; first: InkLine; perFirst: number };
/** An entry of the index to be looked at closely, under the view in which it came nearest. */
type Candidate = { entry: number; view: View; cost: number };
/** `per`: how many pixels of the whole line one of the result's pose is. */
type Tried = { entry: number; view: View; per: number; result: FineResult; total: number };

/** Leans that are supposed (tangents), and what a supposition costs: a face that fits as it stands is believed first. */
const LEANS = [-0.26, -0.13, 0.13, 0.26];
const LEAN_COST_COARSE = 1.1;
const LEAN_COST_FINE = 0.12;
/** A coarse cost by cuts under which nothing is supposed. */
const NEAR_ENOUGH = 0.3;
/** A coarse cost under which the ink is not supposed to be anything else than what stands out. */
const PLAIN_ENOUGH = 0.3;
/** Costs are compared over ink of different amounts: another reading than the plain one must be clearly better. */
const READING_COST = 1.08;

function viewOf(line: InkLine, lean: Lean): View {
  const isHalved = line.strip.heightPx - 16 >= HALVE_FROM_PX;
  return { line, lean, first: isHalved ? halveLine(line) : line, perFirst: isHalved ? 2 : 1 };
}

/** The best candidates over all views of one line; each entry once, under its best view. */
function gatherCandidates(line: InkLine, rank: (l: InkLine, cutsOnly: boolean) => CoarseRank[]): Candidate[] {
  const upright = viewOf(line, UPRIGHT);
  const list: Candidate[] = rank(line, false).map((r) => ({ entry: r.style, view: upright, cost: r.cost }));
  if ((list[0]?.cost ?? 0) >= NEAR_ENOUGH)
    for (const tan of LEANS) {
      const leaned = leanLine(line, tan);
      const view = viewOf(leaned.line, leaned.lean);
      for (const r of rank(view.line, true)) list.push({ entry: r.style, view, cost: r.cost * LEAN_COST_COARSE });
    }
  const seen = new Set<number>();
  return list.sort((a, b) => a.cost - b.cost).filter((c) => !seen.has(c.entry) && seen.add(c.entry));
}

/** Fits entries to a line and remembers where each came to lie. */
class Fitter {
  private poses = new Map<View, Map<number, Pose>>();
  constructor(
    private index: SignatureIndex,
    private load: FaceLoader,
    private wording: Wording,
  ) {}

  /** A first look, at the small copy. */
  look({ entry, view }: Pick<Candidate, "entry" | "view">, imaging: Imaging, rounds: number): Tried | null {
    const pose = this.placed(entry, view);
    if (!pose) return null;
    const result = refinePose(pose, view.first, shrinkImaging(imaging, view), rounds);
    return this.told(entry, view, view.perFirst, result);
  }

  /** The closest look, at the whole line, beginning where another look ended. */
  lookClosely({ entry, view, per, result }: Tried, imaging: Imaging): Tried {
    const pose = scalePose(result.pose, per);
    return this.told(entry, view, 1, refinePose(pose, view.line, imaging, EFFORT.closestRounds));
  }

  /** Another setting of the same font over the small copy, begun where this one lies. */
  lookAt(tried: Tried, coordinates: Coordinates, imaging: Imaging): Tried | null {
    const face = this.load(this.index.ids[tried.entry]!, coordinates);
    const { view, per } = tried;
    const placed = face && this.place(face, view);
    if (!placed || placed.parts.length !== tried.result.pose.parts.length) return null;
    const at = scalePose(tried.result.pose, per / view.perFirst);
    const pose: Pose = {
      ...at,
      parts: placed.parts.map((p, i) => ({ ...p, atPx: at.parts[i]!.atPx, dyPx: at.parts[i]!.dyPx })),
    };
    const result = refinePose(pose, view.first, shrinkImaging(imaging, view), 1);
    return this.told(tried.entry, view, view.perFirst, result);
  }

  private placed(entry: number, view: View): Pose | null {
    let poses = this.poses.get(view);
    if (!poses) this.poses.set(view, (poses = new Map()));
    let pose = poses.get(entry) ?? null;
    if (!pose) {
      const face = this.load(this.index.ids[entry]!, this.index.coordinates[entry]!);
      pose = face && this.place(face, view);
      if (pose) poses.set(entry, pose);
    }
    return pose;
  }

  /** Under the setting that comes nearer at the first look. */
  private place(face: OpenFace, view: View): Pose | null {
    const { clean, characters, wordStarts } = this.wording;
    const poses = setText(face, clean).flatMap(
      (run) => placeWord(face, view.first, clean, characters, wordStarts, run) ?? [],
    );
    if (poses.length < 2) return poses[0] ?? null;
    const costs = poses.map((p) => refinePose(p, view.first, shrinkImaging(START, view), 0));
    const total = (r: FineResult) => r.cost + SPACING_WEIGHT * r.spacing;
    return total(costs[1]!) < total(costs[0]!) ? poses[1]! : poses[0]!;
  }

  private told(entry: number, view: View, per: number, result: FineResult): Tried {
    const total = result.cost + SPACING_WEIGHT * result.spacing + LEAN_COST_FINE * abs(view.lean.tan);
    return { entry, view, per, result, total };
  }
}

const shrinkImaging = (imaging: Imaging, { perFirst }: View): Imaging => ({
  ...imaging,
  blurPx: imaging.blurPx / perFirst,
});
const byTotal = (a: Tried, b: Tried) => a.total - b.total;

/**
 * Identifies the face of a line.
 * @param lines - as `readPicture` gives them: other suppositions of the ink are read where the plain one comes near to nothing.
 * @param text - what stands there, spaces included. @param limit - matches wanted.
 * @returns matches best first, and the chance that none of the styles is the one. No matches when nothing can be compared.
 */
export function identifyPicture(
  lines: InkReadings,
  text: string,
  index: SignatureIndex,
  load: FaceLoader,
  limit: number,
): IdentifyResult {
  const wording = wordingOf(text);
  const { characters } = wording;
  const fitter = new Fitter(index, load, wording);
  const word = setWord(wording, index);
  const gather = (line: InkLine) =>
    gatherCandidates(line, (l, cutsOnly) => rankCoarse(l, word, index, EFFORT.coarse, cutsOnly));
  const none = (line: InkLine) => ({
    line,
    leanTan: 0,
    matches: [],
    noneChance: 1,
    compared: countStyles(index),
    imaging: START,
    evidence: null,
  });
  let candidates = gather(lines.plain);
  if ((candidates[0]?.cost ?? Infinity) > PLAIN_ENOUGH)
    candidates = chooseReading([candidates, ...lines.others().map(gather)], fitter);
  let imaging = START;
  const first = candidates.slice(0, 5).flatMap((c) => fitter.look(c, imaging, EFFORT.lookRounds) ?? []);
  if (!first.length) return none(lines.plain);
  imaging = estimateImaging(first.sort(byTotal).slice(0, 3));
  const glanced = candidates
    .slice(0, EFFORT.glances)
    .flatMap((c) => fitter.look(c, imaging, EFFORT.glanceRounds) ?? [])
    .sort(byTotal);
  const looked = glanced
    .slice(0, EFFORT.looks)
    .flatMap((t) => fitter.look(t, imaging, EFFORT.lookRounds) ?? [])
    .sort(byTotal);
  imaging = estimateImaging(looked.slice(0, 2));
  const last = looked
    .slice(0, EFFORT.closest)
    .map((t) => fitter.lookClosely(t, imaging))
    .sort(byTotal);
  const { settled, coordinates } = settleAxes(last, index, fitter, imaging);
  const ranked = onePerStyle(
    [...settled.sort(byTotal), ...looked.slice(EFFORT.closest), ...glanced.slice(EFFORT.looks)],
    index,
  );
  const evidence = evidenceOf(ranked, index, characters, imaging);
  const { chances, none: noneChance } = chancesOf(
    ranked.map((t) => t.total),
    evidence,
  );
  const matches = ranked.slice(0, limit).map((t, i) => ({
    styleId: index.ids[t.entry]!,
    family: index.families[t.entry]!,
    coordinates: coordinates.get(t) ?? index.coordinates[t.entry]!,
    score: max(0, 1 - t.total),
    chance: chances[i]!,
    letters: lettersOf(t.result, characters),
    besideFirst: i ? likenessOf(index, ranked[0]!.entry, t.entry, characters) : null,
    overlayPath: pathOf(t),
  }));
  const { line, lean } = ranked[0]!.view;
  return { line, leanTan: lean.tan, matches, noneChance, compared: countStyles(index), imaging, evidence };
}

function evidenceOf(ranked: Tried[], index: SignatureIndex, characters: string[], imaging: Imaging): AnswerEvidence {
  const best = ranked[0]!;
  const family = index.families[best.entry]!;
  const agreement = lettersOf(best.result, characters)
    .map((l) => l.agreement)
    .sort((a, b) => a - b);
  return {
    cost: best.total,
    nextFamilyCost: ranked.find((t) => index.families[t.entry] !== family)?.total ?? 1,
    letterCount: characters.length,
    blurPx: imaging.blurPx,
    noisy: best.view.line.noisy,
    worstAgreement: agreement[Math.floor(agreement.length / 5)] ?? 0,
  };
}

/**
 * How far a line is from the nearest face when a text is supposed: what choosing between readings goes by.
 * @returns cost of the best of a few, 0 = the same; 1 where nothing can be laid over it.
 */
export function fitText(line: InkLine, text: string, index: SignatureIndex, load: FaceLoader): number {
  const wording = wordingOf(text);
  const fitter = new Fitter(index, load, wording);
  const ranks = rankCoarse(line, setWord(wording, index), index, EFFORT.perReading);
  const view = viewOf(line, UPRIGHT);
  return min(1, ...ranks.map((r) => fitter.look({ entry: r.style, view }, START, EFFORT.lookRounds)?.total ?? 1));
}

const countStyles = (index: SignatureIndex) => new Set(index.ids).size;

/** Of the readings of the ink, the one whose best few come nearest when laid over it. */
function chooseReading(readings: Candidate[][], fitter: Fitter): Candidate[] {
  let best = { total: Infinity, candidates: readings[0]! };
  readings.forEach((candidates, k) => {
    for (const c of candidates.slice(0, EFFORT.perReading)) {
      const total = (fitter.look(c, START, EFFORT.lookRounds)?.total ?? Infinity) * (k ? READING_COST : 1);
      if (total < best.total) best = { total, candidates };
    }
  });
  return best.candidates;
}

function onePerStyle(ranked: Tried[], index: SignatureIndex): Tried[] {
  const seen = new Set<string>();
  return ranked.filter((t) => !seen.has(index.ids[t.entry]!) && seen.add(index.ids[t.entry]!));
}

/** Axes whose setting is looked for between the signed ones, and how far apart those may be. */
const SETTLED_AXES: Record<string, number> = { wght: 65, wdth: 12, slnt: 4 };
/** Only a font that may be the answer is worth the trouble. */
const SETTLE_NEAR = 1.25;

/** Looks between the signed settings of variable fonts that came near. */
function settleAxes(last: Tried[], index: SignatureIndex, fitter: Fitter, imaging: Imaging) {
  const coordinates = new Map<Tried, Coordinates>();
  const lowest = last[0]?.total ?? 0;
  let left = 2;
  const settled = last.map((t) => {
    const begun = index.coordinates[t.entry];
    if (!begun || t.total > lowest * SETTLE_NEAR || left-- <= 0) return t;
    let best = fitter.lookAt(t, begun, imaging);
    let at = begun;
    for (const [tag, step] of Object.entries(SETTLED_AXES)) {
      if (at[tag] === undefined) continue;
      for (const by of [step, -step, step / 2, -step / 2]) {
        const next = { ...at, [tag]: at[tag]! + by };
        const looked: Tried | null = best && fitter.lookAt(best, next, imaging);
        if (looked && best && looked.total < best.total) [best, at] = [looked, next];
      }
    }
    if (at === begun || !best) return t;
    const whole = fitter.lookClosely(best, imaging);
    if (whole.total >= t.total) return t;
    coordinates.set(whole, at);
    return whole;
  });
  return { settled, coordinates };
}

/**
 * Blur and ink gain of the picture: those under which one of the best few comes nearest. Not their mean: a wrong face
 * asks for blur to hide what differs, the right one does not.
 */
function estimateImaging(tried: Tried[]): Imaging {
  let best = { cost: Infinity, imaging: START };
  for (const { result, view } of tried) {
    const { ink: seen } = view.first.strip;
    const drawn = drawPose(result.pose, view.first.strip);
    const total = seen.reduce((a, v) => a + v, 0);
    const imaged = new Float32Array(seen.length);
    for (const blurPx of BLURS_PX) {
      imageInk(drawn, { blurPx, gain: 0 }, imaged);
      for (const gain of GAINS) {
        let cost = 0;
        for (let i = 0; i < seen.length; i++) {
          const v = imaged[i]!;
          const d = v + gain * 4 * v * (1 - v) - seen[i]!;
          cost += d < 0 ? -d : d;
        }
        if (cost / total < best.cost) best = { cost: cost / total, imaging: { blurPx: blurPx * view.perFirst, gain } };
      }
    }
  }
  return best.imaging;
}
const BLURS_PX = [0.3, 0.6, 0.9, 1.3, 1.8, 2.5];
const GAINS = [-0.2, -0.1, 0, 0.1, 0.2];

function lettersOf({ letters, pose }: FineResult, characters: string[]): Match["letters"] {
  const per = new Array<number | null>(characters.length).fill(null);
  pose.parts.forEach((p, i) => {
    for (let k = p.first; k < p.first + p.count && k < per.length; k++) per[k] = min(per[k] ?? 1, letters[i]!);
  });
  return characters.map((char, i) => ({ char, agreement: Number((per[i] ?? 0).toFixed(3)) }));
}

/** The face's outline over the strip as it was read: a supposed lean is put back. */
function pathOf({ result, view, per }: Tried): string {
  const { tan, middlePx, shiftPx } = view.lean;
  const pose = scalePose(result.pose, per);
  const back = { a: 1, b: 0, c: -tan, d: 1, e: tan * middlePx - shiftPx, f: 0 };
  return pose.parts
    .flatMap((part) => posePolygons(pose, part))
    .map((p) => writePath({ verbs: "M" + "L".repeat(p.length / 2 - 1) + "Z", coords: p }, back, 1))
    .join("");
}
