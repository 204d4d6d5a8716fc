import { AlikeQuery } from "@/contracts/styles";
import { readQuery, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listAlike } from "@/server/usecases/alike";

export const dynamic = "force-dynamic";

export const GET = route<{ id: string }>((request, { id }) => {
  const query = readQuery(request, AlikeQuery);
  return query.ok ? valueOr404(listAlike(getDb(), id, query.value)) : query.response;
});
