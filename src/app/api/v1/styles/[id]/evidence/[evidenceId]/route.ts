import { NextResponse } from "next/server";
import { EvidencePatch } from "@/contracts/libraries";
import { readBody, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { setUserEvidence } from "@/server/usecases/provenance";

type Params = { id: string; evidenceId: string };
const answer = async ({ id, evidenceId }: Params, removed: boolean) =>
  (await setUserEvidence(getDb(), id, evidenceId, removed))
    ? NextResponse.json({ evidenceId, removed })
    : refusal("not-found");

export const PATCH = route<Params>(async (request, params) => {
  const body = await readBody(request, EvidencePatch);
  return body.ok ? answer(params, body.value.removed) : body.response;
});

export const DELETE = route<Params>((_request, params) => answer(params, true));
