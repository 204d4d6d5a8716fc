import { NextResponse } from "next/server";
import { KeptPost } from "@/contracts/brief";
import { readBody, refusal, route, valueOr404, whoAsks } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findBrief } from "@/server/queries/briefs";
import { keepAt } from "@/server/usecases/briefs";
import { getRows, listKeptItems } from "@/server/usecases/findings";

export const GET = route<{ id: string }>((_request, { id }) => {
  const db = getDb();
  const brief = findBrief(db, id);
  if (!brief) return refusal("not-found");
  return NextResponse.json({ kept: brief.kept, items: listKeptItems(db, brief), ranges: getRows(db).ranges });
});

/** Keeps a face at a place on its axes, with features: one face may be kept at several. */
export const POST = route<{ id: string }>(async (request, { id }) => {
  const body = await readBody(request, KeptPost);
  return body.ok ? valueOr404(keepAt(getDb(), id, body.value, whoAsks(request)), 201) : body.response;
});
