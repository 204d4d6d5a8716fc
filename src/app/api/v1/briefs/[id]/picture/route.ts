import { NextResponse } from "next/server";
import { readFileForm } from "@/app/api/body";
import { answer, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { MOST_BYTES, putPicture, readPicture, removePicture } from "@/server/usecases/briefPicture";

type Params = { id: string };
export const dynamic = "force-dynamic";

export const GET = route<Params>((_request, { id }) => {
  const jpeg = readPicture(getDb(), id);
  return jpeg
    ? new NextResponse(new Uint8Array(jpeg), {
        headers: {
          "content-type": "image/jpeg",
          "cache-control": "private, max-age=31536000, immutable",
          "x-content-type-options": "nosniff",
        },
      })
    : refusal("not-found");
});
export const PUT = route<Params>(async (request, { id }) => {
  const sent = await readFileForm(request, "image", MOST_BYTES, "picture-too-large");
  if (!sent.ok) return answer(sent);
  const { name, bytes } = sent.value.file;
  const outcome = await putPicture(getDb(), id, name, bytes, request.signal);
  return outcome.ok ? NextResponse.json({ picture: outcome.picture }) : refusal(outcome.code, outcome.message);
});
export const DELETE = route<Params>((_request, { id }) =>
  removePicture(getDb(), id) ? NextResponse.json({ briefId: id }) : refusal("not-found"),
);
