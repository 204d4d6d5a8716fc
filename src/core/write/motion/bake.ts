// Frames → what of them changes: per group of letters its place, turn, scale, opacity, colours and outlines as keys, those left out that lie
// on the straight way between their neighbours.
import type { Outline } from "../../geometry/outline";
import type { Paint, PaintedPart } from "../../letter/paintLettering";
import type { Frame, FrameGroup } from "../../motion/drawFrame";

/** Frame number and value. */
export type BakedKey<T> = { frame: number; value: T };
export type Numbers = BakedKey<number>[];
export type BakedPart = {
  role: PaintedPart["role"];
  blurMm: number;
  paint: BakedKey<Paint>[];
  outline: BakedKey<Outline>[];
  /** All outlines have the same points, so that one becomes the other. */
  isMorph: boolean;
};
export type BakedGroup = {
  name: string;
  first: FrameGroup;
  groups: readonly FrameGroup[];
  xMm: Numbers;
  yMm: Numbers;
  scale: Numbers;
  turnDeg: Numbers;
  opacity: Numbers;
  clip: BakedKey<Float64Array>[] | null;
  parts: BakedPart[];
};

/** Deviations that nobody sees: mm on sheets of some hundred mm, shares, degrees. */
const NEAR = { mm: 0.01, scale: 0.0005, deg: 0.02, opacity: 0.002 };

/** @param frames - of one motion, in order; groups of one name are the same letters. */
export function bakeFrames(frames: readonly Frame[]): BakedGroup[] {
  return frames[0]!.groups.map(({ name }, i) => {
    const groups = frames.map(
      (f) => (f.groups[i]?.name === name ? f.groups[i] : f.groups.find((g) => g.name === name))!,
    );
    return bakeGroup(name, groups);
  });
}

function bakeGroup(name: string, groups: readonly FrameGroup[]): BakedGroup {
  const scales = groups.map(({ by }) => Math.hypot(by.a, by.b));
  const first = groups[0]!;
  return {
    ...{ name, first, groups },
    xMm: thin(
      groups.map((g) => g.by.e),
      NEAR.mm,
    ),
    yMm: thin(
      groups.map((g) => g.by.f),
      NEAR.mm,
    ),
    scale: thin(scales, NEAR.scale),
    turnDeg: thin(turnsOf(groups, scales), NEAR.deg),
    opacity: thin(
      groups.map((g) => g.opacity),
      NEAR.opacity,
    ),
    clip:
      first.clip &&
      steps(
        groups.map((g) => g.clip!),
        isSame,
      ),
    parts: first.parts.map((part, k) =>
      bakePart(
        part,
        groups.map((g) => g.parts[k] ?? part),
      ),
    ),
  };
}

function bakePart({ role, blurMm, outline }: PaintedPart, parts: readonly PaintedPart[]): BakedPart {
  const isMorph = parts.every((p) => p.outline.verbs === outline.verbs);
  const outlines = parts.map((p) => p.outline);
  return {
    ...{ role, blurMm, isMorph },
    paint: steps(
      parts.map((p) => p.paint),
      (a, b) => JSON.stringify(a) === JSON.stringify(b),
    ),
    outline: steps(outlines, (a, b) => a === b || (a.verbs === b.verbs && isSame(a.coords, b.coords))),
  };
}

const isSame = (a: Float64Array, b: Float64Array) => a === b || a.every((v, i) => Math.abs(v - b[i]!) < 1e-6);

/** Angles that go on from one another, however often they turn; what has no size keeps the angle before. */
function turnsOf(groups: readonly FrameGroup[], scales: readonly number[]): number[] {
  let before = 0;
  return groups.map(({ by }, i) => {
    if (scales[i]! < 1e-9) return before;
    const own = (Math.atan2(by.b, by.a) * 180) / Math.PI;
    before = own + 360 * Math.round((before - own) / 360);
    return before;
  });
}

/** Keys such that straight ways between them come as near as is asked. */
export function thin(values: readonly number[], near: number): Numbers {
  const last = values.length - 1;
  const kept = new Set([0, last]);
  const stretches: [number, number][] = [[0, last]];
  while (stretches.length) {
    const [from, to] = stretches.pop()!;
    let [worst, at] = [near, -1];
    for (let i = from + 1; i < to; i++) {
      const straight = values[from]! + ((values[to]! - values[from]!) * (i - from)) / (to - from);
      const off = Math.abs(values[i]! - straight);
      if (off > worst) [worst, at] = [off, i];
    }
    if (at < 0) continue;
    kept.add(at);
    stretches.push([from, at], [at, to]);
  }
  const keys = [...kept].sort((a, b) => a - b).map((frame) => ({ frame, value: values[frame]! }));
  return keys.length === 2 && keys[0]!.value === keys[1]!.value ? [keys[0]!] : keys;
}

/** The first and last of every run of same values: a value holds in between. */
function steps<T>(values: readonly T[], isSameValue: (a: T, b: T) => boolean): BakedKey<T>[] {
  const keys = values.flatMap((value, frame): BakedKey<T>[] => {
    const [before, after] = [values[frame - 1], values[frame + 1]];
    const isInside =
      before !== undefined && after !== undefined && isSameValue(before, value) && isSameValue(value, after);
    return isInside ? [] : [{ frame, value }];
  });
  return keys.every((k) => isSameValue(k.value, keys[0]!.value)) ? [keys[0]!] : keys;
}

/** A value at a frame, straight between keys. */
export function numberAt(keys: Numbers, frame: number): number {
  const next = keys.findIndex((k) => k.frame > frame);
  if (next <= 0) return keys[next === 0 ? 0 : keys.length - 1]!.value;
  const [a, b] = [keys[next - 1]!, keys[next]!];
  return a.value + ((b.value - a.value) * (frame - a.frame)) / (b.frame - a.frame);
}
