// A reader that hangs, or eats memory, is ended: the file is refused with the reason and the next one is read.
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Piscina } from "piscina";
import { run } from "./pool";

const folder = mkdtempSync(join(tmpdir(), "fond-quarry-pool-"));
let pool: Piscina;
beforeAll(() => {
  const filename = join(folder, "reader.mjs");
  writeFileSync(
    filename,
    `export default async (what) => {
       if (what === "hang") for (;;);
       if (what === "eat") { const held = []; for (;;) held.push(new Array(1e6).fill(what)); }
       return "read " + what;
     };`,
  );
  pool = new Piscina({ filename, maxThreads: 1, resourceLimits: { maxOldGenerationSizeMb: 64 } });
});
afterAll(async () => {
  await pool.destroy();
  rmSync(folder, { recursive: true, force: true });
});

describe("limits of a worker", () => {
  test("a font that is read", async () => expect(await run(pool, "a", 5000)).toBe("read a"));

  test("one that hangs is ended at its limit, and the next is read", async () => {
    const t = performance.now();
    await expect(run(pool, "hang", 400)).rejects.toMatchObject({ name: expect.stringMatching(/Abort|Timeout/) });
    expect(performance.now() - t).toBeLessThan(3000);
    expect(await run(pool, "b", 5000)).toBe("read b");
  });

  test("one that eats memory is ended, and the next is read", async () => {
    await expect(run(pool, "eat", 20_000)).rejects.toThrow(/memory/i);
    expect(await run(pool, "c", 5000)).toBe("read c");
  });
});
