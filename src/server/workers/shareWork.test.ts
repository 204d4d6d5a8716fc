// A second thread that dies, fails or answers well: the whole is done either way.
import { afterAll, beforeAll, describe, expect, jest, test } from "@jest/globals";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { describeFaces, type DescribedFaces } from "../../../tests/fixtures/describedFaces";
import { identifyLine } from "@/core/identify/identifyLine";
import { inlineExecutor, type FullTask, type PreviewTask } from "@/core/identify/executor";
import { START, viewAsItStands } from "@/core/identify/registration/fit";
import { readPicture } from "@/core/picture/readPicture";
import { wordingOf } from "@/core/picture/wording";
import { sharedExecutor } from "./shareWork";

const folder = mkdtempSync(join(tmpdir(), "fond-quarry-share-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const program = (name: string, text: string) => {
  const path = join(folder, `${name}.mjs`);
  writeFileSync(path, text);
  return path;
};

let { faces, index, load }: DescribedFaces = {} as DescribedFaces;
beforeAll(
  async () => void ({ faces, index, load } = await describeFaces(["lora", "work-sans", "zilla-slab", "pacifico"])),
);
beforeAll(() => void jest.spyOn(console, "error").mockImplementation(() => undefined));
const named = async (file: string) => {
  const executor = sharedExecutor(index, load, new Map(), 1, file);
  const lines = readPicture(drawLine(faces.get("zilla-slab")!, "Harbour"))!;
  return (await identifyLine(lines, "Harbour", index, executor, 4)).matches.map((m) => [m.styleId, m.score.toFixed(4)]);
};
const alone = async () => {
  const lines = readPicture(drawLine(faces.get("zilla-slab")!, "Harbour"))!;
  const { matches } = await identifyLine(lines, "Harbour", index, inlineExecutor(index, load), 4);
  return matches.map((m) => [m.styleId, m.score.toFixed(4)]);
};

describe("the second thread", () => {
  test.each([
    ["is not there", "no-such-file"],
    ["ends at once", "process.exit(1);"],
    [
      "breaks over a task",
      `import { parentPort } from "node:worker_threads"; parentPort.on("message", (m) => { if ("task" in m) throw new Error("broken"); });`,
    ],
    [
      "says that it failed",
      `import { parentPort } from "node:worker_threads"; parentPort.on("message", (m) => { if ("task" in m) parentPort.postMessage({ id: m.id, ok: false, detail: "no" }); });`,
    ],
  ])("%s: the first does its share too, and the answer is the same", async (what, text) => {
    const file = text.startsWith("no-such") ? join(folder, text) : program(what.replace(/\W/g, ""), text);
    expect(await named(file)).toEqual(await alone());
  });

  test("is sent the index once, and shares of it", async () => {
    const file = program(
      "counts",
      `import { parentPort } from "node:worker_threads";
       let indexes = 0;
       parentPort.on("message", (m) => {
         if ("signatures" in m) indexes += m.signatures.bytes.buffer instanceof SharedArrayBuffer ? 1 : 100;
         // What it did not do itself: the first one has to do it.
         else parentPort.postMessage({ id: m.id, ok: false, detail: String(indexes) });
       });`,
    );
    jest.mocked(console.error).mockClear();
    await named(file);
    await named(file);
    const told = jest.mocked(console.error).mock.calls.map((c) => c[1] as string);
    expect(told.length).toBeGreaterThan(6);
    expect(new Set(told)).toEqual(new Set(["1"]));
  });

  test("does alone what the first does not wait for", async () => {
    const file = program(
      "alone",
      `import { parentPort } from "node:worker_threads";
       parentPort.on("message", (m) => { if ("task" in m) parentPort.postMessage({ id: m.id, ok: true, reply: ["by the second"] }); });`,
    );
    const executor = sharedExecutor(index, load, new Map(), 1, file);
    const task: FullTask = { kind: "full", laid: [], imaging: START };
    expect(await executor([task, task], true)).toEqual([["by the second"], ["by the second"]]);
    expect(await executor([task, task])).toEqual([[], ["by the second"]]);
  });

  test("where the first fails over its share, that of the second is not begun here", async () => {
    const file = program(
      "fails",
      `import { parentPort } from "node:worker_threads";
       parentPort.on("message", (m) => { if ("task" in m) parentPort.postMessage({ id: m.id, ok: false, detail: "no" }); });`,
    );
    const open = jest.fn<typeof load>(() => {
      throw new Error("damaged");
    });
    const line = readPicture(drawLine(faces.get("lora")!, "Quay"))!.plain;
    const task: PreviewTask = {
      kind: "preview",
      laid: [{ entry: 0, view: viewAsItStands(line), pose: null, per: 1 }],
      wording: wordingOf("Quay"),
      imaging: START,
      rounds: 0,
    };
    await expect(sharedExecutor(index, open, new Map(), 1, file)([task, task])).rejects.toThrow("damaged");
    // The second has answered by then.
    await sharedExecutor(index, load, new Map(), 1, file)([task, task], true);
    expect(open).toHaveBeenCalledTimes(1);
  });
});
