// The font itself, for the browser to set samples with. Content-addressed, so it may be kept for ever.
import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { readStored } from "@/server/db/fileStore";
import { findStyleFile } from "@/server/queries/styles";

const TYPES: Record<string, string> = { woff2: "font/woff2", woff: "font/woff", ttf: "font/ttf", otf: "font/otf" };

export const GET = route<{ id: string }>((_request, { id }) => {
  const style = findStyleFile(getDb(), id);
  if (!style) return refusal("not-found");
  if (!style.owned) return refusal("not-owned");
  return new NextResponse(readStored(style.sha256) as BodyInit, {
    headers: {
      "content-type": TYPES[style.format] ?? "application/octet-stream",
      "cache-control": "private, max-age=31536000, immutable",
    },
  });
});
