import { NextResponse } from "next/server";
import { route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listRefused } from "@/server/usecases/libraries";

export const GET = route<{ id: string }>((_request, { id }) =>
  NextResponse.json({ publications: listRefused(getDb(), id) }),
);
