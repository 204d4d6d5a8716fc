// Opens the database and brings it to the newest schema. Migrations only grow; each runs once, in a transaction, after a copy of the
// database was made. A folder that cannot be used is told by a code, not by a crash.
import Database from "better-sqlite3";
import { LRUCache } from "lru-cache";
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { FaultError } from "@/contracts/errors";
import { faultOfDisk } from "./diskFaults";
import { dataFolder } from "./folder";

export { dataFolder };

export type Db = Database.Database;

const migrationsFolder = () => join(process.cwd(), "src", "server", "db", "migrations");

/** @param file - path, or ":memory:" in tests. */
export function openDatabase(file: string): Db {
  const db = new Database(file);
  db.pragma("journal_mode = WAL");
  db.pragma("synchronous = NORMAL");
  db.pragma("busy_timeout = 4000");
  migrate(db);
  keepStatements(db);
  return db;
}

const STATEMENTS_KEPT = 300;
/** A statement is made once and used again, unless its rows are still being read: making one takes longer than most of them run. */
function keepStatements(db: Db) {
  const kept = new LRUCache<string, Database.Statement>({ max: STATEMENTS_KEPT });
  const prepare = db.prepare.bind(db) as (sql: string) => Database.Statement;
  db.prepare = ((sql: string) => {
    const known = kept.get(sql);
    if (known && !known.busy) return known;
    const made = prepare(sql);
    kept.set(sql, made);
    return made;
  }) as typeof db.prepare;
}

const listDone = (db: Db) =>
  new Set(
    db
      .prepare<[], { name: string }>("SELECT name FROM migrations")
      .all()
      .map((r) => r.name),
  );

/**
 * Runs the migrations that have not run.
 * @returns the names of those that did.
 * @throws FaultError data-newer when the database knows migrations that this program does not.
 */
export function migrate(db: Db, folder = migrationsFolder()): string[] {
  db.exec("CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY, run_at TEXT NOT NULL)");
  const done = listDone(db);
  const known = readdirSync(/*turbopackIgnore: true*/ folder)
    .filter((f) => f.endsWith(".sql"))
    .sort();
  if ([...done].some((name) => !known.includes(name))) throw new FaultError("data-newer");
  const waiting = known.filter((f) => !done.has(f));
  if (done.size && waiting.length) copyBefore(db, waiting[0]!);
  // A table that is made again would take what refers to it along: references are checked when all is done.
  db.pragma("foreign_keys = OFF");
  for (const name of waiting)
    db.transaction(() => {
      // Another process may have run it since.
      if (listDone(db).has(name)) return;
      db.exec(readFileSync(/*turbopackIgnore: true*/ join(folder, name), "utf8"));
      if ((db.pragma("foreign_key_check") as unknown[]).length) throw new FaultError("data-damaged");
      db.prepare("INSERT INTO migrations VALUES (?, ?)").run(name, new Date().toISOString());
    }).immediate();
  db.pragma("foreign_keys = ON");
  return waiting;
}

/** The database as it was before a migration, beside it. The newest copy is kept. */
function copyBefore(db: Db, name: string) {
  if (db.memory) return;
  const place = `${db.name}.before-${name.slice(0, 4)}`;
  if (existsSync(place)) rmSync(place);
  db.prepare("VACUUM INTO ?").run(place);
}

// One connection a process: Next.js bundles routes apart, so the global object is the only shared place.
const shared = globalThis as unknown as { fondQuarryDb?: Db };

/** @throws FaultError when the folder cannot be used: disk-full, data-read-only, data-damaged, data-newer. */
export function getDb(): Db {
  if (shared.fondQuarryDb) return shared.fondQuarryDb;
  try {
    mkdirSync(dataFolder(), { recursive: true });
    shared.fondQuarryDb = openDatabase(join(dataFolder(), "fond-quarry.db"));
  } catch (error) {
    const code = faultOfDisk(error);
    throw code ? new FaultError(code) : error;
  }
  return shared.fondQuarryDb;
}

/** Whether every page of the database is sound. */
export const isSound = (db: Db): boolean =>
  (db.pragma("quick_check(1)") as { quick_check: string }[])[0]?.quick_check === "ok";
