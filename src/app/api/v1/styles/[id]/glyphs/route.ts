import { GlyphQuery } from "@/contracts/styles";
import { readQuery, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listGlyphs } from "@/server/usecases/styleDetail";

export const GET = route<{ id: string }>(async (request, { id }) => {
  const query = readQuery(request, GlyphQuery);
  return query.ok ? valueOr404(await listGlyphs(getDb(), id, query.value)) : query.response;
});
