// Jobs and the lines of imports.
import type { ImportItem, Job } from "@/contracts/jobs";
import type { Db } from "../db/open";

export type JobKind = Job["kind"];
export type JobRow = {
  jobId: string;
  kind: JobKind;
  title: string;
  state: Job["state"];
  payload: string;
  done: number;
  total: number;
  failed: number;
  message: string | null;
  briefId: string | null;
  filePath: string | null;
  /** Times it ended the program since it last got on. */
  crashes: number;
  /** Per second over the last stretch; null when it does not run. */
  rate: number | null;
  /** Code of why it failed. */
  code: string | null;
  createdAt: string;
  changedAt: string;
};

const SELECT = `SELECT job_id AS jobId, kind, title, state, payload, done, total, failed, message, brief_id AS briefId,
  file_path AS filePath, crashes, rate, code, created_at AS createdAt, changed_at AS changedAt FROM jobs`;

export const findJob = (db: Db, jobId: string): JobRow | null =>
  db.prepare<[string], JobRow>(`${SELECT} WHERE job_id = ?`).get(jobId) ?? null;

export const listJobs = (db: Db, limit: number): JobRow[] =>
  db
    .prepare<[number], JobRow>(
      `${SELECT} WHERE state IN ('waiting','running') OR code = 'job-set-aside'
          OR rowid IN (SELECT rowid FROM jobs ORDER BY created_at DESC, rowid DESC LIMIT ?)
        ORDER BY created_at DESC, rowid DESC`,
    )
    .all(limit);

export const listJobsIn = (db: Db, ...states: Job["state"][]): JobRow[] =>
  db
    .prepare<string[], JobRow>(
      `${SELECT} WHERE state IN (${states.map(() => "?").join(",")}) ORDER BY created_at, rowid`,
    )
    .all(...states);

/** Whether anything is being done in the background. */
export const isAnyRunning = (db: Db): boolean =>
  db.prepare("SELECT 1 FROM jobs WHERE state = 'running' LIMIT 1").get() !== undefined;

export const insertJob = (db: Db, job: Pick<JobRow, "jobId" | "kind" | "title" | "payload" | "briefId">, at: string) =>
  db
    .prepare(
      "INSERT INTO jobs (job_id, kind, title, state, payload, brief_id, created_at, changed_at) VALUES (?, ?, ?, 'waiting', ?, ?, ?, ?)",
    )
    .run(job.jobId, job.kind, job.title, job.payload, job.briefId, at, at);

export function updateJob(
  db: Db,
  jobId: string,
  change: Partial<
    Pick<JobRow, "state" | "done" | "total" | "failed" | "message" | "filePath" | "crashes" | "rate" | "code">
  >,
) {
  const columns: Record<string, string> = { filePath: "file_path" };
  const keys = Object.keys(change);
  const sets = keys.map((k) => `${columns[k] ?? k} = @${k}`).join(", ");
  db.prepare(`UPDATE jobs SET ${sets}, changed_at = @at WHERE job_id = @jobId`).run({
    ...change,
    jobId,
    at: new Date().toISOString(),
  });
}

/** Counts an end of the program against every job that ran. @returns how many. */
export const countCrash = (db: Db): number =>
  db.prepare("UPDATE jobs SET crashes = crashes + 1 WHERE state = 'running'").run().changes;

type ItemRow = {
  name: string;
  path: string;
  outcome: ImportItem["outcome"];
  code: string | null;
  reason: string | null;
  styleId: string | null;
};
export const listImportItems = (db: Db, jobId: string): ImportItem[] =>
  db
    .prepare<[string], ItemRow>(
      "SELECT name, path, outcome, code, reason, style_id AS styleId FROM import_items WHERE job_id = ? ORDER BY rowid",
    )
    .all(jobId)
    .map(
      ({ code, reason, styleId, ...rest }) =>
        ({ ...rest, ...(code && { code }), ...(reason && { reason }), ...(styleId && { styleId }) }) as ImportItem,
    );

export const putImportItem = (db: Db, jobId: string, item: ImportItem) =>
  db
    .prepare(
      "INSERT OR REPLACE INTO import_items (job_id, path, name, outcome, code, reason, style_id) VALUES (?, ?, ?, ?, ?, ?, ?)",
    )
    .run(jobId, item.path, item.name, item.outcome, item.code ?? null, item.reason ?? null, item.styleId ?? null);
