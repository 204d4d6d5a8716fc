// The content-addressed store: a file's name is its SHA-256. A file is written whole under another name first, then renamed.
import { createHash, randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { dataFolder } from "./open";

export const sha256Of = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");

export const storedPath = (sha256: string) => join(dataFolder(), "store", sha256.slice(0, 2), sha256);

/** Keeps bytes. @returns their SHA-256. Doing it twice does nothing more. */
export function storeFile(bytes: Uint8Array): string {
  const sha256 = sha256Of(bytes);
  const path = storedPath(sha256);
  if (existsSync(path)) return sha256;
  mkdirSync(dirname(path), { recursive: true });
  mkdirSync(halvesFolder(), { recursive: true });
  const half = join(halvesFolder(), `${sha256}.${randomBytes(4).toString("hex")}.part`);
  writeFileSync(half, bytes, { flush: false });
  renameSync(half, path);
  return sha256;
}

/** Where files are written before they are whole. */
const halvesFolder = () => join(dataFolder(), "store", "halves");

/** Clears away what a process that was ended left half-written. To be called when nothing is being written. */
export function sweepStore() {
  rmSync(halvesFolder(), { recursive: true, force: true });
  const incoming = join(dataFolder(), "incoming");
  if (existsSync(incoming))
    for (const name of readdirSync(incoming))
      if (name.startsWith("sync-")) rmSync(join(incoming, name), { recursive: true, force: true });
}

/** @throws the file system's error when the store lost the file. */
export const readStored = (sha256: string): Uint8Array => new Uint8Array(readFileSync(storedPath(sha256)));
