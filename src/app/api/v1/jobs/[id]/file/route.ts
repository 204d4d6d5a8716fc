import { createReadStream, existsSync, statSync } from "node:fs";
import { Readable } from "node:stream";
import { NextResponse } from "next/server";
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { findBrief } from "@/server/queries/briefs";
import { findJob } from "@/server/queries/jobs";

export const GET = route<{ id: string }>((_request, { id }) => {
  const job = findJob(getDb(), id);
  if (!job?.filePath || job.state !== "done" || !existsSync(job.filePath)) return refusal("job-gone");
  const name = `${(job.briefId && findBrief(getDb(), job.briefId)?.name) || "Hand over"}.zip`.replace(
    /[^\x20-\x7e]|["\\/]/g,
    "_",
  );
  return new NextResponse(Readable.toWeb(createReadStream(job.filePath)) as ReadableStream, {
    headers: {
      "content-type": "application/zip",
      "content-length": String(statSync(job.filePath).size),
      "content-disposition": `attachment; filename="${name}"`,
    },
  });
});
