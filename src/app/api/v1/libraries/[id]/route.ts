import { NextResponse } from "next/server";
import { LibraryPatch } from "@/contracts/libraries";
import { readBody, refusal, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listLibraries, patchLibrary, removeLibrary } from "@/server/usecases/libraries";

const find = (id: string) => listLibraries(getDb()).find((l) => l.libraryId === id) ?? null;

export const GET = route<{ id: string }>((_request, { id }) => valueOr404(find(id)));

export const PATCH = route<{ id: string }>(async (request, { id }) => {
  const body = await readBody(request, LibraryPatch);
  if (!body.ok) return body.response;
  return patchLibrary(getDb(), id, body.value) ? valueOr404(find(id)) : refusal("not-found");
});

export const DELETE = route<{ id: string }>((_request, { id }) =>
  removeLibrary(getDb(), id) ? NextResponse.json({ libraryId: id, removed: true }) : refusal("not-found"),
);
