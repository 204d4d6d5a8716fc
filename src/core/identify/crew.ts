// The work of identifying in shares that two threads do side by side. A job is plain data and can be sent; whoever has an index and
// opens faces can do it.
import type { InkLine } from "../picture/readPicture";
import { tryAlternates } from "./alternates";
import { rankByCuts, rankByPieces, rankByWhole, setWord, type CoarseRank, type Share } from "./coarse";
import { look, lookClosely, type FaceLoader, type Laid, type Tried } from "./fit";
import type { Imaging } from "./pose";
import { settleAxes, type Settled } from "./settle";
import type { SignatureIndex } from "./signature";
import type { Wording } from "./wording";

/** Shares of one question. Always as many, whoever does them: so an answer does not hang on the machine. */
export const SHARES = 2;

export type CoarseJob = {
  kind: "cuts" | "pieces" | "whole";
  line: InkLine;
  wording: Wording;
  share: Share;
  keep: number;
};
export type LookJob = { kind: "look"; laid: Laid[]; wording: Wording; imaging: Imaging; rounds: number };
export type CloselyJob = { kind: "closely"; laid: Laid[]; imaging: Imaging };
export type SettleJob = { kind: "settle"; tried: Tried[]; wording: Wording; imaging: Imaging };
export type AlternatesJob = { kind: "alternates"; tried: Tried[]; wording: Wording; imaging: Imaging };
export type Job = CoarseJob | LookJob | CloselyJob | SettleJob | AlternatesJob;
type Replies = {
  cuts: CoarseRank[];
  pieces: CoarseRank[];
  whole: CoarseRank[];
  look: (Tried | null)[];
  closely: Tried[];
  settle: (Settled | null)[];
  alternates: (Tried | null)[];
};
export type ReplyTo<J extends Job> = Replies[J["kind"]];

/** Does jobs, one reply each in their order. */
export type Crew = <J extends Job>(jobs: J[]) => Promise<ReplyTo<J>[]>;

/** Does one job. */
export function doJob<J extends Job>(job: J, index: SignatureIndex, load: FaceLoader): ReplyTo<J> {
  return answer(job, index, load) as ReplyTo<J>;
}

function answer(job: Job, index: SignatureIndex, load: FaceLoader): Replies[Job["kind"]] {
  switch (job.kind) {
    case "cuts":
      return rankByCuts(job.line, setWord(job.wording, index, job.share), index, job.keep);
    case "pieces":
      return rankByPieces(job.line, setWord(job.wording, index, job.share), index, job.keep);
    case "whole":
      return rankByWhole(job.line, setWord(job.wording, index, job.share), index, job.keep);
    case "look":
      return job.laid.map((l) => look(l, job.wording, job.imaging, job.rounds, index, load));
    case "closely":
      return job.laid.map((l) => lookClosely(l, job.imaging));
    case "alternates":
      return job.tried.map((t) => tryAlternates(t, job.wording, job.imaging, index, load));
    case "settle":
      return job.tried.map((t) => settleAxes(t, job.wording, job.imaging, index, load));
  }
}

/** A crew of one. */
export const workAlone =
  (index: SignatureIndex, load: FaceLoader): Crew =>
  (jobs) =>
    Promise.resolve(jobs.map((job) => doJob(job, index, load)));

/** Every other one of a list, for each share. */
export const deal = <T>(list: readonly T[]): T[][] =>
  Array.from({ length: SHARES }, (_, at) => list.filter((_, i) => i % SHARES === at));
