// Lanes of jobs: one after another in a lane, lanes side by side, cancelled, failed, and gone on with after a restart. The work itself is
// stood in for; the queue and its table are the real ones.
import { afterAll, beforeAll, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { JobContext } from "../queue/queue";

const data = mkdtempSync(join(tmpdir(), "fond-quarry-queue-"));
process.env.FOND_QUARRY_DATA = data;

/** What each kind of job does while a test runs, and in which order jobs began and ended. */
const work: Record<string, (context: JobContext) => Promise<void>> = {};
const log: string[] = [];
const standIn = (kind: string) => async (context: JobContext) => {
  log.push(`${context.job.title} begins`);
  await work[kind]?.(context);
  log.push(`${context.job.title} ends`);
};
const { addJob, cancelJob, describeJob, resumeJobs, retryJob, startQueue } = await import("../queue/queue");
const { FaultError } = await import("@/contracts/errors");
const { getDb } = await import("../db/open");
const { countCrash, findJob, insertJob, updateJob } = await import("../queries/jobs");

beforeAll(() => {
  const kinds = ["import", "handover", "sync-library", "buy", "reread", "part-copies"] as const;
  startQueue(Object.fromEntries(kinds.map((k) => [k, standIn(k)])) as Parameters<typeof startQueue>[0]);
});
afterAll(() => {
  getDb().close();
  rmSync(data, { recursive: true, force: true });
});
beforeEach(() => {
  log.length = 0;
  for (const kind of Object.keys(work)) delete work[kind];
});
const row = (id: string) => findJob(getDb(), id)!;
async function over(...ids: string[]) {
  for (let i = 0; i < 400; i++) {
    if (ids.every((id) => ["done", "failed", "cancelled"].includes(row(id).state)))
      return ids.map((id) => row(id).state);
    await new Promise((r) => setTimeout(r, 5));
  }
  throw new Error(`still ${ids.map((id) => row(id).state).join(", ")}`);
}
/** A handler that waits until it is let go, or told to stop. */
function gate() {
  let open = () => {};
  const opened = new Promise<void>((resolve) => (open = resolve));
  return {
    open: () => open(),
    wait: ({ signal }: JobContext) =>
      Promise.race([opened, new Promise<void>((r) => signal.addEventListener("abort", () => r()))]),
  };
}

describe("a lane", () => {
  test("does its jobs one after another, in the order they came", async () => {
    work.import = () => new Promise((r) => setTimeout(r, 15));
    const ids = ["first", "second", "third"].map((title) => addJob("import", title, {}));
    expect(await over(...ids)).toEqual(["done", "done", "done"]);
    expect(log).toEqual(["first", "second", "third"].flatMap((t) => [`${t} begins`, `${t} ends`]));
  });

  test("does not wait for another lane; each library has its own", async () => {
    const slow = gate();
    work["sync-library"] = (c) => (c.job.title === "down" ? slow.wait(c) : Promise.resolve());
    const down = addJob("sync-library", "down", { libraryId: "a" });
    const up = addJob("sync-library", "up", { libraryId: "b" });
    const other = addJob("handover", "archive", {});
    expect(await over(up, other)).toEqual(["done", "done"]);
    expect(row(down).state).toBe("running");
    slow.open();
    expect(await over(down)).toEqual(["done"]);
  });

  test("goes on after a job that failed, which says why", async () => {
    const silent = jest.spyOn(console, "error").mockImplementation(() => undefined);
    work.import = (c) => (c.job.title === "bad" ? Promise.reject(new FaultError("disk-full")) : Promise.resolve());
    const [bad, good] = ["bad", "good"].map((title) => addJob("import", title, {}));
    expect(await over(bad!, good!)).toEqual(["failed", "done"]);
    expect(row(bad!)).toMatchObject({ code: "disk-full", message: expect.stringMatching(/Make room/) });
    silent.mockRestore();
  });
});

describe("cancelling", () => {
  test("a running job is told to stop, a waiting one never begins", async () => {
    const held = gate();
    work.import = held.wait;
    const [running, waiting] = ["running", "waiting"].map((title) => addJob("import", title, {}));
    while (row(running!).state !== "running") await new Promise((r) => setTimeout(r, 2));
    expect([cancelJob(waiting!), cancelJob(running!)]).toEqual([true, true]);
    expect(await over(running!, waiting!)).toEqual(["cancelled", "cancelled"]);
    expect(log).not.toContain("waiting begins");
  });

  test("one that is over, or unknown, cannot be", async () => {
    const id = addJob("import", "quick", {});
    await over(id);
    expect([cancelJob(id), cancelJob("j_nothing")]).toEqual([false, false]);
  });
});

describe("progress", () => {
  test("is stored, and tells rate and time left", async () => {
    const held = gate();
    work.import = async (c) => {
      c.progress({ total: 100, done: 0 });
      await new Promise((r) => setTimeout(r, 40));
      c.progress({ done: 20, failed: 1 });
      await held.wait(c);
    };
    const id = addJob("import", "many", {}, "b_poster");
    while (row(id).done !== 20) await new Promise((r) => setTimeout(r, 5));
    const told = describeJob(row(id));
    expect(told).toMatchObject({
      state: "running",
      done: 20,
      total: 100,
      failed: 1,
      briefId: "b_poster",
      hasFile: false,
    });
    expect(told.rate).toBeGreaterThan(50);
    expect(told.rate).toBeLessThan(600);
    expect(told.secondsLeft).toBeLessThanOrEqual(2);
    held.open();
    await over(id);
    expect(describeJob(row(id)).rate).toBeNull();
  });

  test("a file is offered only when the job is done", async () => {
    work.handover = async (c) => c.progress({ filePath: "/somewhere/a.zip" });
    const id = addJob("handover", "archive", {});
    await over(id);
    expect(describeJob(row(id)).hasFile).toBe(true);
    updateJob(getDb(), id, { state: "failed" });
    expect(describeJob(row(id)).hasFile).toBe(false);
  });
});

describe("after a restart", () => {
  test("what was running or waiting is done, what was over is left", async () => {
    const put = (jobId: string, state: "running" | "waiting" | "done") => {
      insertJob(getDb(), { jobId, kind: "import", title: jobId, payload: "{}", briefId: null }, "2026-11-25T00:00:00Z");
      updateJob(getDb(), jobId, { state });
    };
    put("j_was-running", "running");
    put("j_was-waiting", "waiting");
    put("j_was-done", "done");
    resumeJobs();
    expect(await over("j_was-running", "j_was-waiting")).toEqual(["done", "done"]);
    expect(log.filter((l) => l.startsWith("j_was-done"))).toEqual([]);
  });

  test("one that ended the program twice without getting on is set aside, with a code; it can be tried again", async () => {
    const put = (jobId: string) =>
      insertJob(getDb(), { jobId, kind: "import", title: jobId, payload: "{}", briefId: null }, "2026-11-25T00:00:00Z");
    put("j_deadly");
    updateJob(getDb(), "j_deadly", { state: "running" });
    countCrash(getDb());
    countCrash(getDb());
    resumeJobs();
    expect(row("j_deadly")).toMatchObject({ state: "failed", code: "job-set-aside" });
    expect(log).toEqual([]);
    expect(retryJob("j_deadly")).toBe(true);
    expect(await over("j_deadly")).toEqual(["done"]);
    expect(retryJob("j_deadly")).toBe(false);
  });

  test("getting on clears what was counted", async () => {
    insertJob(getDb(), { jobId: "j_long", kind: "import", title: "long", payload: "{}", briefId: null }, "2026-11-25");
    updateJob(getDb(), "j_long", { state: "running", crashes: 1 });
    const seen: number[] = [];
    work.import = async (c) => {
      c.progress({ total: 2, done: 1 });
      seen.push(row("j_long").crashes);
    };
    resumeJobs();
    expect(await over("j_long")).toEqual(["done"]);
    expect(seen).toEqual([0]);
  });
});
