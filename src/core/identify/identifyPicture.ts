// The whole of identifying: coarse over all styles, fine over the best, agreement per letter, chance. See README for the method.
import { writePath } from "../geometry/outline";
import type { OpenFace } from "../outlines/openFace";
import { leanLine, type InkLine, type InkReadings } from "../picture/readPicture";
import { UPRIGHT } from "../picture/straighten";
import { isCutWell, type CoarseRank } from "./coarse";
import { chancesOf, type AnswerEvidence } from "./chance";
import {
  deal,
  SHARES,
  type CloselyJob,
  type CoarseJob,
  type Crew,
  type ReplyTo,
  type LookJob,
  type SettleJob,
} from "./crew";
import type { FineResult } from "./fine";
import { byTotal, START, viewOf, type FaceLoader, type Laid, type Tried, type View } from "./fit";
import type { Coordinates } from "./instances";
import { oncePer } from "./oncePer";
import { drawPose, imageInk, posePolygons, scalePose, type Imaging, type Pose } from "./pose";
import type { Settled } from "./settle";
import type { SignatureIndex } from "./signature";
import { likenessOf, type Likeness } from "./twins";
import { wordingOf, type Wording } from "./wording";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, max, min } = Math;

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
export const EFFORT = { coarse: 60, perReading: 3, glances: 40, looks: 12, lookRounds: 2, closest: 5 };

/** An entry of the index to be looked at closely, under the view in which it came nearest. */
type Candidate = { entry: number; view: View; cost: number };

/** Leans that are supposed (tangents), and what a supposition costs the coarse stage. */
const LEANS = [-0.26, -0.13, 0.13, 0.26];
const LEAN_COST_COARSE = 1.1;
/** A coarse cost by cuts under which nothing is supposed. */
const NEAR_ENOUGH = 0.3;
/** A coarse cost under which the ink is not supposed to be anything else than what stands out. */
const PLAIN_ENOUGH = 0.3;
/** Costs are compared over ink of different amounts: another reading than the plain one must be clearly better. */
const READING_COST = 1.08;
/** Settings of a variable font are looked for when it comes within this of the best, and of as many fonts. */
const SETTLE_NEAR = 1.25;
const SETTLED = 2;

/** One question to a crew: what stands there, and where each entry came to lie so far. */
class Question {
  private poses = new Map<View, Map<number, Pose>>();
  constructor(
    private wording: Wording,
    private crew: Crew,
  ) {}

  /** The coarse stage over the whole index. @param cutsOnly - the dear look by pieces is left out. */
  async rank(line: InkLine, keep: number, cutsOnly = false): Promise<CoarseRank[]> {
    const ask = async (kind: CoarseJob["kind"]) => {
      const jobs = Array.from({ length: SHARES }, (_, at): CoarseJob => ({
        kind,
        line,
        wording: this.wording,
        share: { at, of: SHARES },
        keep,
      }));
      const ranks = (await this.crew(jobs)).flat();
      return ranks.sort((a, b) => a.cost - b.cost).slice(0, keep);
    };
    const isCut = line.letters.length === this.wording.characters.length;
    const byCuts = isCut ? await ask("cuts") : [];
    if (cutsOnly || isCutWell(byCuts)) return byCuts;
    const byPieces = await ask("pieces");
    return mergeRanks(byPieces, await ask("whole"));
  }

  /** A look at the small copies, each begun where the last one ended. */
  async look(list: Pick<Tried, "entry" | "view">[], imaging: Imaging, rounds: number): Promise<Tried[]> {
    const laid = list.map(({ entry, view }): Laid => {
      const pose = this.poses.get(view)?.get(entry) ?? null;
      return { entry, view, pose, per: view.perFirst };
    });
    const looked = await this.inShares(laid, (part): LookJob => ({
      kind: "look",
      laid: part,
      wording: this.wording,
      imaging,
      rounds,
    }));
    const tried = looked.flatMap((t) => t ?? []);
    for (const { view, entry, result } of tried) {
      let poses = this.poses.get(view);
      if (!poses) this.poses.set(view, (poses = new Map()));
      poses.set(entry, result.pose);
    }
    return tried.sort(byTotal);
  }

  async lookClosely(list: Tried[], imaging: Imaging): Promise<Tried[]> {
    const laid = list.map((t): Laid => ({ ...t, pose: t.result.pose }));
    return (await this.inShares(laid, (part): CloselyJob => ({ kind: "closely", laid: part, imaging }))).sort(byTotal);
  }

  settle(list: Tried[], imaging: Imaging): Promise<(Settled | null)[]> {
    return this.inShares(list, (tried): SettleJob => ({ kind: "settle", tried, wording: this.wording, imaging }));
  }

  /** Replies one an item, in their order. What comes back from elsewhere speaks of copies of the views: they are put back. */
  private async inShares<T extends { view: View }, J extends LookJob | CloselyJob | SettleJob>(
    list: T[],
    make: (part: T[]) => J,
  ): Promise<ReplyTo<J>[number][]> {
    const replies = await this.crew(deal(list).map(make));
    return list.map((item, i) => {
      const reply = replies[i % SHARES]![Math.floor(i / SHARES)] ?? null;
      const tried = reply && ("tried" in reply ? reply.tried : reply);
      if (tried) tried.view = item.view;
      return reply;
    });
  }
}

/** Two rankings whose costs do not compare: each place of the second counts as much as the same place of the first. */
function mergeRanks(first: CoarseRank[], second: CoarseRank[]): CoarseRank[] {
  const last = first[first.length - 1]?.cost ?? 1;
  const all = [...first, ...second.map((r, i) => ({ ...r, cost: first[i]?.cost ?? last }))];
  return oncePer(
    all.sort((a, b) => a.cost - b.cost),
    (r) => r.style,
  );
}

/** The best candidates over all views of one line; each entry once, under its best view. */
async function gatherCandidates(line: InkLine, question: Question): Promise<Candidate[]> {
  const upright = viewOf(line, UPRIGHT);
  const ranks = await question.rank(line, EFFORT.coarse);
  const list: Candidate[] = ranks.map((r) => ({ entry: r.style, view: upright, cost: r.cost }));
  if ((list[0]?.cost ?? 0) >= NEAR_ENOUGH)
    for (const tan of LEANS) {
      const leaned = leanLine(line, tan);
      const view = viewOf(leaned.line, leaned.lean);
      for (const r of await question.rank(view.line, EFFORT.coarse, true))
        list.push({ entry: r.style, view, cost: r.cost * LEAN_COST_COARSE });
    }
  return oncePer(
    list.sort((a, b) => a.cost - b.cost),
    (c) => c.entry,
  );
}

/**
 * Identifies the face of a line.
 * @param lines - as `readPicture` gives them: other suppositions of the ink are read where the plain one comes near to nothing.
 * @param text - what stands there, spaces included. @param crew - does the work over this index. @param limit - matches wanted.
 * @returns matches best first, and the chance that none of the styles is the one. No matches when nothing can be compared.
 */
export async function identifyPicture(
  lines: InkReadings,
  text: string,
  index: SignatureIndex,
  crew: Crew,
  limit: number,
): Promise<IdentifyResult> {
  const wording = wordingOf(text);
  const { characters } = wording;
  const question = new Question(wording, crew);
  let candidates = await gatherCandidates(lines.plain, question);
  if ((candidates[0]?.cost ?? Infinity) > PLAIN_ENOUGH) {
    const readings = [candidates];
    for (const other of lines.others()) readings.push(await gatherCandidates(other, question));
    candidates = await chooseReading(readings, question);
  }
  const first = await question.look(candidates.slice(0, 5), START, EFFORT.lookRounds);
  if (!first.length) return nothing(lines.plain, index);
  const begun = estimateImaging(first.slice(0, 3));
  const glanced = await question.look(candidates.slice(0, EFFORT.glances), begun, 0);
  const looked = await question.look(glanced.slice(0, EFFORT.looks), begun, EFFORT.lookRounds);
  const imaging = estimateImaging(looked.slice(0, 2));
  const last = await question.lookClosely(looked.slice(0, EFFORT.closest), imaging);
  const { settled, coordinates } = await settleNearest(last, index, question, imaging);
  const ranked = oncePer(
    [...settled, ...looked.slice(EFFORT.closest), ...glanced.slice(EFFORT.looks)],
    (t) => index.ids[t.entry],
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

function nothing(line: InkLine, index: SignatureIndex): IdentifyResult {
  const compared = countStyles(index);
  return { line, leanTan: 0, matches: [], noneChance: 1, compared, imaging: START, evidence: null };
}

/** Settings of the variable fonts that came near, looked for between the signed ones. */
async function settleNearest(last: Tried[], index: SignatureIndex, question: Question, imaging: Imaging) {
  const coordinates = new Map<Tried, Coordinates>();
  const near = last
    .filter((t) => index.coordinates[t.entry] && t.total <= last[0]!.total * SETTLE_NEAR)
    .slice(0, SETTLED);
  const found = near.length ? await question.settle(near, imaging) : [];
  const settled = last.map((t) => {
    const better = found[near.indexOf(t)];
    if (!better) return t;
    coordinates.set(better.tried, better.coordinates);
    return better.tried;
  });
  return { settled: settled.sort(byTotal), coordinates };
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
    edge: edgeOf(best),
    spacingEm: best.result.spacing,
    warp: abs(Math.log(best.result.pose.aspect)) + abs(best.result.pose.slant) + abs(best.result.pose.taper),
  };
}

/** Edges of a face as it lies on the line, against its ink, a pixel of the whole line. */
function edgeOf({ result, view, per }: Tried): number {
  const { widthPx: w, heightPx: h, ink } = drawPose(scalePose(result.pose, per), view.line.strip);
  let [edges, all] = [0, 0];
  for (let y = 1; y < h; y++)
    for (let x = 1; x < w; x++) {
      const i = y * w + x;
      all += ink[i]!;
      edges += Math.hypot(ink[i]! - ink[i - 1]!, ink[i]! - ink[i - w]!);
    }
  return edges / max(1, all);
}

/**
 * How far a line is from the nearest face when a text is supposed: what choosing between readings goes by.
 * @returns cost of the best of a few, 0 = the same; 1 where nothing can be laid over it.
 */
export async function fitText(line: InkLine, text: string, crew: Crew): Promise<number> {
  const question = new Question(wordingOf(text), crew);
  const view = viewOf(line, UPRIGHT);
  const ranks = await question.rank(line, EFFORT.perReading);
  const looked = await question.look(
    ranks.map((r) => ({ entry: r.style, view })),
    START,
    EFFORT.lookRounds,
  );
  return min(1, looked[0]?.total ?? 1);
}

const countStyles = (index: SignatureIndex) => new Set(index.ids).size;

/** Of the readings of the ink, the one whose best few come nearest when laid over it. */
async function chooseReading(readings: Candidate[][], question: Question): Promise<Candidate[]> {
  const few = readings.map((candidates) => candidates.slice(0, EFFORT.perReading));
  const looked = await question.look(few.flat(), START, EFFORT.lookRounds);
  const costOf = (k: number) => {
    const views = new Set(few[k]!.map((c) => c.view));
    const nearest = looked.find((t) => views.has(t.view));
    return (nearest?.total ?? Infinity) * (k ? READING_COST : 1);
  };
  const costs = readings.map((_, k) => costOf(k));
  return readings[costs.indexOf(min(...costs))] ?? readings[0]!;
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
export function pathOf({ result, view, per }: Tried): string {
  const { tan, middlePx, shiftPx } = view.lean;
  const pose = scalePose(result.pose, per);
  const back = { a: 1, b: 0, c: -tan, d: 1, e: tan * middlePx - shiftPx, f: 0 };
  return pose.parts
    .flatMap((part) => posePolygons(pose, part))
    .map((p) => writePath({ verbs: "M" + "L".repeat(p.length / 2 - 1) + "Z", coords: p }, back, 1))
    .join("");
}
