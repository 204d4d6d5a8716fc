// Long work: a table of jobs, one lane a kind (a library's syncs have their own), each doing its jobs one after another. The work is
// done in a process of its own (run.process.ts), so that nothing it meets stops the server; whoever adds a job wakes that process.
// Survives a restart; a job that ended the program twice without getting on is set aside.
import { randomBytes } from "node:crypto";
import type { Job } from "@/contracts/jobs";
import type { JobId } from "@/contracts/ids";
import { FaultError, sentenceOf } from "@/contracts/errors";
import { getDb } from "../db/open";
import { faultOfDisk } from "../db/diskFaults";
import { findJob, insertJob, listJobsIn, updateJob, type JobKind, type JobRow } from "../queries/jobs";
import type { SyncPayload } from "./payloads";

/** What a handler gets: where to tell of progress, and whether to stop. */
export type JobContext = {
  job: JobRow;
  signal: AbortSignal;
  progress: (change: { done?: number; total?: number; failed?: number; filePath?: string; message?: string }) => void;
};
type Handler = (context: JobContext) => Promise<void>;

/** A library that is down must not hold up the others: each has a lane of its own. */
const laneOf = (job: Pick<JobRow, "kind" | "payload">): string =>
  job.kind === "sync-library" ? `sync-library ${(JSON.parse(job.payload) as SyncPayload).libraryId}` : job.kind;

/** Ends of the program after which a job is not begun again by itself. */
const MAX_CRASHES = 2;

type Queue = {
  /** Of the process that works; null where jobs are only added. */
  handlers: Record<JobKind, Handler> | null;
  running: Map<string, AbortController>;
  busy: Set<string>;
  /** Tells the process that works; null where that is this one. */
  tell: ((message: JobsMessage) => void) | null;
  /** Work that people wait for, and readers make way for. */
  urgent: number;
};
/** yields: somebody waits at the screen, so that reading leaves the machine to them; or no longer. */
export type JobsMessage = { wake: true } | { cancel: string } | { close: true } | { yields: boolean };
const shared = globalThis as unknown as { fondQuarryQueue?: Queue };
const queue = (): Queue =>
  (shared.fondQuarryQueue ??= { handlers: null, running: new Map(), busy: new Set(), tell: null, urgent: 0 });

/** Makes this process the one that works. @param handlers - one for each kind of job. */
export function startQueue(handlers: Record<JobKind, Handler>) {
  queue().handlers = handlers;
  resumeJobs();
}

/** Makes this process one that only adds and cancels jobs. */
export function tellQueue(tell: Queue["tell"]) {
  queue().tell = tell;
}

/** Work that a person waits for: readers make way for it. */
export async function beforeReaders<T>(work: () => Promise<T>): Promise<T> {
  if (queue().urgent++ === 0) queue().tell?.({ yields: true });
  try {
    return await work();
  } finally {
    if (--queue().urgent === 0) queue().tell?.({ yields: false });
  }
}

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
  wakeQueue();
  return jobId;
}

/** Starts the lanes of all that waits, here or in the process that works. */
export function wakeQueue() {
  const { handlers, tell } = queue();
  if (!handlers) return tell?.({ wake: true });
  for (const lane of new Set(listJobsIn(getDb(), "waiting").map(laneOf))) startLane(lane);
}

/** After a restart: what was running waits again or is set aside, and every lane starts. */
export function resumeJobs() {
  const db = getDb();
  for (const job of listJobsIn(db, "running")) {
    if (queue().running.has(job.jobId)) continue;
    if (job.crashes < MAX_CRASHES) updateJob(db, job.jobId, { state: "waiting", rate: null });
    else
      updateJob(db, job.jobId, {
        state: "failed",
        rate: null,
        code: "job-set-aside",
        message: sentenceOf("job-set-aside"),
      });
  }
  wakeQueue();
}

/** Begins a failed or cancelled job again. @returns false when there is none such. */
export function retryJob(jobId: string): boolean {
  const job = findJob(getDb(), jobId);
  if (!job || !["failed", "cancelled"].includes(job.state)) return false;
  updateJob(getDb(), jobId, { state: "waiting", crashes: 0, code: null, message: null });
  wakeQueue();
  return true;
}

function startLane(lane: string) {
  if (queue().busy.has(lane)) return;
  queue().busy.add(lane);
  setImmediate(() => {
    runLane(lane)
      .catch((error: unknown) => console.error(`lane ${lane}:`, error))
      .finally(() => {
        queue().busy.delete(lane);
      });
  });
}

async function runLane(lane: string) {
  for (;;) {
    const job = listJobsIn(getDb(), "waiting").find((j) => laneOf(j) === lane);
    if (!job) return;
    await runJob(job);
  }
}

/** How many steps the rate is told from. */
const SAMPLES = 40;

async function runJob(job: JobRow) {
  const db = getDb();
  const stop = new AbortController();
  const samples: { at: number; done: number }[] = [];
  let furthest = job.done;
  queue().running.set(job.jobId, stop);
  updateJob(db, job.jobId, { state: "running" });
  const end = (change: Parameters<typeof updateJob>[2]) => updateJob(db, job.jobId, { rate: null, ...change });
  try {
    await queue().handlers![job.kind]({
      job,
      signal: stop.signal,
      progress: ({ done, ...change }) => {
        if (done === undefined) return updateJob(db, job.jobId, change);
        samples.push({ at: Date.now(), done });
        if (samples.length > SAMPLES) samples.shift();
        const gotOn = done > furthest;
        furthest = Math.max(furthest, done);
        updateJob(db, job.jobId, { ...change, done, rate: rateOf(samples), ...(gotOn && { crashes: 0 }) });
      },
    });
    end({ state: stop.signal.aborted ? "cancelled" : "done", crashes: 0 });
  } catch (error) {
    // The one place where a job's failure is caught: it is recorded, and the lane goes on.
    console.error(`job ${job.jobId} (${job.kind}) failed:`, error);
    const code = error instanceof FaultError ? error.code : (faultOfDisk(error) ?? "internal");
    const message = error instanceof FaultError ? error.message : sentenceOf(code);
    try {
      end({ state: "failed", code, message: message.slice(0, 500) });
    } catch (again) {
      // Nothing can be written at all: the job still counts as running and goes on when there is room.
      console.error(`job ${job.jobId}:`, again);
    }
  } finally {
    queue().running.delete(job.jobId);
  }
}

function rateOf(samples: { at: number; done: number }[]): number | null {
  const [first, last] = [samples[0], samples[samples.length - 1]];
  if (!first || !last || last.at <= first.at) return null;
  return Number((((last.done - first.done) * 1000) / (last.at - first.at)).toFixed(1));
}

/** Cancels a waiting or running job. @returns false when it is over already or unknown. */
export function cancelJob(jobId: string): boolean {
  const job = findJob(getDb(), jobId);
  if (!job || !["waiting", "running"].includes(job.state)) return false;
  if (job.state === "waiting") updateJob(getDb(), jobId, { state: "cancelled" });
  else stopJob(jobId);
  return true;
}

/** Tells a running job to stop, here or in the process that works. */
export function stopJob(jobId: string) {
  const { running, tell } = queue();
  const here = running.get(jobId);
  if (here) here.abort();
  else tell?.({ cancel: jobId });
}

/** A job as people see it, with rate and time left from the last stretch. */
export function describeJob(row: JobRow): Job {
  const rate = row.state === "running" ? row.rate : null;
  return {
    jobId: row.jobId as JobId,
    kind: row.kind,
    title: row.title,
    state: row.state,
    done: row.done,
    total: row.total,
    rate,
    secondsLeft: rate ? Math.ceil((row.total - row.done) / rate) : null,
    failed: row.failed,
    message: row.message,
    code: row.code,
    createdAt: row.createdAt,
    briefId: row.briefId,
    hasFile: Boolean(row.filePath) && row.state === "done",
  };
}
