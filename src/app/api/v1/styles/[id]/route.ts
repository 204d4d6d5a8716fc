import { route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { getStyleDetail } from "@/server/usecases/styleDetail";

export const GET = route<{ id: string }>((request, { id }) =>
  valueOr404(getStyleDetail(getDb(), id, request.nextUrl.searchParams.get("briefId"))),
);
