// From any font file to its tables: sniffs the format, unpacks WOFF and WOFF2, reads the table directory.
// Sources: OpenType 1.9.1 "Organization of an OpenType font"; WOFF 1.0; WOFF2 (unpacked by a package).
import { unzlibSync } from "fflate";
import { decompress } from "woff2-encoder";
import type { Fault } from "@/contracts/traits";
import { FontFileError } from "./fontFileError";
import { TableReader } from "./reader";

export type FontFormat = "ttf" | "otf" | "woff" | "woff2" | "ttc";

/** Greatest unpacked size of one font. */
export const MAX_FONT_BYTES = 48 * 1024 * 1024;

/** Tells the format by the first four bytes; null when they belong to none. */
export function sniffFormat(bytes: Uint8Array): FontFormat | null {
  if (bytes.length < 4) return null;
  const tag = String.fromCharCode(bytes[0]!, bytes[1]!, bytes[2]!, bytes[3]!);
  if (tag === "wOFF") return "woff";
  if (tag === "wOF2") return "woff2";
  if (tag === "OTTO") return "otf";
  if (tag === "true" || tag === "\0\u0001\0\0") return "ttf";
  if (tag === "ttcf") return "ttc";
  return null;
}

type Container = {
  format: FontFormat;
  /** The bare font: table directory and tables, as the shaper reads it. */
  sfnt: Uint8Array;
  tables: Map<string, Uint8Array>;
  faults: Fault[];
};

/**
 * Opens the container of one font file.
 * @throws FontFileError: empty-file, not-a-font, unsupported-format, decompression-failed, file-truncated, too-large.
 */
export async function openContainer(bytes: Uint8Array): Promise<Container> {
  if (!bytes.length) throw new FontFileError("empty-file", "file", 0, "a font", "no bytes");
  const format = sniffFormat(bytes);
  if (!format) throw new FontFileError("not-a-font", "file", 0, "a font signature", describeStart(bytes));
  if (format === "ttc")
    throw new FontFileError(
      "unsupported-format",
      "file",
      0,
      "a single font (see splitCollection)",
      "a font collection",
    );
  const sfnt = format === "woff" ? unpackWoff(bytes) : format === "woff2" ? await unpackWoff2(bytes) : bytes;
  const { tables, faults } = readDirectory(sfnt);
  const outlines = tables.has("CFF ") || tables.has("CFF2") ? "otf" : "ttf";
  return { format: format === "ttf" || format === "otf" ? outlines : format, sfnt, tables, faults };
}

const describeStart = (bytes: Uint8Array) =>
  [...bytes.subarray(0, 4)].map((b) => b.toString(16).padStart(2, "0")).join(" ");

async function unpackWoff2(bytes: Uint8Array): Promise<Uint8Array> {
  const reader = new TableReader("file", bytes);
  if (bytes.length < 48) throw new FontFileError("file-truncated", "file", bytes.length, "a WOFF2 header", "the end");
  const length = reader.u32(8);
  if (length > bytes.length)
    throw new FontFileError("file-truncated", "file", bytes.length, `${length} bytes`, `${bytes.length} bytes`);
  if (reader.u32(16) > MAX_FONT_BYTES)
    throw new FontFileError("too-large", "file", 16, `at most ${MAX_FONT_BYTES} bytes`, `${reader.u32(16)}`);
  try {
    // A copy: the package keeps hold of the buffer it is given.
    return new Uint8Array(await decompress(bytes.slice()));
  } catch (cause) {
    throw new FontFileError(
      "decompression-failed",
      "file",
      48,
      "WOFF2 data",
      String((cause as Error)?.message ?? cause),
    );
  }
}

function unpackWoff(bytes: Uint8Array): Uint8Array {
  const file = new TableReader("file", bytes);
  if (bytes.length < 44) throw new FontFileError("file-truncated", "file", bytes.length, "a WOFF header", "the end");
  if (file.u32(8) > bytes.length)
    throw new FontFileError("file-truncated", "file", bytes.length, `${file.u32(8)} bytes`, `${bytes.length} bytes`);
  const count = file.u16(12);
  const parts: { tag: string; data: Uint8Array; checksum: number }[] = [];
  let total = 0;
  for (let i = 0; i < count; i++) {
    const at = 44 + i * 20;
    const [offset, packed, size] = [file.u32(at + 4), file.u32(at + 8), file.u32(at + 12)];
    total += size;
    if (total > MAX_FONT_BYTES)
      throw new FontFileError("too-large", "file", at, `at most ${MAX_FONT_BYTES}`, `${total}`);
    const raw = file.slice(offset, packed);
    let data = raw;
    if (packed < size)
      try {
        data = unzlibSync(raw, { out: new Uint8Array(size) });
      } catch (cause) {
        throw new FontFileError("decompression-failed", file.tag4(at), offset, "zlib data", String(cause));
      }
    parts.push({ tag: file.tag4(at), data, checksum: file.u32(at + 16) });
  }
  return assembleSfnt(file.u32(4), parts);
}

/** Writes tables behind a directory. @param flavour - sfnt version, 0x00010000 or "OTTO". */
export function assembleSfnt(
  flavour: number,
  parts: { tag: string; data: Uint8Array; checksum: number }[],
): Uint8Array {
  const sorted = [...parts].sort((a, b) => (a.tag < b.tag ? -1 : 1));
  let at = 12 + 16 * sorted.length;
  const places = sorted.map((p) => {
    const place = at;
    at += (p.data.length + 3) & ~3;
    return place;
  });
  const out = new Uint8Array(at);
  const view = new DataView(out.buffer);
  const power = 2 ** Math.floor(Math.log2(Math.max(1, sorted.length)));
  view.setUint32(0, flavour);
  view.setUint16(4, sorted.length);
  view.setUint16(6, power * 16);
  view.setUint16(8, Math.log2(power));
  view.setUint16(10, sorted.length * 16 - power * 16);
  sorted.forEach((p, i) => {
    const entry = 12 + 16 * i;
    for (let k = 0; k < 4; k++) out[entry + k] = p.tag.charCodeAt(k);
    view.setUint32(entry + 4, p.checksum);
    view.setUint32(entry + 8, places[i]!);
    view.setUint32(entry + 12, p.data.length);
    out.set(p.data, places[i]);
  });
  return out;
}

function readDirectory(sfnt: Uint8Array): { tables: Map<string, Uint8Array>; faults: Fault[] } {
  const file = new TableReader("file", sfnt);
  if (sfnt.length < 12) throw new FontFileError("file-truncated", "file", sfnt.length, "a table directory", "the end");
  const count = file.u16(4);
  if (12 + count * 16 > sfnt.length)
    throw new FontFileError("file-truncated", "file", sfnt.length, `${count} table entries`, "the end");
  const tables = new Map<string, Uint8Array>();
  const faults: Fault[] = [];
  const places: { tag: string; offset: number; end: number }[] = [];
  for (let i = 0; i < count; i++) {
    const at = 12 + i * 16;
    const tag = file.tag4(at);
    const [offset, length] = [file.u32(at + 8), file.u32(at + 12)];
    if (offset + length > sfnt.length)
      throw new FontFileError("file-truncated", tag, offset, `${length} bytes`, `${Math.max(0, sfnt.length - offset)}`);
    const data = sfnt.subarray(offset, offset + length);
    if (tag !== "head" && checksumOf(data) !== file.u32(at + 4))
      faults.push({
        code: "checksum",
        table: tag,
        meaning: "The table's checksum does not match: it was changed after the font was made.",
      });
    if (tables.has(tag))
      faults.push({
        code: "table-twice",
        table: tag,
        meaning: "The table is listed twice: programs read different ones.",
      });
    tables.set(tag, data);
    places.push({ tag, offset, end: offset + length });
  }
  noteOverlaps(places, faults);
  return { tables, faults };
}

/** Tables that share bytes: whoever saves the font again damages one of them. Two tags for the very same bytes are allowed. */
function noteOverlaps(places: { tag: string; offset: number; end: number }[], faults: Fault[]) {
  const sorted = [...places].filter((p) => p.end > p.offset).sort((a, b) => a.offset - b.offset);
  for (let i = 1; i < sorted.length; i++) {
    const [a, b] = [sorted[i - 1]!, sorted[i]!];
    if (b.offset < a.end && !(a.offset === b.offset && a.end === b.end))
      faults.push({
        code: "tables-overlap",
        table: b.tag,
        meaning: `The tables ${a.tag} and ${b.tag} share bytes: saving the font again may damage one of them.`,
      });
  }
}

/** Fonts in one collection are split at most so often. */
const MAX_MEMBERS = 64;

/**
 * Splits a font collection into single fonts, each with its own table directory.
 * @throws FontFileError file-truncated, table-damaged, too-large.
 */
export function splitCollection(bytes: Uint8Array): Uint8Array[] {
  const file = new TableReader("file", bytes);
  if (bytes.length < 16)
    throw new FontFileError("file-truncated", "file", bytes.length, "a collection header", "the end");
  const count = file.u32(8);
  if (!count || count > MAX_MEMBERS)
    throw new FontFileError("table-damaged", "file", 8, `1 to ${MAX_MEMBERS} fonts`, String(count));
  if (12 + 4 * count > bytes.length)
    throw new FontFileError("file-truncated", "file", bytes.length, `${count} font offsets`, "the end");
  let total = 0;
  return Array.from({ length: count }, (_, k) => {
    const start = file.u32(12 + 4 * k);
    if (start + 12 > bytes.length)
      throw new FontFileError("file-truncated", "file", start, "a table directory", `the end at ${bytes.length}`);
    const tables = file.u16(start + 4);
    if (start + 12 + 16 * tables > bytes.length)
      throw new FontFileError("file-truncated", "file", start, `${tables} table entries`, "the end");
    const parts = Array.from({ length: tables }, (_, i) => {
      const at = start + 12 + 16 * i;
      const [offset, length] = [file.u32(at + 8), file.u32(at + 12)];
      if (offset + length > bytes.length)
        throw new FontFileError("file-truncated", file.tag4(at), offset, `${length} bytes`, "the end");
      total += length;
      if (total > MAX_FONT_BYTES * 4)
        throw new FontFileError("too-large", "file", at, `at most ${MAX_FONT_BYTES * 4}`, String(total));
      return { tag: file.tag4(at), data: bytes.subarray(offset, offset + length), checksum: file.u32(at + 4) };
    });
    return assembleSfnt(file.u32(start), parts);
  });
}

/** Sum of the table's 32-bit words, modulo 2^32, padded with zeros. */
export function checksumOf(data: Uint8Array): number {
  let sum = 0;
  const whole = data.length & ~3;
  for (let i = 0; i < whole; i += 4)
    sum = (sum + ((data[i]! << 24) | (data[i + 1]! << 16) | (data[i + 2]! << 8) | data[i + 3]!)) >>> 0;
  let rest = 0;
  for (let i = whole; i < data.length; i++) rest |= data[i]! << (24 - 8 * (i - whole));
  return (sum + rest) >>> 0;
}
