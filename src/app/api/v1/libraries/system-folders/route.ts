// Folders of this system that hold fonts and are not connected yet.
import { NextResponse } from "next/server";
import { route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listSystemFolders } from "@/server/usecases/libraries";

export const dynamic = "force-dynamic";

export const GET = route(async () => NextResponse.json({ folders: await listSystemFolders(getDb()) }));
