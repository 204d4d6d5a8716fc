// One kept face. By a style's id it is kept as it comes; by its own id it may stand anywhere on its axes.
import { NextResponse } from "next/server";
import { KeptPut } from "@/contracts/brief";
import { readBody, refusal, route, valueOr404, whoAsks } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { changeKept, keepStyle, letGo } from "@/server/usecases/briefs";

type Params = { id: string; keptId: string };

export const PUT = route<Params>(async (request, { id, keptId }) => {
  const body = await readBody(request, KeptPut);
  if (!body.ok) return body.response;
  const by = whoAsks(request);
  const kept = keptId.startsWith("s_")
    ? keepStyle(getDb(), id, keptId, body.value, by)
    : changeKept(getDb(), id, keptId, body.value, by);
  return valueOr404(kept);
});

export const PATCH = route<Params>(async (request, { id, keptId }) => {
  const body = await readBody(request, KeptPut);
  return body.ok ? valueOr404(changeKept(getDb(), id, keptId, body.value, whoAsks(request))) : body.response;
});

export const DELETE = route<Params>((request, { id, keptId }) =>
  letGo(getDb(), id, keptId, whoAsks(request))
    ? NextResponse.json({ styleId: keptId, kept: false })
    : refusal("not-found"),
);
