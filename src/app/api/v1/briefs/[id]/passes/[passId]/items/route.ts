import { z } from "zod";
import { NextResponse } from "next/server";
import { readQuery, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listPassItems } from "@/server/usecases/passes";

export const dynamic = "force-dynamic";
const Query = z.object({
  from: z.coerce.number().int().min(0).default(0),
  count: z.coerce.number().int().min(1).max(60).default(24),
});

export const GET = route<{ id: string; passId: string }>((request, { id, passId }) => {
  const query = readQuery(request, Query);
  if (!query.ok) return query.response;
  const items = listPassItems(getDb(), id, passId, query.value.from, query.value.count);
  return items ? NextResponse.json({ items }) : refusal("not-found");
});
