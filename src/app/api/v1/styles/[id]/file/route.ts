// The font itself, for the browser to set samples with. A style may get another file: the browser keeps it and asks whether it still holds.
import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { readStored } from "@/server/db/fileStore";
import { findStyleFile } from "@/server/queries/styles";

const TYPES: Record<string, string> = { woff2: "font/woff2", woff: "font/woff", ttf: "font/ttf", otf: "font/otf" };

export const GET = route<{ id: string }>((request, { id }) => {
  const style = findStyleFile(getDb(), id);
  if (!style) return refusal("not-found");
  if (!style.owned) return refusal("not-owned");
  const headers = { etag: `"${style.sha256}"`, "cache-control": "private, no-cache" };
  if (request.headers.get("if-none-match") === headers.etag) return new NextResponse(null, { status: 304, headers });
  return new NextResponse(readStored(style.sha256) as BodyInit, {
    headers: {
      ...headers,
      "content-type": TYPES[style.format] ?? "application/octet-stream",
    },
  });
});
