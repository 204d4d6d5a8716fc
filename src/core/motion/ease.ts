// How far a value has come on its way from one key to the next. Cubic Bézier curves as CSS Easing Functions Level 1 has them.
import type { Ease } from "@/contracts/poses";

type Curve = readonly [x1: number, y1: number, x2: number, y2: number];
const NAMED: Record<"in" | "out" | "in-out", Curve> = {
  in: [0.42, 0, 1, 1],
  out: [0, 0, 0.58, 1],
  "in-out": [0.42, 0, 0.58, 1],
};

/** The curve of an easing; null where it is a step. */
export function curveOf(ease: Ease): Curve | null {
  if (ease === "hold") return null;
  if (ease === "linear") return [0, 0, 1, 1];
  return typeof ease === "string" ? NAMED[ease] : ease;
}

const NEAR = 1e-9;
const STEPS = 60;

/** @param share - of the time, 0–1. @returns share of the way; below 0 or above 1 where a curve swings over. */
export function easeAt(ease: Ease, share: number): number {
  if (share <= 0) return 0;
  if (share >= 1) return 1;
  const curve = curveOf(ease);
  if (!curve) return 0;
  const [x1, y1, x2, y2] = curve;
  if (x1 === y1 && x2 === y2) return share;
  return bezier(y1, y2, findParameter(x1, x2, share));
}

const bezier = (a: number, b: number, t: number) => {
  const u = 1 - t;
  return 3 * u * u * t * a + 3 * u * t * t * b + t * t * t;
};

/** Where on the curve its x is as asked: x never turns back, so halving finds it; Newton's steps first, they are few. */
function findParameter(x1: number, x2: number, x: number): number {
  let t = x;
  for (let i = 0; i < 8; i++) {
    const off = bezier(x1, x2, t) - x;
    if (Math.abs(off) < NEAR) return t;
    const u = 1 - t;
    const slope = 3 * u * u * x1 + 6 * u * t * (x2 - x1) + 3 * t * t * (1 - x2);
    if (slope < 1e-6) break;
    t -= off / slope;
  }
  let [low, high] = [0, 1];
  t = x;
  for (let i = 0; i < STEPS; i++) {
    const off = bezier(x1, x2, t) - x;
    if (Math.abs(off) < NEAR) break;
    if (off > 0) high = t;
    else low = t;
    t = (low + high) / 2;
  }
  return t;
}
