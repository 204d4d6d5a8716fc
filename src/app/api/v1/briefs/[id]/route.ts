import { NextResponse } from "next/server";
import { BriefPatch } from "@/contracts/brief";
import { answer, readBody, refusal, route, whoAsks } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findBrief } from "@/server/queries/briefs";
import { changeBrief, deleteBrief } from "@/server/usecases/briefs";

type Params = { id: string };

export const GET = route<Params>((_request, { id }) => {
  const brief = findBrief(getDb(), id);
  if (!brief) return refusal("not-found");
  return NextResponse.json(brief, { headers: { etag: `"${brief.version}"` } });
});

export const PATCH = route<Params>(async (request, { id }) => {
  const body = await readBody(request, BriefPatch);
  if (!body.ok) return body.response;
  const told = /^"?(\d{1,12})"?$/.exec(request.headers.get("if-match") ?? "")?.[1];
  const patch = { ...body.value, ...(told && { version: Number(told) }) };
  return answer(changeBrief(getDb(), id, patch, whoAsks(request)));
});

export const DELETE = route<Params>((_request, { id }) =>
  deleteBrief(getDb(), id) ? NextResponse.json({ briefId: id, deleted: true }) : refusal("not-found"),
);
