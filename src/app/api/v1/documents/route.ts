import { readFileForm } from "@/app/api/body";
import { answer, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listDocumentFonts, MAX_DOCUMENT_BYTES } from "@/server/usecases/documents";

export const maxDuration = 60;

export const POST = route(async (request) => {
  const sent = await readFileForm(request, "document", MAX_DOCUMENT_BYTES, "document-too-large");
  if (!sent.ok) return answer(sent);
  const { name, bytes } = sent.value.file;
  return answer(await listDocumentFonts(getDb(), name, bytes, request.signal));
});
