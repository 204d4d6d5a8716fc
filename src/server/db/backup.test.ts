// Backups of a folder with real rows and files: whole and back again, or refused with nothing left behind; and what a check finds.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "@jest/globals";
import Database from "better-sqlite3";
import { unzipSync, zipSync } from "fflate";
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { makeFont } from "../../../tests/fixtures/makeFont";
import readFont from "../workers/readFont.worker";
import { closePools } from "../workers/pool";
import { listBriefs } from "../queries/briefs";
import { putLibrary } from "../queries/libraries";
import { storeReading } from "../store/storeReading";
import { createBrief } from "../usecases/briefs";
import { backUp, checkData, restore } from "./backup";
import { storedPath } from "./fileStore";
import { getDb } from "./open";

const root = mkdtempSync(join(tmpdir(), "fond-quarry-backup-"));
const data = join(root, "data");
process.env.FOND_QUARRY_DATA = data;
const file = join(root, "backup.zip");
let sha = "";
beforeAll(async () => {
  const bytes = makeFont({ family: "Beacon", stem: 77 });
  const reply = await readFont({ bytes, fallbackFamily: "Beacon" });
  if (!reply.ok) throw new Error(reply.detail);
  putLibrary(getDb(), "own", "Own", "own", "2026-11-27");
  const source = { libraryId: "own", path: "beacon.otf", statedFamily: null, evidence: [] };
  await storeReading(getDb(), bytes, reply.reading, source);
  createBrief(getDb(), { name: "Lamp night" });
  const row = getDb().prepare<[], { sha256: string }>("SELECT sha256 FROM styles").get()!;
  sha = row.sha256;
});
afterAll(() => {
  closePools();
  getDb().close();
  rmSync(root, { recursive: true, force: true });
});
const names = (folder: string) => {
  const db = new Database(join(folder, "fond-quarry.db"), { readonly: true });
  const all = listBriefs(db).map((b) => b.name);
  db.close();
  return all;
};
const into = () => join(mkdtempSync(join(root, "into-")), "data");

describe("a backup", () => {
  beforeEach(() => backUp(data, file));

  test("holds rows and files, made while the database is open, and gives them back", async () => {
    const place = into();
    expect(await restore(file, place)).toBe(1);
    expect(names(place)).toEqual(["Lamp night"]);
    expect(readFileSync(join(place, "store", sha.slice(0, 2), sha))).toEqual(readFileSync(storedPath(sha)));
    expect(await checkData(place)).toEqual([]);
    expect(readdirSync(root).filter((f) => f.includes(".part"))).toEqual([]);
  });

  test("is not put over data that are there", async () => {
    await expect(restore(file, data)).rejects.toMatchObject({ code: "data-in-use" });
    expect(names(data)).toEqual(["Lamp night"]);
  });

  test.each<[string, (files: Record<string, Uint8Array>) => Record<string, Uint8Array>]>([
    ["without its database", ({ "fond-quarry.db": _, ...rest }) => rest],
    ["with a file that is not its hash", (f) => ({ ...f, [`store/${sha.slice(0, 2)}/${sha}`]: new Uint8Array(9) })],
    ["without a file that a row names", (f) => (delete f[`store/${sha.slice(0, 2)}/${sha}`], f)],
    ["with a way out of the folder", (f) => ({ ...f, "../elsewhere.txt": new Uint8Array(3) })],
    [
      "with a damaged database",
      (f) => ({ ...f, "fond-quarry.db": f["fond-quarry.db"]!.map((b, i) => (i > 4000 ? 7 : b)) }),
    ],
  ])("%s is refused, and nothing is left", async (_, change) => {
    const bad = join(root, "bad.zip");
    writeFileSync(bad, zipSync(change(unzipSync(new Uint8Array(readFileSync(file))))));
    const place = into();
    await expect(restore(bad, place)).rejects.toMatchObject({ code: "archive-broken" });
    expect([existsSync(place), existsSync(`${place}.restoring`), existsSync(join(root, "elsewhere.txt"))]).toEqual([
      false,
      false,
      false,
    ]);
  });

  test("cut short is refused", async () => {
    const bad = join(root, "short.zip");
    writeFileSync(bad, readFileSync(file).subarray(0, 3000));
    await expect(restore(bad, into())).rejects.toMatchObject({ code: "archive-broken" });
  });
});

test("a check names what is missing and what was changed", async () => {
  expect(await checkData(data)).toEqual([]);
  const bytes = readFileSync(storedPath(sha));
  writeFileSync(storedPath(sha), "other");
  expect(await checkData(data)).toEqual([expect.stringContaining(`${sha} is not what it was`)]);
  rmSync(storedPath(sha));
  const missing = await checkData(data);
  expect(missing.length).toBeGreaterThan(0);
  for (const fault of missing) expect(fault).toMatch(/missing from the store/);
  writeFileSync(storedPath(sha), bytes);
  expect(await checkData(data)).toEqual([]);
  expect(await checkData(join(root, "nowhere"))).toEqual([expect.stringContaining("holds no data")]);
});
