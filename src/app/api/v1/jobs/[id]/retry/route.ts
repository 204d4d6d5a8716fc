import { refusal, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { describeJob, retryJob } from "@/server/jobs/queue";
import { findJob } from "@/server/queries/jobs";

/** Begins a job again that failed, was cancelled or was set aside. */
export const POST = route<{ id: string }>((_request, { id }) => {
  if (!retryJob(id)) return refusal("not-found");
  return valueOr404(describeJob(findJob(getDb(), id)!), 202);
});
