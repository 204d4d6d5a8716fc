import { NextResponse } from "next/server";
import { route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listLibraries } from "@/server/queries/libraries";

export const dynamic = "force-dynamic";

export const GET = route(() => NextResponse.json({ libraries: listLibraries(getDb()) }));
