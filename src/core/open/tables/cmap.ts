// Which characters reach which glyphs. OpenType 1.9.1 "cmap", formats 0, 4, 6 and 12.
import { FontFileError } from "../fontFileError";
import type { TableReader } from "../reader";

/** Code point → glyph id; glyph 0 is left out. `unicode` is false where only a symbol or legacy mapping exists. */
export type CharacterMap = { map: Map<number, number>; unicode: boolean; symbol: boolean };

/** @throws FontFileError table-damaged, unsupported-format when no subtable can be read. */
export function readCmap(t: TableReader): CharacterMap {
  const count = t.u16(2);
  const found = Array.from({ length: count }, (_, i) => {
    const at = 4 + i * 8;
    return { platform: t.u16(at), encoding: t.u16(at + 2), offset: t.u32(at + 4) };
  }).map((s) => ({ ...s, rank: rankOf(s.platform, s.encoding) }));
  found.sort((a, b) => b.rank - a.rank);
  for (const sub of found) {
    const map = readSubtable(t, sub.offset);
    if (!map) continue;
    const symbol = sub.platform === 3 && sub.encoding === 0;
    if (symbol)
      for (const [c, g] of [...map]) if (c >= 0xf020 && c <= 0xf0ff && !map.has(c - 0xf000)) map.set(c - 0xf000, g);
    return { map, unicode: sub.rank >= 3, symbol };
  }
  throw new FontFileError(
    "unsupported-format",
    "cmap",
    0,
    "a character map of format 0, 4, 6 or 12",
    `${count} others`,
  );
}

function rankOf(platform: number, encoding: number): number {
  if ((platform === 3 && encoding === 10) || (platform === 0 && encoding >= 4 && encoding !== 5)) return 5;
  if (platform === 3 && encoding === 1) return 4;
  if (platform === 0 && encoding !== 5) return 3;
  if (platform === 3 && encoding === 0) return 2;
  return platform === 1 ? 1 : 0;
}

/** More than Unicode holds: a damaged table could name the same characters forever. */
const MAX_CHARACTERS = 0x110000;

function readSubtable(t: TableReader, base: number): Map<number, number> | null {
  const map = new Map<number, number>();
  let steps = 0;
  const put = (c: number, g: number) => {
    if (++steps > MAX_CHARACTERS)
      throw new FontFileError("table-damaged", "cmap", base, "each character once", "the same ones again and again");
    if (g) map.set(c, g);
  };
  const format = t.u16(base);
  if (format === 0) for (let c = 0; c < 256; c++) put(c, t.u8(base + 6 + c));
  else if (format === 4) readFormat4(t, base, put);
  else if (format === 6) {
    const first = t.u16(base + 6);
    const n = t.u16(base + 8);
    for (let i = 0; i < n; i++) put(first + i, t.u16(base + 10 + 2 * i));
  } else if (format === 12) {
    const groups = t.u32(base + 12);
    for (let i = 0; i < groups; i++) {
      const at = base + 16 + i * 12;
      const [start, end, glyph] = [t.u32(at), t.u32(at + 4), t.u32(at + 8)];
      if (end > 0x10ffff || end < start)
        throw new FontFileError("table-damaged", "cmap", at, "a group inside Unicode", `${start} to ${end}`);
      for (let c = start; c <= end; c++) put(c, glyph + c - start);
    }
  } else return null;
  return map;
}

function readFormat4(t: TableReader, base: number, put: (c: number, g: number) => void) {
  const segments = t.u16(base + 6) / 2;
  const [ends, starts] = [base + 14, base + 16 + 2 * segments];
  const [deltas, offsets] = [starts + 2 * segments, starts + 4 * segments];
  for (let i = 0; i < segments; i++) {
    const [end, start, delta, offset] = [ends, starts, deltas, offsets].map((a) => t.u16(a + 2 * i)) as [
      number,
      number,
      number,
      number,
    ];
    for (let c = start; c <= end && c < 0xffff; c++) {
      if (!offset) {
        put(c, (c + delta) & 0xffff);
        continue;
      }
      const at = offsets + 2 * i + offset + 2 * (c - start);
      if (at + 2 > t.length) break;
      const glyph = t.u16(at);
      if (glyph) put(c, (glyph + delta) & 0xffff);
    }
  }
}
