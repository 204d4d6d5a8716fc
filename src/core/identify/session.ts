// One line matched by an executor: every stage in shares, and the places where each entry came to lie so far.
import type { InkLine } from "../picture/readPicture";
import { isCutWell, type CoarseRank, type Share } from "./ranking/coarse";
import {
  partition,
  SHARES,
  type AlternatesTask,
  type FullTask,
  type CoarseTask,
  type GlanceTask,
  type Executor,
  type PreviewTask,
  type ReplyTo,
  type LocationTask,
} from "./executor";
import { byTotal, type Laid, type Tried, type View } from "./registration/fit";
import { fewOfEachFirst, uniqueBy } from "./ranking/uniqueBy";
import type { Imaging, Pose } from "./registration/pose";
import type { RefinedLocation } from "./registration/refineLocation";
import type { SignatureIndex } from "../descriptors/extractDescriptors";
import type { Wording } from "../picture/wording";

/** Of one family so many go on from a ranking before all others have. */
const RANKED_OF_FAMILY = 8;

/** The index in shares that are worked on side by side. @param every - of so many entries, one. */
const sharesOf = (every: number): Share[] =>
  Array.from({ length: SHARES }, (_, at) => ({ at: at * every, of: SHARES * every }));

/** One line, matched by an executor: what stands there, and where each entry came to lie so far. */
export class MatchSession {
  private poses = new Map<View, Map<number, Pose>>();
  constructor(
    readonly wording: Wording,
    private index: SignatureIndex,
    private executor: Executor,
  ) {}

  /** Of a ranked list those of one family behind others from the next after `most` on: many settings of one face leave room for others. */
  mix<T extends { entry: number }>(ranked: readonly T[], most: number): T[] {
    return fewOfEachFirst(ranked, most, (r) => this.index.families[r.entry]);
  }

  private async rankBy(kind: CoarseTask["kind"], line: InkLine, keep: number, nearOnly = true): Promise<CoarseRank[]> {
    const { wording } = this;
    return this.rankAll(sharesOf(1).map((share): CoarseTask => ({ kind, line, wording, share, keep, nearOnly })));
  }

  /** The best of all shares, as many as each keeps; of one family only some before the others. */
  private async rankAll<J extends CoarseTask | GlanceTask>(tasks: J[], aside = false): Promise<CoarseRank[]> {
    const ranks = (await this.executor(tasks, aside)).flat() as CoarseRank[];
    ranks.sort((a, b) => a.cost - b.cost);
    return fewOfEachFirst(ranks, RANKED_OF_FAMILY, (r) => this.index.families[r.style]).slice(0, tasks[0]!.keep);
  }

  /**
   * The coarse stage over the whole index.
   * @param cutsOnly - the expensive alignment by pieces is left out. @param onRanked - is told what was ranked first.
   */
  async rank(
    line: InkLine,
    keep: number,
    cutsOnly = false,
    onRanked: (ranks: CoarseRank[]) => void = () => {},
  ): Promise<CoarseRank[]> {
    const isCut = line.letters.length === this.wording.characters.length;
    const byCuts = isCut ? await this.rankBy("cuts", line, keep, cutsOnly) : [];
    if (byCuts.length) onRanked(byCuts);
    if (cutsOnly || isCutWell(byCuts)) return byCuts;
    const byPieces = await this.rankBy("pieces", line, keep);
    if (!byCuts.length) onRanked(byPieces);
    return mergeRanks(byPieces, await this.rankBy("whole", line, keep));
  }

  /** The nearest of some faces at a rough look. @param every - of so many entries, one. @param aside - see `Executor`. */
  async glance(line: InkLine, every: number, keep: number, aside = false): Promise<CoarseRank[]> {
    const { wording } = this;
    const tasks = sharesOf(every).map((share): GlanceTask => ({ kind: "glance", line, wording, share, keep }));
    return this.rankAll(tasks, aside);
  }

  /** Fits over the small copies, each begun where the last one ended. */
  async fitPreview(list: Pick<Tried, "entry" | "view">[], imaging: Imaging, rounds: number): Promise<Tried[]> {
    const laid = list.map(({ entry, view }): Laid => {
      const pose = this.poses.get(view)?.get(entry) ?? null;
      return { entry, view, pose, per: view.perFirst };
    });
    const looked = await this.inShares(laid, (part): PreviewTask => ({
      kind: "preview",
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

  async fitFull(list: Tried[], imaging: Imaging): Promise<Tried[]> {
    const laid = list.map((t): Laid => ({ ...t, pose: t.result.pose }));
    return (await this.inShares(laid, (part): FullTask => ({ kind: "full", laid: part, imaging }))).sort(byTotal);
  }

  /** Those of a list whose face comes nearer with letters chosen otherwise, in their place. */
  async tryAlternates(list: Tried[], imaging: Imaging): Promise<Tried[]> {
    const { wording } = this;
    const found = await this.inShares(list, (tried): AlternatesTask => ({
      kind: "alternates",
      tried,
      wording,
      imaging,
    }));
    return list.map((t, i) => found[i] ?? t).sort(byTotal);
  }

  refineLocations(list: Tried[], imaging: Imaging): Promise<(RefinedLocation | null)[]> {
    return this.inShares(list, (tried): LocationTask => ({ kind: "location", tried, wording: this.wording, imaging }));
  }

  /** Replies one an item, in their order. What comes back from elsewhere speaks of copies of the views: they are put back. */
  private async inShares<T extends { view: View }, J extends PreviewTask | FullTask | AlternatesTask | LocationTask>(
    list: T[],
    make: (part: T[]) => J,
  ): Promise<ReplyTo<J>[number][]> {
    const replies = await this.executor(partition(list).map(make));
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
  return uniqueBy(
    all.sort((a, b) => a.cost - b.cost),
    (r) => r.style,
  );
}
