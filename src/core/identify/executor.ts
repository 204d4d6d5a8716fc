// The work of identifying in shares that two threads do side by side. A task is plain data and can be sent; whoever has an index and
// opens faces can do it.
import type { InkLine } from "../picture/readPicture";
import { tryAlternates } from "./registration/alternates";
import { rankByCuts, rankByPieces, measureWord, type CoarseRank, type Share } from "./ranking/coarse";
import { chooseNear, glanceAtWhole, rankByWhole } from "./ranking/whole";
import { fitPreview, fitFull, type FaceLoader, type Laid, type Tried } from "./registration/fit";
import type { Imaging } from "./registration/pose";
import { refineLocation, type RefinedLocation } from "./registration/refineLocation";
import type { SignatureIndex } from "../descriptors/extractDescriptors";
import type { Wording } from "../picture/wording";

/** Shares of one question. Always as many, whoever does them: so an answer does not depend on the machine. */
export const SHARES = 2;

export type CoarseTask = {
  kind: "cuts" | "pieces" | "whole";
  line: InkLine;
  wording: Wording;
  share: Share;
  keep: number;
  /** By cuts, too, only what is near at a rough look is ranked. */
  nearOnly: boolean;
};
export type GlanceTask = { kind: "glance"; line: InkLine; wording: Wording; share: Share; keep: number };
export type PreviewTask = { kind: "preview"; laid: Laid[]; wording: Wording; imaging: Imaging; rounds: number };
export type FullTask = { kind: "full"; laid: Laid[]; imaging: Imaging };
export type LocationTask = { kind: "location"; tried: Tried[]; wording: Wording; imaging: Imaging };
export type AlternatesTask = { kind: "alternates"; tried: Tried[]; wording: Wording; imaging: Imaging };
export type Task = CoarseTask | GlanceTask | PreviewTask | FullTask | LocationTask | AlternatesTask;
type Replies = {
  cuts: CoarseRank[];
  pieces: CoarseRank[];
  whole: CoarseRank[];
  glance: CoarseRank[];
  preview: (Tried | null)[];
  full: Tried[];
  location: (RefinedLocation | null)[];
  alternates: (Tried | null)[];
};
export type ReplyTo<J extends Task> = Replies[J["kind"]];

/** Does tasks, one reply each in their order. @param aside - who asks has other work to do meanwhile. */
export type Executor = <J extends Task>(tasks: J[], aside?: boolean) => Promise<ReplyTo<J>[]>;

/** Does one task. */
export function runTask<J extends Task>(task: J, index: SignatureIndex, load: FaceLoader): ReplyTo<J> {
  return answer(task, index, load) as ReplyTo<J>;
}

function answer(task: Task, index: SignatureIndex, load: FaceLoader): Replies[Task["kind"]] {
  switch (task.kind) {
    case "cuts":
      return rankByCuts(
        task.line,
        task.nearOnly ? measureNear(task, index) : measureWord(task.wording, index, task.share),
        index,
        task.keep,
      );
    case "pieces":
      return rankByPieces(task.line, measureNear(task, index), index, task.keep);
    case "whole":
      return rankByWhole(task.line, measureNear(task, index), index, task.keep);
    case "glance":
      return glanceAtWhole(task.line, measureWord(task.wording, index, task.share, leadersOf(index)), index, task.keep);
    case "preview":
      return task.laid.map((l) => fitPreview(l, task.wording, task.imaging, task.rounds, index, load));
    case "full":
      return task.laid.map((l) => fitFull(l, task.imaging));
    case "alternates":
      return task.tried.map((t) => tryAlternates(t, task.wording, task.imaging, index, load));
    case "location":
      return task.tried.map((t) => refineLocation(t, task.wording, task.imaging, index, load));
  }
}

/** Of a large index only those that resemble what is near at a rough look. */
function measureNear({ line, wording, share }: CoarseTask, index: SignatureIndex) {
  const near = chooseNear(line, wording, index, share);
  return near ? measureWord(wording, index, undefined, near) : measureWord(wording, index, share);
}

const leadersOf = ({ leaders }: SignatureIndex) => leaders?.leaders ?? null;

/** An executor of one. */
export const inlineExecutor =
  (index: SignatureIndex, load: FaceLoader): Executor =>
  (tasks) =>
    Promise.resolve(tasks.map((task) => runTask(task, index, load)));

/** Every other one of a list, for each share. */
export const partition = <T>(list: readonly T[]): T[][] =>
  Array.from({ length: SHARES }, (_, at) => list.filter((_, i) => i % SHARES === at));
