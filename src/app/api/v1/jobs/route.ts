import { NextResponse } from "next/server";
import { route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { describeJob } from "@/server/jobs/queue";
import { listJobs } from "@/server/queries/jobs";

export const dynamic = "force-dynamic";

export const GET = route(() => NextResponse.json({ jobs: listJobs(getDb(), 50).map(describeJob) }));
