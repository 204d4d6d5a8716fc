// Stands before every page and route: foreign hosts and origins are turned away before anything is rendered, sessions are asked for where
// others can reach the server, and pages get a policy of what they may load.
import { NextResponse, type NextRequest } from "next/server";
import { SESSION_COOKIE, signInFor } from "@/contracts/access";
import { sentenceOf, type FaultCode } from "@/contracts/errors";
import { isForeign, isOwnHost } from "@/server/access/hosts";
import { roleOf } from "@/server/access/sessions";

// Files that are sent do not pass here: what passes is held in memory, and cut at ten megabytes. Their host and origin are asked after by
// the table of operations itself.
export const config = {
  matcher: [
    "/((?!_next/static/|api/).*)",
    { source: "/api/(.*)", missing: [{ type: "header", key: "content-type", value: "multipart/form-data.*" }] },
  ],
};

const METHODS = ["GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"];
const SIGN_IN = "/sign-in";
const SHARED = "/shared/";

export function proxy(request: NextRequest): NextResponse {
  const { pathname } = request.nextUrl;
  const isApi = pathname.startsWith("/api/");
  if (!isOwnHost(request.headers.get("host"))) return turnAway("foreign-host", 421);
  if (!METHODS.includes(request.method)) return turnAway("method-not-allowed", 405);
  if (!isReadable(pathname)) return turnAway("bad-request", 400);
  // Following a link from elsewhere to a page is fine; nothing but pages is.
  if (isForeign(request) && !isVisit(request, isApi)) return turnAway("foreign-origin", 403);
  // What each role may ask of the interface, its table says.
  if (isApi) return NextResponse.next();
  // What is shown to a client has its right in its address.
  if (pathname !== SIGN_IN && !pathname.startsWith(SHARED) && !roleOf(request.cookies.get(SESSION_COOKIE)?.value)) {
    const signIn = signInFor(pathname === "/" ? "/" : pathname + request.nextUrl.search);
    return NextResponse.redirect(new URL(signIn, request.url), 303);
  }
  return withPolicy(request);
}

const isVisit = (request: NextRequest, isApi: boolean) =>
  !isApi &&
  request.method === "GET" &&
  request.headers.get("sec-fetch-mode") === "navigate" &&
  !request.headers.get("origin");

function isReadable(path: string): boolean {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
}

const turnAway = (code: FaultCode, status: number) =>
  NextResponse.json({ error: { code, message: sentenceOf(code) } }, { status });

function withPolicy(request: NextRequest): NextResponse {
  const nonce = btoa(crypto.randomUUID());
  const policy = [
    "default-src 'self'",
    // Clips that are dropped in stay in the browser.
    "media-src 'self' blob:",
    "img-src 'self' data: blob:",
    "font-src 'self' blob: data:",
    // Samples are sized and coloured by style attributes.
    "style-src 'self' 'unsafe-inline'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${process.env.NODE_ENV === "development" ? " 'unsafe-eval'" : ""}`,
    "worker-src 'self' blob:",
    "connect-src 'self'",
    "frame-ancestors 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "object-src 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  return response;
}
