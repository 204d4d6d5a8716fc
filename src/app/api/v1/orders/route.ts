import { NextResponse } from "next/server";
import { OrderPlace } from "@/contracts/libraries";
import { readBody, refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listAllOrders, placeOrder } from "@/server/usecases/shop";

export const dynamic = "force-dynamic";

export const GET = route(() => NextResponse.json({ orders: listAllOrders(getDb()) }));

export const POST = route(async (request) => {
  const body = await readBody(request, OrderPlace);
  if (!body.ok) return body.response;
  const placed = placeOrder(getDb(), body.value.libraryId);
  return placed.ok ? NextResponse.json(placed.value, { status: 202 }) : refusal(placed.code, placed.message);
});
