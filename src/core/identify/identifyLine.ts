// The whole of identifying: coarse over all styles, fine over the best, agreement per letter, chance. See README for the method.
import { LRUCache } from "lru-cache";
import { writePath } from "../geometry/outline";
import type { OpenFace } from "../outlines/openFace";
import { isEvened, type InkReading } from "../picture/inks";
import { leanLine, type InkLine, type InkReadings } from "../picture/readPicture";
import { spanOf, UPRIGHT, type Lean } from "../picture/straighten";
import { chancesOf, type AnswerEvidence } from "./answer/chance";
import type { Executor } from "./executor";
import type { FineResult } from "./registration/fine";
import { byTotal, START, viewOf, type FaceLoader, type Tried, type View } from "./registration/fit";
import type { VariationLocation } from "../descriptors/instances";
import { uniqueBy } from "./ranking/uniqueBy";
import { drawPose, posePolygons, scalePose, type Imaging } from "./registration/pose";
import type { CoarseRank } from "./ranking/coarse";
import { estimateImaging } from "./registration/imaging";
import { MatchSession } from "./session";
import type { SignatureIndex } from "../descriptors/extractDescriptors";
import { proposeSmallCapitals } from "./hypotheses/smallCapitals";
import { likenessOf, type Likeness } from "../descriptors/twins";
import { drawnCharacters, wordingOf, type Wording } from "../picture/wording";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, max, min } = Math;

/** Faces that stay open between questions: nearly every session asks for the same few hundred. */
const FACES_KEPT = 400;

/** A loader that keeps what it opened. */
export function cacheFaces(load: FaceLoader): FaceLoader {
  const kept = new LRUCache<string, { face: OpenFace | null }>({ max: FACES_KEPT });
  return (styleId, coordinates) => {
    const key = coordinates ? `${styleId} ${JSON.stringify(coordinates)}` : styleId;
    let known = kept.get(key);
    if (!known) kept.set(key, (known = { face: load(styleId, coordinates) }));
    return known.face;
  };
}

export type Match = {
  styleId: string;
  family: string;
  /** The location of a variable font that comes nearest; null for any other. */
  coordinates: VariationLocation | null;
  /** 0–1: share of ink that agrees. */
  score: number;
  chance: number;
  letters: { char: string; agreement: number }[];
  /** Beside the first match: whether the letters of the picture can tell the two apart, and which letter would. Null for the first. */
  besideFirst: Likeness | null;
  /** OpenType tags of the features under which the face comes nearest, beside its own rules. */
  features: string[];
  /** Outline laid over the strip, SVG path in strip pixels. */
  overlayPath: string;
};
export type IdentifyResult = {
  /** The line under the hypothesis that was answered: its strip is what the overlays lie on. */
  line: InkLine;
  /** Tangent of the lean that was assumed of it; 0 = as it stands. */
  leanTan: number;
  /** How the letters of the first match grow along the line, from its middle to either end. */
  taper: number;
  /** How the text was assumed to be set. */
  setAs: "plain" | "small-capitals";
  matches: Match[];
  noneChance: number;
  compared: number;
  imaging: Imaging;
  /** What the chances were told from; null when there is no match. */
  evidence: AnswerEvidence | null;
};

/** Entries that are looked at, from all that the coarse stage left to the few that are looked at closely; rounds of fitting each. */
const EFFORT = { coarse: 60, perReading: 3, glances: 40, looks: 12, lookRounds: 2, closest: 5 };
/** The same where nothing came near at a quick look: ranks by poor ink say little. */
const MORE_EFFORT = { ...EFFORT, coarse: 160, glances: 140, looks: 24 };

/** An entry of the index to be looked at closely, under the view in which it came nearest. */
type Candidate = { entry: number; view: View; cost: number };

/** Leans that are assumed (tangents), and what a hypothesis costs the coarse stage. */
const LEANS = [-0.26, -0.13, 0.13, 0.26];
const LEAN_COST_COARSE = 1.1;
/** A coarse cost by cuts under which nothing is assumed. */
const NEAR_ENOUGH = 0.3;
/** A coarse cost under which the ink is not assumed to be anything else than what stands out. */
const PLAIN_ENOUGH = 0.3;
/** Costs are compared over ink of different amounts: another reading than the plain one must be clearly better. */
const READING_COST = 1.08;
const OTHER_COST = 0.025;
/** What a net sees is smoother than what stands out: faces come nearer to it, right or wrong. */
const LEARNED_COST = 0.05;
/** A line that may stand wider in one place than in another comes nearer to all. */
const EVENED_COST = 0.03;
/** A fit from which a text is assumed to be set in small capitals too. */
const SMALL_CAPITALS_FROM_FIT = 0.3;
/** Settings of a variable font are looked for when it comes within this of the best, and of as many fonts. */
const SETTLE_NEAR = 1.25;
const SETTLED = 2;

/** The best candidates over all views of one line; each entry once, under its best view. */
async function gatherCandidates(
  line: InkLine,
  session: MatchSession,
  onRanked: (ranks: CoarseRank[]) => void = () => {},
  { coarse } = EFFORT,
): Promise<Candidate[]> {
  const upright = viewOf(line, UPRIGHT);
  const ranks = await session.rank(line, coarse, false, onRanked);
  const list: Candidate[] = ranks.map((r) => ({ entry: r.style, view: upright, cost: r.cost }));
  if ((list[0]?.cost ?? 0) >= NEAR_ENOUGH)
    for (const tan of LEANS) {
      const leaned = leanLine(line, tan);
      const view = viewOf(leaned.line, leaned.lean);
      for (const r of await session.rank(view.line, coarse, true))
        list.push({ entry: r.style, view, cost: r.cost * LEAN_COST_COARSE });
    }
  return uniqueBy(
    list.sort((a, b) => a.cost - b.cost),
    (c) => c.entry,
  );
}

/** What is assumed of a picture: what is ink in it, and how its text is set; and what came near under that. */
type Hypothesis = { session: MatchSession; candidates: Candidate[]; effort: typeof EFFORT };

/** Told while an answer is being found. @param share - of the way, 0–1. @param nearest - styles that come nearest so far, the nearest first. */
type Watch = (share: number, nearest: string[]) => void;
const NEAREST_TOLD = 5;
/** How far a question has come when all styles were ranked at first, when all styles were compared, after each assumption, and when faces are laid over the line. */
const WAY = { ranked: 0.12, compared: 0.2, assumed: 0.6, looked: 0.7, laid: 0.85 };

const entryOf = ({ style }: CoarseRank) => ({ entry: style });
function nearestOf(entries: readonly { entry: number }[], index: SignatureIndex): string[] {
  return [...new Set(entries.slice(0, 4 * NEAREST_TOLD).map((c) => index.ids[c.entry]!))].slice(0, NEAREST_TOLD);
}

/** A way to see the picture, and how near a face comes to it at a quick look. */
type Seen = { line: InkLine; session: MatchSession; cost: number };
const byCost = (p: { cost: number }, q: { cost: number }) => p.cost - q.cost;

/** Of the ways to see the picture the one to which faces come nearest; others than the plain one are tried where that comes near to nothing. */
async function chooseHypothesis(
  lines: InkReadings,
  wording: Wording,
  index: SignatureIndex,
  executor: Executor,
  watch: Watch,
): Promise<Hypothesis> {
  const session = new MatchSession(wording, executor);
  const every = ceil((index.leaders?.leaders.length ?? index.ids.length) / GLANCED_ENTRIES);
  const onRanked = (ranks: CoarseRank[]) => watch(WAY.ranked, nearestOf(ranks.map(entryOf), index));
  const plain: Hypothesis = {
    session,
    candidates: await gatherCandidates(lines.plain, session, onRanked),
    effort: EFFORT,
  };
  watch(WAY.compared, nearestOf(plain.candidates, index));
  if ((plain.candidates[0]?.cost ?? Infinity) <= PLAIN_ENOUGH) return plain;
  let share = WAY.compared;
  let best: Seen = { line: lines.plain, session, cost: Infinity };
  const seen: Seen[] = [];
  const look = async (line: InkLine, by = session) => {
    const view = viewOf(line, UPRIGHT);
    const isPlain = line === lines.plain && by === session;
    const near = isPlain
      ? plain.candidates.slice(0, LOOKED_AT)
      : (await by.glance(line, every, LOOKED_AT)).map((r) => ({ ...entryOf(r), view }));
    const tried = await by.fitPreview(near, START, EFFORT.lookRounds);
    const cost = (tried[0]?.total ?? Infinity) * crowding(line) + costOfReading(line.reading, isPlain);
    seen.push({ line, session: by, cost });
    if (cost < best.cost) {
      best = { line, session: by, cost };
      share += (WAY.assumed - share) / 4;
      watch(share, nearestOf(tried, index));
    }
  };
  await look(lines.plain);
  for (const line of await lines.others()) await look(line);
  const small = proposeSmallCapitals(lines.plain, wording);
  if (small) await look(lines.plain, new MatchSession(small, executor));
  if (best.cost > EVEN_ENOUGH) {
    const begun = best.cost > FAR_FROM ? seen : [best];
    const evened = begun.flatMap((from) => lines.evened(from.line).map((line) => ({ ...from, line, from })));
    for (const { line, session: by } of await chooseNearest(evened, every)) await look(line, by);
    const from = evened.find((e) => e.line === best.line)?.from ?? best;
    if (best.cost > FURTHER_FROM) for (const further of lines.further(from.line)) await look(further, from.session);
  }
  const effort = best.cost > FURTHER_FROM ? MORE_EFFORT : EFFORT;
  if (best.line === lines.plain && best.session === session && effort === EFFORT) return plain;
  return {
    session: best.session,
    candidates: await gatherCandidates(best.line, best.session, undefined, effort),
    effort,
  };
}
/** Entries of the index that ways to see a picture are chosen by, about, and how many of them are laid over it. */
const GLANCED_ENTRIES = Number(process.env.GL ?? 500);
const LOOKED_AT = 4;
/** What has come as near as this at a close look was seen from where it seems. */
const FURTHER_FROM = 0.22;
const EVEN_ENOUGH = 0.1;
/** When faces are as far as this from every reading, the right one may come near only where the line is even. */
const FAR_FROM = 0.4;
/** Even lines that are looked at closely. */
const FOLLOWED = 4;

/** Of some ways to see a line those that come nearest to any face at a rough look, the nearest first. */
async function chooseNearest<W extends Seen>(ways: readonly W[], every: number): Promise<W[]> {
  if (ways.length <= FOLLOWED) return [...ways];
  const glanced: { way: W; cost: number }[] = [];
  for (const way of ways) {
    const [near] = await way.session.glance(way.line, every, 1);
    const cost = (near?.cost ?? Infinity) * crowding(way.line) + costOfReading(way.line.reading, false);
    glanced.push({ way, cost });
  }
  return glanced
    .sort(byCost)
    .slice(0, FOLLOWED)
    .map((g) => g.way);
}

/** What is assumed of a picture lets faces come nearer, right or wrong. */
function costOfReading(reading: InkReading, isPlain: boolean): number {
  const by = reading.startsWith("learned") ? LEARNED_COST : isPlain || isEvened(reading) ? 0 : OTHER_COST;
  return isEvened(reading) ? by + EVENED_COST : by;
}

/** Ink that leaves less paper than it takes is near to any heavy face: what differs counts by the paper then. 1: there is paper enough. */
function crowding({ strip, letters }: InkLine): number {
  const { left, right, top, bottom } = spanOf(letters);
  let ink = 0;
  for (const v of strip.ink) ink += v;
  const share = min(0.95, ink / max(1, (right - left) * (bottom - top)));
  return max(1, share / (1 - share));
}

/**
 * Identifies the face of a line.
 * @param lines - as `readPicture` gives them: other hypotheses of the ink are read where the plain one comes near to nothing.
 * @param text - what stands there, spaces included. @param executor - does the work over this index. @param limit - matches wanted.
 * @param watch - is told how far it has come.
 * @returns matches best first, and the chance that none of the styles is the one. No matches when nothing can be compared.
 */
export async function identifyLine(
  lines: InkReadings,
  text: string,
  index: SignatureIndex,
  executor: Executor,
  limit: number,
  watch: Watch = () => {},
): Promise<IdentifyResult> {
  const { session, candidates, effort } = await chooseHypothesis(lines, wordingOf(text), index, executor, watch);
  const { characters, small } = session.wording;
  const first = await session.fitPreview(candidates.slice(0, 5), START, EFFORT.lookRounds);
  if (!first.length) return nothing(lines.plain, index);
  const begun = estimateImaging(first.slice(0, 3));
  const glanced = await session.fitPreview(candidates.slice(0, effort.glances), begun, 0);
  const plainly = await session.fitPreview(glanced.slice(0, effort.looks), begun, effort.lookRounds);
  watch(WAY.looked, nearestOf(plainly, index));
  const looked = await session.tryAlternates(plainly, begun);
  const imaging = estimateImaging(looked.slice(0, 2));
  const last = await session.fitFull(looked.slice(0, effort.closest), imaging);
  watch(WAY.laid, nearestOf(last, index));
  const { settled, coordinates } = await refineNearest(last, index, session, imaging);
  const ranked = uniqueBy(
    [...settled, ...looked.slice(effort.closest), ...glanced.slice(effort.looks)],
    (t) => index.ids[t.entry],
  );
  const evidence = evidenceOf(ranked, index, characters, imaging);
  const { chances, none: noneChance } = chancesOf(inOrder(ranked), evidence);
  const matches = ranked.slice(0, limit).map((t, i) => ({
    styleId: index.ids[t.entry]!,
    family: index.families[t.entry]!,
    coordinates: coordinates.get(t) ?? index.coordinates[t.entry]!,
    score: max(0, 1 - t.total),
    chance: chances[i]!,
    letters: lettersOf(t.result, characters),
    besideFirst: i ? likenessOf(index, ranked[0]!.entry, t.entry, drawnCharacters(session.wording)) : null,
    features: t.result.pose.features,
    overlayPath: pathOf(t, ranked[0]!.view.lean),
  }));
  const { line, lean } = ranked[0]!.view;
  const compared = countStyles(index);
  return {
    line,
    leanTan: lean.tan,
    taper: ranked[0]!.result.pose.taper,
    setAs: small ? "small-capitals" : "plain",
    matches,
    noneChance,
    compared,
    imaging,
    evidence,
  };
}

/** Costs that never fall: those behind were looked at less closely, on a copy where all come nearer. */
function inOrder(ranked: readonly Tried[]): number[] {
  let worst = 0;
  return ranked.map((t) => (worst = max(worst, t.total)));
}

function nothing(line: InkLine, index: SignatureIndex): IdentifyResult {
  const compared = countStyles(index);
  return {
    line,
    leanTan: 0,
    taper: 0,
    setAs: "plain",
    matches: [],
    noneChance: 1,
    compared,
    imaging: START,
    evidence: null,
  };
}

/** Locations of the variable fonts that came near, refined between those described. */
async function refineNearest(last: Tried[], index: SignatureIndex, session: MatchSession, imaging: Imaging) {
  const coordinates = new Map<Tried, VariationLocation>();
  const near = last
    .filter((t) => index.coordinates[t.entry] && t.total <= last[0]!.total * SETTLE_NEAR)
    .slice(0, SETTLED);
  const found = near.length ? await session.refineLocations(near, imaging) : [];
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
 * How far a line is from the nearest face when a text is assumed: what choosing between readings goes by.
 * @param onNear - is told the entries that come near.
 * @returns cost of the best of a few, 0 = the same; 1 where nothing can be laid over it.
 */
export async function fitText(
  line: InkLine,
  text: string,
  executor: Executor,
  by: "cuts" | "any way" = "any way",
  onNear: (entries: number[]) => void = () => {},
): Promise<number> {
  const wording = wordingOf(text);
  const view = viewOf(line, UPRIGHT);
  let nearest = Infinity;
  const fit = async (assumed: Wording) => {
    const session = new MatchSession(assumed, executor);
    const ranks = await session.rank(line, EFFORT.perReading, by === "cuts");
    const few = ranks.map((r) => ({ entry: r.style, view }));
    const tried = await session.fitPreview(few, START, EFFORT.lookRounds);
    const cost = min(1, tried[0]?.total ?? 1);
    if (cost < nearest) onNear(tried.map((t) => t.entry));
    nearest = min(nearest, cost);
    return cost;
  };
  const plain = await fit(wording);
  // A letter reader sees small capitals as capitals.
  const small =
    plain > SMALL_CAPITALS_FROM_FIT && text === text.toUpperCase() ? proposeSmallCapitals(line, wording) : null;
  return small ? min(plain, READING_COST * (await fit(small))) : plain;
}

const countStyles = (index: SignatureIndex) => new Set(index.ids).size;

function lettersOf({ letters, pose }: FineResult, characters: string[]): Match["letters"] {
  const per = new Array<number | null>(characters.length).fill(null);
  pose.parts.forEach((p, i) => {
    for (let k = p.first; k < p.first + p.count && k < per.length; k++) per[k] = min(per[k] ?? 1, letters[i]!);
  });
  return characters.map((char, i) => ({ char, agreement: Number((per[i] ?? 0).toFixed(3)) }));
}

/** The face’s outline over the strip that is shown, however either was assumed to lean. @param shown - the lean of that strip. */
export function pathOf({ result, view, per }: Tried, shown: Lean): string {
  const pose = scalePose(result.pose, per);
  const [from, to] = [view.lean, shown];
  const back = {
    ...{ a: 1, b: 0, c: to.tan - from.tan, d: 1, f: 0 },
    e: from.tan * from.middlePx - from.shiftPx - to.tan * to.middlePx + to.shiftPx,
  };
  return pose.parts
    .flatMap((part) => posePolygons(pose, part))
    .map((p) => writePath({ verbs: "M" + "L".repeat(p.length / 2 - 1) + "Z", coords: p }, back, 1))
    .join("");
}
