import { NextResponse } from "next/server";
import { SuggestQuery } from "@/contracts/styles";
import { readQuery, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listSuggestions } from "@/server/usecases/findings";

export const dynamic = "force-dynamic";

export const GET = route((request) => {
  const query = readQuery(request, SuggestQuery);
  return query.ok ? NextResponse.json(listSuggestions(getDb(), query.value.q)) : query.response;
});
