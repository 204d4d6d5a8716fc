// A data folder that another server holds, that is newer, damaged or about to be changed.
import { afterEach, beforeEach, describe, expect, test } from "@jest/globals";
import Database from "better-sqlite3";
import { existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { spawnSync } from "node:child_process";
import { lockDataFolder, unlockDataFolder } from "./lock";
import { migrate, openDatabase } from "./open";

let data: string;
beforeEach(() => {
  data = mkdtempSync(join(tmpdir(), "fond-quarry-open-"));
  process.env.FOND_QUARRY_DATA = data;
});
afterEach(() => {
  unlockDataFolder();
  rmSync(data, { recursive: true, force: true });
});
const place = () => join(data, "fond-quarry.db");
const codeOf = (run: () => unknown) => {
  try {
    run();
  } catch (error) {
    return (error as { fault?: { code: string }; code?: string }).fault?.code ?? (error as { code?: string }).code;
  }
  return null;
};

describe("the database", () => {
  test("of a newer version is not opened", () => {
    const db = openDatabase(place());
    db.prepare("INSERT INTO migrations VALUES ('0099-of-tomorrow.sql', '2027-01-01')").run();
    db.close();
    expect(codeOf(() => openDatabase(place()))).toBe("data-newer");
  });

  test("is copied before it is changed", () => {
    const db = openDatabase(place());
    const last = (db.prepare("SELECT max(name) AS name FROM migrations").get() as { name: string }).name;
    db.close();
    // As it was before a migration that changes nothing that is there.
    const folder = mkdtempSync(join(tmpdir(), "fond-quarry-migrations-"));
    for (const name of readdirSync("src/server/db/migrations").filter((f) => f.endsWith(".sql")))
      writeFileSync(join(folder, name), "");
    writeFileSync(join(folder, "9000-next.sql"), "CREATE TABLE next_one (id TEXT)");
    const again = new Database(place());
    expect(migrate(again, folder)).toEqual(["9000-next.sql"]);
    again.close();
    rmSync(folder, { recursive: true });
    expect(last < "9000").toBe(true);
    expect(readdirSync(data).some((f) => f.includes("before-9000"))).toBe(true);
  });

  test("that is damaged is not opened, and stays as it is", () => {
    writeFileSync(place(), Buffer.alloc(8192, 7));
    expect(codeOf(() => openDatabase(place()))).not.toBeNull();
    expect(existsSync(place())).toBe(true);
  });
});

describe("the lock of a data folder", () => {
  /** Another process that holds it, or tries to. */
  const elsewhere = () =>
    spawnSync(
      process.execPath,
      [
        "-e",
        `const D = require("better-sqlite3"); const d = new D(${JSON.stringify(join(data, "lock.db"))}, { timeout: 100 });
         try { d.pragma("locking_mode = EXCLUSIVE"); d.exec("BEGIN EXCLUSIVE"); console.log("taken"); } catch (e) { console.log(e.code); }`,
      ],
      { encoding: "utf8", env: { ...process.env, NODE_OPTIONS: "" } },
    ).stdout.trim();

  test("keeps others out while it is held, and lets them in after", () => {
    lockDataFolder();
    expect(elsewhere()).toBe("SQLITE_BUSY");
    unlockDataFolder();
    expect(elsewhere()).toBe("taken");
  });

  test("another's is told", () => {
    const other = new Database(join(data, "lock.db"));
    other.pragma("locking_mode = EXCLUSIVE");
    other.exec("BEGIN EXCLUSIVE");
    expect(codeOf(lockDataFolder)).toBe("data-in-use");
    other.close();
    expect(codeOf(lockDataFolder)).toBeNull();
  });
});
