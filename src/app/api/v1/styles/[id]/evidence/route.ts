import { NextResponse } from "next/server";
import { EvidenceAdd } from "@/contracts/libraries";
import { readBody, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { addUserEvidence } from "@/server/usecases/provenance";

export const POST = route<{ id: string }>(async (request, { id }) => {
  const body = await readBody(request, EvidenceAdd);
  if (!body.ok) return body.response;
  const added = await addUserEvidence(getDb(), id, body.value);
  return added.ok ? NextResponse.json(added.value, { status: 201 }) : refusal(added.code);
});
