// Work in processes: one that hangs, eats memory (of the script or native), breaks or dies is ended, and the next is done. Lines have
// ends, limits of time begin with the work, and who has gone is let go.
import { afterAll, afterEach, beforeAll, describe, expect, test } from "@jest/globals";
import { build } from "esbuild";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ProcessPool, type PoolOptions } from "./processPool";

const folder = mkdtempSync(join(tmpdir(), "fond-quarry-pool-"));
const entry = join(folder, "entry.mjs");
const program = join(folder, "child.mjs");
const ENTRY = `
  let count = 0;
  export default async (what, signal) => {
    count++;
    if (what === "hang") for (;;);
    if (what === "eat") { const held = []; for (;;) held.push(new Array(1e6).fill(what)); }
    if (what === "eat native") { const held = []; for (;;) held.push(Buffer.alloc(4e7, 1)); }
    if (what === "die") process.exit(3);
    if (what === "throw") throw new Error("broken table");
    if (what === "break") throw new WebAssembly.RuntimeError("memory access out of bounds");
    if (what === "until cancelled") await new Promise((_, no) => signal.addEventListener("abort", () => no(new Error("told"))));
    if (what.wait) await new Promise((r) => setTimeout(r, what.wait));
    return { what, count, pid: process.pid };
  };
  export const other = (bytes) => bytes.map((b) => b + 1);`;
beforeAll(async () => {
  writeFileSync(entry, ENTRY);
  await build({
    entryPoints: ["src/server/workers/child.ts"],
    outfile: program,
    bundle: true,
    platform: "node",
    format: "esm",
  });
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

let pool: ProcessPool;
const open = (more: Partial<PoolOptions> = {}) =>
  (pool = new ProcessPool({ program, entry, processes: 1, memoryMb: 192, ...more }));
afterEach(() => pool.close());
type Reply = { what: string; count: number; pid: number };
const run = (what: unknown, timeoutMs = 8000, signal?: AbortSignal) =>
  pool.run<unknown, Reply>(what, { timeoutMs, ...(signal && { signal }) });
const alive = (pid: number) => {
  try {
    return process.kill(pid, 0);
  } catch {
    return false;
  }
};

describe("making way", () => {
  test("what is held takes up nothing new, what runs goes on, and all is done once it is let go", async () => {
    open({ processes: 2 });
    await run("warm");
    const running = run({ wait: 100 });
    pool.limitAtOnce(0);
    const held = run("held");
    expect(await running).toMatchObject({ ok: true });
    await new Promise((r) => setTimeout(r, 150));
    expect(pool.inLine).toBe(1);
    pool.limitAtOnce(1);
    expect(await held).toMatchObject({ ok: true });
    const [first, second] = [run({ wait: 100 }), run("second")];
    expect(pool.inLine).toBe(1);
    pool.limitAtOnce(2);
    expect(pool.inLine).toBe(0);
    expect(await Promise.all([first, second])).toMatchObject([{ ok: true }, { ok: true }]);
  });
});

describe("one after another", () => {
  test("a process is kept for the next, and bytes go there and back", async () => {
    open();
    expect(await run("a")).toMatchObject({ ok: true, value: { what: "a", count: 1 } });
    expect(await run("b")).toMatchObject({ ok: true, value: { what: "b", count: 2 } });
    const asked = pool.run<Uint8Array, Uint8Array>(Uint8Array.of(1, 2), { timeoutMs: 8000, name: "other" });
    expect(await asked).toEqual({ ok: true, value: Uint8Array.of(2, 3) });
  });

  test.each([
    ["hang", "took-too-long"],
    ["eat", "too-much-memory"],
    ["eat native", "too-much-memory"],
    ["die", "reader-failed"],
    ["throw", "reader-failed"],
    ["break", "reader-failed"],
  ])("one that would %s is told as %s, and the next is done", async (what, code) => {
    open();
    expect(await run(what, what === "hang" ? 500 : 15_000)).toMatchObject({ ok: false, code });
    expect(await run("b")).toMatchObject({ ok: true });
  });

  test("computing has its time of the processor, waiting does not count; four times as long by the clock ends it", async () => {
    open();
    const compute = (what: unknown, timeoutMs: number) =>
      pool.run<unknown, Reply>(what, { timeoutMs, isComputing: true });
    expect(await run("warm")).toMatchObject({ ok: true });
    expect(await compute({ wait: 900 }, 400)).toMatchObject({ ok: true });
    expect(await run({ wait: 900 }, 400)).toMatchObject({ ok: false, code: "took-too-long" });
    expect(await run("warm")).toMatchObject({ ok: true });
    const began = performance.now();
    expect(await compute({ wait: 9000 }, 400)).toMatchObject({ ok: false, code: "took-too-long" });
    expect(performance.now() - began).toBeLessThan(4000);
    expect(await compute("hang", 400)).toMatchObject({ ok: false, code: "took-too-long" });
  });

  test("a process whose heap of wasm broke is not used again; one that only threw is", async () => {
    open();
    await run("throw");
    expect(await run("a")).toMatchObject({ value: { count: 2 } });
    await run("break");
    expect(await run("a")).toMatchObject({ value: { count: 1 } });
  });
});

describe("in line", () => {
  test("waiting costs no time limit", async () => {
    open();
    // Up before: starting a process takes a while on a busy machine, and counts.
    await run("warm");
    const all = await Promise.all([1, 2, 3, 4].map(() => run({ wait: 300 }, 900)));
    expect(all.every((r) => r.ok)).toBe(true);
  });

  test("beyond its end the answer is busy, with the place, at once", async () => {
    open({ line: 2 });
    const first = [run({ wait: 400 }), run("a"), run("b")];
    expect(await run("c")).toMatchObject({ ok: false, code: "busy", place: 3 });
    expect((await Promise.all(first)).every((r) => r.ok)).toBe(true);
  });
});

describe("who has gone", () => {
  test("leaves the line", async () => {
    open();
    const stop = new AbortController();
    const first = run({ wait: 300 });
    const second = run("a", 8000, stop.signal);
    stop.abort();
    expect(await second).toMatchObject({ ok: false, code: "let-go" });
    expect(pool.inLine).toBe(0);
    expect(await first).toMatchObject({ ok: true });
    expect(await run("b", 8000, stop.signal)).toMatchObject({ ok: false, code: "let-go" });
  });

  test("stops what runs for them: asked first, so that the process lives; killed where it does not listen", async () => {
    open();
    for (const [what, isAlive] of [
      ["until cancelled", true],
      ["hang", false],
    ] as const) {
      const before = await run("a");
      const pid = before.ok ? before.value.pid : 0;
      const stop = new AbortController();
      const running = run(what, 60_000, stop.signal);
      await new Promise((r) => setTimeout(r, 100));
      stop.abort();
      expect(await running).toMatchObject({ ok: false, code: "let-go" });
      expect(alive(pid)).toBe(isAlive);
    }
  });
});

test("an idle process ends", async () => {
  open({ idleMs: 100 });
  const ran = await run("a");
  await new Promise((r) => setTimeout(r, 600));
  expect(alive(ran.ok ? ran.value.pid : 0)).toBe(false);
});
