import { NextResponse } from "next/server";
import { BriefPatch } from "@/contracts/brief";
import { readBody, refusal, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findBrief } from "@/server/queries/briefs";
import { changeBrief, deleteBrief } from "@/server/usecases/briefs";

type Params = { id: string };

export const GET = route<Params>((_request, { id }) => valueOr404(findBrief(getDb(), id)));

export const PATCH = route<Params>(async (request, { id }) => {
  const body = await readBody(request, BriefPatch);
  return body.ok ? valueOr404(changeBrief(getDb(), id, body.value)) : body.response;
});

export const DELETE = route<Params>((_request, { id }) =>
  deleteBrief(getDb(), id) ? NextResponse.json({ briefId: id, deleted: true }) : refusal("not-found"),
);
