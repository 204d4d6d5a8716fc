import { refusal, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { cancelJob, describeJob } from "@/server/jobs/queue";
import { findJob } from "@/server/queries/jobs";

type Params = { id: string };

export const GET = route<Params>((_request, { id }) => {
  const job = findJob(getDb(), id);
  return valueOr404(job && describeJob(job));
});

export const DELETE = route<Params>((_request, { id }) => {
  const job = findJob(getDb(), id);
  if (!job) return refusal("not-found");
  cancelJob(id);
  return valueOr404(describeJob(findJob(getDb(), id)!));
});
