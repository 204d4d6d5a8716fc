import { NextResponse } from "next/server";
import { route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { getBasket } from "@/server/usecases/shop";

export const dynamic = "force-dynamic";

export const GET = route(() => NextResponse.json(getBasket(getDb())));
