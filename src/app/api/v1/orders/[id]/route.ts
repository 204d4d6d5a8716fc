// Carries an order on that was placed and could not be fetched whole.
import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { resumeOrder } from "@/server/usecases/shop";

export const POST = route<{ id: string }>((_request, { id }) => {
  const jobId = resumeOrder(getDb(), id);
  return jobId ? NextResponse.json({ orderId: id, jobId }, { status: 202 }) : refusal("not-found");
});
