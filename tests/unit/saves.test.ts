// The queue of changes on their way to the server: in order, tried again, put together, asked about, kept over a reload.
import { describe, expect, test } from "@jest/globals";
import { SaveQueue, type Save, type SaveQueueOptions, type Sent } from "@/ui/bench/saves";

const OK: Sent = { ok: true, body: {} };
const fail = (status: number): Sent => ({ ok: false, status, fault: { code: "x", message: "" } });

function open(answers: Sent[], more: Partial<SaveQueueOptions> = {}, stored: Save[] = []) {
  const sent: Save[] = [];
  const told: string[] = [];
  const box = { saves: stored };
  const queue = new SaveQueue({
    send: async (save) => {
      sent.push(structuredClone(save));
      await new Promise((r) => setTimeout(r, 2));
      return answers.shift() ?? OK;
    },
    store: { read: () => structuredClone(box.saves), write: (saves) => (box.saves = structuredClone(saves)) },
    onChange: (n, failing) => told.push(`${n}${failing === null ? "" : "!"}`),
    onSaved: () => {},
    onConflict: async () => null,
    onRefused: (save) => told.push(`refused ${save.name}`),
    pause: () => 1,
    ...more,
  });
  return { queue, sent, told, box };
}
const patch = (json: Record<string, unknown>, base?: Record<string, unknown>): Save => ({
  name: "brief",
  path: "/briefs/b_a",
  method: "PATCH",
  json: { ...json, ...(base && { base }) },
});
const keep = (id: string): Save => ({ name: `keep ${id}`, path: `/kept/${id}`, method: "PUT" });

describe("saves", () => {
  test("go one at a time, in the order they came", async () => {
    const { queue, sent } = open([]);
    for (const id of ["a", "b", "c"]) queue.add(keep(id));
    await queue.settled();
    expect(sent.map((s) => s.name)).toEqual(["keep a", "keep b", "keep c"]);
  });

  test.each([0, 401, 500, 503, 507, 429])(
    "a failure with %i is tried again until it is done, and nothing overtakes it",
    async (status) => {
      const { queue, sent, told } = open([fail(status), fail(status), OK]);
      queue.add(keep("a"));
      queue.add(keep("b"));
      await queue.settled();
      expect(sent.map((s) => s.name)).toEqual(["keep a", "keep a", "keep a", "keep b"]);
      expect(told).toContain("2!");
      expect(told[told.length - 1]).toBe("0");
    },
  );

  test("what the server refuses for good is told and left, the rest goes on", async () => {
    const { queue, sent, told } = open([fail(400), OK]);
    queue.add(keep("a"));
    queue.add(keep("b"));
    await queue.settled();
    expect(sent.map((s) => s.name)).toEqual(["keep a", "keep b"]);
    expect(told).toContain("refused keep a");
  });

  test("typing that waits is put together: the newest words, the oldest base", async () => {
    const { queue, sent } = open([]);
    queue.add(keep("a"));
    queue.add(patch({ name: "Op" }, { name: "" }));
    queue.add(patch({ name: "Open", ink: "#000000" }, { name: "Op", ink: "#111111" }));
    await queue.settled();
    expect(sent).toHaveLength(2);
    expect(sent[1]!.json).toEqual({ name: "Open", ink: "#000000", base: { name: "", ink: "#111111" } });
  });

  test("what is on its way is not changed under it", async () => {
    const { queue, sent } = open([]);
    queue.add(patch({ name: "Op" }));
    queue.add(patch({ name: "Open" }));
    await queue.settled();
    expect(sent.map((s) => s.json)).toEqual([{ name: "Op" }, { name: "Open" }]);
  });

  test("a conflict waits for the answer, and is sent as answered or given up", async () => {
    const again = patch({ name: "Both" });
    const first = open([fail(409), OK], { onConflict: async () => again });
    first.queue.add(patch({ name: "Mine" }));
    await first.queue.settled();
    expect(first.sent.map((s) => s.json)).toEqual([{ name: "Mine" }, { name: "Both" }]);
    const second = open([fail(409)]);
    second.queue.add(patch({ name: "Mine" }));
    await second.queue.settled();
    expect(second.sent).toHaveLength(1);
  });

  test("what waits is in the store, and a page that comes back sends it", async () => {
    const never: SaveQueueOptions["send"] = () => new Promise(() => {});
    const { queue, box } = open([], { send: never });
    queue.add(patch({ note: "warm" }));
    queue.add(keep("a"));
    expect(box.saves.map((s) => s.name)).toEqual(["brief", "keep a"]);
    const back = open([], {}, box.saves);
    await back.queue.settled();
    expect(back.sent.map((s) => s.name)).toEqual(["brief", "keep a"]);
    expect(back.box.saves).toEqual([]);
  });

  test("retry does not wait for its pause", async () => {
    const { queue, sent } = open([fail(0), OK], { pause: () => 60_000 });
    queue.add(keep("a"));
    await new Promise((r) => setTimeout(r, 20));
    queue.retry();
    await queue.settled();
    expect(sent).toHaveLength(2);
  });
});
