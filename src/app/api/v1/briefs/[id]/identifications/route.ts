import { NextResponse } from "next/server";
import { IdentificationState } from "@/contracts/identifications";
import { readFileForm, refusal, route } from "@/app/api/respond";
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
  const state = IdentificationState.safeParse(parse(form.get("state")));
  if (!state.success)
    return refusal(
      "bad-request",
      undefined,
      state.error.issues.slice(0, 8).map((i) => `${i.path.join(".")}: ${i.message}`),
    );
  const picture = { name: file.name, type: file.type, bytes: new Uint8Array(await file.arrayBuffer()) };
  const saved = saveIdentification(getDb(), id, picture, state.data);
  return saved.ok ? NextResponse.json(saved.value, { status: 201 }) : refusal(saved.code, saved.message);
});

function parse(value: FormDataEntryValue | null): unknown {
  try {
    return typeof value === "string" ? JSON.parse(value) : null;
  } catch {
    return null;
  }
}
