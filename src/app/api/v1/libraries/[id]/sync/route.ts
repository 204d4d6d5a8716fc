import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { startSync } from "@/server/usecases/libraries";

export const POST = route<{ id: string }>((_request, { id }) => {
  const jobId = startSync(getDb(), id);
  return jobId ? NextResponse.json({ jobId }, { status: 202 }) : refusal("not-found");
});
