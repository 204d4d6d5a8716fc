import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { forgetSearch } from "@/server/usecases/searches";

export const DELETE = route<{ id: string }>((_request, { id }) =>
  forgetSearch(getDb(), id) ? NextResponse.json({ searchId: id }) : refusal("not-found"),
);
