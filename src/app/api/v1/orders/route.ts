import { NextResponse } from "next/server";
import { OrderPlace } from "@/contracts/libraries";
import { answer, readBody, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { listAllOrders, placeOrder } from "@/server/usecases/shop";

export const dynamic = "force-dynamic";

export const GET = route(() => NextResponse.json({ orders: listAllOrders(getDb()) }));

export const POST = route(async (request) => {
  const body = await readBody(request, OrderPlace);
  if (!body.ok) return body.response;
  const placed = placeOrder(getDb(), body.value);
  return answer(placed, 202);
});
