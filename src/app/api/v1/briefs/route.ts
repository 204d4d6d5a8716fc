import { NextResponse } from "next/server";
import { BriefCreate } from "@/contracts/brief";
import { readBody, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listBriefs } from "@/server/queries/briefs";
import { createBrief } from "@/server/usecases/briefs";

export const dynamic = "force-dynamic";

export const GET = route(() => NextResponse.json({ briefs: listBriefs(getDb()) }));

export const POST = route(async (request) => {
  const body = await readBody(request, BriefCreate);
  return body.ok ? valueOr404(createBrief(getDb(), body.value), 201) : body.response;
});
