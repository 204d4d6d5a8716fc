import { NextResponse } from "next/server";
import { IdentificationState } from "@/contracts/identifications";
import { broken, readFileForm, readJsonField, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listSavedIdentifications, saveIdentification } from "@/server/usecases/identifications";
import { MAX_PICTURE_BYTES } from "@/server/usecases/identify";

type Params = { id: string };
export const dynamic = "force-dynamic";

export const GET = route<Params>((_request, { id }) =>
  NextResponse.json({ identifications: listSavedIdentifications(getDb(), id) }),
);

export const POST = route<Params>(async (request, { id }) => {
  const sent = await readFileForm(request, "image", MAX_PICTURE_BYTES, "picture-too-large");
  if (!sent.ok) return sent.response;
  const { form, file } = sent;
  const state = IdentificationState.safeParse(readJsonField(form, "state"));
  if (!state.success) return broken(state.error);
  const picture = { name: file.name, type: file.type, bytes: new Uint8Array(await file.arrayBuffer()) };
  const saved = saveIdentification(getDb(), id, picture, state.data);
  return saved.ok ? NextResponse.json(saved.value, { status: 201 }) : refusal(saved.code, saved.message);
});
