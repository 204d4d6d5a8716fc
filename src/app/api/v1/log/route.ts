import { NextResponse } from "next/server";
import { LogQuery } from "@/contracts/libraries";
import { download, readQuery, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listLog, writeLogCsv } from "@/server/usecases/provenance";

export const dynamic = "force-dynamic";

export const GET = route((request) => {
  const query = readQuery(request, LogQuery);
  if (!query.ok) return query.response;
  const { q = "", limit, cursor } = query.value;
  if (request.nextUrl.searchParams.get("format") === "csv")
    return download(writeLogCsv(getDb(), q), "text/csv; charset=utf-8", "font log.csv");
  return NextResponse.json(listLog(getDb(), q, limit, Number(cursor ?? 0)));
});
