import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { searchLibrary } from "@/server/usecases/libraries";

export const GET = route<{ id: string }>(async (request, { id }) => {
  const found = await searchLibrary(getDb(), id, (request.nextUrl.searchParams.get("q") ?? "").slice(0, 200));
  return found.ok ? NextResponse.json(found.value) : refusal(found.code, found.message);
});
