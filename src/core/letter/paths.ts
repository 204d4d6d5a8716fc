// The line that text stands on: a point and a direction for every length along it. Straight, arc and wave by formula; a drawn path by a
// package. Millimetres from the block's place, y down; angles in radians, clockwise.
import type { TextPath } from "@/contracts/lettering";
import { paper } from "../geometry/paperScope";

const { PI, abs, atan2, cos, hypot, sin } = Math;

/** Where a letter's middle stands and how its baseline runs there. */
export type PlaceOnPath = { xMm: number; yMm: number; turnRad: number };
export type Baseline = {
  /** Length in mm; null where it has no end. Text that is centred stands about its middle, or about the block's place. */
  lengthMm: number | null;
  /** @param alongMm - from the block's place. @param belowMm - how far below the first baseline. */
  at(alongMm: number, belowMm: number): PlaceOnPath;
};

export type PathFault = "path-unread" | "path-crosses";

const STRAIGHT: Baseline = { lengthMm: null, at: (xMm, yMm) => ({ xMm, yMm, turnRad: 0 }) };

/** @returns the baseline, or why a drawn path cannot be one. */
export function followPath(path: TextPath | undefined): Baseline | PathFault {
  if (!path) return STRAIGHT;
  const line =
    path.kind === "arc"
      ? followArc(path.radiusMm, (path.startDeg * PI) / 180)
      : path.kind === "wave"
        ? followWave(path.heightMm / 2, path.lengthMm)
        : followDrawn(path.d);
  if (typeof line === "string" || !path.isUpright) return line;
  return { ...line, at: (along, below) => ({ ...line.at(along, below), turnRad: 0 }) };
}

/** A circle walked clockwise; with a radius below zero the other way, on its inside. Lines below have circles of their own about one middle. */
function followArc(radiusMm: number, startRad: number): Baseline {
  const [xMiddle, yMiddle] = [-radiusMm * cos(startRad), -radiusMm * sin(startRad)];
  return {
    lengthMm: null,
    at(along, below) {
      // A line that would be past the middle stays on the smallest circle.
      const r = radiusMm > 0 ? Math.max(radiusMm - below, 1) : radiusMm - below;
      const angle = startRad + along / r;
      return { xMm: xMiddle + r * cos(angle), yMm: yMiddle + r * sin(angle), turnRad: angle + PI / 2 };
    },
  };
}

/** Pieces that a wave is measured in, per wave. */
const WAVE_STEPS = 256;

/** A sine that rises first. Equal lengths along it are equal lengths of text. */
function followWave(swingMm: number, lengthMm: number): Baseline {
  const y = (x: number) => -swingMm * sin((2 * PI * x) / lengthMm);
  const slope = (x: number) => ((-2 * PI * swingMm) / lengthMm) * cos((2 * PI * x) / lengthMm);
  // Length from the beginning of one wave to each step.
  const lengths = new Float64Array(WAVE_STEPS + 1);
  for (let i = 1; i <= WAVE_STEPS; i++) {
    const [from, to] = [((i - 1) * lengthMm) / WAVE_STEPS, (i * lengthMm) / WAVE_STEPS];
    lengths[i] = lengths[i - 1]! + hypot(to - from, y(to) - y(from));
  }
  const whole = lengths[WAVE_STEPS]!;
  const xAt = (along: number) => {
    const waves = Math.floor(along / whole);
    const rest = along - waves * whole;
    const i = firstAbove(lengths, rest);
    const share = (rest - lengths[i - 1]!) / (lengths[i]! - lengths[i - 1]!);
    return (waves + (i - 1 + share) / WAVE_STEPS) * lengthMm;
  };
  return {
    lengthMm: null,
    at(along, below) {
      const x = xAt(along);
      return { xMm: x, yMm: y(x) + below, turnRad: atan2(slope(x), 1) };
    },
  };
}

/** The first place of a growing list whose value is above; at least 1. */
function firstAbove(values: Float64Array, value: number): number {
  let [low, high] = [1, values.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (values[middle]! > value) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** More pieces than any hand draws: a path with more is not looked through for crossings. */
const MOST_CURVES = 400;

function followDrawn(d: string): Baseline | PathFault {
  const path = readPath(d);
  if (!path) return "path-unread";
  if (path.curves.length > MOST_CURVES) return "path-unread";
  if (path.getIntersections(path).length) return "path-crosses";
  const start = path.firstSegment.point;
  const lengthMm = path.length;
  return {
    lengthMm,
    at(along, below) {
      // Before its beginning and past its end it goes on straight.
      const onPath = Math.min(Math.max(along, 0), lengthMm);
      const [p, tangent] = [path.getPointAt(onPath), path.getTangentAt(onPath)];
      const beyond = along - onPath;
      return {
        xMm: p.x - start.x + tangent.x * beyond - tangent.y * below,
        yMm: p.y - start.y + tangent.y * beyond + tangent.x * below,
        turnRad: atan2(tangent.y, tangent.x),
      };
    },
  };
}

/** How far a smoothed stroke may lie from the hand's, in parts of its length. */
const HAND_SHARE = 0.004;
/** Shorter than this is a touch, not a stroke. */
const LEAST_STROKE_MM = 3;

/**
 * A stroke of the hand as a smooth path that begins at its own start.
 * @param points - x, y in mm, one after another. @returns SVG path data; null for what is too short.
 */
export function smoothStroke(points: readonly number[]): string | null {
  const path = new paper.Path({ insert: false });
  for (let i = 0; i < points.length; i += 2)
    path.add(new paper.Point(points[i]! - points[0]!, points[i + 1]! - points[1]!));
  if (path.length < LEAST_STROKE_MM) return null;
  // The package takes the square of the distance.
  path.simplify((HAND_SHARE * path.length) ** 2);
  const segments = path.segments.map((s) => [s.point, s.point.add(s.handleIn), s.point.add(s.handleOut)] as const);
  const write = (p: paper.Point) => `${Number(p.x.toFixed(2))} ${Number(p.y.toFixed(2))}`;
  const [first, ...rest] = segments;
  let pull = first![2];
  return `M${write(first![0])}${rest
    .map(([point, into, out]) => {
      const curve = `C${write(pull)} ${write(into)} ${write(point)}`;
      pull = out;
      return curve;
    })
    .join("")}`;
}

/** The first part of an SVG path. @returns null where it is none, or has no length. */
function readPath(d: string): paper.Path | null {
  if (!/^[\s,]*[Mm]/.test(d) || /[^\sMmLlHhVvCcSsQqTtAaZz0-9eE.,+-]/.test(d)) return null;
  let path: paper.Path | null = null;
  try {
    const all = new paper.CompoundPath({ pathData: d, insert: false });
    path = (all.children[0] as paper.Path | undefined) ?? null;
  } catch {
    return null;
  }
  const isWhole = path?.segments.every((s) =>
    [s.point, s.handleIn, s.handleOut].every((p) => Number.isFinite(p.x) && Number.isFinite(p.y)),
  );
  return path && isWhole && path.segments.length > 1 && abs(path.length) > 0.01 ? path : null;
}
