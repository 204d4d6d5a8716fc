// A line set by the library that sells a face: outlines, never the font.
import { NextResponse } from "next/server";
import { SettingQuery } from "@/contracts/libraries";
import { readQuery, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { setLineIn } from "@/server/usecases/libraries";

export const GET = route<{ id: string }>(async (request, { id }) => {
  const query = readQuery(request, SettingQuery);
  if (!query.ok) return query.response;
  const set = await setLineIn(getDb(), id, query.value.text);
  if (!set.ok) return refusal(set.code, set.message, set.details);
  return NextResponse.json(set.value, { headers: { "cache-control": "private, max-age=86400" } });
});
