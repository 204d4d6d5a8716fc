import { NextResponse } from "next/server";
import { DescribeRequest } from "@/contracts/describe";
import { readBody, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { describeFace } from "@/server/usecases/describeFace";

export const POST = route(async (request) => {
  const asked = await readBody(request, DescribeRequest);
  return asked.ok ? NextResponse.json(describeFace(getDb(), asked.value)) : asked.response;
});
