// The letters of a face that are of no script whose letters are known one by one: such a face is one of text, and no face of pictures.
import type { OpenFace } from "../outlines/openFace";

/** Where the letters of each script begin, and how many stand there; every script of Unicode with a face among common packages. */
// oxfmt-ignore
const LETTERS_OF: readonly [from: number, count: number][] = [
  [0x0391, 17], [0x0410, 64], [0x0531, 38], [0x05d0, 27], [0x0627, 36], [0x0710, 29], [0x0780, 38], [0x07ca, 33], [0x0905, 53], [0x0985, 53], [0x0a05, 53],
  [0x0a85, 53], [0x0b05, 53], [0x0b85, 53], [0x0c05, 53], [0x0c85, 53], [0x0d05, 53], [0x0d85, 65], [0x0e01, 46], [0x0e81, 46], [0x0f40, 44], [0x1000, 42],
  [0x10a0, 38], [0x10d0, 43], [0x1100, 80], [0x1200, 80], [0x13a0, 85], [0x1401, 90], [0x1681, 26], [0x16a0, 75], [0x1701, 17], [0x1721, 17], [0x1741, 17],
  [0x1761, 17], [0x1780, 52], [0x1820, 88], [0x1900, 31], [0x1950, 30], [0x1980, 44], [0x1a00, 23], [0x1a20, 53], [0x1b05, 47], [0x1b83, 30], [0x1bc0, 38],
  [0x1c00, 36], [0x1c5a, 36], [0x2c00, 46], [0x2c80, 100], [0x2d30, 56], [0x3041, 86], [0x30a1, 90], [0x3105, 41], [0x4e00, 90], [0xa000, 90], [0xa4d0, 46],
  [0xa500, 90], [0xa6a0, 80], [0xa807, 30], [0xa840, 52], [0xa882, 50], [0xa90a, 28], [0xa930, 23], [0xa984, 47], [0xaa00, 41], [0xaa80, 48], [0xabc0, 35],
  [0xac00, 90], [0x10000, 88], [0x10280, 29], [0x102a0, 49], [0x10300, 32], [0x10330, 27], [0x10380, 30], [0x103a0, 50], [0x10400, 80], [0x10450, 48],
  [0x10480, 30], [0x10800, 55], [0x10900, 22], [0x10920, 26], [0x10a10, 35], [0x10a60, 29], [0x10b00, 54], [0x10c00, 73], [0x12000, 90], [0x13000, 90], [0x1e900, 68],
];
/** A face with fewer letters of a script has them in passing. */
const ENOUGH = 10;

/** @returns the letters of the script that it has most of, beside Latin; null where it has letters of none. */
export function lettersOfScript(face: OpenFace): string[] | null {
  let most: string[] = [];
  for (const [from, count] of LETTERS_OF) {
    const there: string[] = [];
    for (let code = from; code < from + count; code++) if (face.glyphOf(code)) there.push(String.fromCodePoint(code));
    if (there.length > most.length) most = there;
  }
  return most.length >= ENOUGH ? most : null;
}
