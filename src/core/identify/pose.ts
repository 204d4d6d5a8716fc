// A candidate's word in its place on the picture: the parameters, and how they are drawn. Read by fine.ts, which moves them.
import { boundsOf, type Polygons } from "../geometry/outline";
import { fillPolygons } from "../geometry/raster";
import { blurInk } from "../picture/ink";

const { ceil, floor, max, min } = Math;

/** How the picture was made: blur of its edges and spread of its ink, estimated once a picture. */
export type Imaging = { blurPx: number; gain: number };

export type Part = {
  /** Index of the first character in the text without spaces, and how many it stands for. */
  first: number;
  count: number;
  polygons: Polygons;
  /** Centre of the glyph's box in em from its own origin; the point that scaling and slanting leave in place. */
  centreEm: number;
  penEm: number;
  /** Place of the centre in pixels, found by fitting. */
  atPx: number;
  dyPx: number;
};

/** The parameters of one candidate on one picture. */
export type Pose = {
  parts: Part[];
  baselinePx: number;
  slope: number;
  scalePx: number;
  aspect: number;
  slant: number;
  /** How scale and slant change along the line, from its middle to either end: lettering seen from the side. */
  taper: number;
  turn: number;
  /** Middle of the line and half its length, pixels. */
  middlePx: number;
  halfPx: number;
};

/** Scale and slant at a place along the line. */
export function poseAt(pose: Pose, xPx: number): { scale: number; slant: number } {
  const u = (xPx - pose.middlePx) / pose.halfPx;
  return { scale: pose.scalePx * (1 + pose.taper * u), slant: pose.slant + pose.turn * u };
}

/** The same pose over the picture drawn `by` times as large. */
export function scalePose(pose: Pose, by: number): Pose {
  return {
    ...pose,
    parts: pose.parts.map((p) => ({ ...p, atPx: p.atPx * by, dyPx: p.dyPx * by })),
    baselinePx: pose.baselinePx * by,
    scalePx: pose.scalePx * by,
    middlePx: pose.middlePx * by,
    halfPx: pose.halfPx * by,
  };
}

/** Draws the word in a pose. @returns the whole drawing (unblurred, cut at 1). */
export function drawPose(pose: Pose, size: { widthPx: number; heightPx: number }): Float32Array {
  const ink = new Float32Array(size.widthPx * size.heightPx);
  for (const part of pose.parts) {
    const placed = posePolygons(pose, part);
    const b = boundsOf(placed);
    if (!b) continue;
    const left = max(0, floor(b.xMin));
    const top = max(0, floor(b.yMin));
    const w = min(size.widthPx, ceil(b.xMax) + 1) - left;
    const h = min(size.heightPx, ceil(b.yMax) + 1) - top;
    if (w <= 0 || h <= 0) continue;
    for (const p of placed)
      for (let i = 0; i < p.length; i += 2) {
        p[i]! -= left;
        p[i + 1]! -= top;
      }
    const own = fillPolygons(placed, w, h);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const at = (y + top) * size.widthPx + x + left;
        const v = ink[at]! + own[y * w + x]!;
        ink[at] = v > 1 ? 1 : v;
      }
  }
  return ink;
}

/** A part's polygons in pixels, y down. */
export function posePolygons(pose: Pose, part: Part): Polygons {
  const { aspect } = pose;
  const { scale: s, slant } = poseAt(pose, part.atPx);
  const base = pose.baselinePx + pose.slope * part.atPx + part.dyPx;
  return part.polygons.map((p) => {
    const out = new Float64Array(p.length);
    for (let i = 0; i < p.length; i += 2) {
      const y = p[i + 1]!;
      out[i] = part.atPx + s * (aspect * (p[i]! - part.centreEm) + slant * (y - 0.25));
      out[i + 1] = base - s * y + pose.slope * s * aspect * (p[i]! - part.centreEm);
    }
    return out;
  });
}

/** Blurs a drawing and spreads (or thins) its ink as the picture's maker did. */
export function imageInk(
  ink: Float32Array,
  size: { widthPx: number; heightPx: number },
  { blurPx, gain }: Imaging,
): Float32Array {
  const out = blurInk({ ...size, ink }, blurPx);
  if (gain)
    for (let i = 0; i < out.length; i++) {
      const v = out[i]!;
      const w = v + gain * 4 * v * (1 - v);
      out[i] = w < 0 ? 0 : w > 1 ? 1 : w;
    }
  return out;
}

export const clonePose = (pose: Pose): Pose => ({ ...pose, parts: pose.parts.map((p) => ({ ...p })) });
