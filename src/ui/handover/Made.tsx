"use client";
import type { Job } from "@/contracts/jobs";
import { addressOf } from "../parts/client";

/** The archives that were made, or failed. @param onSave - one of them is saved. */
export function Made({ jobs, onSave }: { jobs: Job[]; onSave?: () => void }) {
  return (
    <ul className="mt-5">
      {jobs.map((job) => (
        <li key={job.jobId} className="flex items-center justify-between gap-3 border-t border-rule py-2">
          <span>
            {new Date(job.createdAt).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}{" "}
            <span className="text-basalt">{job.state === "running" ? `${job.done} of ${job.total}` : job.state}</span>
            {job.message && (
              <span className={job.state === "failed" ? "text-madder" : "text-basalt"}> {job.message}</span>
            )}
          </span>
          {job.hasFile && (
            <a className="btn" href={addressOf("getJobFile", { params: { id: job.jobId } })} onClick={onSave}>
              Save zip
            </a>
          )}
        </li>
      ))}
    </ul>
  );
}
