// A candidate's word in its place on the picture: the parameters, and how they are drawn. Read by fine.ts, which moves them.
import { boundsOf, type Bounds, type Polygons } from "../../geometry/outline";
import { addPolygons, type InkPicture } from "../../geometry/raster";
import { blurInkInto } from "../../picture/ink";

// Taken out of the global object once: the loops below call it millions of times.
const { max } = Math;

/** How the picture was made: blur of its edges and spread of its ink, estimated once a picture. */
export type Imaging = { blurPx: number; gain: number };

export type Part = {
  /** Index of the first character in the text without spaces, and how many it stands for. */
  first: number;
  count: number;
  glyphId: number;
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
  /** OpenType tags of the features that its glyphs were chosen by, beside the face's own rules. */
  features: string[];
  baselinePx: number;
  slope: number;
  scalePx: number;
  aspect: number;
  slant: number;
  /** How scale and slant change along the line, from its middle to either end: lettering seen from the side. */
  taper: number;
  turn: number;
  /** How the aspect changes along the line, from its middle to either end, and at both ends alike: a line that was seen from the side or goes around a thing. */
  widen: number;
  bulge: number;
  /** How much lower both ends lie than a straight baseline, em. */
  bow: number;
  /** Middle of the line and half its length, pixels. */
  middlePx: number;
  halfPx: number;
};

/** What changes at both ends alike, at a place along the line: nothing on the whole. */
export const atEnds = (u: number) => u * u - 1 / 3;

export const alongLine = (pose: Pick<Pose, "middlePx" | "halfPx">, xPx: number) => (xPx - pose.middlePx) / pose.halfPx;

/** Pixels that the baseline lies lower at a place along the line than at its left border. */
export const fallAt = (pose: Pose, xPx: number) =>
  pose.slope * xPx + pose.bow * pose.scalePx * atEnds(alongLine(pose, xPx));

/** A pose at a place along the line. */
function poseAt(pose: Pose, xPx: number): { scale: number; slant: number; aspect: number; slope: number } {
  const u = alongLine(pose, xPx);
  return {
    scale: pose.scalePx * (1 + pose.taper * u),
    slant: pose.slant + pose.turn * u,
    aspect: pose.aspect * max(0.1, 1 + pose.widen * u + pose.bulge * atEnds(u)),
    slope: pose.slope + (2 * pose.bow * pose.scalePx * u) / pose.halfPx,
  };
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

/** A word drawn: the whole (unblurred, cut at 1), and the box of each part in pixels, null where it draws nothing. */
type Drawing = InkPicture & { boxes: (Bounds | null)[] };

/** Draws the word in a pose. @param into - array of as many pixels to draw on; a new one otherwise. */
export function drawPose(
  pose: Pose,
  { widthPx, heightPx }: { widthPx: number; heightPx: number },
  into?: Float32Array,
): Drawing {
  const ink = into ?? new Float32Array(widthPx * heightPx);
  if (into) ink.fill(0);
  const picture = { widthPx, heightPx, ink };
  const boxes = pose.parts.map((part) => {
    const placed = posePolygons(pose, part);
    const box = boundsOf(placed);
    if (box) addPolygons(picture, placed, box);
    return box;
  });
  return { ...picture, boxes };
}

/** A part's polygons in pixels, y down. */
export function posePolygons(pose: Pose, part: Part): Polygons {
  const { scale: s, slant, aspect, slope } = poseAt(pose, part.atPx);
  const base = pose.baselinePx + fallAt(pose, part.atPx) + part.dyPx;
  return part.polygons.map((p) => {
    const out = new Float64Array(p.length);
    for (let i = 0; i < p.length; i += 2) {
      const y = p[i + 1]!;
      out[i] = part.atPx + s * (aspect * (p[i]! - part.centreEm) + slant * (y - 0.25));
      out[i + 1] = base - s * y + slope * s * aspect * (p[i]! - part.centreEm);
    }
    return out;
  });
}

/**
 * Blurs a drawing and spreads (or thins) its ink as the picture's maker did.
 * @param imaging - gain at most 0.25 either way: more would leave 0–1. @param out - array of as many pixels to write to; a new one otherwise.
 */
export function imageInk(
  drawn: InkPicture,
  { blurPx, gain }: Imaging,
  out: Float32Array = new Float32Array(drawn.ink.length),
): Float32Array {
  blurInkInto(drawn, blurPx, out);
  if (gain)
    for (let i = 0; i < drawn.ink.length; i++) {
      const v = out[i]!;
      out[i] = v + gain * 4 * v * (1 - v);
    }
  return out;
}

export const clonePose = (pose: Pose): Pose => ({ ...pose, parts: pose.parts.map((p) => ({ ...p })) });
