import { NextResponse } from "next/server";
import { StyleQuery } from "@/contracts/styles";
import { readQuery, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listFound } from "@/server/usecases/findings";

export const dynamic = "force-dynamic";

export const GET = route((request) => {
  const query = readQuery(request, StyleQuery);
  if (!query.ok) return query.response;
  const started = performance.now();
  const found = listFound(getDb(), query.value);
  const tookMs = performance.now() - started;
  // So that the browser's tools and the benchmark see what finding itself took.
  return NextResponse.json(found, { headers: { "Server-Timing": `find;dur=${tookMs.toFixed(1)}` } });
});
