import { z } from "zod";
import { SheetKind } from "@/contracts/people";
import { answer, download, readQuery, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { writeQuestionSheetFor } from "@/server/usecases/people";

type Params = { id: string; identificationId: string };
export const dynamic = "force-dynamic";

const TYPES: Record<SheetKind, string> = { pdf: "application/pdf", png: "image/png", html: "text/html; charset=utf-8" };

/** The question sheet, to be saved and sent by hand. */
export const GET = route<Params>(async (request, { id, identificationId }) => {
  const query = readQuery(request, z.object({ as: SheetKind.default("pdf") }));
  if (!query.ok) return query.response;
  const sheet = await writeQuestionSheetFor(getDb(), id, identificationId, query.value.as, request.signal);
  return sheet.ok ? download(sheet.value.bytes, TYPES[query.value.as], sheet.value.name) : answer(sheet);
});
