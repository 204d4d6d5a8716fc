// What every route of the interface shares: foreign origins refused, input checked, outcomes turned into answers.
import { NextResponse, type NextRequest } from "next/server";
import type { z } from "zod";
import { sentenceOf, type FaultCode } from "@/contracts/errors";

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
  internal: 500,
};

export function refusal(code: FaultCode, message?: string, details?: unknown) {
  return NextResponse.json(
    { error: { code, message: message ?? sentenceOf(code), ...(details !== undefined && { details }) } },
    { status: STATUS[code] ?? 400 },
  );
}

const LOOPBACK = /^(localhost|127\.\d+\.\d+\.\d+|\[::1\])(:\d+)?$/i;

/** Whether a Host header is one we serve: loopback, or the host that the server was told to listen on. */
export function isOwnHost(host: string | null): boolean {
  if (!host) return false;
  const told = process.env.HOST;
  return LOOPBACK.test(host) || Boolean(told && host.replace(/:\d+$/, "") === told) || told === "0.0.0.0";
}

/** A request from a page of another site, or through a name that is not ours (DNS rebinding). */
export function isForeign(request: NextRequest): boolean {
  const host = request.headers.get("host");
  if (!isOwnHost(host)) return true;
  const origin = request.headers.get("origin");
  if (origin && origin !== "null" && new URL(origin).host !== host) return true;
  return origin === "null" || request.headers.get("sec-fetch-site") === "cross-site";
}

type Context<P> = { params: Promise<P> };
type Handler<P> = (request: NextRequest, params: P) => Promise<Response> | Response;

/** Wraps a handler. Unexpected errors are logged and become "internal"; the server goes on. */
export function route<P = Record<string, never>>(handler: Handler<P>) {
  return async (request: NextRequest, context: Context<P>): Promise<Response> => {
    if (isForeign(request)) return refusal("foreign-origin");
    try {
      return await handler(request, await context.params);
    } catch (error) {
      console.error(request.method, request.nextUrl.pathname, error);
      return refusal("internal");
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
  const body: unknown = await request.json().catch(() => undefined);
  const parsed = schema.safeParse(body);
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, response: broken(parsed.error) };
}

export function readQuery<S extends z.ZodType>(request: NextRequest, schema: S): Checked<z.infer<S>> {
  const parsed = schema.safeParse(Object.fromEntries(request.nextUrl.searchParams));
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, response: broken(parsed.error) };
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
      "content-disposition": `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
    },
  });
}

/** A field of a form that holds JSON. What is none is given as it is, so that its schema refuses it. */
export function readJsonField(form: FormData, name: string): unknown {
  const value = form.get(name);
  if (typeof value !== "string" || !value) return null;
  try {
    return JSON.parse(value);
  } catch {
    return value;
  }
}

type FileForm = { ok: true; form: FormData; file: File } | { ok: false; response: Response };

/** The form of a request that sends one file, refused by its announced length before it is read. */
export async function readFileForm(
  request: NextRequest,
  field: string,
  mostBytes: number,
  tooLarge: FaultCode,
): Promise<FileForm> {
  if (Number(request.headers.get("content-length") ?? 0) > mostBytes + FORM_BYTES)
    return { ok: false, response: refusal(tooLarge) };
  const form = await request.formData().catch(() => null);
  const file = form?.get(field);
  return form && file instanceof File ? { ok: true, form, file } : { ok: false, response: refusal("no-file") };
}
/** What a form may hold beside its file. */
const FORM_BYTES = 1e6;
