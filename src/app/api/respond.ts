// What every route of the interface shares: foreign origins refused, input checked, outcomes turned into answers.
import { NextResponse, type NextRequest } from "next/server";
import type { z } from "zod";
import { FaultError, sentenceOf, type FaultCode, type Outcome } from "@/contracts/errors";
import { isForeign } from "@/server/access/hosts";
import { faultOfDisk } from "@/server/db/diskFaults";
import { bootFault } from "@/server/usecases/bootFault";
import { readJson } from "./body";

const STATUS: Partial<Record<FaultCode, number>> = {
  "not-found": 404,
  "job-gone": 404,
  "foreign-origin": 403,
  "too-large": 413,
  "picture-too-large": 413,
  "document-too-large": 413,
  "not-owned": 403,
  "rate-limited": 429,
  "library-unreachable": 502,
  "library-broken": 502,
  "library-refused": 502,
  "library-slow": 504,
  "link-expired": 502,
  "desk-silent": 502,
  busy: 503,
  "let-go": 499,
  "face-failed": 422,
  "face-too-long": 422,
  "sheet-failed": 422,
  "sheet-too-long": 422,
  "file-missing": 410,
  "file-changed": 410,
  "changed-meanwhile": 409,
  "texts-too-many": 409,
  "passcode-needed": 401,
  "passcode-wrong": 403,
  "not-allowed": 403,
  "method-not-allowed": 405,
  "disk-full": 507,
  "data-read-only": 507,
  "data-damaged": 500,
  "data-newer": 500,
  "data-in-use": 500,
  internal: 500,
};

export function refusal(code: FaultCode, message?: string, details?: unknown) {
  return NextResponse.json(
    { error: { code, message: message ?? sentenceOf(code), ...(details !== undefined && { details }) } },
    { status: STATUS[code] ?? 400, ...(code === "busy" && { headers: { "retry-after": "2" } }) },
  );
}

/** The answer that an outcome stands for. */
export const answer = (outcome: Outcome<unknown>, status = 200) =>
  outcome.ok ? NextResponse.json(outcome.value, { status }) : refusal(outcome.code, outcome.message, outcome.details);

type Context<P> = { params: Promise<P> };
type Handler<P> = (request: NextRequest, params: P) => Promise<Response> | Response;

/** Wraps a handler. Unexpected errors are logged and become "internal"; the server goes on. */
export function route<P = Record<string, never>>(handler: Handler<P>) {
  return async (request: NextRequest, context: Context<P>): Promise<Response> => {
    try {
      if (isForeign(request)) return refusal("foreign-origin");
      const fault = bootFault();
      if (fault) return refusal(fault);
      return await handler(request, await context.params);
    } catch (error) {
      // What the store or the disk says is told by its code; everything else stays here.
      const code = error instanceof FaultError ? error.code : faultOfDisk(error);
      if (!code) console.error(request.method, request.nextUrl.pathname, error);
      return refusal(code ?? "internal");
    }
  };
}

type Checked<T> = { ok: true; value: T } | { ok: false; response: Response };
/** The refusal of a request that does not have the agreed form. */
export const broken = (error: z.ZodError) =>
  refusal(
    "bad-request",
    undefined,
    error.issues.map((i) => `${i.path.join(".") || "body"}: ${i.message}`),
  );

export async function readBody<S extends z.ZodType>(request: NextRequest, schema: S): Promise<Checked<z.infer<S>>> {
  const body = await readJson(request);
  if (!body.ok) return { ok: false, response: refusal(body.code) };
  const parsed = schema.safeParse(body.value);
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, response: broken(parsed.error) };
}

export function readQuery<S extends z.ZodType>(request: NextRequest, schema: S): Checked<z.infer<S>> {
  const parsed = schema.safeParse(Object.fromEntries(request.nextUrl.searchParams));
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, response: broken(parsed.error) };
}

/** Who asks, as a tab says itself: what it changed is its own to undo. */
export function whoAsks(request: NextRequest): string {
  const said = request.headers.get("x-who") ?? "";
  return /^[a-z0-9]{8,32}$/.test(said) ? said : "script";
}

/** A value, or 404 when it is null. */
export const valueOr404 = (value: unknown, status = 200) =>
  value === null ? refusal("not-found") : NextResponse.json(value, { status });

/** A file to be saved. The name is sent in both the plain and the UTF-8 form (RFC 6266). */
export function download(bytes: Uint8Array | string, type: string, name: string) {
  const plain = name.replace(/[^\x20-\x7e]|["\\]/g, "_");
  return new NextResponse(bytes as BodyInit, {
    headers: {
      "content-type": type,
      "content-disposition": `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name.toWellFormed())}`,
    },
  });
}

/** A field of a form that holds JSON. What is none is given as it is, so that its schema refuses it. */
export function readJsonField(fields: ReadonlyMap<string, string>, name: string): unknown {
  const value = fields.get(name);
  if (!value) return null;
  try {
    return JSON.parse(value);
  } catch {
    return value;
  }
}
