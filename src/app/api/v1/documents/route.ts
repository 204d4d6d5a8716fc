import { NextResponse } from "next/server";
import { readFileForm, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listDocumentFonts, MAX_DOCUMENT_BYTES } from "@/server/usecases/documents";

export const maxDuration = 60;

export const POST = route(async (request) => {
  const sent = await readFileForm(request, "document", MAX_DOCUMENT_BYTES, "document-too-large");
  if (!sent.ok) return sent.response;
  const { file } = sent;
  const outcome = await listDocumentFonts(getDb(), file.name || "document", new Uint8Array(await file.arrayBuffer()));
  return outcome.ok ? NextResponse.json(outcome.value) : refusal(outcome.code, outcome.message, outcome.details);
});
