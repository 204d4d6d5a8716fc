// Signing in and out, and who one is.
import { NextResponse } from "next/server";
import { SESSION_COOKIE, SignIn } from "@/contracts/access";
import { readBody, refusal, route } from "@/app/api/respond";
import { endedCookie, roleOf, signIn } from "@/server/access/sessions";

export const dynamic = "force-dynamic";

export const GET = route((request) => NextResponse.json({ role: roleOf(request.cookies.get(SESSION_COOKIE)?.value) }));

export const POST = route(async (request) => {
  const body = await readBody(request, SignIn);
  if (!body.ok) return body.response;
  const signed = await signIn(body.value.passcode);
  if (signed === "busy") return refusal("busy");
  if (signed === "wrong") return refusal("passcode-wrong");
  return NextResponse.json({ role: signed.role }, { headers: { "set-cookie": signed.cookie } });
});

export const DELETE = route(() => NextResponse.json({ role: null }, { headers: { "set-cookie": endedCookie } }));
