// What stand-ins answer with, and what they read of a request.
import type { IncomingMessage } from "node:http";

export type Reply = { status: number; type: string; body: Uint8Array | string; headers?: Record<string, string> };
export const json = (body: unknown, status = 200): Reply => ({
  status,
  type: "application/json",
  body: JSON.stringify(body),
});
export const gone = (code: string, status: number, message: string, more: object = {}) =>
  json({ error: { code, message, ...more } }, status);

export async function readBody(request: IncomingMessage, mostBytes: number): Promise<Buffer | null> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > mostBytes) return null;
    parts.push(part);
  }
  return Buffer.concat(parts);
}

export async function readJson(request: IncomingMessage, mostBytes = 1_000_000): Promise<unknown> {
  try {
    return JSON.parse((await readBody(request, mostBytes))?.toString("utf8") ?? "null");
  } catch {
    return null;
  }
}
