// Where two faces differ in a letter, for telling near copies apart.
import { BesideQuery } from "@/contracts/identify";
import { answer, readQuery, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { getBeside } from "@/server/usecases/styleDetail";

export const GET = route<{ id: string }>(async (request, { id }) => {
  const query = readQuery(request, BesideQuery);
  if (!query.ok) return query.response;
  return answer(await getBeside(getDb(), id, query.value, request.signal));
});
