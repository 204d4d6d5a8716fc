// Ways in which any file goes wrong, by accident and on purpose: shared by what damages fonts and what damages pictures.
import { seededRandom } from "../src/core/geometry/numbers";

export type Random = () => number;
export type Mutation = (bytes: Uint8Array, random: Random) => Uint8Array;
export const int = (random: Random, below: number) => Math.floor(random() * below);

/** A few bits turned over. */
export const flipBits =
  (most: number): Mutation =>
  (b, r) => {
    for (let i = 0; i < 1 + int(r, most); i++) b[int(r, b.length)]! ^= 1 << int(r, 8);
    return b;
  };

/** A stretch of noise. */
export const putNoise =
  (most: number): Mutation =>
  (b, r) => {
    const at = int(r, b.length);
    for (let i = at; i < Math.min(b.length, at + 1 + int(r, most)); i++) b[i] = int(r, 256);
    return b;
  };

export const cutShort: Mutation = (b, r) => b.slice(0, int(r, b.length));

/** A 16-bit count or offset at its extremes. @param within - how far into the file it may stand. */
export function putExtreme(b: Uint8Array, r: Random, within: number) {
  const at = int(r, within);
  const value = [0, 0xffff, 0x7fff, 0x8000, 1][int(r, 5)]!;
  b[at] = value >> 8;
  b[at + 1] = value & 255;
}

/** One to three mutations of one of the bases: the same number gives the same bytes. */
export function mutate(bases: readonly Uint8Array[], mutations: readonly Mutation[], number: number): Uint8Array {
  const random = seededRandom(number);
  let bytes: Uint8Array = bases[int(random, bases.length)]!.slice();
  for (let i = 0; i < 1 + int(random, 3) && bytes.length > 8; i++)
    bytes = mutations[int(random, mutations.length)]!(bytes, random);
  return bytes;
}
