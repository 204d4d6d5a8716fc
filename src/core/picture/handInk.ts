// Ink as a person has told it: whether it is the dark or the light, what colours it has and has not, what was painted in and rubbed out.
import type { InkPicture } from "../geometry/raster";
import { distances, inkOfColours, labOf, soften, type Lab } from "./colours";
import { findInk, otsu, type FoundInk, type RgbaPicture } from "./ink";
import { fillOutlines } from "./inks";
import type { Point } from "./straighten";

// Taken out of the global object once: the loops below call them millions of times.
const { ceil, floor, hypot, max, min } = Math;

/** A stroke of a brush; pixels of the picture. */
export type BrushStroke = { rubsOut: boolean; radiusPx: number; points: readonly Point[] };
export type HandInk = {
  /** What of the picture the letters are; colours that were picked go before it. */
  letters: "found" | "dark" | "light" | "outlines";
  /** Places that show a colour of the letters, and places that show another one; pixels of the picture. */
  letterAt: readonly Point[];
  groundAt: readonly Point[];
  strokes: readonly BrushStroke[];
};

/** Pixels around a picked place that give its colour. */
const PICK_REACH_PX = 2;

/** The colours at the picked places of a picture. */
export const pickColours = (picture: RgbaPicture, { letterAt, groundAt }: HandInk) => ({
  letters: letterAt.map((p) => colourAt(picture, p)),
  ground: groundAt.map((p) => colourAt(picture, p)),
});
type PickedColours = ReturnType<typeof pickColours>;

/**
 * @param colours - as picked from the picture before it was framed. @param strokes - of the same size as `framed`, or null.
 * @returns null where there is nothing of the kind.
 */
export function takeInk(
  framed: RgbaPicture,
  { letters }: HandInk,
  colours: PickedColours,
  strokes: RgbaPicture | null,
): FoundInk | null {
  const found = findInk(framed, letters === "dark" || letters === "light" ? letters : undefined);
  const ink = colours.letters.length
    ? inkOfColours(framed, colours)
    : colours.ground.length && found
      ? withoutColours(framed, found.ink, colours.ground)
      : letters === "outlines"
        ? found && fillOutlines(found)?.ink
        : found?.ink;
  if (!ink && !strokes) return null;
  const { widthPx, heightPx } = framed;
  const own = ink ? Float32Array.from(ink) : new Float32Array(widthPx * heightPx);
  if (strokes)
    for (let i = 0; i < own.length; i++)
      own[i] = max(own[i]!, strokes.rgba[4 * i]! / 255) * (1 - strokes.rgba[4 * i + 1]! / 255);
  const rest = found ?? { contrast: 1, noisy: false, residual: new Float32Array(3 * own.length) };
  return { ...rest, widthPx, heightPx, ink: own };
}

function withoutColours(framed: RgbaPicture, ink: Float32Array, ground: readonly Lab[]): Float32Array {
  const far = distances(framed, ground);
  const limit = otsu(far);
  return ink.map((v, i) => min(v, soften(far[i]! / max(1e-3, 2 * limit))));
}

function colourAt({ widthPx, heightPx, rgba }: RgbaPicture, { x, y }: Point): Lab {
  const [cx, cy] = [min(widthPx - 1, max(0, floor(x))), min(heightPx - 1, max(0, floor(y)))];
  const channels: [number[], number[], number[]] = [[], [], []];
  for (let j = max(0, cy - PICK_REACH_PX); j <= min(heightPx - 1, cy + PICK_REACH_PX); j++)
    for (let i = max(0, cx - PICK_REACH_PX); i <= min(widthPx - 1, cx + PICK_REACH_PX); i++)
      channels.forEach((list, c) => list.push(rgba[4 * (j * widthPx + i) + c]!));
  const middle = (list: number[]) => list.sort((p, q) => p - q)[list.length >> 1]!;
  return labOf(middle(channels[0]), middle(channels[1]), middle(channels[2]));
}

/** Strokes as a picture of their own, to be framed like the other: painted in stands in red, rubbed out in green; the later wins. */
export function drawStrokes(
  strokes: readonly BrushStroke[],
  { widthPx, heightPx }: Pick<InkPicture, "widthPx" | "heightPx">,
): RgbaPicture {
  const picture = { widthPx, heightPx, rgba: new Uint8Array(4 * widthPx * heightPx) };
  for (const stroke of strokes)
    stroke.points.forEach((to, i) => drawStretch(picture, stroke, stroke.points[max(0, i - 1)]!, to));
  return picture;
}

/** What lies within the brush's radius of the way from one point to the next. */
function drawStretch({ widthPx: w, heightPx: h, rgba }: RgbaPicture, brush: BrushStroke, from: Point, to: Point) {
  const { radiusPx, rubsOut } = brush;
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const square = dx * dx + dy * dy || 1;
  const [own, other] = rubsOut ? [1, 0] : [0, 1];
  for (let y = max(0, floor(min(from.y, to.y) - radiusPx)); y < min(h, ceil(max(from.y, to.y) + radiusPx)); y++)
    for (let x = max(0, floor(min(from.x, to.x) - radiusPx)); x < min(w, ceil(max(from.x, to.x) + radiusPx)); x++) {
      const [px, py] = [x + 0.5 - from.x, y + 0.5 - from.y];
      const t = min(1, max(0, (px * dx + py * dy) / square));
      if (hypot(px - t * dx, py - t * dy) > radiusPx) continue;
      rgba[4 * (y * w + x) + own] = 255;
      rgba[4 * (y * w + x) + other] = 0;
    }
}
