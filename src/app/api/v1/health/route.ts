import { NextResponse } from "next/server";
import { route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listJobsIn } from "@/server/queries/jobs";
import { countStyles } from "@/server/queries/styles";

export const dynamic = "force-dynamic";

export const GET = route(() => {
  const db = getDb();
  return NextResponse.json({
    status: "ok",
    version: "0.1.0",
    ...countStyles(db),
    jobsWaiting: listJobsIn(db, "waiting", "running").length,
  });
});
