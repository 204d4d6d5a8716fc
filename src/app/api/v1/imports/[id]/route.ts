import { ImportId } from "@/contracts/ids";
import { refusal, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { getImport } from "@/server/usecases/imports";

export const GET = route<{ id: string }>((_request, { id }) => {
  const importId = ImportId.safeParse(id);
  return importId.success ? valueOr404(getImport(getDb(), importId.data)) : refusal("not-found");
});
