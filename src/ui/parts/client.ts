// Calls to our own HTTP interface, typed by the table of operations: keys of queries and what is read again after a change follow from it.
// A refusal becomes an ApiFault with its code; a lost server becomes one too.
import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { pathOf, type Operation, type OutputOf, type Sent, type Topic } from "@/contracts/operations/operation";
import { OPERATIONS, type OperationName, type Operations } from "@/contracts/operations/table";
import type { Fault } from "../messages";

const BASE = "/api/v1";

export class ApiFault extends Error {
  constructor(
    readonly fault: Fault,
    readonly status: number,
  ) {
    super(fault.message);
  }
}

/** What went wrong, as a fault with its code, whatever was thrown. */
export const faultOf = (error: unknown): Fault =>
  error instanceof ApiFault ? error.fault : { code: "internal", message: String((error as Error).message) };

type Extra = Pick<RequestInit, "signal" | "keepalive"> & { headers?: Record<string, string> };
type AnySent = { params?: Record<string, string>; query?: object; body?: unknown; form?: FormData };
/** Operations that need nothing sent may be asked without. */
type Given<N extends OperationName> =
  object extends Sent<Operations[N]> ? [sent?: Sent<Operations[N]>] : [sent: Sent<Operations[N]>];

function writeQuery(query: object | undefined): string {
  if (!query) return "";
  const given = query instanceof URLSearchParams ? [...query] : Object.entries(query);
  const params = new URLSearchParams();
  for (const [name, value] of given as [string, unknown][])
    if (value !== undefined && value !== null && value !== "") params.set(name, String(value));
  return params.size ? `?${params}` : "";
}

/** The address of an operation, for links and pictures. */
export function addressOf<N extends OperationName>(name: N, ...[sent]: Given<N>): string {
  const { params, query } = (sent ?? {}) as AnySent;
  return `${BASE}${pathOf(OPERATIONS[name], params)}${writeQuery(query)}`;
}

/** @throws ApiFault; AbortError when it was given up. */
export async function ask<N extends OperationName>(
  name: N,
  sent?: Sent<Operations[N]>,
  extra: Extra = {},
): Promise<OutputOf<Operations[N]>> {
  const { params, query, body, form } = (sent ?? {}) as AnySent;
  const { method, path } = OPERATIONS[name] as Operation;
  const init = { ...extra, method: method.toUpperCase(), ...(form && { body: form }) };
  const answer = await send(`${pathOf({ path }, params)}${writeQuery(query)}`, init, body);
  return answer as OutputOf<Operations[N]>;
}

/** A file that an operation writes. @throws as `ask`. */
export async function askFile<N extends OperationName>(name: N, sent: Sent<Operations[N]>): Promise<Blob> {
  const { params, query, body, form } = sent as AnySent;
  const { method, path } = OPERATIONS[name] as Operation;
  const address = `${pathOf({ path }, params)}${writeQuery(query)}`;
  return (await fetchAnswer(address, { method: method.toUpperCase(), ...(form && { body: form }) }, body)).blob();
}

/** The lines of JSON that an operation sends while it works, each as it comes. @throws as `ask`. */
export async function* askLines<N extends OperationName>(
  name: N,
  sent: Sent<Operations[N]>,
  extra: Extra = {},
): AsyncGenerator<unknown> {
  const { params, form } = sent as AnySent;
  const { method, path } = OPERATIONS[name] as Operation;
  const answer = await fetchAnswer(pathOf({ path }, params), { ...extra, method: method.toUpperCase(), body: form });
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read();
    const lines = (rest + (value ?? "")).split("\n");
    rest = lines.pop()!;
    for (const line of lines) yield JSON.parse(line) as unknown;
    if (done) return;
  }
}

/** @param path - below the interface's base, with its leading slash. @throws as `ask`. */
export async function send(path: string, init: RequestInit & Extra, json?: unknown): Promise<unknown> {
  return (await fetchAnswer(path, init, json)).json().catch(() => null) as Promise<unknown>;
}

async function fetchAnswer(path: string, init: RequestInit & Extra, json?: unknown): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`${BASE}${path}`, {
      ...init,
      ...(json !== undefined && {
        body: JSON.stringify(json),
        headers: { "content-type": "application/json", ...init.headers },
      }),
    });
  } catch (error) {
    if ((error as Error).name === "AbortError") throw error;
    throw new ApiFault({ code: "internal", message: "The server does not answer. Is it still running?" }, 0);
  }
  if (response.ok) return response;
  const body: unknown = await response.json().catch(() => null);
  const fault = (body as { error?: Fault } | null)?.error;
  throw new ApiFault(
    fault ?? { code: "internal", message: `The server answered ${response.status}.` },
    response.status,
  );
}

/**
 * What useQuery needs to read an operation.
 * @param also - values of this page that the answer depends on, beside what is sent.
 */
export const queryOf = <N extends OperationName>(name: N, sent: Sent<Operations[N]>, ...also: unknown[]) => ({
  queryKey: [name, sent, ...also] as unknown[],
  queryFn: ({ signal }: { signal: AbortSignal }) => ask(name, sent, { signal }),
});

const readsOf = (name: unknown): readonly Topic[] =>
  (OPERATIONS[name as OperationName] as Operation | undefined)?.reads ?? [];

/** Reads again whatever was made of these. */
export function readAgain(queries: QueryClient, ...topics: readonly Topic[]): Promise<void> {
  return queries.invalidateQueries({
    predicate: ({ queryKey }) => readsOf(queryKey[0]).some((t) => topics.includes(t)),
  });
}

/** Asks for a change; what it changes, by the table, is read again. */
export function useChange() {
  const queries = useQueryClient();
  return useCallback(
    async <N extends OperationName>(name: N, ...[sent]: Given<N>): Promise<OutputOf<Operations[N]>> => {
      const answer = await ask(name, sent);
      void readAgain(queries, ...((OPERATIONS[name] as Operation).changes ?? []));
      return answer;
    },
    [queries],
  );
}
