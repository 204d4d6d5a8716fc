// Tables that are written here: pairs of the old `kern` table, which the subsetter drops, names of a font that may not bear its own, and
// WOFF 1.0 around them. Sources: OpenType 1.9.1 "kern", "name"; W3C WOFF File Format 1.0.
import { zlibSync } from "fflate";
import { assembleSfnt, checksumOf, openContainer } from "../open/container";
import type { KernPairs } from "../outlines/kernTable";

/** Pairs of one subtable: its length has 16 bits. */
const PAIRS_OF_SUBTABLE = 10_900;
const KERN_HORIZONTAL = 1;

/** A `kern` table of format 0 with the pairs. @param pairs - left glyph × 65536 + right glyph → font units. */
export function writeKern(pairs: KernPairs): Uint8Array {
  const sorted = [...pairs].sort(([a], [b]) => a - b);
  const subtables: Uint8Array[] = [];
  for (let i = 0; i < sorted.length; i += PAIRS_OF_SUBTABLE)
    subtables.push(writeSubtable(sorted.slice(i, i + PAIRS_OF_SUBTABLE)));
  const head = new Uint8Array(4);
  new DataView(head.buffer).setUint16(2, subtables.length);
  return concat([head, ...subtables]);
}

function writeSubtable(pairs: readonly (readonly [number, number])[]): Uint8Array {
  const bytes = new Uint8Array(14 + 6 * pairs.length);
  const view = new DataView(bytes.buffer);
  const power = 2 ** Math.floor(Math.log2(Math.max(1, pairs.length)));
  [0, bytes.length, KERN_HORIZONTAL, pairs.length, 6 * power, Math.log2(power), 6 * (pairs.length - power)].forEach(
    (v, i) => view.setUint16(2 * i, v),
  );
  pairs.forEach(([key, value], i) => {
    view.setUint32(14 + 6 * i, key);
    view.setInt16(18 + 6 * i, value);
  });
  return bytes;
}

/** Name ids by which programs call a font. */
const CALLED = { family: [1, 16, 21], full: [3, 4, 18], file: [6, 20, 25], style: [] } as const;
const WINDOWS = { platform: 3, encoding: 1, english: 0x409 };

/**
 * The name table under another name: whatever the font is called by is the new one; copyright, licence, names of axes and features stay.
 * @param name - its bytes. @param called - the new family name.
 */
export function writeNames(name: Uint8Array, called: string): Uint8Array {
  const view = new DataView(name.buffer, name.byteOffset, name.byteLength);
  const [count, strings] = [view.getUint16(2), view.getUint16(4)];
  const given = Array.from({ length: count }, (_, i) => {
    const [platform, encoding, language, id, length, offset] = Array.from({ length: 6 }, (_x, k) =>
      view.getUint16(6 + 12 * i + 2 * k),
    ) as [number, number, number, number, number, number];
    return { platform, encoding, language, id, bytes: name.slice(strings + offset, strings + offset + length) };
  });
  const plain = called.replace(/[^A-Za-z0-9-]/g, "");
  const callings = new Map<number, string>([
    ...CALLED.family.map((id) => [id, called] as const),
    ...CALLED.full.map((id) => [id, called] as const),
    ...CALLED.file.map((id) => [id, plain] as const),
  ]);
  const records = given
    .filter((r) => r.platform === WINDOWS.platform && r.encoding === WINDOWS.encoding)
    .map((r) => (callings.has(r.id) ? { ...r, bytes: utf16(callings.get(r.id)!) } : r));
  const offsets: number[] = [];
  let at = 0;
  for (const { bytes } of records) {
    offsets.push(at);
    at += bytes.length;
  }
  const head = new Uint8Array(6 + 12 * records.length);
  const out = new DataView(head.buffer);
  out.setUint16(2, records.length);
  out.setUint16(4, head.length);
  records.forEach(({ platform, encoding, language, id, bytes }, i) =>
    [platform, encoding, language, id, bytes.length, offsets[i]!].forEach((v, k) =>
      out.setUint16(6 + 12 * i + 2 * k, v),
    ),
  );
  return concat([head, ...records.map((r) => r.bytes)]);
}

function utf16(text: string): Uint8Array {
  const bytes = new Uint8Array(2 * text.length);
  const view = new DataView(bytes.buffer);
  for (let i = 0; i < text.length; i++) view.setUint16(2 * i, text.charCodeAt(i));
  return bytes;
}

/** The font with some of its tables replaced or added. */
export async function withTables(sfnt: Uint8Array, changed: Readonly<Record<string, Uint8Array>>): Promise<Uint8Array> {
  const { tables } = await openContainer(sfnt);
  const all = new Map([...tables, ...Object.entries(changed)]);
  const flavour = new DataView(sfnt.buffer, sfnt.byteOffset).getUint32(0);
  const out = assembleSfnt(
    flavour,
    [...all].map(([tag, data]) => ({
      tag,
      data,
      checksum: checksumOf(tag === "head" ? withoutAdjustment(data) : data),
    })),
  );
  adjustWhole(out);
  return out;
}

const WHOLE = 0xb1b0afba;
const ADJUSTMENT_AT = 8;
function withoutAdjustment(head: Uint8Array): Uint8Array {
  const copy = head.slice();
  copy.fill(0, ADJUSTMENT_AT, ADJUSTMENT_AT + 4);
  return copy;
}

/** head.checkSumAdjustment makes the sum of the whole font a fixed one. */
function adjustWhole(sfnt: Uint8Array) {
  const view = new DataView(sfnt.buffer);
  for (let i = 0; i < view.getUint16(4); i++) {
    const entry = 12 + 16 * i;
    if (String.fromCharCode(...sfnt.subarray(entry, entry + 4)) !== "head") continue;
    const at = view.getUint32(entry + 8) + ADJUSTMENT_AT;
    view.setUint32(at, 0);
    view.setUint32(at, (WHOLE - checksumOf(sfnt)) >>> 0);
  }
}

/** Packs a bare font as WOFF 1.0: each table by itself, where that makes it smaller. */
export async function packWoff(sfnt: Uint8Array): Promise<Uint8Array> {
  const source = new DataView(sfnt.buffer, sfnt.byteOffset, sfnt.byteLength);
  const count = source.getUint16(4);
  const entries = Array.from({ length: count }, (_, i) => {
    const at = 12 + 16 * i;
    const [offset, length] = [source.getUint32(at + 8), source.getUint32(at + 12)];
    const data = sfnt.subarray(offset, offset + length);
    const packed = zlibSync(data, { level: 9 });
    return {
      tag: source.getUint32(at),
      checksum: source.getUint32(at + 4),
      length,
      data: packed.length < length ? packed : data,
    };
  });
  const head = new Uint8Array(44 + 20 * count);
  const view = new DataView(head.buffer);
  const padded = (bytes: number) => (bytes + 3) & ~3;
  let at = head.length;
  const unpacked = entries.reduce((sum, e) => sum + padded(e.length), 12 + 16 * count);
  entries.forEach((e, i) => {
    [e.tag, at, e.data.length, e.length, e.checksum].forEach((v, k) => view.setUint32(44 + 20 * i + 4 * k, v));
    at += padded(e.data.length);
  });
  view.setUint32(0, 0x774f4646);
  view.setUint32(4, source.getUint32(0));
  view.setUint32(8, at);
  view.setUint16(12, count);
  view.setUint32(16, unpacked);
  view.setUint16(20, 1);
  return concat([head, ...entries.flatMap((e) => [e.data, new Uint8Array(padded(e.data.length) - e.data.length)])]);
}

function concat(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
