// Reads a zip with limits of its own: paths, counts, sizes (as found, not as stated), encryption. Nothing is written to disk.
import yauzl, { type Entry, type ZipFile } from "yauzl";
import { refuse, succeed, type Outcome, type ArchiveFaultCode } from "@/contracts/errors";

export const ARCHIVE_LIMITS = { entries: 5000, bytes: 512 * 1024 * 1024, entryBytes: 64 * 1024 * 1024, ratio: 200 };

export type ArchiveFile = { path: string; bytes: Uint8Array };

/**
 * Unpacks a zip in memory.
 * @returns its files (folders left out), or a refusal: archive-broken, -encrypted, -unsafe-path, -too-large, -too-many, -empty.
 */
export async function openArchive(bytes: Uint8Array): Promise<Outcome<ArchiveFile[], ArchiveFaultCode>> {
  let zip: ZipFile;
  try {
    zip = await new Promise<ZipFile>((resolve, reject) =>
      yauzl.fromBuffer(
        Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length),
        { lazyEntries: true, validateEntrySizes: true },
        (error, z) => (error ? reject(error) : resolve(z)),
      ),
    );
  } catch (error) {
    return refuse("archive-broken", undefined, String((error as Error).message)) as Outcome<
      ArchiveFile[],
      ArchiveFaultCode
    >;
  }
  try {
    return await readEntries(zip, bytes.length);
  } catch (error) {
    const detail = String((error as Error).message);
    const code: ArchiveFaultCode = /invalid relative path|absolute path|invalid characters/i.test(detail)
      ? "archive-unsafe-path"
      : "archive-broken";
    return refuse(code, undefined, detail) as Outcome<ArchiveFile[], ArchiveFaultCode>;
  } finally {
    zip.close();
  }
}

async function readEntries(zip: ZipFile, packedBytes: number): Promise<Outcome<ArchiveFile[], ArchiveFaultCode>> {
  const no = (code: ArchiveFaultCode) => refuse(code) as Outcome<ArchiveFile[], ArchiveFaultCode>;
  if (zip.entryCount > ARCHIVE_LIMITS.entries) return no("archive-too-many");
  const files: ArchiveFile[] = [];
  let total = 0;
  for (let entry = await nextEntry(zip); entry; entry = await nextEntry(zip)) {
    if (entry.fileName.endsWith("/")) continue;
    if (entry.generalPurposeBitFlag & 1) return no("archive-encrypted");
    const limit = Math.min(ARCHIVE_LIMITS.entryBytes, ARCHIVE_LIMITS.bytes - total);
    if (entry.uncompressedSize > limit || entry.uncompressedSize > packedBytes * ARCHIVE_LIMITS.ratio + 1e6)
      return no("archive-too-large");
    const bytes = await readEntry(zip, entry, limit);
    if (!bytes) return no("archive-too-large");
    total += bytes.length;
    files.push({ path: entry.fileName, bytes });
  }
  return files.length ? succeed(files) : no("archive-empty");
}

const nextEntry = (zip: ZipFile) =>
  new Promise<Entry | null>((resolve, reject) => {
    const off = () => {
      zip.removeListener("entry", onEntry);
      zip.removeListener("end", onEnd);
      zip.removeListener("error", onError);
    };
    const onEntry = (e: Entry) => (off(), resolve(e));
    const onEnd = () => (off(), resolve(null));
    const onError = (e: Error) => (off(), reject(e));
    zip.on("entry", onEntry).on("end", onEnd).on("error", onError);
    zip.readEntry();
  });

/** Null when the entry unpacks to more than the limit. */
const readEntry = (zip: ZipFile, entry: Entry, limit: number) =>
  new Promise<Uint8Array | null>((resolve, reject) =>
    zip.openReadStream(entry, (error, stream) => {
      if (error) return reject(error);
      const parts: Buffer[] = [];
      let size = 0;
      stream.on("data", (part: Buffer) => {
        size += part.length;
        if (size > limit) {
          stream.destroy();
          resolve(null);
        } else parts.push(part);
      });
      stream.on("end", () => resolve(new Uint8Array(Buffer.concat(parts))));
      stream.on("error", reject);
    }),
  );
