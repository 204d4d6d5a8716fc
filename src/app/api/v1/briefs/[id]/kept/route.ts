import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findBrief } from "@/server/queries/briefs";
import { getRows, listKeptItems } from "@/server/usecases/findings";

export const GET = route<{ id: string }>((_request, { id }) => {
  const db = getDb();
  const brief = findBrief(db, id);
  if (!brief) return refusal("not-found");
  return NextResponse.json({ kept: brief.kept, items: listKeptItems(db, brief), ranges: getRows(db).ranges });
});
