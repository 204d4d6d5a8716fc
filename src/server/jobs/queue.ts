// Long work: a table of jobs, one lane a kind (a library's syncs have their own), each doing its jobs one after another. Survives a restart.
import { randomBytes } from "node:crypto";
import type { Job } from "@/contracts/jobs";
import type { JobId } from "@/contracts/ids";
import { getDb } from "../db/open";
import { findJob, insertJob, listJobsIn, updateJob, type JobKind, type JobRow } from "../queries/jobs";
import { buyFonts } from "./buyFonts";
import { handOver } from "./handOver";
import { importFiles } from "./importFiles";
import { readDemoLibrary } from "./readDemoLibrary";
import { rereadStyles } from "./rereadStyles";
import { syncLibrary, type SyncPayload } from "./syncLibrary";

/** What a handler gets: where to tell of progress, and whether to stop. */
export type JobContext = {
  job: JobRow;
  signal: AbortSignal;
  progress: (change: { done?: number; total?: number; failed?: number; filePath?: string; message?: string }) => void;
};
type Handler = (context: JobContext) => Promise<void>;
const HANDLERS: Record<JobKind, Handler> = {
  "read-library": readDemoLibrary,
  reread: rereadStyles,
  import: importFiles,
  "sync-library": syncLibrary,
  buy: buyFonts,
  handover: handOver,
};
/** A library that is down must not hold up the others: each has a lane of its own. */
const laneOf = (job: Pick<JobRow, "kind" | "payload">): string =>
  job.kind === "sync-library" ? `sync-library ${(JSON.parse(job.payload) as SyncPayload).libraryId}` : job.kind;

type Running = {
  stop: AbortController;
  startedAt: number;
  startedDone: number;
  samples: { at: number; done: number }[];
};
type Queue = { running: Map<string, Running>; busy: Set<string> };
const shared = globalThis as unknown as { fondQuarryQueue?: Queue };
const queue = (): Queue => (shared.fondQuarryQueue ??= { running: new Map(), busy: new Set() });

/** Adds a job and starts its lane. @param payload - what the handler needs, as JSON. */
export function addJob(
  kind: JobKind,
  title: string,
  payload: unknown,
  briefId: string | null = null,
  id?: string,
): JobId {
  const jobId = (id ?? `j_${randomBytes(8).toString("hex")}`) as JobId;
  const job = { jobId, kind, title, payload: JSON.stringify(payload), briefId };
  insertJob(getDb(), job, new Date().toISOString());
  startLane(laneOf(job));
  return jobId;
}

/** After a restart: what was running waits again, and every lane starts. */
export function resumeJobs() {
  const db = getDb();
  for (const job of listJobsIn(db, "running"))
    if (!queue().running.has(job.jobId)) updateJob(db, job.jobId, { state: "waiting" });
  for (const lane of new Set(listJobsIn(db, "waiting").map(laneOf))) startLane(lane);
}

function startLane(lane: string) {
  if (queue().busy.has(lane)) return;
  queue().busy.add(lane);
  setImmediate(() => void runLane(lane).finally(() => queue().busy.delete(lane)));
}

async function runLane(lane: string) {
  for (;;) {
    const job = listJobsIn(getDb(), "waiting").find((j) => laneOf(j) === lane);
    if (!job) return;
    await runJob(job);
  }
}

async function runJob(job: JobRow) {
  const db = getDb();
  const stop = new AbortController();
  const running: Running = { stop, startedAt: Date.now(), startedDone: job.done, samples: [] };
  queue().running.set(job.jobId, running);
  updateJob(db, job.jobId, { state: "running" });
  try {
    await HANDLERS[job.kind]({
      job,
      signal: stop.signal,
      progress: (change) => {
        updateJob(db, job.jobId, change);
        if (change.done !== undefined)
          running.samples = [...running.samples.slice(-40), { at: Date.now(), done: change.done }];
      },
    });
    updateJob(db, job.jobId, { state: stop.signal.aborted ? "cancelled" : "done" });
  } catch (error) {
    // The one place where a job's failure is caught: it is recorded, and the lane goes on.
    console.error(`job ${job.jobId} (${job.kind}) failed:`, error);
    updateJob(db, job.jobId, { state: "failed", message: String((error as Error).message).slice(0, 500) });
  } finally {
    queue().running.delete(job.jobId);
  }
}

/** Cancels a waiting or running job. @returns false when it is over already or unknown. */
export function cancelJob(jobId: string): boolean {
  const job = findJob(getDb(), jobId);
  if (!job || !["waiting", "running"].includes(job.state)) return false;
  const running = queue().running.get(jobId);
  if (running) running.stop.abort();
  else updateJob(getDb(), jobId, { state: "cancelled" });
  return true;
}

/** A job as people see it, with rate and time left from the last stretch. */
export function describeJob(row: JobRow): Job {
  const samples = queue().running.get(row.jobId)?.samples ?? [];
  const [first, last] = [samples[0], samples[samples.length - 1]];
  const rate = first && last && last.at > first.at ? ((last.done - first.done) * 1000) / (last.at - first.at) : null;
  return {
    jobId: row.jobId as JobId,
    kind: row.kind,
    title: row.title,
    state: row.state,
    done: row.done,
    total: row.total,
    rate: rate && Number(rate.toFixed(1)),
    secondsLeft: rate ? Math.ceil((row.total - row.done) / rate) : null,
    failed: row.failed,
    message: row.message,
    createdAt: row.createdAt,
    briefId: row.briefId,
    hasFile: Boolean(row.filePath) && row.state === "done",
  };
}
