// Outcomes as answers of HTTP: values as JSON, faults with their codes, files with their names.
import { sentenceOf, type FaultCode } from "@/contracts/errors";

const STATUS: Partial<Record<FaultCode, number>> = {
  "not-found": 404,
  "job-gone": 404,
  "foreign-host": 421,
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
  "no-plotter": 404,
  "plotter-silent": 502,
  "plotter-refused": 422,
  "no-cutting-room": 404,
  "cutting-room-silent": 502,
  "cutting-room-folder": 502,
  "motion-failed": 422,
  "motion-too-long": 422,
  "nothing-moves": 422,
  busy: 503,
  "let-go": 499,
  "face-failed": 422,
  "face-too-long": 422,
  "sheet-failed": 422,
  "sheet-too-long": 422,
  "lettering-failed": 422,
  "lettering-too-long": 422,
  "letters-missing": 422,
  "path-crosses-itself": 422,
  "path-unread": 422,
  "size-unknown": 422,
  "share-ended": 410,
  "answers-too-many": 429,
  "file-missing": 410,
  "file-changed": 410,
  "changed-meanwhile": 409,
  "texts-too-many": 409,
  "too-few-faces": 409,
  "nothing-to-undo": 409,
  "not-measured": 422,
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

export const refusal = (code: FaultCode, message?: string, details?: unknown): Response =>
  Response.json(
    { error: { code, message: message ?? sentenceOf(code), ...(details !== undefined && { details }) } },
    { status: STATUS[code] ?? 400, ...(code === "busy" && { headers: { "retry-after": "2" } }) },
  );

/** A file as an answer. With a name it is to be saved under it. */
export class FileAnswer {
  constructor(
    readonly bytes: Uint8Array | string | ReadableStream<Uint8Array> | null,
    readonly type: string | null,
    readonly about: { name?: string; headers?: Record<string, string>; status?: number } = {},
  ) {}
}

/** The name is sent in both the plain and the UTF-8 form (RFC 6266). */
export function sendFile({ bytes, type, about: { name, headers, status } }: FileAnswer): Response {
  const plain = name?.replace(/[^\x20-\x7e]|["\\]/g, "_");
  return new Response(bytes as BodyInit | null, {
    status: status ?? 200,
    headers: {
      ...(type && { "content-type": type }),
      ...(name !== undefined && {
        "content-disposition": `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name.toWellFormed())}`,
      }),
      ...headers,
    },
  });
}

/** A file that only changes its address when it changes. */
export const KEPT_FOR_EVER = {
  "cache-control": "private, max-age=31536000, immutable",
  "x-content-type-options": "nosniff",
};
