// Small statistics used by all that measures.

// Taken out of the global object once: the loops below call them millions of times.
const { ceil, floor } = Math;

/** Middle value of a list (mean of the two middle ones), null when empty. The list is not changed. */
export function median(values: readonly number[]): number | null {
  return quantile(values, 0.5);
}

/** Value below which a share of the list lies (0–1), interpolated; null when empty. */
export function quantile(values: readonly number[], share: number): number | null {
  if (!values.length) return null;
  const sorted = [...values].sort((a, b) => a - b);
  const at = share * (sorted.length - 1);
  const low = floor(at);
  const high = ceil(at);
  return sorted[low]! + (sorted[high]! - sorted[low]!) * (at - low);
}

export const mean = (values: readonly number[]) =>
  values.length ? values.reduce((a, b) => a + b, 0) / values.length : null;

export const clamp = (value: number, low: number, high: number) => (value < low ? low : value > high ? high : value);

/** Piecewise straight line through [x, y] points with ascending x; flat beyond the ends. */
export function interpolate(points: readonly (readonly [number, number])[], x: number): number {
  const first = points[0]!;
  if (x <= first[0]) return first[1];
  for (let i = 1; i < points.length; i++) {
    const [x1, y1] = points[i]!;
    const [x0, y0] = points[i - 1]!;
    if (x <= x1) return y0 + ((x - x0) / (x1 - x0)) * (y1 - y0);
  }
  return points[points.length - 1]![1];
}

const { imul } = Math;
/** Numbers in [0, 1) that look random and are the same for the same seed. Source: mulberry32 (public domain). */
export function seededRandom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = imul(state ^ (state >>> 15), 1 | state);
    t = (t + imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
