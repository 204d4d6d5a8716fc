import { NextResponse } from "next/server";
import { StyleQuery } from "@/contracts/styles";
import { readQuery, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listFound } from "@/server/usecases/findings";

export const dynamic = "force-dynamic";

export const GET = route((request) => {
  const query = readQuery(request, StyleQuery);
  return query.ok ? NextResponse.json(listFound(getDb(), query.value)) : query.response;
});
