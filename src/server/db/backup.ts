// The whole of a data folder in one ZIP, made while the server runs, and back again; and what is wrong with a data folder. The database goes
// in as one consistent copy (SQLite's online backup), the store's files as they are: their names are their hashes.
import Database from "better-sqlite3";
import { createHash } from "node:crypto";
import { createReadStream, createWriteStream, existsSync, mkdirSync, readdirSync, renameSync, rmSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { pipeline } from "node:stream/promises";
import yauzl from "yauzl";
import yazl from "yazl";
import { FaultError } from "@/contracts/errors";
import { isSound, type Db } from "./open";

const DATABASE = "fond-quarry.db";
const STORED = /^store\/([0-9a-f]{2})\/(\1[0-9a-f]{62})$/;

/** Columns that name files of the store. */
const REFERENCES = [
  ["styles", "sha256"],
  ["styles", "sfnt_sha256"],
  ["alternatives", "sha256"],
  ["parts", "sha256"],
  ["parts", "sfnt_sha256"],
  ["brief_pictures", "sha256"],
  ["identifications", "sha256"],
] as const;

function listStored(data: string): string[] {
  const store = join(data, "store");
  if (!existsSync(store)) return [];
  return readdirSync(store)
    .filter((f) => /^[0-9a-f]{2}$/.test(f))
    .flatMap((f) => readdirSync(join(store, f)).map((sha) => `store/${f}/${sha}`))
    .filter((path) => STORED.test(path));
}

/**
 * Writes a backup. The server may run meanwhile.
 * @param data - the data folder. @param file - of the backup; a half-written one is never left under this name.
 * @returns how many files of the store are in it.
 */
export async function backUp(data: string, file: string): Promise<number> {
  if (!existsSync(join(data, DATABASE))) throw new FaultError("not-found", `${data} holds no data.`);
  const copy = `${resolve(file)}.db.part`;
  const db = new Database(join(data, DATABASE), { readonly: true, fileMustExist: true });
  try {
    await db.backup(copy);
  } finally {
    db.close();
  }
  try {
    const zip = new yazl.ZipFile();
    zip.addFile(copy, DATABASE);
    if (existsSync(join(data, "access.json"))) zip.addFile(join(data, "access.json"), "access.json");
    // Listed after the database was copied: whatever it names is among them.
    const stored = listStored(data);
    for (const path of stored) zip.addFile(join(data, path), path, { compress: false });
    zip.end();
    await pipeline(zip.outputStream, createWriteStream(`${file}.part`));
    renameSync(`${file}.part`, file);
    return stored.length;
  } finally {
    rmSync(copy, { force: true });
  }
}

/**
 * Puts a backup into an empty folder: all of it, each file checked against its name, or nothing.
 * @throws FaultError "data-in-use" where data are already, "archive-broken" where the backup is not whole.
 */
export async function restore(file: string, data: string): Promise<number> {
  if (existsSync(join(data, DATABASE))) throw new FaultError("data-in-use", `${data} holds data already.`);
  const half = `${resolve(data)}.restoring`;
  rmSync(half, { recursive: true, force: true });
  try {
    const count = await unpack(file, half);
    const db = new Database(join(half, DATABASE), { readonly: true, fileMustExist: true });
    const faults = await listFaults(db, half).finally(() => db.close());
    if (faults.length) throw new FaultError("archive-broken", `The backup is not whole: ${faults[0]}`);
    mkdirSync(data, { recursive: true });
    for (const name of readdirSync(half)) renameSync(join(half, name), join(data, name));
    return count;
  } finally {
    rmSync(half, { recursive: true, force: true });
  }
}

/** @returns how many files of the store were unpacked. Names that a backup does not have are refused. */
async function unpack(file: string, to: string): Promise<number> {
  const zip = await new Promise<yauzl.ZipFile>((done, fail) =>
    yauzl.open(file, { lazyEntries: true, autoClose: false }, (error, opened) => (error ? fail(error) : done(opened))),
  ).catch((error: Error) => {
    throw new FaultError("archive-broken", `${file}: ${error.message}`);
  });
  let count = 0;
  try {
    await new Promise<void>((done, fail) => {
      zip.on("error", fail);
      zip.on("end", done);
      zip.on("entry", (entry: yauzl.Entry) => {
        const path = entry.fileName;
        if (![DATABASE, "access.json"].includes(path) && !STORED.test(path))
          return fail(new FaultError("archive-broken", `${path} does not belong into a backup.`));
        if (STORED.test(path)) count++;
        mkdirSync(join(to, dirname(path)), { recursive: true });
        zip.openReadStream(entry, (error, stream) => {
          if (error) return fail(error);
          pipeline(stream, createWriteStream(join(to, path))).then(() => zip.readEntry(), fail);
        });
      });
      zip.readEntry();
    });
  } catch (error) {
    if (error instanceof FaultError) throw error;
    throw new FaultError("archive-broken", (error as Error).message);
  } finally {
    zip.close();
  }
  if (!existsSync(join(to, DATABASE))) throw new FaultError("archive-broken", "There is no database in it.");
  return count;
}

/** What is wrong with a data folder, one sentence each; none when all is well. The server may run meanwhile. */
export async function checkData(data: string): Promise<string[]> {
  if (!existsSync(join(data, DATABASE))) return [`${data} holds no data.`];
  const db = new Database(join(data, DATABASE), { readonly: true, fileMustExist: true });
  return listFaults(db, data).finally(() => db.close());
}

async function listFaults(db: Db, data: string): Promise<string[]> {
  const faults = listFaultsOfRows(db, data);
  for (const path of listStored(data))
    if ((await hashOf(join(data, path))) !== path.slice(-64)) faults.push(`The file ${path} is not what it was.`);
  return faults;
}

/** A database may be so damaged that it cannot even be asked. */
function listFaultsOfRows(db: Db, data: string): string[] {
  const faults: string[] = [];
  try {
    if (!isSound(db)) return ["The database is damaged."];
    const loose = (db.pragma("foreign_key_check") as unknown[]).length;
    if (loose) faults.push(`${loose} rows refer to others that are gone.`);
    for (const [table, column] of REFERENCES)
      for (const { sha } of db.prepare<[], { sha: string }>(`SELECT DISTINCT ${column} AS sha FROM ${table}`).all())
        if (sha && !existsSync(join(data, "store", sha.slice(0, 2), sha)))
          faults.push(`The file ${sha}, named by ${table}, is missing from the store.`);
  } catch (error) {
    if (!(error as { code?: string }).code?.startsWith("SQLITE_")) throw error;
    faults.push(`The database is damaged: ${(error as Error).message}.`);
  }
  return faults;
}

async function hashOf(path: string): Promise<string> {
  const hash = createHash("sha256");
  await pipeline(createReadStream(path), hash);
  return hash.digest("hex");
}
