import { NextResponse } from "next/server";
import { z } from "zod";
import { readBody, refusal, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { getIdentification, removeIdentification } from "@/server/usecases/identifications";

type Params = { id: string; identificationId: string };
export const dynamic = "force-dynamic";

export const GET = route<Params>((_request, { id, identificationId }) =>
  valueOr404(getIdentification(getDb(), id, identificationId)),
);
/** Removes it, or brings it back. */
export const PATCH = route<Params>(async (request, { id, identificationId }) => {
  const body = await readBody(request, z.object({ removed: z.boolean() }));
  if (!body.ok) return body.response;
  return removeIdentification(getDb(), id, identificationId, body.value.removed)
    ? NextResponse.json({ identificationId })
    : refusal("not-found");
});
