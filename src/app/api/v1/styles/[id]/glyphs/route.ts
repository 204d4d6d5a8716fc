import { GlyphQuery } from "@/contracts/styles";
import { answer, readQuery, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listGlyphs } from "@/server/usecases/styleDetail";

export const GET = route<{ id: string }>(async (request, { id }) => {
  const query = readQuery(request, GlyphQuery);
  return query.ok ? answer(await listGlyphs(getDb(), id, query.value, request.signal)) : query.response;
});
