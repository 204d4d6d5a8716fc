// A server of its own for the trials: started on a folder, asked, watched (how soon health answers, how much memory all its processes hold)
// and killed with everything that it started.
import type { ChildProcess } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
// @ts-expect-error -- plain JavaScript, shared with Jest's setup
import * as plain from "../server.mjs";

// @ts-expect-error -- plain JavaScript, shared with npm run demo
import * as setup from "../setup.mjs";

export const freePort: () => Promise<number> = plain.freePort;
export const prepareDemo: (standIns: string) => Promise<Record<string, string>> = setup.prepareDemo;

export type Server = {
  url: string;
  process: ChildProcess;
  api: <T = Record<string, never>>(
    path: string,
    init?: RequestInit & { json?: unknown },
  ) => Promise<{ status: number; body: T }>;
  /** The whole group: nothing of it goes on working. */
  kill: () => Promise<void>;
};

export async function startServer(data: string, port: number, more: Record<string, string> = {}): Promise<Server> {
  const child: ChildProcess = plain.spawnServer(
    port,
    data,
    { FOND_QUARRY_SEED: "", ...more },
    { stdio: process.argv.includes("--say") ? "inherit" : "ignore", detached: true },
  );
  const url = `http://127.0.0.1:${port}`;
  return {
    url,
    process: child,
    async api<T>(path: string, { json, ...init }: RequestInit & { json?: unknown } = {}) {
      const response = await fetch(`${url}/api/v1${path}`, {
        ...init,
        ...(json !== undefined && { body: JSON.stringify(json), headers: { "content-type": "application/json" } }),
      });
      return { status: response.status, body: (await response.json().catch(() => null)) as T };
    },
    async kill() {
      const ended = new Promise((r) => child.once("exit", r));
      try {
        process.kill(-child.pid!, "SIGKILL");
      } catch {
        return;
      }
      await ended;
    },
  };
}

export async function waitUp({ url }: Pick<Server, "url">, ms = 30_000) {
  for (const end = Date.now() + ms; Date.now() < end;) {
    const isUp = await fetch(`${url}/api/v1/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (isUp) return;
    await new Promise((r) => setTimeout(r, 50));
  }
  throw new Error("the server did not come up");
}

export async function waitIdle({ api }: Server, ms = 600_000) {
  for (const end = Date.now() + ms; Date.now() < end;) {
    const { body } = await api<{ jobsWaiting: number }>("/health");
    if (body?.jobsWaiting === 0) return;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error("jobs did not end");
}

/** Sends files to the import. @returns its id. */
export async function upload({ api }: Server, files: Record<string, Uint8Array>): Promise<string> {
  const form = new FormData();
  for (const [name, bytes] of Object.entries(files)) form.append("files", new File([bytes as BlobPart], name));
  const { status, body } = await api<{ importId: string }>("/imports", { method: "POST", body: form });
  if (status !== 202) throw new Error(`the import was refused with ${status}`);
  return body.importId;
}

/** Pages of memory that a process and all below it hold, in megabytes. Linux. */
function memoryOf(root: number): number {
  const parents = new Map<number, number[]>();
  for (const name of readdirSync("/proc")) {
    if (!/^\d+$/.test(name)) continue;
    try {
      const stat = readFileSync(`/proc/${name}/stat`, "utf8");
      const parent = Number(stat.slice(stat.lastIndexOf(")") + 2).split(" ")[1]);
      parents.set(parent, [...(parents.get(parent) ?? []), Number(name)]);
    } catch {
      // It ended while we looked.
    }
  }
  let sum = 0;
  for (const waiting = [root]; waiting.length;) {
    const pid = waiting.pop()!;
    waiting.push(...(parents.get(pid) ?? []));
    try {
      // Shared pages of the same program count once: proportional set size.
      const pss = /^Pss:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, "utf8"));
      sum += Number(pss?.[1] ?? 0) / 1024;
    } catch {
      // The same.
    }
  }
  return sum;
}

/** Asks after a server's health ten times a second, and after its memory once, until it is stopped. */
export function watchServer(server: () => Server) {
  const answers: number[] = [];
  let late = 0;
  let mostMb = 0;
  let isOver = false;
  const asking = (async () => {
    while (!isOver) {
      const started = performance.now();
      const ok = await fetch(`${server().url}/api/v1/health`, { signal: AbortSignal.timeout(5_000) }).then(
        (r) => r.ok,
        () => false,
      );
      const ms = performance.now() - started;
      answers.push(ok ? ms : 5_000);
      if (!ok || ms > 1_000) late++;
      await new Promise((r) => setTimeout(r, Math.max(0, 100 - ms)));
    }
  })();
  const timer = setInterval(() => (mostMb = Math.max(mostMb, memoryOf(server().process.pid!))), 1_000);
  return async () => {
    isOver = true;
    await asking;
    clearInterval(timer);
    const sorted = answers.sort((a, b) => a - b);
    const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
    return { asked: answers.length, late, p50: at(0.5), p99: at(0.99), most: at(1), mostMb };
  };
}
