import { HandoverOptions } from "@/contracts/jobs";
import { answer, readBody, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { planHandover, startHandover } from "@/server/usecases/handover";

export const POST = route<{ id: string }>(async (request, { id }) => {
  const body = await readBody(request, HandoverOptions);
  if (!body.ok) return body.response;
  return answer(startHandover(getDb(), id, body.value), 202);
});

export const GET = route<{ id: string }>((_request, { id }) => valueOr404(planHandover(getDb(), id)));
