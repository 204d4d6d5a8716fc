// What is assumed of a picture, of its ink, of where it was seen from, of how its text is set: that to which faces come nearest at quick looks.
import { inkOf, isEvened, type InkReading } from "../picture/inks";
import { leanLine, type InkLine, type InkReadings } from "../picture/readPicture";
import { spanOf } from "../picture/straighten";
import { drawnCharacters, type Wording } from "../picture/wording";
import type { SignatureIndex } from "../descriptors/extractDescriptors";
import type { Executor } from "./executor";
import { countParts } from "./ranking/align";
import type { CoarseRank } from "./ranking/coarse";
import { uniqueBy } from "./ranking/uniqueBy";
import { START, viewAsItStands, viewOf, type View } from "./registration/fit";
import { MatchSession } from "./session";
import { proposeSmallCapitals } from "./hypotheses/smallCapitals";

const { ceil, log2, max, min } = Math;

/** Entries that are looked at, from all that the coarse stage left to the few that are looked at closely; rounds of fitting each. */
export const EFFORT = { coarse: 60, glances: 40, looks: 12, lookRounds: 2, closest: 5 };
/** The same where nothing came near at a quick look: ranks by poor ink say little. */
const MORE_EFFORT = { ...EFFORT, coarse: 90, glances: 90, looks: 16 };

/** An entry of the index to be looked at closely, under the view in which it came nearest. */
type Candidate = { entry: number; view: View; cost: number };

/** What is assumed of a picture, what came near under that, and in how much of the other ink that was looked at a family is the nearest, 0–1. */
type Hypothesis = {
  session: MatchSession;
  candidates: Candidate[];
  effort: typeof EFFORT;
  agreement: (family: string) => number;
};
const noAgreement = () => 0;

/** Told while an answer is being found. @param share - of the way, 0–1. @param nearest - styles that come nearest so far, the nearest first. */
export type Watch = (share: number, nearest: string[]) => void;
const NEAREST_TOLD = 5;
/** How far a question has come when all styles were ranked at first, when all styles were compared, after each assumption, and when faces are laid over the line. */
export const WAY = { ranked: 0.12, compared: 0.2, assumed: 0.6, looked: 0.7, laid: 0.85 };

/** Leans that are assumed (tangents), and what a hypothesis costs the coarse stage. */
const LEANS = [-0.26, -0.13, 0.13, 0.26];
const LEAN_COST_COARSE = 1.1;
/** A coarse cost by cuts under which nothing is assumed. */
const NEAR_ENOUGH = 0.3;
/** A coarse cost under which the ink is not assumed to be anything else than what stands out. */
const PLAIN_ENOUGH = 0.3;
/** What comes as near as this at a quick look is what it seems. */
const CLOSE_ENOUGH = 0.14;
const EVEN_ENOUGH = 0.1;
/** What has come as near as this was seen from where it seems. */
const FURTHER_FROM = 0.22;
/** When faces are as far as this from every reading, the right one may come near only where the line is even. */
const FAR_FROM = 0.4;
/** Ways that are looked at closely, of some that are glanced at. */
const FOLLOWED = 6;
/** Where nothing can be laid over a line. */
const FARTHEST = 2;
const HOPELESS = 0.6;
/** Entries of the index that ways to see a picture are chosen by, about; how many of them are laid over it, and how many of those are fitted. */
const GLANCED_ENTRIES = 1500;
const LAID = 14;
/** From the side more of them are laid: how wide a face sets the word says little there. */
const LAID_FROM_SIDE = 40;
const FITTED = 5;
const FITTED_OF_FAMILY = 2;

/** What is assumed lets faces come nearer, right or wrong; and what a net sees is smoother than what stands out. */
const OTHER_COST = 0.025;
const LEARNED_COST = 0.05;
const EVENED_COST = 0.03;
/** Of letters that stand apart in a face so many may hang together in the ink; each time as many make what differs count by this share more. */
const MERGED_FREELY = 3;
const MERGED_COST = 0.5;
/** What it speaks for a way to see the picture that under other ink the same face is the nearest; for each such ink. */
const AGREED_GAIN = 0.06;

/** A way to see the picture. */
type Way = { line: InkLine; session: MatchSession };
/** What comes near to it at a rough look, and the score by which it is looked at closely. */
type Glanced = Way & { near: { entry: number; view: View }[]; score: number };
/** How near a face comes to it then, and of which family that is; and the score by which it is chosen. */
type Seen = Glanced & { cost: number; family: string | null };
const byScore = (p: { score: number }, q: { score: number }) => p.score - q.score;

/** Of the ways to see the picture the one to which faces come nearest; others than the plain one are tried where that comes near to nothing. */
export async function chooseHypothesis(
  lines: InkReadings,
  wording: Wording,
  index: SignatureIndex,
  executor: Executor,
  watch: Watch,
): Promise<Hypothesis> {
  const session = new MatchSession(wording, index, executor);
  const onRanked = (ranks: CoarseRank[]) => watch(WAY.ranked, nearestOf(ranks.map(entryOf), index));
  const every = ceil((index.leaders?.leaders.length ?? index.ids.length) / GLANCED_ENTRIES);
  const hopeless = await findHopeless(lines.plain, session, every);
  const candidates = hopeless ?? (await gatherCandidates(lines.plain, session, EFFORT, onRanked));
  const plain: Hypothesis = { session, candidates, effort: EFFORT, agreement: noAgreement };
  watch(WAY.compared, nearestOf(candidates, index));
  if ((candidates[0]?.cost ?? Infinity) <= PLAIN_ENOUGH) return plain;
  const looks = new Looks(lines.plain, plain, index, every, watch);
  if (candidates.length && (await looks.atPlain()).cost < CLOSE_ENOUGH && !hopeless) return plain;
  const small = proposeSmallCapitals(lines.plain, wording);
  async function* ways(): AsyncGenerator<Way> {
    if (small) yield { line: lines.plain, session: new MatchSession(small, index, executor) };
    for await (const line of lines.others()) yield { line, session };
  }
  await looks.atNearest(ways());
  if (looks.best.cost > EVEN_ENOUGH) await lookFromFront(lines, looks);
  const { best } = looks;
  const effort = best.cost > FURTHER_FROM ? MORE_EFFORT : EFFORT;
  const agreement = looks.agreementOn(best.line);
  if (best.line === lines.plain && best.session === session && effort === EFFORT && !hopeless)
    return { ...plain, agreement };
  const found = await gatherCandidates(best.line, best.session, effort);
  return { session: best.session, candidates: found, effort, agreement };
}

/** Lines as they would be from the front. Where every reading is far from all faces, which of them is right shows only then. */
async function lookFromFront(lines: InkReadings, looks: Looks) {
  const begun: Way[] = looks.best.cost > FAR_FROM ? looks.glanced : [looks.best];
  const evenedFrom = new Map<InkLine, Way>();
  function* evened(): Generator<Way> {
    for (const from of begun)
      for (const line of lines.evened(from.line)) {
        evenedFrom.set(line, from);
        yield { line, session: from.session };
      }
  }
  await looks.atNearest(evened());
  const from = evenedFrom.get(looks.best.line) ?? looks.best;
  if (looks.best.cost > FURTHER_FROM)
    await looks.atNearest(lines.further(from.line).map((line) => ({ line, session: from.session })));
}

/** Quick looks at ways to see a picture. */
class Looks {
  readonly glanced: Glanced[] = [];
  private readonly seen: Seen[] = [];
  private readonly none: Seen;
  private share = WAY.compared;
  constructor(
    private plainLine: InkLine,
    private plain: Hypothesis,
    private index: SignatureIndex,
    private every: number,
    private watch: Watch,
  ) {
    const { session } = plain;
    this.none = { line: plainLine, session, near: [], cost: FARTHEST, score: Infinity, family: null };
  }

  /** That to which a face comes nearest; a face that is also the nearest where other ink is assumed is hardly so by chance. */
  get best(): Seen {
    let [best, least] = [this.none, Infinity];
    for (const seen of this.seen) {
      const score = seen.score - AGREED_GAIN * this.countAgreed(seen);
      if (score < least) [best, least] = [seen, score];
    }
    return best;
  }

  /** In how much of the ink beside a line's own a family is the nearest. */
  agreementOn(line: InkLine): Hypothesis["agreement"] {
    const all = inksOf(this.seen, line.reading).size;
    return (family) => this.countAgreed({ family, line }) / max(1, all);
  }

  private countAgreed({ family, line }: Pick<Seen, "family" | "line">): number {
    const agreed = this.seen.filter((s) => s.family !== null && s.family === family);
    return inksOf(agreed, line.reading).size;
  }

  /** The line as it stands, with what is known of it. */
  async atPlain(): Promise<Seen> {
    const { session, candidates } = this.plain;
    const way = { line: this.plainLine, session, near: candidates.slice(0, LAID), score: candidates[0]!.cost };
    this.glanced.push(way);
    return this.at(way);
  }

  /** How near any face comes to a line at a rough look. */
  private async glanceAt({ line, session }: Way): Promise<Glanced> {
    const view = viewAsItStands(line);
    const ranks = await session.glance(line, this.every, isEvened(line.reading) ? LAID_FROM_SIDE : LAID, true);
    const cost = (ranks[0]?.cost ?? FARTHEST) * this.doubt(line, session, ranks[0]?.style);
    const score = cost + costOfReading(line.reading, false);
    return { line, session, near: ranks.map((r) => ({ ...entryOf(r), view })), score };
  }

  /** Lays the entries over a line that came nearest at a glance. */
  private async at(way: Glanced): Promise<Seen> {
    const { line, session, near } = way;
    const laid = await session.fitPreview(near, START, 0);
    const tried = await session.fitPreview(
      session.mix(laid, FITTED_OF_FAMILY).slice(0, FITTED),
      START,
      EFFORT.lookRounds,
    );
    const cost = (tried[0]?.total ?? FARTHEST) * this.doubt(line, session, tried[0]?.entry);
    const isPlain = line === this.plainLine && session === this.plain.session;
    const family = tried[0] ? this.index.families[tried[0].entry]! : null;
    const seen = { ...way, cost, family, score: cost + costOfReading(line.reading, isPlain) };
    this.seen.push(seen);
    if (this.best !== seen) return seen;
    this.share += (WAY.assumed - this.share) / 4;
    this.watch(this.share, nearestOf(tried, this.index));
    return seen;
  }

  /** By how much less the nearest entry is to be believed than it comes near: a blot is near to something, too. */
  private doubt(line: InkLine, { wording }: MatchSession, entry: number | undefined): number {
    const crowded = crowding(line);
    if (entry === undefined) return crowded;
    const boxes = drawnCharacters(wording).map((c) => {
      const at = this.index.at(c);
      return at < 0 ? null : this.index.box(entry, at);
    });
    const ratio = countParts(boxes, wording.wordStarts) / max(1, line.letters.length);
    return crowded * (1 + MERGED_COST * log2(max(1, ratio / MERGED_FREELY)));
  }

  /** Of some ways looks at those to which faces come nearest at a glance. They are glanced at while the next is made. */
  async atNearest(ways: AsyncIterable<Way> | Iterable<Way>) {
    const begun: Promise<Glanced>[] = [];
    for await (const way of ways) {
      const glance = this.glanceAt(way);
      // Told when all are waited for, even if making the next one fails before.
      glance.catch(() => {});
      begun.push(glance);
    }
    const glanced = await Promise.all(begun);
    this.glanced.push(...glanced);
    for (const way of glanced.sort(byScore).slice(0, FOLLOWED)) await this.at(way);
  }
}

/** What else was taken for ink. */
const inksOf = (seen: readonly Seen[], except: InkReading) =>
  new Set(seen.map((s) => inkOf(s.line.reading)).filter((ink) => ink !== inkOf(except)));

/** Where pieces of ink are not the letters and no face is near at a rough look, a closer one at all of them tells no more. @returns null elsewhere. */
async function findHopeless(line: InkLine, session: MatchSession, every: number): Promise<Candidate[] | null> {
  if (line.letters.length === session.wording.characters.length) return null;
  const ranks = await session.glance(line, every, LAID);
  const view = viewAsItStands(line);
  return (ranks[0]?.cost ?? FARTHEST) < HOPELESS ? null : ranks.map((r) => ({ ...entryOf(r), view, cost: r.cost }));
}

/** The best candidates over all views of one line; each entry once, under its best view. */
async function gatherCandidates(
  line: InkLine,
  session: MatchSession,
  { coarse }: typeof EFFORT,
  onRanked: (ranks: CoarseRank[]) => void = () => {},
): Promise<Candidate[]> {
  const upright = viewAsItStands(line);
  const ranks = await session.rank(line, coarse, false, onRanked);
  const list: Candidate[] = ranks.map((r) => ({ entry: r.style, view: upright, cost: r.cost }));
  if ((list[0]?.cost ?? 0) >= NEAR_ENOUGH && !isEvened(line.reading))
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

const entryOf = ({ style }: CoarseRank) => ({ entry: style });
export function nearestOf(entries: readonly { entry: number }[], index: SignatureIndex): string[] {
  return [...new Set(entries.slice(0, 4 * NEAREST_TOLD).map((c) => index.ids[c.entry]!))].slice(0, NEAREST_TOLD);
}

function costOfReading(reading: InkReading, isPlain: boolean): number {
  const by = reading.startsWith("learned") ? LEARNED_COST : isPlain || reading.startsWith("evened") ? 0 : OTHER_COST;
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
