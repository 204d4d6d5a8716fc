// Fonts that are meant to hurt: sound enough to be read, made so that what is done with them later takes forever.
import { assembleSfnt, openContainer } from "../../src/core/open/container";

type Part = { tag: string; data: Uint8Array; checksum: number };
/** A font with tables put in the place of its own. */
export async function withTables(font: Uint8Array, tables: Record<string, Uint8Array>): Promise<Uint8Array> {
  const { sfnt, tables: own } = await openContainer(font);
  const parts: Part[] = [...new Map([...own, ...Object.entries(tables)])].map(([tag, data]) => ({
    tag,
    data,
    checksum: 0,
  }));
  return assembleSfnt(new DataView(sfnt.buffer, sfnt.byteOffset).getUint32(0), parts);
}

class Writer {
  private readonly bytes: number[] = [];
  u16(...values: number[]) {
    for (const v of values) this.bytes.push((v >> 8) & 255, v & 255);
    return this;
  }
  u32(...values: number[]) {
    for (const v of values) this.u16((v >>> 16) & 0xffff, v & 0xffff);
    return this;
  }
  tag(text: string) {
    for (const c of text) this.bytes.push(c.charCodeAt(0));
    return this;
  }
  put(other: Uint8Array) {
    for (const b of other) this.bytes.push(b);
    return this;
  }
  done = () => Uint8Array.from(this.bytes);
}

/** A cmap (format 12) that maps so many characters to one glyph, as fallback fonts do. */
export function cmapOfMany(count: number, glyph = 1): Uint8Array {
  const groups = Math.min(count, 60_000);
  const out = new Writer()
    .u16(0, 1, 3, 10)
    .u32(12)
    .u16(12, 0)
    .u32(16 + 12 * groups, 0, groups);
  for (let i = 0; i < groups; i++) out.u32(0x20 + i, 0x20 + i, glyph);
  return out.done();
}

/** A GSUB in which each of so many features turns every letter into times^depth glyphs. */
export function gsubThatMultiplies(features: number, glyphs: number, times = 8, depth = 5): Uint8Array {
  const tags = Array.from({ length: features }, (_, i) => `ss${String(i + 1).padStart(2, "0")}`);
  const script = new Writer().u16(1).tag("DFLT").u16(8, 4, 0, 0, 0xffff, features);
  tags.forEach((_, i) => script.u16(i));
  const featureTable = new Writer().u16(4 * 0, depth);
  for (let i = 0; i < depth; i++) featureTable.u16(i);
  const one = featureTable.done();
  const featureList = new Writer().u16(features);
  tags.forEach((tag, i) => featureList.tag(tag).u16(2 + 6 * features + i * one.length));
  tags.forEach(() => featureList.put(one));
  const sequence = 2 + 2 * times;
  const coverageAt = 6 + 2 * glyphs + sequence * glyphs;
  const subtable = new Writer().u16(1, coverageAt, glyphs);
  for (let g = 0; g < glyphs; g++) subtable.u16(6 + 2 * glyphs + sequence * g);
  for (let g = 0; g < glyphs; g++) subtable.u16(times, ...Array.from({ length: times }, () => g + 1));
  subtable.u16(1, glyphs, ...Array.from({ length: glyphs }, (_, g) => g + 1));
  const lookup = new Writer().u16(2, 0, 1, 8).put(subtable.done()).done();
  const lookups = new Writer().u16(depth);
  for (let i = 0; i < depth; i++) lookups.u16(2 + 2 * depth + i * lookup.length);
  for (let i = 0; i < depth; i++) lookups.put(lookup);
  const [a, b, c] = [script.done(), featureList.done(), lookups.done()];
  return new Writer()
    .u16(1, 0, 10, 10 + a.length, 10 + a.length + b.length)
    .put(a)
    .put(b)
    .put(c)
    .done();
}

/** COLR (version 0) and CPAL: one glyph of two coloured layers. */
export const colourTables = (): Record<string, Uint8Array> => ({
  COLR: new Writer().u16(0, 1).u32(14, 20).u16(2, 5, 0, 2, 5, 0, 6, 1).done(),
  CPAL: new Writer().u16(0, 2, 1, 2).u32(14).u16(0).u32(0xff431aa8, 0xff746b1c).done(),
});
