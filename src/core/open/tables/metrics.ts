// head, hhea, maxp, OS/2 and post: the numbers a font states about itself. OpenType 1.9.1, chapters of the same names.
import { FontFileError } from "../fontFileError";
import type { TableReader } from "../reader";

type Head = { unitsPerEm: number; macStyle: number; indexToLocFormat: number; revision: number };

/** @throws FontFileError table-damaged when unitsPerEm is outside 16–16384 or the magic number is wrong. */
export function readHead(t: TableReader): Head {
  const unitsPerEm = t.u16(18);
  if (t.u32(12) !== 0x5f0f3cf5)
    throw new FontFileError("table-damaged", "head", 12, "magic number 5f0f3cf5", t.u32(12).toString(16));
  if (unitsPerEm < 16 || unitsPerEm > 16384)
    throw new FontFileError("table-damaged", "head", 18, "16 to 16384 units per em", String(unitsPerEm));
  return { unitsPerEm, revision: t.fixed(4), macStyle: t.u16(44), indexToLocFormat: t.i16(50) };
}

export type Hhea = { ascenderFu: number; descenderFu: number; lineGapFu: number; numberOfHMetrics: number };
export const readHhea = (t: TableReader): Hhea => ({
  ascenderFu: t.i16(4),
  descenderFu: t.i16(6),
  lineGapFu: t.i16(8),
  numberOfHMetrics: t.u16(34),
});

export const readGlyphCount = (t: TableReader): number => t.u16(4);

export type Os2 = {
  usWeightClass: number;
  usWidthClass: number;
  fsType: number;
  fsSelection: number;
  vendor: string;
  xHeightFu: number | null;
  capHeightFu: number | null;
};

/** x-height and capital height are null in versions below 2 and where the table says 0. */
export function readOs2(t: TableReader): Os2 {
  const version = t.u16(0);
  const later = (offset: number) => (version >= 2 && t.length >= offset + 2 ? t.i16(offset) || null : null);
  return {
    usWeightClass: t.u16(4),
    usWidthClass: t.u16(6),
    fsType: t.u16(8),
    vendor: t.length >= 62 ? t.tag4(58).replace(/[\0 ]+$/, "") : "",
    fsSelection: t.length >= 64 ? t.u16(62) : 0,
    xHeightFu: later(86),
    capHeightFu: later(88),
  };
}

export const readPost = (t: TableReader) => ({ italicAngleDeg: t.fixed(4), isFixedPitch: t.u32(12) !== 0 });
