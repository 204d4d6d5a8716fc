import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { readIdentifiedPicture } from "@/server/usecases/identifications";

type Params = { id: string; identificationId: string };
export const dynamic = "force-dynamic";

export const GET = route<Params>((_request, { id, identificationId }) => {
  const picture = readIdentifiedPicture(getDb(), id, identificationId);
  return picture
    ? new NextResponse(new Uint8Array(picture.bytes), {
        headers: {
          "content-type": picture.type,
          "cache-control": "private, max-age=31536000, immutable",
          "x-content-type-options": "nosniff",
          "content-security-policy": "sandbox; default-src 'none'",
        },
      })
    : refusal("not-found");
});
