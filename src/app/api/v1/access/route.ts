// Passcodes, changed by the owner.
import { NextResponse } from "next/server";
import { AccessChange } from "@/contracts/access";
import { readBody, route } from "@/app/api/respond";
import { changePasscode } from "@/server/access/sessions";

export const PUT = route(async (request) => {
  const body = await readBody(request, AccessChange);
  if (!body.ok) return body.response;
  changePasscode(body.value.role, body.value.passcode);
  return NextResponse.json({ role: body.value.role });
});
