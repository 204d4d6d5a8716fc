// Opens the database and brings it to the newest schema. Migrations only grow; each runs once, in a transaction.
import Database from "better-sqlite3";
import { mkdirSync, readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

export type Db = Database.Database;

/** The folder of the user's data: FOND_QUARRY_DATA or ./data. */
export const dataFolder = () => process.env.FOND_QUARRY_DATA || join(process.cwd(), "data");
export const migrationsFolder = () => join(process.cwd(), "src", "server", "db", "migrations");

/** @param file - path, or ":memory:" in tests. */
export function openDatabase(file: string): Db {
  const db = new Database(file);
  db.pragma("journal_mode = WAL");
  db.pragma("foreign_keys = ON");
  db.pragma("busy_timeout = 4000");
  migrate(db);
  return db;
}

/** Runs the migrations that have not run. @returns the names of those that did. */
export function migrate(db: Db, folder = migrationsFolder()): string[] {
  db.exec("CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY, run_at TEXT NOT NULL)");
  const done = new Set(
    db
      .prepare<[], { name: string }>("SELECT name FROM migrations")
      .all()
      .map((r) => r.name),
  );
  const waiting = readdirSync(/*turbopackIgnore: true*/ folder)
    .filter((f) => f.endsWith(".sql") && !done.has(f))
    .sort();
  for (const name of waiting)
    db.transaction(() => {
      db.exec(readFileSync(/*turbopackIgnore: true*/ join(folder, name), "utf8"));
      db.prepare("INSERT INTO migrations VALUES (?, ?)").run(name, new Date().toISOString());
    })();
  return waiting;
}

// One connection a process: Next.js bundles routes apart, so the global object is the only shared place.
const shared = globalThis as unknown as { fondQuarryDb?: Db };
export function getDb(): Db {
  if (!shared.fondQuarryDb) {
    mkdirSync(dataFolder(), { recursive: true });
    shared.fondQuarryDb = openDatabase(join(dataFolder(), "fond-quarry.db"));
  }
  return shared.fondQuarryDb;
}
