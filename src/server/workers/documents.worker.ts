// Worker entry: the fonts of a document that somebody gave, or the code of why not. Nothing is written, nothing fetched.
import sharp from "sharp";
import type { DocumentKind } from "@/contracts/documents";
import type { RequestFaultCode } from "@/contracts/errors";
import { DocumentError, type FoundFont, type Parts } from "@/core/documents/found";
import type { FoundPicture, PictureBytes } from "@/core/documents/pictures";
import { readDocument, takePicture as takeFrom } from "@/core/documents/readDocument";
import { openArchive } from "../intake/archive";
import { openPixels } from "./pictureLimits";

export type DocumentRequest = { name: string; bytes: Uint8Array };
export type DocumentReply =
  | { ok: true; kind: DocumentKind; fonts: FoundFont[]; pictures: FoundPicture[] }
  | { ok: false; code: RequestFaultCode; detail?: string };

/** @property at - the place of a picture in the list of the document's. */
export type DocumentPictureRequest = DocumentRequest & { at: number };
export type DocumentPictureReply =
  | { ok: true; picture: Uint8Array; type: "image/png" | "image/jpeg" }
  | { ok: false; code: RequestFaultCode; detail?: string };

/** Long documents tell what was seen by then. */
const LOOKS_FOR_MS = 12_000;

export default function read({ name, bytes }: DocumentRequest): Promise<DocumentReply> {
  const until = performance.now() + LOOKS_FOR_MS;
  return withParts(bytes, async (parts): Promise<DocumentReply> => {
    const found = await readDocument({ name, bytes, parts }, () => performance.now() < until);
    return found ? { ok: true, ...found } : { ok: false, code: "document-unknown" };
  });
}

/** One picture of a document, as a file that is shown everywhere. */
export function takePicture({ name, bytes, at }: DocumentPictureRequest): Promise<DocumentPictureReply> {
  return withParts(bytes, async (parts): Promise<DocumentPictureReply> => {
    const taken = await takeFrom({ name, bytes, parts }, at);
    if (!taken) return { ok: false, code: "picture-broken" };
    const { open, metadata } =
      "file" in taken ? await openPixels(taken.file) : { open: () => sharpOf(taken), metadata: { format: "raw" } };
    if (metadata.format === "jpeg" && "file" in taken) return { ok: true, picture: taken.file, type: "image/jpeg" };
    return { ok: true, picture: await open().rotate().png().toBuffer(), type: "image/png" };
  });
}

const sharpOf = ({ pixels, widthPx: width, heightPx: height, channels }: Exclude<PictureBytes, { file: Uint8Array }>) =>
  sharp(pixels, { raw: { width, height, channels } });

type Refused = { ok: false; code: RequestFaultCode; detail?: string };

async function withParts<Reply>(
  bytes: Uint8Array,
  work: (parts: Parts | null) => Promise<Reply>,
): Promise<Reply | Refused> {
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const archive = isZip ? await openArchive(bytes) : null;
  if (archive && !archive.ok) return { ok: false, code: codeOfArchive(archive.code), detail: archive.message };
  if (isLocked(bytes)) return { ok: false, code: "document-protected" };
  try {
    return await work(
      archive && {
        paths: archive.value.entries.map((e) => e.path),
        read: async (path) => {
          const part = archive.value.entries.some((e) => e.path === path) ? await archive.value.read({ path }) : null;
          return part?.ok ? part.value : null;
        },
      },
    );
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
