import { NextResponse } from "next/server";
import { z } from "zod";
import { LibraryId } from "@/contracts/ids";
import { receiveFiles } from "@/app/api/body";
import { answer, readJsonField, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findLibrary } from "@/server/queries/libraries";
import { MAX_UPLOAD_BYTES, openUpload, startImport } from "@/server/usecases/imports";

/** Paths of files that came in folders, in the order of the files. */
const Paths = z.array(z.string().max(300)).max(5000);
/** A path serves as a name alone, yet it stays inside its folder. */
const nameOf = (name: string, path: string | undefined) =>
  (path ?? name)
    .split(/[\\/]/)
    .filter((part) => part && part !== "." && part !== "..")
    .join("/") || "unnamed";

export const POST = route(async (request) => {
  const upload = openUpload();
  const sent = await receiveFiles(request, "files", MAX_UPLOAD_BYTES, upload.placeOf).catch((error: unknown) => {
    upload.drop();
    throw error;
  });
  if (!sent.ok) {
    upload.drop();
    return answer(sent);
  }
  const { fields, names } = sent.value;
  const paths = Paths.safeParse(readJsonField(fields, "paths"));
  const wanted = fields.get("library");
  const library = LibraryId.safeParse(wanted);
  if (wanted && !(library.success && findLibrary(getDb(), library.data))) {
    upload.drop();
    return refusal("not-found", `${wanted}: There is no such library.`);
  }
  const named = names.map((name, i) => nameOf(name, paths.data?.[i]));
  return NextResponse.json({ importId: startImport(getDb(), upload, named, library.data) }, { status: 202 });
});
