import { describe, expect, test } from "@jest/globals";
import type { RgbaPicture } from "./ink";
import { sharpenInk } from "./sharpenInk";

const [W, H] = [80, 40];
type Colour = readonly [number, number, number];
const isLetter = (x: number, y: number) => y > 8 && y < 32 && x % 20 > 6 && x % 20 < 13;

/** Four strokes; the ground and the ink of each column are given. */
function strokes(ground: (x: number) => Colour, ink: (x: number) => Colour): RgbaPicture {
  const rgba = new Uint8Array(4 * W * H);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) rgba.set([...(isLetter(x, y) ? ink(x) : ground(x)), 255], 4 * (y * W + x));
  return { widthPx: W, heightPx: H, rgba };
}

/** The strokes as a net may see them: two pixels wider all around and in doubt. */
const rough = Float32Array.from({ length: W * H }, (_, i) => {
  const [x, y] = [i % W, Math.floor(i / W)];
  if (isLetter(x, y)) return 0.85;
  return [-2, 2].some((d) => isLetter(x + d, y) || isLetter(x, y + d)) ? 0.45 : 0;
});

function offOf(ink: Float32Array): number {
  let off = 0;
  for (let i = 0; i < ink.length; i++) off += Math.abs(ink[i]! - Number(isLetter(i % W, Math.floor(i / W))));
  return off / ink.reduce((sum, _, i) => sum + Number(isLetter(i % W, Math.floor(i / W))), 0);
}

describe("ink made sharp", () => {
  test.each<[string, (x: number) => Colour, (x: number) => Colour]>([
    ["white on blue", () => [30, 50, 120], () => [240, 240, 235]],
    ["on a ground that grows lighter than the ink", (x) => [60 + 2 * x, 50 + 2 * x, 40], () => [140, 30, 150]],
    ["each stroke in a colour of its own", () => [120, 120, 120], (x) => (x < 40 ? [230, 60, 40] : [20, 40, 160])],
  ])("%s: its edges are the picture's", (_, ground, ink) => {
    const sharp = sharpenInk(strokes(ground, ink), rough, 24);
    expect(offOf(rough)).toBeGreaterThan(0.4);
    expect(offOf(sharp.ink)).toBeLessThan(0.15);
  });

  test("ink of the colour of its ground stays as it was known", () => {
    const same = sharpenInk(strokes(() => [90, 80, 70], () => [91, 80, 70]), rough, 24); // oxfmt-ignore
    expect(Math.abs(offOf(same.ink) - offOf(rough))).toBeLessThan(0.1);
  });

  test("what has the colour of ink far from it is none", () => {
    const picture = strokes(() => [20, 20, 20], () => [220, 220, 220]); // oxfmt-ignore
    for (let x = 0; x < W; x++) picture.rgba.set([220, 220, 220], 4 * x);
    const { ink } = sharpenInk(picture, rough, 24);
    expect(Math.max(...ink.subarray(0, W))).toBe(0);
  });
});
