// Worker entry: the fonts of a document that somebody gave, or the code of why not. Nothing is written, nothing fetched.
import type { DocumentKind } from "@/contracts/documents";
import type { RequestFaultCode } from "@/contracts/errors";
import { DocumentError, type FoundFont, type Parts } from "@/core/documents/found";
import { readDocument } from "@/core/documents/readDocument";
import { openArchive } from "../intake/archive";

export type DocumentRequest = { name: string; bytes: Uint8Array };
export type DocumentReply =
  | { ok: true; kind: DocumentKind; fonts: FoundFont[] }
  | { ok: false; code: RequestFaultCode; detail?: string };

/** Long documents tell what was seen by then. */
const LOOKS_FOR_MS = 12_000;

export default async function read({ name, bytes }: DocumentRequest): Promise<DocumentReply> {
  const until = performance.now() + LOOKS_FOR_MS;
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const archive = isZip ? await openArchive(bytes) : null;
  if (archive && !archive.ok) return { ok: false, code: codeOfArchive(archive.code), detail: archive.message };
  if (isLocked(bytes)) return { ok: false, code: "document-protected" };
  try {
    const parts: Parts | null = archive && {
      paths: archive.value.entries.map((e) => e.path),
      read: async (path) => {
        const read = archive.value.entries.some((e) => e.path === path) ? await archive.value.read({ path }) : null;
        return read?.ok ? read.value : null;
      },
    };
    const found = await readDocument({ name, bytes, parts }, () => performance.now() < until);
    return found ? { ok: true, ...found } : { ok: false, code: "document-unknown" };
  } catch (error) {
    const code = error instanceof DocumentError ? error.code : "document-broken";
    return { ok: false, code, detail: String((error as Error).message) };
  } finally {
    archive?.value.close();
  }
}

const codeOfArchive = (code: string): RequestFaultCode =>
  code === "archive-encrypted"
    ? "document-protected"
    : code === "archive-too-large" || code === "archive-too-many"
      ? "document-too-large"
      : "document-broken";

/** Office files with a password are wrapped in a compound file with a part of this name. */
function isLocked(bytes: Uint8Array): boolean {
  if (bytes[0] !== 0xd0 || bytes[1] !== 0xcf) return false;
  return new TextDecoder("utf-16le")
    .decode(bytes.subarray(0, Math.min(bytes.length & ~1, 65_536)))
    .includes("EncryptedPackage");
}
