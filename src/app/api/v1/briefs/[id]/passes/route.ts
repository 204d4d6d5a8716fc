import { NextResponse } from "next/server";
import { PassBegin } from "@/contracts/passes";
import { readBody, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { beginPass, listPassSummaries } from "@/server/usecases/passes";

export const dynamic = "force-dynamic";

export const GET = route<{ id: string }>((_request, { id }) =>
  NextResponse.json({ passes: listPassSummaries(getDb(), id) }),
);
export const POST = route<{ id: string }>(async (request, { id }) => {
  const body = await readBody(request, PassBegin);
  if (!body.ok) return body.response;
  const pass = beginPass(getDb(), id, body.value);
  if (pass === "nothing-found") return refusal("nothing-found");
  if (pass === "bad-question") return refusal("bad-request");
  return pass ? NextResponse.json(pass, { status: 201 }) : refusal("not-found");
});
