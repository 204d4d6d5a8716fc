// The content-addressed store: a file's name is its SHA-256. A file is written whole under another name first, then renamed.
import { createHash, randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { FaultError } from "@/contracts/errors";
import { dataFolder } from "./open";

export const sha256Of = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");

export const storedPath = (sha256: string) => join(dataFolder(), "store", sha256.slice(0, 2), sha256);

/** Keeps bytes. @returns their SHA-256. Doing it twice does nothing more. */
export function storeFile(bytes: Uint8Array): string {
  const sha256 = sha256Of(bytes);
  const path = storedPath(sha256);
  // A file that was changed behind our back is put right by the same bytes.
  if (existsSync(path) && isStored(sha256)) return sha256;
  mkdirSync(dirname(path), { recursive: true });
  mkdirSync(halvesFolder(), { recursive: true });
  const half = join(halvesFolder(), `${sha256}.${randomBytes(4).toString("hex")}.part`);
  writeFileSync(half, bytes, { flush: false });
  renameSync(half, path);
  return sha256;
}

/** A file of its own beside the store, written whole or not at all. */
export function putWhole(path: string, bytes: Uint8Array) {
  writeFileSync(`${path}.part`, bytes);
  renameSync(`${path}.part`, path);
}

/** Where files are written before they are whole. */
const halvesFolder = () => join(dataFolder(), "store", "halves");

/** Clears away what a process that was ended left half-written. To be called when nothing is being written. */
export function sweepStore() {
  rmSync(halvesFolder(), { recursive: true, force: true });
}

/** Clears uploads away whose job is over, or never was. @param jobs - ids of those that may still need theirs. */
export function sweepIncoming(jobs: ReadonlySet<string>) {
  const incoming = join(dataFolder(), "incoming");
  if (!existsSync(incoming)) return;
  for (const name of readdirSync(incoming))
    if (!jobs.has(`j_${name}`)) rmSync(join(incoming, name), { recursive: true, force: true });
}

/** @throws FaultError file-missing or file-changed when the store does not hold what was put there. */
export function readStored(sha256: string): Uint8Array {
  let bytes: Uint8Array;
  try {
    bytes = new Uint8Array(readFileSync(storedPath(sha256)));
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== "ENOENT") throw error;
    throw new FaultError("file-missing");
  }
  if (sha256Of(bytes) !== sha256) throw new FaultError("file-changed");
  return bytes;
}

/** Whether a file is there and is what it was. */
export function isStored(sha256: string): boolean {
  try {
    readStored(sha256);
    return true;
  } catch {
    return false;
  }
}
