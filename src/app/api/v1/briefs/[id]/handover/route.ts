import { NextResponse } from "next/server";
import { HandoverOptions } from "@/contracts/jobs";
import { readBody, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { addJob } from "@/server/jobs/queue";
import { findBrief } from "@/server/queries/briefs";

export const POST = route<{ id: string }>(async (request, { id }) => {
  const brief = findBrief(getDb(), id);
  if (!brief) return refusal("not-found");
  const body = await readBody(request, HandoverOptions);
  if (!body.ok) return body.response;
  if (!brief.kept.length) return refusal("nothing-kept");
  return NextResponse.json(
    { jobId: addJob("handover", `Hand over ${brief.name}`, { briefId: id, options: body.value }, id) },
    { status: 202 },
  );
});
