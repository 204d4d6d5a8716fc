import { NextResponse } from "next/server";
import { SavedSearchAdd } from "@/contracts/passes";
import { readBody, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listSearches, saveSearch } from "@/server/usecases/searches";

export const dynamic = "force-dynamic";

export const GET = route(() => NextResponse.json({ searches: listSearches(getDb()) }));
export const POST = route(async (request) => {
  const body = await readBody(request, SavedSearchAdd);
  return body.ok ? NextResponse.json(saveSearch(getDb(), body.value), { status: 201 }) : body.response;
});
