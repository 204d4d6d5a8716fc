// A print of a face by the widths and boxes of its usual characters: two files of one style have the same, whatever their format,
// names or units. Not a likeness: near relatives differ.
import { boundsOf } from "../geometry/outline";
import type { OpenFace } from "../outlines/openFace";

const CHARACTERS = [..."ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789"];
const PER_CHARACTER = 5;
/** Stands for a character that the face lacks. */
const ABSENT = -32768;
/** Tolerances in thousandths of the em: rounding between formats and units. */
const ADVANCE_TOLERANCE = 1.6;
const BOX_TOLERANCE = 4;

/** @returns Int16Array, shape [62 × 5]: advance, xMin, yMin, xMax, yMax in thousandths of the em; null with under 20 characters. */
export function fingerprintOutlines(face: OpenFace): Int16Array | null {
  const out = new Int16Array(CHARACTERS.length * PER_CHARACTER).fill(ABSENT);
  const scale = 1000 / face.unitsPerEm;
  let found = 0;
  CHARACTERS.forEach((char, i) => {
    const glyph = face.glyphOf(char.codePointAt(0)!);
    const bounds = glyph && boundsOf(face.polygons(glyph));
    if (!glyph || !bounds) return;
    found++;
    [face.advanceFu(glyph), bounds.xMin, bounds.yMin, bounds.xMax, bounds.yMax].forEach((v, k) => {
      out[i * PER_CHARACTER + k] = Math.round(Math.max(-32000, Math.min(32000, v * scale)));
    });
  });
  return found < 20 ? null : out;
}

/** Key under which prints of the same face are looked up: widths of eight letters. Rounding may part twins of different units. */
export function keyOfFingerprint(print: Int16Array): string {
  return [..."HOnoaegs"].map((c) => print[CHARACTERS.indexOf(c) * PER_CHARACTER]).join(" ");
}

/** Whether two prints are of one style. */
export function isSamePrint(a: Int16Array, b: Int16Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) {
    if ((a[i] === ABSENT) !== (b[i] === ABSENT)) return false;
    const off = Math.abs(a[i]! - b[i]!);
    if (off > (i % PER_CHARACTER ? BOX_TOLERANCE : ADVANCE_TOLERANCE)) return false;
  }
  return true;
}
