import { NextResponse } from "next/server";
import { BasketPut } from "@/contracts/libraries";
import { readBody, refusal, route, valueOr404 } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { emptyFromBasket, fillBasket } from "@/server/usecases/shop";

export const PUT = route<{ styleId: string }>(async (request, { styleId }) => {
  const body = await readBody(request, BasketPut);
  if (!body.ok) return body.response;
  const basket = fillBasket(getDb(), styleId, body.value.uses);
  return basket.ok ? NextResponse.json(basket.value) : refusal(basket.code, basket.message);
});

export const DELETE = route<{ styleId: string }>((_request, { styleId }) =>
  valueOr404(emptyFromBasket(getDb(), styleId)),
);
