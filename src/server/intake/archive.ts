// Reads a zip with limits of its own: paths, counts, sizes (as stated and as found), encryption. The directory is judged first;
// entries are then read one at a time, so that memory holds one file, whatever the archive claims. Nothing is written to disk.
import yauzl, { type Entry, type ZipFile } from "yauzl";
import { refuse, succeed, type ArchiveFaultCode, type Outcome } from "@/contracts/errors";
import { decodeFileName } from "./fileNames";

/** ratio: unpacked / packed of one entry above a megabyte; fonts and texts stay far below. */
export const ARCHIVE_LIMITS = { entries: 2000, bytes: 1024 * 1024 * 1024, entryBytes: 64 * 1024 * 1024, ratio: 200 };

/** @property bytes - unpacked, as stated. */
export type ArchiveEntry = { path: string; bytes: number };
export type OpenArchive = {
  /** Files only, in the archive's order. */
  entries: ArchiveEntry[];
  /** Unpacks one entry, never more than it states. */
  read(entry: Pick<ArchiveEntry, "path">): Promise<Outcome<Uint8Array, ArchiveFaultCode>>;
  close(): void;
};
type Refusal = Outcome<never, ArchiveFaultCode>;
const no = (code: ArchiveFaultCode, detail?: string) => refuse(code, undefined, detail) as Refusal;

/**
 * Opens a zip and judges its directory.
 * @param source - a file's path, or bytes (an archive inside an archive).
 * @returns a refusal: archive-broken, -encrypted, -unsafe-path, -too-large, -too-many, -empty.
 */
export async function openArchive(source: string | Uint8Array): Promise<Outcome<OpenArchive, ArchiveFaultCode>> {
  let zip: ZipFile;
  try {
    zip = await openZip(source);
  } catch (error) {
    return no("archive-broken", String((error as Error).message));
  }
  try {
    const judged = await judgeDirectory(zip);
    if (!judged.ok) {
      zip.close();
      return judged;
    }
    const byPath = judged.value;
    return succeed({
      entries: [...byPath].map(([path, entry]) => ({ path, bytes: entry.uncompressedSize })),
      read: ({ path }) => readEntry(zip, byPath.get(path)!),
      close: () => zip.close(),
    });
  } catch (error) {
    zip.close();
    return no("archive-broken", String((error as Error).message));
  }
}

const OPTIONS = { lazyEntries: true, validateEntrySizes: true, decodeStrings: false, autoClose: false } as const;
const openZip = (source: string | Uint8Array) =>
  new Promise<ZipFile>((resolve, reject) => {
    const done = (error: Error | null, zip: ZipFile) => (error ? reject(error) : resolve(zip));
    if (typeof source === "string") yauzl.open(source, OPTIONS, done);
    else yauzl.fromBuffer(Buffer.from(source.buffer, source.byteOffset, source.length), OPTIONS, done);
  });

/** Everything that can be known before a byte is unpacked. */
async function judgeDirectory(zip: ZipFile): Promise<Outcome<Map<string, Entry>, ArchiveFaultCode>> {
  if (zip.entryCount > ARCHIVE_LIMITS.entries) return no("archive-too-many");
  const files = new Map<string, Entry>();
  const places: [from: number, to: number][] = [];
  let total = 0;
  for (let entry = await nextEntry(zip); entry; entry = await nextEntry(zip)) {
    const path = nameOf(entry);
    if (!path) return no("archive-unsafe-path");
    if (path.endsWith("/")) continue;
    if (isLink(entry)) return no("archive-unsafe-path", path);
    if (entry.generalPurposeBitFlag & 0x41) return no("archive-encrypted", path);
    total += entry.uncompressedSize;
    if (
      total > ARCHIVE_LIMITS.bytes ||
      entry.uncompressedSize > Math.max(1e6, entry.compressedSize * ARCHIVE_LIMITS.ratio)
    )
      return no("archive-too-large", path);
    places.push([entry.relativeOffsetOfLocalHeader, entry.relativeOffsetOfLocalHeader + 30 + entry.compressedSize]);
    files.set(distinct(path, files), entry);
  }
  if (!files.size) return no("archive-empty");
  // Entries that share packed bytes unpack to far more than the archive could hold.
  places.sort((a, b) => a[0] - b[0]);
  if (places.some(([from], i) => i > 0 && from < places[i - 1]![1])) return no("archive-broken", "entries overlap");
  return succeed(files);
}

/** Two entries of one name are both kept. */
function distinct(path: string, files: Map<string, Entry>): string {
  let name = path;
  for (let n = 2; files.has(name); n++) name = path.replace(/(\.[^./]*)?$/, ` (${n})$1`);
  return name;
}

/** Path with forward slashes; null when it leads out of the archive's folder. */
function nameOf(entry: Entry): string | null {
  const field = entry.extraFields?.find((f) => f.id === 0x7075 && f.data.length > 5);
  const raw = entry.fileName as unknown as Uint8Array;
  const name = field
    ? decodeFileName(field.data.subarray(5), true)
    : decodeFileName(raw, (entry.generalPurposeBitFlag & 0x800) !== 0);
  const path = name.replaceAll("\\", "/");
  if (!path || path.includes("\0") || path.length > 500 || yauzl.validateFileName(path) !== null) return null;
  return path;
}

/** Symbolic links, by the Unix mode in the upper half of the external attributes. */
const isLink = (entry: Entry) => ((entry.externalFileAttributes >>> 16) & 0xf000) === 0xa000;

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

function readEntry(zip: ZipFile, entry: Entry): Promise<Outcome<Uint8Array, ArchiveFaultCode>> {
  if (entry.uncompressedSize > ARCHIVE_LIMITS.entryBytes) return Promise.resolve(no("archive-too-large"));
  return new Promise((resolve) =>
    zip.openReadStream(entry, (error, stream) => {
      if (error) return resolve(no("archive-broken", String(error.message)));
      const parts: Buffer[] = [];
      let size = 0;
      stream.on("data", (part: Buffer) => {
        size += part.length;
        // The package checks sizes too; this holds whatever it does.
        if (size > entry.uncompressedSize) {
          stream.destroy();
          resolve(no("archive-broken", "an entry unpacks to more than it states"));
        } else parts.push(part);
      });
      stream.on("end", () => resolve(succeed(new Uint8Array(Buffer.concat(parts)))));
      stream.on("error", (e: Error) => resolve(no("archive-broken", String(e.message))));
    }),
  );
}
