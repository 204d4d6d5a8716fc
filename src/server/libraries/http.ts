// Asking over HTTP with limits of time and size; every way in which that goes wrong becomes a code. Redirects are followed by hand: what a
// catalogue names may not lead into this machine or its network, unless the catalogue itself lies there.
import { lookup, type LookupAddress } from "node:dns";
import { BlockList, isIP, type LookupFunction } from "node:net";
import { Agent, fetch, type RequestInit, type Response } from "undici";
import type { z } from "zod";
import { refuse, succeed, type FaultCode, type Outcome } from "@/contracts/errors";

/** Time without a byte: a large archive on a slow line is no fault. */
const SILENT_MS = 12_000;
const MAX_ANSWER_BYTES = 128 * 1024 * 1024;
const MAX_REDIRECTS = 5;
type Answer = { bytes: Uint8Array; type: string; url: string };

const CODES: Record<number, FaultCode> = { 410: "link-expired", 429: "rate-limited", 409: "price-changed" };

export type Asking = Pick<RequestInit, "method"> & {
  headers?: Record<string, string>;
  body?: string;
  limitBytes?: number;
  /** Address of the catalogue that named this one: its own host and port may be asked wherever they lie. */
  namedBy?: string;
};

/** @param url - http or https. @returns the whole body, or why there is none; `details` carries the body or the wait in seconds. */
export async function ask(url: string, init: Asking = {}, signal?: AbortSignal): Promise<Outcome<Answer>> {
  const { limitBytes, namedBy, ...rest } = init;
  const silence = new Silence(signal);
  try {
    const response = await follow(url, rest, namedBy ?? url, silence);
    if (!response) return refuse("address-not-allowed");
    const bytes = await readBody(response, limitBytes ?? MAX_ANSWER_BYTES, silence);
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
    if (silence.isOver) return refuse("library-slow");
    if ((error as Error).cause instanceof InnerAddressError) return refuse("address-not-allowed");
    // An answer that began and broke off is another thing than none at all.
    return /terminated/.test((error as Error).message)
      ? refuse("library-broken", "The library's answer broke off.")
      : refuse("library-unreachable");
  } finally {
    silence.end();
  }
}

/** Aborts after a time without a sign of life. */
class Silence {
  private readonly stop = new AbortController();
  private timer: NodeJS.Timeout | undefined;
  readonly signal: AbortSignal;
  constructor(outer?: AbortSignal) {
    this.signal = outer ? AbortSignal.any([outer, this.stop.signal]) : this.stop.signal;
    this.broken();
  }
  broken() {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.stop.abort(), SILENT_MS);
  }
  end() {
    clearTimeout(this.timer);
  }
  get isOver() {
    return this.stop.signal.aborted;
  }
}

/** @returns null where an address on the way may not be asked. */
async function follow(url: string, init: RequestInit, home: string, silence: Silence): Promise<Response | null> {
  let at = url;
  for (let i = 0; i <= MAX_REDIRECTS; i++) {
    const isHome = isSameHost(at, home);
    if (!isWeb(at) || (!isHome && isInnerLiteral(at))) return null;
    const response = await fetch(at, {
      ...init,
      redirect: "manual",
      signal: silence.signal,
      ...(!isHome && { dispatcher: OUTER }),
    });
    const next = response.headers.get("location");
    if (response.status < 300 || response.status > 399 || !next || !URL.canParse(next, at)) return response;
    await response.body?.cancel();
    // What is bought is sent to nobody else.
    if (init.method && init.method !== "GET") return null;
    at = new URL(next, at).href;
  }
  return null;
}

/** Addresses that are nobody's business of a catalogue out in the world. */
const INNER = new BlockList();
for (const [net, bits] of [
  ["0.0.0.0", 8],
  ["10.0.0.0", 8],
  ["100.64.0.0", 10],
  ["127.0.0.0", 8],
  ["169.254.0.0", 16],
  ["172.16.0.0", 12],
  ["192.0.0.0", 24],
  ["192.168.0.0", 16],
  ["198.18.0.0", 15],
  ["224.0.0.0", 3],
] as const)
  INNER.addSubnet(net, bits, "ipv4");
for (const [net, bits] of [
  ["::", 127],
  ["fc00::", 7],
  ["fe80::", 10],
  ["ff00::", 8],
  ["64:ff9b::", 96],
] as const)
  INNER.addSubnet(net, bits, "ipv6");

function isInner(address: string): boolean {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1] ?? address;
  return isIP(mapped) === 6 ? INNER.check(mapped, "ipv6") : INNER.check(mapped, "ipv4");
}

const isWeb = (url: string) => URL.canParse(url) && /^https?:$/.test(new URL(url).protocol);
const isSameHost = (url: string, home: string) =>
  URL.canParse(url) && URL.canParse(home) && new URL(url).host === new URL(home).host;
function isInnerLiteral(url: string): boolean {
  const bare = new URL(url).hostname.replace(/^\[|\]$/g, "");
  return isIP(bare) !== 0 && isInner(bare);
}

class InnerAddressError extends Error {}
type Resolve = (name: string, options: { all: true }, done: (e: Error | null, found: LookupAddress[]) => void) => void;
/** Looks names up for the connection itself: the address that was judged is the one that is asked. */
export const lookupOuter =
  (resolve: Resolve = lookup): LookupFunction =>
  (name, options, done) =>
    resolve(name, { ...options, all: true }, (error, found) => {
      if (error) done(error, "");
      else if (!found.length || found.some((f) => isInner(f.address))) done(new InnerAddressError(name), "");
      else if (options.all) done(null, found);
      else done(null, found[0]!.address, found[0]!.family);
    });
const OUTER = new Agent({ connect: { lookup: lookupOuter() } });

/** Null when it is larger than the limit. */
async function readBody(response: Response, limitBytes: number, silence: Silence): Promise<Uint8Array | null> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of (response.body ?? []) as unknown as AsyncIterable<Uint8Array>) {
    silence.broken();
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

/** How a service is spoken of that did not answer as it should. `sentences`: by what went wrong; else the code's own. */
export type Spoken = { code: FaultCode; sentences: Partial<Record<FaultCode, string>>; unread: string };

/** An answer of `ask` in JSON, as a value of its form, or as a fault of the service. */
export function readForm<T>(
  answer: Outcome<Answer>,
  form: z.ZodType<T>,
  { code, sentences, unread }: Spoken,
): Outcome<T> {
  if (!answer.ok) return refuse(code, sentences[answer.code]);
  const reply = form.safeParse(parseJson(answer.value.bytes));
  return reply.success ? succeed(reply.data) : refuse(code, unread);
}

/** Fills a URI template of the form {?name} (RFC 6570, form-style query). */
export const fillTemplate = (template: string, name: string, value: string): string =>
  template.replace(/\{([?&])([^{}]{1,200})\}/g, (_, sign: string, names: string) =>
    names.split(",").includes(name)
      ? `${template.slice(0, template.indexOf("{")).includes("?") ? "&" : sign}${name}=${encodeURIComponent(value)}`
      : "",
  );
