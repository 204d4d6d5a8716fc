// Asking over HTTP with limits of time and size; every way in which that goes wrong becomes a code.
import { refuse, succeed, type FaultCode, type Outcome } from "@/contracts/errors";

const TIMEOUT_MS = 12_000;
const MAX_ANSWER_BYTES = 128 * 1024 * 1024;
type Answer = { bytes: Uint8Array; type: string; url: string };

const CODES: Record<number, FaultCode> = { 410: "link-expired", 429: "rate-limited", 409: "price-changed" };

/** @param url - http or https. @returns the whole body, or why there is none; `details` carries the body or the wait in seconds. */
export async function ask(
  url: string,
  init: RequestInit & { limitBytes?: number } = {},
  signal?: AbortSignal,
): Promise<Outcome<Answer>> {
  if (!/^https?:\/\//i.test(url)) return refuse("address-not-allowed");
  const limit = AbortSignal.timeout(TIMEOUT_MS);
  try {
    const response = await fetch(url, {
      ...init,
      redirect: "follow",
      signal: signal ? AbortSignal.any([signal, limit]) : limit,
    });
    const bytes = await readBody(response, init.limitBytes ?? MAX_ANSWER_BYTES);
    if (!bytes) return refuse("too-large");
    if (response.ok) return succeed({ bytes, type: response.headers.get("content-type") ?? "", url });
    const code = CODES[response.status] ?? (response.status >= 500 ? "library-broken" : "library-refused");
    const wait = Number(response.headers.get("retry-after"));
    const details = code === "rate-limited" ? { waitSeconds: wait || 30 } : parseJson(bytes);
    return refuse(
      code,
      code === "library-broken" ? `The library answered with an error (${response.status}).` : undefined,
      details,
    );
  } catch (error) {
    if (signal?.aborted) throw error;
    if (limit.aborted) return refuse("library-slow");
    // An answer that began and broke off is another thing than none at all.
    return /terminated/.test((error as Error).message)
      ? refuse("library-broken", "The library's answer broke off.")
      : refuse("library-unreachable");
  }
}

/** Null when it is larger than the limit. */
async function readBody(response: Response, limitBytes: number): Promise<Uint8Array | null> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of (response.body ?? []) as unknown as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size > limitBytes) return null;
    parts.push(part);
  }
  return new Uint8Array(Buffer.concat(parts));
}

export function parseJson(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return undefined;
  }
}

/** Fills a URI template of the form {?name} (RFC 6570, form-style query). */
export const fillTemplate = (template: string, name: string, value: string): string =>
  template.replace(/\{([?&])([^}]*)\}/g, (_, sign: string, names: string) =>
    names.split(",").includes(name)
      ? `${template.slice(0, template.indexOf("{")).includes("?") ? "&" : sign}${name}=${encodeURIComponent(value)}`
      : "",
  );
