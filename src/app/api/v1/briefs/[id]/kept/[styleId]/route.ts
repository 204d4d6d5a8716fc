import { NextResponse } from "next/server";
import { KeptPut } from "@/contracts/brief";
import { readBody, refusal, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { keepStyle, letGo } from "@/server/usecases/briefs";

type Params = { id: string; styleId: string };

export const PUT = route<Params>(async (request, { id, styleId }) => {
  const body = await readBody(request, KeptPut);
  return body.ok ? valueOr404(keepStyle(getDb(), id, styleId, body.value)) : body.response;
});

export const DELETE = route<Params>((_request, { id, styleId }) =>
  letGo(getDb(), id, styleId) ? NextResponse.json({ styleId, kept: false }) : refusal("not-found"),
);
