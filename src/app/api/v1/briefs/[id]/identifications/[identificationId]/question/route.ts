import { NextResponse } from "next/server";
import { refusal, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { askPeople, getPeople, withdrawQuestion } from "@/server/usecases/people";

type Params = { id: string; identificationId: string };
export const dynamic = "force-dynamic";

/** How the question to people stands; the desk is asked for news. */
export const GET = route<Params>(async (_request, { id, identificationId }) =>
  valueOr404(await getPeople(getDb(), id, identificationId)),
);
/** Leaves the question at the desk, or sends again what did not reach it. */
export const POST = route<Params>(async (_request, { id, identificationId }) => {
  const asked = await askPeople(getDb(), id, identificationId);
  return asked.ok ? NextResponse.json(asked.value, { status: 202 }) : refusal(asked.code, asked.message);
});
export const DELETE = route<Params>(async (_request, { id, identificationId }) =>
  valueOr404(await withdrawQuestion(getDb(), id, identificationId)),
);
