// What the file system and the database say when the folder of the data is full, locked or damaged → the code people are told.
import type { FaultCode } from "@/contracts/errors";

const CODES: Record<string, FaultCode> = {
  ENOSPC: "disk-full",
  EDQUOT: "disk-full",
  SQLITE_FULL: "disk-full",
  EROFS: "data-read-only",
  EACCES: "data-read-only",
  EPERM: "data-read-only",
  SQLITE_READONLY: "data-read-only",
  SQLITE_CANTOPEN: "data-read-only",
  SQLITE_CORRUPT: "data-damaged",
  SQLITE_NOTADB: "data-damaged",
};

/** @returns null when the error is none of the disk's. */
export function faultOfDisk(error: unknown): FaultCode | null {
  const code = (error as { code?: unknown } | null)?.code;
  if (typeof code !== "string") return null;
  // Extended codes of SQLite have more behind: SQLITE_READONLY_DIRECTORY.
  return CODES[code] ?? CODES[code.split("_").slice(0, 2).join("_")] ?? null;
}
