import { NextResponse } from "next/server";
import { IdentificationState } from "@/contracts/identifications";
import { readFileForm } from "@/app/api/body";
import { answer, broken, readJsonField, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findBrief } from "@/server/queries/briefs";
import { listSavedIdentifications, saveIdentification } from "@/server/usecases/identifications";
import { MAX_PICTURE_BYTES } from "@/server/usecases/identify";

type Params = { id: string };
export const dynamic = "force-dynamic";

export const GET = route<Params>((_request, { id }) =>
  findBrief(getDb(), id)
    ? NextResponse.json({ identifications: listSavedIdentifications(getDb(), id) })
    : refusal("not-found"),
);

export const POST = route<Params>(async (request, { id }) => {
  const sent = await readFileForm(request, "image", MAX_PICTURE_BYTES, "picture-too-large");
  if (!sent.ok) return answer(sent);
  const { fields, file } = sent.value;
  const state = IdentificationState.safeParse(readJsonField(fields, "state"));
  if (!state.success) return broken(state.error);
  return answer(await saveIdentification(getDb(), id, file, state.data, request.signal), 201);
});
