import { NextResponse } from "next/server";
import { LibraryId } from "@/contracts/ids";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { MAX_UPLOAD_BYTES, startImport } from "@/server/usecases/imports";

export const POST = route(async (request) => {
  if (Number(request.headers.get("content-length") ?? 0) > MAX_UPLOAD_BYTES) return refusal("too-large");
  const form = await request.formData().catch(() => null);
  if (!form) return refusal("bad-request");
  const files = form.getAll("files").filter((f): f is File => f instanceof File);
  if (!files.length) return refusal("no-file");
  const library = LibraryId.safeParse(form.get("library"));
  const read = await Promise.all(
    files.map(async (f) => ({ name: f.name || "unnamed", bytes: new Uint8Array(await f.arrayBuffer()) })),
  );
  return NextResponse.json(
    { importId: startImport(getDb(), read, library.success ? library.data : undefined) },
    { status: 202 },
  );
});
