import { route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { getAnatomy } from "@/server/usecases/styleDetail";

export const GET = route<{ id: string }>(async (_request, { id }) => valueOr404(await getAnatomy(getDb(), id)));
