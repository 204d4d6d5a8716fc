// Contrast of letters against what lies behind them, over the whole time (WCAG 2.2, 1.4.3: contrast ratio of relative luminances).
import { linearLight } from "../geometry/light";
import { channelsOf } from "./valueAt";

/** Letters of one colour at a moment, how strongly they show, and the ground that was found under them: red, green, blue, 0–255. */
export type ContrastMoment = {
  timeMs: number;
  colour: string;
  opacity: number;
  ground: Uint8ClampedArray | readonly number[];
};
export type LowestContrast = { ratio: number; timeMs: number };

/** Letters fainter than this are coming or going: nobody reads them yet. */
export const READ_FROM = 0.5;
/** The part of the ground that may be worse: single pixels say nothing. */
const WORST_SHARE = 0.05;

const luminanceOf = (r: number, g: number, b: number) =>
  0.2126 * linearLight(r) + 0.7152 * linearLight(g) + 0.0722 * linearLight(b);
const ratioOf = (a: number, b: number) => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

/** The ratio at a moment: of what is seen of the letters against the ground around them, the worst twentieth of it left out. */
export function contrastAt({ colour, opacity, ground }: ContrastMoment): number | null {
  const [r, g, b, alpha] = channelsOf(colour);
  const strength = opacity * (alpha / 255);
  const ratios: number[] = [];
  for (let i = 0; i + 2 < ground.length; i += 3) {
    const [x, y, z] = [ground[i]!, ground[i + 1]!, ground[i + 2]!];
    const seen = luminanceOf(x + (r - x) * strength, y + (g - y) * strength, z + (b - z) * strength);
    ratios.push(ratioOf(seen, luminanceOf(x, y, z)));
  }
  if (!ratios.length) return null;
  ratios.sort((p, q) => p - q);
  return ratios[Math.min(ratios.length - 1, Math.floor(ratios.length * WORST_SHARE))]!;
}

/** @returns the lowest moment of those in which letters can be read; null where there is none. */
export function lowestContrast(moments: readonly ContrastMoment[]): LowestContrast | null {
  let lowest: LowestContrast | null = null;
  for (const moment of moments) {
    if (moment.opacity < READ_FROM) continue;
    const ratio = contrastAt(moment);
    if (ratio !== null && (!lowest || ratio < lowest.ratio)) lowest = { ratio, timeMs: moment.timeMs };
  }
  return lowest;
}
