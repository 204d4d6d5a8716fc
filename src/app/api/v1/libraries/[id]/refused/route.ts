import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listLibraries, listRefused } from "@/server/usecases/libraries";

export const GET = route<{ id: string }>((_request, { id }) =>
  listLibraries(getDb()).some((l) => l.libraryId === id)
    ? NextResponse.json({ publications: listRefused(getDb(), id) })
    : refusal("not-found"),
);
