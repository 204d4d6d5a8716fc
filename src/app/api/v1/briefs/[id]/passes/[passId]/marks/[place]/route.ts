import { MarkPut } from "@/contracts/passes";
import { readBody, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { markPlace, unmarkPlace } from "@/server/usecases/passes";

type Params = { id: string; passId: string; place: string };

export const PUT = route<Params>(async (request, { id, passId, place }) => {
  const body = await readBody(request, MarkPut);
  return body.ok ? valueOr404(markPlace(getDb(), id, passId, Number(place), body.value.mark)) : body.response;
});
export const DELETE = route<Params>((_request, { id, passId, place }) =>
  valueOr404(unmarkPlace(getDb(), id, passId, Number(place))),
);
