// One server for one data folder. The lock is the operating system's, held by a small database that stays open: it ends with the process,
// however that ends.
import Database from "better-sqlite3";
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { FaultError } from "@/contracts/errors";
import { dataFolder } from "./open";

const shared = globalThis as unknown as { fondQuarryLock?: Database.Database };

/** @throws FaultError data-in-use when another server has the folder. */
export function lockDataFolder() {
  if (shared.fondQuarryLock) return;
  mkdirSync(dataFolder(), { recursive: true });
  const lock = new Database(join(dataFolder(), "lock.db"), { timeout: 300 });
  try {
    lock.pragma("locking_mode = EXCLUSIVE");
    lock.exec("BEGIN EXCLUSIVE");
    lock.exec("CREATE TABLE IF NOT EXISTS held (pid INTEGER); DELETE FROM held");
    lock.prepare("INSERT INTO held VALUES (?)").run(process.pid);
    // Committed, the exclusive mode keeps the lock until the connection closes.
    lock.exec("COMMIT");
  } catch (error) {
    lock.close();
    if ((error as { code?: string }).code?.startsWith("SQLITE_BUSY")) throw new FaultError("data-in-use");
    throw error;
  }
  shared.fondQuarryLock = lock;
}

/** For tests. */
export function unlockDataFolder() {
  shared.fondQuarryLock?.close();
  delete shared.fondQuarryLock;
}
