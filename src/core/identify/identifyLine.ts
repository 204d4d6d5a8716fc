// The whole of identifying: coarse over all styles, fine over the best, agreement per letter, chance. See README for the method.
import { LRUCache } from "lru-cache";
import { writePath } from "../geometry/outline";
import type { MovingFace, OpenFace } from "../outlines/openFace";
import type { InkLine, InkReadings } from "../picture/readPicture";
import type { Lean } from "../picture/straighten";
import { chancesOf, type AnswerEvidence } from "./answer/chance";
import type { Executor } from "./executor";
import type { FineResult } from "./registration/fine";
import { byTotal, START, viewAsItStands, type FaceLoader, type Tried } from "./registration/fit";
import type { VariationLocation } from "../descriptors/instances";
import { uniqueBy } from "./ranking/uniqueBy";
import { drawPose, posePolygons, scalePose, type Imaging } from "./registration/pose";
import { estimateImaging } from "./registration/imaging";
import { MatchSession } from "./session";
import type { SignatureIndex } from "../descriptors/extractDescriptors";
import { chooseHypothesis, EFFORT, nearestOf, WAY, type Watch } from "./chooseHypothesis";
import { proposeSmallCapitals } from "./hypotheses/smallCapitals";
import { likenessOf, type Likeness } from "../descriptors/twins";
import { drawnCharacters, wordingOf, type Wording } from "../picture/wording";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, max, min } = Math;

/** Faces that stay open between questions: nearly every session asks for the same few hundred. */
const FACES_KEPT = 400;
const BYTES_KEPT = 250e6;

/** A loader that keeps what it opened. */
export function cacheFaces(load: FaceLoader): FaceLoader {
  const kept = new LRUCache<string, { face: OpenFace | null }>({
    max: FACES_KEPT,
    maxSize: BYTES_KEPT,
    sizeCalculation: ({ face }) => 1 + (face?.sizeBytes ?? 0),
  });
  return (styleId, coordinates) => {
    const key = coordinates ? `${styleId} ${JSON.stringify(coordinates)}` : styleId;
    let known = kept.get(key);
    if (!known) kept.set(key, (known = { face: load(styleId, coordinates) }));
    return known.face;
  };
}

/**
 * Faces one after the other, each used up before the next is asked for: a variable font is opened once and moved to each of its settings.
 * @param open - null where a style cannot be opened.
 */
export function facesInTurn(open: (styleId: string) => MovingFace | null): FaceLoader {
  let held: { styleId: string; face: MovingFace | null; at: VariationLocation | null } | null = null;
  return (styleId, coordinates) => {
    if (held?.styleId !== styleId) held = { styleId, face: open(styleId), at: null };
    if (held.at !== coordinates) held.face?.moveTo(coordinates ?? {});
    held.at = coordinates;
    return held.face?.face ?? null;
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

/** A fit from which a text is assumed to be set in small capitals too, and what it must gain then. */
const SMALL_CAPITALS_FROM_FIT = 0.3;
const READING_COST = 1.08;
/** Entries that are laid over a line when only how near a text comes is asked. */
const PER_READING = 3;
/** Of one family so many are looked at before others, at each stage. */
const OF_FAMILY = { glances: 8, looks: 4, closest: 3 };
/** Settings of a variable font are looked for when it comes within this of the best, and of as many fonts. */
const SETTLE_NEAR = 1.25;
const SETTLED = 2;

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
  const { session, candidates, effort, agreement } = await chooseHypothesis(
    lines,
    wordingOf(text),
    index,
    executor,
    watch,
  );
  const { characters, small } = session.wording;
  const first = await session.fitPreview(candidates.slice(0, 5), START, EFFORT.lookRounds);
  if (!first.length) return nothing(lines.plain, index);
  const begun = estimateImaging(first.slice(0, 3));
  const mixed = session.mix(candidates, OF_FAMILY.glances).slice(0, effort.glances);
  const glanced = await session.fitPreview(mixed, begun, 0);
  const near = session.mix(glanced, OF_FAMILY.looks).slice(0, effort.looks);
  const plainly = await session.fitPreview(near, begun, effort.lookRounds);
  watch(WAY.looked, nearestOf(plainly, index));
  const looked = await session.tryAlternates(plainly, begun);
  const imaging = estimateImaging(looked.slice(0, 2));
  const last = await session.fitFull(session.mix(looked, OF_FAMILY.closest).slice(0, effort.closest), imaging);
  watch(WAY.laid, nearestOf(last, index));
  const { settled, coordinates } = await refineNearest(last, index, session, imaging);
  const ranked = uniqueBy([...settled, ...looked, ...glanced], (t) => index.ids[t.entry]);
  const evidence = evidenceOf(ranked, index, characters, imaging, agreement);
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

function evidenceOf(
  ranked: Tried[],
  index: SignatureIndex,
  characters: string[],
  imaging: Imaging,
  agreementOn: (family: string) => number,
): AnswerEvidence {
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
    isAssumed: best.view.line.reading !== "plain",
    agreed: agreementOn(family),
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
  index: SignatureIndex,
  executor: Executor,
  by: "cuts" | "any way" = "any way",
  onNear: (entries: number[]) => void = () => {},
): Promise<number> {
  const wording = wordingOf(text);
  const view = viewAsItStands(line);
  let nearest = Infinity;
  const fit = async (assumed: Wording) => {
    const session = new MatchSession(assumed, index, executor);
    const ranks = await session.rank(line, PER_READING, by === "cuts");
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
