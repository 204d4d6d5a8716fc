import { NextResponse } from "next/server";
import { PassPatch } from "@/contracts/passes";
import { readBody, refusal, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { changePass, forgetPass, getPass } from "@/server/usecases/passes";

type Params = { id: string; passId: string };
export const dynamic = "force-dynamic";

export const GET = route<Params>((_request, { id, passId }) => valueOr404(getPass(getDb(), id, passId)));
export const PATCH = route<Params>(async (request, { id, passId }) => {
  const body = await readBody(request, PassPatch);
  return body.ok ? valueOr404(changePass(getDb(), id, passId, body.value)) : body.response;
});
export const DELETE = route<Params>((_request, { id, passId }) =>
  forgetPass(getDb(), id, passId) ? NextResponse.json({ passId }) : refusal("not-found"),
);
