import { answer, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { getAnatomy } from "@/server/usecases/styleDetail";

export const GET = route<{ id: string }>(async (request, { id }) =>
  answer(await getAnatomy(getDb(), id, request.signal)),
);
