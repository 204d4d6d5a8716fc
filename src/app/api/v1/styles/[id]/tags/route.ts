import { TagPut } from "@/contracts/passes";
import { readBody, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { tagStyle } from "@/server/usecases/searches";

export const PUT = route<{ id: string }>(async (request, { id }) => {
  const body = await readBody(request, TagPut);
  return body.ok ? valueOr404(tagStyle(getDb(), id, body.value.tag, body.value.holds)) : body.response;
});
