// Kerning by the old `kern` table, for fonts whose GPOS has none. The shaper's build leaves it out; browsers and hb-shape apply it.
// Source: OpenType 1.9.1 "kern" (format 0), Apple's version 1.0 of the table (format 0); how a value is shared between the two glyphs
// follows HarfBuzz (hb-kern.hh).

/** Pair → value in font units; pairs that do not kern are absent. Key: left × 65536 + right. */
export type KernPairs = ReadonlyMap<number, number>;

/** Pairs read from one table: more are made to tire. */
const MAX_PAIRS = 200_000;

/**
 * Reads the horizontal pairs of a `kern` table.
 * @param table - its bytes; not modified. What is cut off or of another format is left out.
 * @returns null when no pair kerns.
 */
export function readKernPairs(table: Uint8Array): KernPairs | null {
  const view = new DataView(table.buffer, table.byteOffset, table.byteLength);
  if (view.byteLength < 8) return null;
  const pairs = new Map<number, number>();
  // Version 0 has 16-bit headers; Apple's 1.0 (0x00010000) has 32-bit ones.
  const isApple = view.getUint16(0) === 1;
  const count = isApple ? view.getUint32(4) : view.getUint16(2);
  const headerBytes = isApple ? 8 : 6;
  let at = isApple ? 8 : 4;
  for (let i = 0; i < count && at + headerBytes + 8 <= view.byteLength; i++) {
    const length = isApple ? view.getUint32(at) : view.getUint16(at + 2);
    const coverage = view.getUint16(at + 4);
    // Version 0: horizontal, no minimum, no cross-stream, format in the high byte. Apple: vertical, cross-stream and variation bits.
    const isPlain = isApple ? (coverage & 0xe0ff) === 0 : (coverage & 0xff07) === 1;
    const replaces = !isApple && (coverage & 0x8) !== 0;
    if (isPlain) readFormat0(view, at + headerBytes, pairs, replaces);
    // Tables with more than 10,920 pairs do not fit their 16-bit length: the last subtable goes to the end.
    at += length > headerBytes ? length : view.byteLength;
  }
  for (const [key, value] of pairs) if (!value) pairs.delete(key);
  return pairs.size ? pairs : null;
}

function readFormat0(view: DataView, at: number, pairs: Map<number, number>, replaces: boolean) {
  const count = Math.min(view.getUint16(at), MAX_PAIRS);
  for (let i = 0; i < count; i++) {
    const entry = at + 8 + 6 * i;
    if (entry + 6 > view.byteLength) return;
    const key = view.getUint32(entry);
    const value = view.getInt16(entry + 4);
    pairs.set(key, replaces ? value : (pairs.get(key) ?? 0) + value);
  }
}

/**
 * Applies pairs to a run from left to right. A value is shared: the first half narrows the left glyph, the other moves and narrows the
 * right one.
 * @param glyphs - modified: `advanceFu` and `xFu`.
 */
export function applyKernPairs(glyphs: { glyphId: number; xFu: number; advanceFu: number }[], pairs: KernPairs) {
  let shiftFu = 0;
  for (let i = 0; i < glyphs.length; i++) {
    const glyph = glyphs[i]!;
    const before = i > 0 ? (pairs.get(glyphs[i - 1]!.glyphId * 65_536 + glyph.glyphId) ?? 0) : 0;
    const after = i + 1 < glyphs.length ? (pairs.get(glyph.glyphId * 65_536 + glyphs[i + 1]!.glyphId) ?? 0) : 0;
    const [ownOfBefore, ownOfAfter] = [before - (before >> 1), after >> 1];
    glyph.xFu += shiftFu + ownOfBefore;
    glyph.advanceFu += ownOfBefore + ownOfAfter;
    shiftFu += ownOfBefore + ownOfAfter;
  }
}
