import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { checkStyle } from "@/server/usecases/briefs";

export const GET = route<{ id: string }>((request, { id }) => {
  const checks = checkStyle(getDb(), id, request.nextUrl.searchParams.get("styleId") ?? "");
  return checks ? NextResponse.json({ checks }) : refusal("not-found");
});
