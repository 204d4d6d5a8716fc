import { NextResponse } from "next/server";
import { z } from "zod";
import { LibraryId } from "@/contracts/ids";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { MAX_UPLOAD_BYTES, startImport } from "@/server/usecases/imports";

/** Paths of files that came in folders, in the order of the files. */
const Paths = z.array(z.string().max(300)).max(5000);
function parsePaths(value: FormDataEntryValue | null): unknown {
  try {
    return typeof value === "string" ? JSON.parse(value) : undefined;
  } catch {
    return undefined;
  }
}
/** A path serves as a name alone, yet it stays inside its folder. */
const nameOf = (file: File, path: string | undefined) =>
  (path ?? file.name)
    .split(/[\\/]/)
    .filter((part) => part && part !== "." && part !== "..")
    .join("/") || "unnamed";

export const POST = route(async (request) => {
  if (Number(request.headers.get("content-length") ?? 0) > MAX_UPLOAD_BYTES) return refusal("too-large");
  const form = await request.formData().catch(() => null);
  if (!form) return refusal("bad-request");
  const files = form.getAll("files").filter((f): f is File => f instanceof File);
  if (!files.length) return refusal("no-file");
  const paths = Paths.safeParse(parsePaths(form.get("paths")));
  const library = LibraryId.safeParse(form.get("library"));
  const read = await Promise.all(
    files.map(async (f, i) => ({ name: nameOf(f, paths.data?.[i]), bytes: new Uint8Array(await f.arrayBuffer()) })),
  );
  return NextResponse.json(
    { importId: startImport(getDb(), read, library.success ? library.data : undefined) },
    { status: 202 },
  );
});
