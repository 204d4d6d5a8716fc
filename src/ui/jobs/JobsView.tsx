"use client";
// Jobs: what runs and what ran, with count, rate, time left and cancel.
import { useEffect } from "react";
import { useBench } from "../bench/BenchContext";
import { useCancelJob, useJobs, useRetryJob, writeTimeLeft } from "../bench/FootLine";
import { addressOf } from "../parts/client";

const STATE_WORDS = {
  waiting: "Waiting",
  running: "Running",
  done: "Done",
  failed: "Failed",
  cancelled: "Cancelled",
} as const;

export function JobsView() {
  const { dispatch } = useBench();
  const jobs = useJobs(700);
  const cancel = useCancelJob();
  const retry = useRetryJob();
  useEffect(() => dispatch({ type: "facts", facts: [] }), [dispatch]);
  return (
    <div className="h-full overflow-y-auto px-6 py-4" tabIndex={0}>
      <div className="max-w-[980px]">
        <h1 className="border-b-2 border-slate pb-2 text-[18px] font-bold">Jobs</h1>
        {jobs.data && !jobs.data.jobs.length && (
          <p className="mt-3 text-basalt">Nothing has run yet. Imports and archives appear here.</p>
        )}
        <ul>
          {jobs.data?.jobs.map((job) => (
            <li
              key={job.jobId}
              className="grid grid-cols-[minmax(0,1fr)_160px_230px_90px] items-center gap-4 border-b border-rule py-2.5"
            >
              <span>
                <span className="font-semibold">{job.title}</span>
                <span className="block text-[12px] text-basalt">
                  {new Date(job.createdAt).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
                  {job.failed > 0 && ` · ${job.failed} refused`}
                  {job.message && ` · ${job.message}`}
                </span>
              </span>
              <progress
                max={job.total || 1}
                value={job.state === "done" ? job.total || 1 : job.done}
                className="h-1.5 w-full accent-tide"
                aria-label={`${job.title}: progress`}
              />
              <span className="num">
                {job.code === "job-set-aside" ? "Set aside" : STATE_WORDS[job.state]} · {job.done} of {job.total}
                {job.state === "running" && job.rate ? ` · ${job.rate}/s` : ""}
                {job.state === "running" && job.secondsLeft ? ` · ${writeTimeLeft(job.secondsLeft)}` : ""}
              </span>
              <span className="text-right">
                {job.hasFile && (
                  <a className="btn" href={addressOf("getJobFile", { params: { id: job.jobId } })}>
                    Save
                  </a>
                )}
                {job.state === "failed" && (
                  <button type="button" className="btn" onClick={() => retry(job.jobId)}>
                    Try again
                  </button>
                )}
                {(job.state === "running" || job.state === "waiting") && (
                  <button type="button" className="btn" onClick={() => cancel(job.jobId)}>
                    Cancel
                  </button>
                )}
              </span>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}
