// Names of glyphs out of the post table, format 2.0. OpenType 1.9.1 "post".
import type { TableReader } from "../reader";

/** Names that the standard Macintosh order holds; only the first of them matters here. */
const STANDARD_NAMES = 258;
const VERSION_2 = 0x00020000;

/** @returns one entry a glyph: ".notdef", a name of its own, or null for a standard name or one cut off; empty where the table names none. */
export function readGlyphNames(t: TableReader): (string | null)[] {
  if (t.length < 34 || t.u32(0) !== VERSION_2) return [];
  const count = t.u16(32);
  const own = readPascalStrings(t, 34 + 2 * count);
  return Array.from({ length: count }, (_, glyph) => {
    const at = 34 + 2 * glyph;
    const index = at + 2 <= t.length ? t.u16(at) : null;
    if (index === null) return null;
    return index === 0 ? ".notdef" : (own[index - STANDARD_NAMES] ?? null);
  });
}

/** Strings that each begin with their length, up to the end or the first that is cut off. */
function readPascalStrings(t: TableReader, from: number): string[] {
  const out: string[] = [];
  for (let at = from; at < t.length && at + 1 + t.u8(at) <= t.length; at += 1 + t.u8(at))
    out.push(String.fromCharCode(...t.slice(at + 1, t.u8(at))));
  return out;
}
