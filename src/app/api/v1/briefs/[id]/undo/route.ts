import { route, valueOr404, whoAsks } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { stepBack } from "@/server/usecases/briefs";

export const POST = route<{ id: string }>((request, { id }) =>
  valueOr404(stepBack(getDb(), id, "undo", request.headers.has("x-who") ? whoAsks(request) : null)),
);
