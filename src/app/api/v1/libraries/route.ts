import { NextResponse } from "next/server";
import { LibraryAdd } from "@/contracts/libraries";
import { readBody, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { addLibrary, listLibraries } from "@/server/usecases/libraries";

export const dynamic = "force-dynamic";

export const GET = route(() => NextResponse.json({ libraries: listLibraries(getDb()) }));

export const POST = route(async (request) => {
  const body = await readBody(request, LibraryAdd);
  if (!body.ok) return body.response;
  const added = await addLibrary(getDb(), body.value);
  return added.ok
    ? NextResponse.json({ libraryId: added.value }, { status: 201 })
    : refusal(added.code, added.message, added.details);
});
