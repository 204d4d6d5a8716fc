// Calls to our own HTTP interface. A refusal becomes an ApiFault with its code; a lost server becomes one too.
import type { Fault } from "../messages";

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

/** @param path - below /api/v1, with its leading slash. @throws ApiFault */
export async function callApi<T>(path: string, init?: RequestInit & { json?: unknown }): Promise<T> {
  const { json, ...rest } = init ?? {};
  let response: Response;
  try {
    response = await fetch(`/api/v1${path}`, {
      ...rest,
      ...(json !== undefined && {
        body: JSON.stringify(json),
        headers: { "content-type": "application/json", ...rest.headers },
      }),
    });
  } catch (error) {
    if ((error as Error).name === "AbortError") throw error;
    throw new ApiFault({ code: "internal", message: "The server does not answer. Is it still running?" }, 0);
  }
  const body: unknown = await response.json().catch(() => null);
  if (!response.ok) {
    const fault = (body as { error?: Fault } | null)?.error;
    throw new ApiFault(
      fault ?? { code: "internal", message: `The server answered ${response.status}.` },
      response.status,
    );
  }
  return body as T;
}
