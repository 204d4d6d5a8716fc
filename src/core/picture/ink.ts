// From colours to ink: what is lettering and what is background, as soft coverage. Handles either polarity and uneven light.
import type { InkPicture } from "../geometry/raster";
import { mainDirection, solveLinear } from "../geometry/linear";
import { clamp, median, quantile } from "../geometry/numbers";

// Taken out of the global object once: the loops below call them millions of times.
const { abs, ceil, exp, max, min, pow, sqrt } = Math;

/** 8-bit RGBA, row-major from the top left, 4 bytes a pixel. */
export type RgbaPicture = { widthPx: number; heightPx: number; rgba: Uint8Array };

/** Ink with what was left of the colours when the background was removed: [r, g, b] a pixel. */
export type FoundInk = InkPicture & { contrast: number; noisy: boolean; residual: Float32Array };

const TERMS = 6;

/**
 * Finds the ink of a picture.
 * @param wanted - whether it is the dark or the light; told by its amount when left out: there is less of it than of paper.
 * @returns coverage 0–1 and `contrast`, the distance between ink and background in noise widths; null when nothing stands out.
 */
export function findInk(picture: RgbaPicture, wanted?: "dark" | "light"): FoundInk | null {
  const { widthPx, heightPx, rgba } = picture;
  const n = widthPx * heightPx;
  const residual = subtractBackground(picture);
  const direction = mainDirection(residual, n);
  const value = new Float32Array(n);
  for (let i = 0; i < n; i++)
    value[i] =
      residual[3 * i]! * direction[0] + residual[3 * i + 1]! * direction[1] + residual[3 * i + 2]! * direction[2];
  const isTurned = wanted ? sum3(direction) < 0 !== (wanted === "dark") : skewness(value) < 0;
  if (isTurned) for (let i = 0; i < n; i++) value[i] = -value[i]!;
  const rough = otsu(value);
  const noise = noiseOf(value, rough);
  const inkLevel = levelOfInk(value, rough);
  const paperLevel = levelOfPaper(value, rough);
  const span = inkLevel - paperLevel;
  if (!(span > 6) || span < 3 * noise) return null;
  const noisy = noise > 0.05 * span;
  const calm = noisy ? blurInk({ widthPx, heightPx, ink: value }, 0.8) : value;
  const floor = clamp((2.2 * noise) / span, 0.02, 0.22);
  const ink = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    const v = (calm[i]! - paperLevel) / span;
    ink[i] = v < floor ? 0 : v > 1 ? 1 : v;
  }
  if (rgba.length < 4 * n) return null;
  return { widthPx, heightPx, ink, contrast: span / max(noise, 0.5), noisy, residual };
}

/** Fits 1, x, y, x², xy, y² to each channel, three rounds, leaving out what lies far off. @returns [r, g, b] residuals. */
function subtractBackground({ widthPx, heightPx, rgba }: RgbaPicture): Float32Array {
  const n = widthPx * heightPx;
  const out = new Float32Array(3 * n);
  const step = max(1, Math.floor(sqrt(n / 1600)));
  const terms = (x: number, y: number): number[] => {
    const u = (2 * x) / widthPx - 1;
    const v = (2 * y) / heightPx - 1;
    return [1, u, v, u * u, u * v, v * v];
  };
  for (let c = 0; c < 3; c++) {
    let fit: number[] | null = null;
    let reach = Infinity;
    for (let round = 0; round < 5; round++) {
      const a = Array.from({ length: TERMS }, () => new Array<number>(TERMS + 1).fill(0));
      const off: number[] = [];
      const border: Border | null = fit ? null : lookAtBorder(rgba, widthPx, heightPx, c);
      for (let y = 0; y < heightPx; y += step)
        for (let x = 0; x < widthPx; x += step) {
          const t = terms(x, y);
          const value = rgba[4 * (y * widthPx + x) + c]!;
          const guess = fit ? dot(fit, t) : border!.level;
          const d = abs(value - guess);
          off.push(d);
          if (d > reach) continue;
          for (let i = 0; i < TERMS; i++) {
            for (let j = 0; j < TERMS; j++) a[i]![j]! += t[i]! * t[j]!;
            a[i]![TERMS]! += t[i]! * value;
          }
        }
      if (round === 0) {
        // First look: what lies near the border's typical value is background. As far off as most of the border is, not more: heavy
        // letters may cover half of the picture.
        reach = max(12, min(2.5 * (median(off) ?? 12), BORDER_REACH * border!.spread));
        fit = [border!.level, 0, 0, 0, 0, 0];
        continue;
      }
      for (let i = 0; i < TERMS; i++) a[i]![i]! += 1e-3 * (i ? off.length : 0.01) * 0.02;
      fit = solveLinear(a) ?? fit;
      reach = max(8, 2.5 * (median(off.filter((d) => d <= reach)) ?? 8));
    }
    const [f0, f1, f2, f3, f4, f5] = fit as [number, number, number, number, number, number];
    for (let y = 0; y < heightPx; y++) {
      const v = (2 * y) / heightPx - 1;
      const row = f0 + f2 * v + f5 * v * v;
      const slope = f1 + f4 * v;
      for (let x = 0; x < widthPx; x++) {
        const i = y * widthPx + x;
        const u = (2 * x) / widthPx - 1;
        out[3 * i + c] = rgba[4 * i + c]! - row - u * (slope + f3 * u);
      }
    }
  }
  return out;
}

/** Typical value of the pixels near the border, and how far off three of four of them are. */
type Border = { level: number; spread: number };

function lookAtBorder(rgba: Uint8Array, w: number, h: number, c: number): Border {
  const seen: number[] = [];
  // Not the outermost rows alone: a picture cut from a screen may have a line of something else around it.
  const by = max(2, Math.round(0.02 * min(w, h)));
  for (const inset of [0, by, 2 * by]) {
    const [right, bottom] = [w - 1 - inset, h - 1 - inset];
    for (let x = inset; x <= right; x++) seen.push(rgba[4 * (inset * w + x) + c]!, rgba[4 * (bottom * w + x) + c]!);
    for (let y = inset; y <= bottom; y++) seen.push(rgba[4 * (y * w + inset) + c]!, rgba[4 * (y * w + right) + c]!);
  }
  const level = median(seen)!;
  const off = seen.map((v) => abs(v - level));
  return { level, spread: quantile(off, 0.75)! };
}
const BORDER_REACH = 1.6;

const sum3 = (v: readonly [number, number, number]) => v[0] + v[1] + v[2];
const dot = (a: readonly number[], b: readonly number[]) => a.reduce((s, v, i) => s + v * b[i]!, 0);

function skewness(v: Float32Array): number {
  let m = 0;
  for (const x of v) m += x;
  m /= v.length;
  let s2 = 0;
  let s3 = 0;
  for (const x of v) {
    const d = x - m;
    s2 += d * d;
    s3 += d * d * d;
  }
  return s3 / pow(s2 / v.length || 1, 1.5) / v.length;
}

/** Threshold that parts the values best in two (Otsu 1979), on 256 steps between the extremes. */
export function otsu(v: Float32Array): number {
  let low = Infinity;
  let high = -Infinity;
  for (const x of v) {
    if (x < low) low = x;
    if (x > high) high = x;
  }
  const bins = new Float64Array(256);
  const scale = 255 / (high - low || 1);
  for (const x of v) bins[Math.round((x - low) * scale)]!++;
  let sum = 0;
  for (let i = 0; i < 256; i++) sum += i * bins[i]!;
  let below = 0;
  let sumBelow = 0;
  let best = -1;
  let first = 0;
  let last = 0;
  for (let i = 0; i < 255; i++) {
    below += bins[i]!;
    sumBelow += i * bins[i]!;
    const above = v.length - below;
    if (!below || !above) continue;
    const d = sumBelow / below - (sum - sumBelow) / above;
    const between = below * above * d * d;
    if (between > best * (1 + 1e-9)) {
      best = between;
      first = i;
    }
    if (between >= best * (1 - 1e-9)) last = i;
  }
  return low + ((first + last) / 2 + 0.5) / scale;
}

function noiseOf(v: Float32Array, threshold: number): number {
  const step = max(1, Math.floor(v.length / 3000));
  const paper: number[] = [];
  for (let i = 0; i < v.length; i += step) if (v[i]! < threshold) paper.push(v[i]!);
  const m = median(paper) ?? 0;
  return 1.48 * (median(paper.map((x) => abs(x - m))) ?? 0);
}

function levelOfPaper(v: Float32Array, threshold: number): number {
  const step = max(1, Math.floor(v.length / 3000));
  const seen: number[] = [];
  for (let i = 0; i < v.length; i += step) if (v[i]! < threshold) seen.push(v[i]!);
  return median(seen) ?? 0;
}

/** Level of full ink: the upper quarter of what is above the threshold, so that blurred edges do not count. */
function levelOfInk(v: Float32Array, threshold: number): number {
  const step = max(1, Math.floor(v.length / 60000));
  const seen: number[] = [];
  for (let i = 0; i < v.length; i += step) if (v[i]! >= threshold) seen.push(v[i]!);
  const sorted = Float32Array.from(seen).sort();
  return sorted[Math.floor(sorted.length * 0.78)] ?? 0;
}

/**
 * Gaussian blur. @param sigmaPx - 0 returns a copy.
 * Pixels nearer to the border than 2.6 sigma stay as they are: strips have a margin of paper there.
 */
export function blurInk(picture: InkPicture, sigmaPx: number): Float32Array {
  return blurInkInto(picture, sigmaPx, new Float32Array(picture.ink.length));
}

/** Between the two passes of a blur. */
let half = new Float32Array(0);

/** The same into an array of at least as many pixels, which is returned. */
export function blurInkInto(
  { widthPx: w, heightPx: h, ink }: InkPicture,
  sigmaPx: number,
  out: Float32Array,
): Float32Array {
  if (sigmaPx < 0.05) {
    out.set(ink);
    return out;
  }
  const reach = min(max(1, ceil(2.6 * sigmaPx)), Math.floor((min(w, h) - 1) / 2));
  const kernel = Float32Array.from({ length: reach + 1 }, (_, k) => exp((-k * k) / (2 * sigmaPx * sigmaPx)));
  const total = kernel.reduce((sum, k, i) => sum + (i ? 2 * k : k), 0);
  for (let k = 0; k <= reach; k++) kernel[k]! /= total;
  const n = w * h;
  if (half.length < n) half = new Float32Array(n);
  weigh(ink, half, n, kernel, 1);
  // Along the rows the first and last columns took in the row above or below: they stay unblurred.
  for (let y = 0; y < h; y++)
    for (let k = 0; k < reach; k++) {
      half[y * w + k] = ink[y * w + k]!;
      half[y * w + w - 1 - k] = ink[y * w + w - 1 - k]!;
    }
  weigh(half, out, n, kernel, w);
  return out;
}

/** Sum of values at distance 0, far, 2·far … weighted by the kernel; the first and last stretches stay as they are. */
function weigh(values: Float32Array, out: Float32Array, n: number, kernel: Float32Array, far: number) {
  const reach = kernel.length - 1;
  const edge = reach * far;
  const last = n - edge;
  for (let at = 0; at < edge; at++) out[at] = values[at]!;
  for (let at = max(edge, last); at < n; at++) out[at] = values[at]!;
  const [k0, k1, k2 = 0, k3 = 0] = kernel as unknown as [number, number, number?, number?];
  // Short kernels in one pass: drawings are blurred some hundred times a picture.
  if (reach === 1)
    for (let at = edge; at < last; at++) out[at] = k0 * values[at]! + k1 * (values[at - far]! + values[at + far]!);
  else {
    const two = 2 * far;
    const three = min(3, reach) * far;
    for (let at = edge; at < last; at++)
      out[at] =
        k0 * values[at]! +
        k1 * (values[at - far]! + values[at + far]!) +
        k2 * (values[at - two]! + values[at + two]!) +
        k3 * (values[at - three]! + values[at + three]!);
  }
  for (let k = 4; k <= reach; k++) {
    const weight = kernel[k]!;
    const off = k * far;
    for (let at = edge; at < last; at++) out[at] = out[at]! + weight * (values[at - off]! + values[at + off]!);
  }
}
