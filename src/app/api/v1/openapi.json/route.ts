import { NextResponse } from "next/server";
import { describeInterface } from "@/contracts/openapi";
import { route } from "@/app/api/respond";

export const GET = route(() => NextResponse.json(describeInterface()));
