// Ink as a net sees it that was fitted to spoilt pictures of lettering: letters of paint, light, relief or print, on whatever they stand.
import type { InkPicture } from "../geometry/raster";
import { inkBetween, mainColours, nearestColour } from "./colours";
import { blurInk, type RgbaPicture } from "./ink";
import { dropSpecks, type Piece } from "./pieces";
import { sharpenInk } from "./sharpenInk";
import { findSlopeDeg, readInk, sampleArea, spanOf, turnInk, type CutBox } from "./straighten";

// Taken out of the global object once: the loops below call them millions of times.
const { ceil, floor, max, min, round, sqrt } = Math;

/** A net over red, green and blue of 0–1, shape [3, height, width], sides multiples of 32. @returns coverage 0–1, shape [height, width]. */
export type InkNet = (planes: Float32Array, widthPx: number, heightPx: number) => Promise<Float32Array>;

/** Heights of letters that the net sees best, and pixels that it is shown at most. */
const LETTER_PX = 46;
const MOST_PX = 230_000;
/** For a first look: the height of a framed line, and the longest side of a whole picture. */
const FIRST_HEIGHT_PX = 96;
const FIRST_LONGEST_PX = 576;
/** A second look is worth it where letters are this much larger or smaller than is best. */
const OFF = 1.3;
/** A band of letters is shown with this much of its height above and below. */
const AROUND = 0.4;
const SIDE = 32;

/** Ink of a part of a picture: `part` in pixels of that picture. */
type SeenInk = InkPicture & { part: CutBox };

/**
 * The ink of a picture, as large as the net sees it best: looked at as a whole, then again where letters stand.
 * @returns null where it sees no lettering.
 */
export async function seeInk(picture: RgbaPicture, net: InkNet): Promise<SeenInk | null> {
  const { widthPx, heightPx } = picture;
  const whole = { left: 0, top: 0, right: widthPx, bottom: heightPx };
  const scale = min(
    2,
    max(FIRST_HEIGHT_PX / heightPx, min(1, FIRST_LONGEST_PX / max(widthPx, heightPx))),
    sqrt(MOST_PX / (widthPx * heightPx)),
  );
  const first = await look(picture, whole, scale, net);
  const band = bandOf(first);
  if (!band) return null;
  const wanted = min(2, (scale * LETTER_PX) / band.heightPx);
  if (wanted < OFF * scale && wanted * OFF > scale) return first;
  const pad = (AROUND * band.heightPx) / scale;
  const part = {
    left: max(0, band.left / scale - pad),
    top: max(0, band.top / scale - pad),
    right: min(widthPx, band.right / scale + pad),
    bottom: min(heightPx, band.bottom / scale + pad),
  };
  const area = (part.right - part.left) * (part.bottom - part.top);
  const second = await look(picture, part, min(wanted, sqrt(MOST_PX / area)), net);
  return bandOf(second) ? second : first;
}

async function look(picture: RgbaPicture, part: CutBox, scale: number, net: InkNet): Promise<SeenInk> {
  const [w, h] = [max(4, round((part.right - part.left) * scale)), max(4, round((part.bottom - part.top) * scale))];
  const small = sampleArea(picture, part, w, h);
  const [fullW, fullH] = [ceil(w / SIDE) * SIDE, ceil(h / SIDE) * SIDE];
  const n = fullW * fullH;
  const planes = new Float32Array(3 * n);
  // What lies beyond the picture is as its border.
  for (let y = 0; y < fullH; y++)
    for (let x = 0; x < fullW; x++) {
      const from = 4 * (min(y, h - 1) * w + min(x, w - 1));
      for (let c = 0; c < 3; c++) planes[c * n + y * fullW + x] = small.rgba[from + c]! / 255;
    }
  const seen = await net(planes, fullW, fullH);
  const ink = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      // Doubt is no ink, and what is likely is all ink: edges stay soft.
      const v = (seen[y * fullW + x]! - FLOOR) / (CEILING - FLOOR);
      ink[y * w + x] = max(0, min(1, v));
    }
  return { widthPx: w, heightPx: h, ink, part };
}
const FLOOR = 0.22;
const CEILING = 0.78;

/** Where most ink stands, in the picture as it is, and how high its letters are; null without any. */
function bandOf(seen: InkPicture): (CutBox & { heightPx: number }) | null {
  const { pieces } = dropSpecks(seen);
  if (!pieces.length) return null;
  const slopeDeg = findSlopeDeg(seen);
  const level = slopeDeg ? dropSpecks(turnInk(seen, slopeDeg, 1)).pieces : pieces;
  const heights = level.flatMap((p) => (weightOf(p) ? [p.bottom - p.top] : [])).sort((a, b) => a - b);
  const heightPx = heights[Math.floor(heights.length * 0.75)] ?? 0;
  return heightPx < 4 ? null : { ...spanOf(pieces), heightPx };
}
const weightOf = (p: Piece) => (p.right - p.left) * (p.bottom - p.top) > 12;

/** What was seen of a part of the picture that was looked at, in that part's pixels. @param at - its corner in that picture. */
export function cutSeen(
  { widthPx, heightPx, ink, part }: SeenInk,
  at: { x: number; y: number },
  size: Pick<RgbaPicture, "widthPx" | "heightPx">,
): SeenInk {
  const moved = { left: part.left - at.x, top: part.top - at.y, right: part.right - at.x, bottom: part.bottom - at.y };
  const [across, down] = [(moved.right - moved.left) / widthPx, (moved.bottom - moved.top) / heightPx];
  const own = ink.map((v, i) => {
    const x = moved.left + ((i % widthPx) + 0.5) * across;
    const y = moved.top + (floor(i / widthPx) + 0.5) * down;
    return x < 0 || y < 0 || x > size.widthPx || y > size.heightPx ? 0 : v;
  });
  return { widthPx, heightPx, ink: own, part: moved };
}

/** What was seen, with the picture's own edges. @param rough - the same as `drawSeen` gives it for `whole`. */
export function inkByEdges(
  seen: SeenInk,
  rough: Float32Array,
  whole: RgbaPicture,
  widthOfPicturePx: number,
): InkPicture | null {
  const band = bandOf(seen);
  if (!band) return null;
  const perSeen = (seen.part.right - seen.part.left) / seen.widthPx / (widthOfPicturePx / whole.widthPx);
  return sharpenInk(whole, rough, band.heightPx * perSeen);
}

/** What was seen, at the places of the pixels of the whole picture in another size; nothing where it was not looked at. */
export function drawSeen({ part, ...seen }: SeenInk, whole: RgbaPicture, widthOfPicturePx: number): Float32Array {
  const by = widthOfPicturePx / whole.widthPx;
  const [across, down] = [seen.widthPx / (part.right - part.left), seen.heightPx / (part.bottom - part.top)];
  const ink = new Float32Array(whole.widthPx * whole.heightPx);
  for (let y = 0, i = 0; y < whole.heightPx; y++)
    for (let x = 0; x < whole.widthPx; x++, i++)
      ink[i] = readInk(seen, ((x + 0.5) * by - part.left) * across, ((y + 0.5) * by - part.top) * down);
  return ink;
}

/**
 * Ink of the colours that are mostly ink where a net sees it: its edges are the picture's own.
 * @param ink - what was seen, as `drawSeen` gives it for `whole`. @param whole - the picture that was looked at, as large as its ink is wanted.
 * @returns null where colours do not part ink from the rest.
 */
export function inkByVote(ink: Float32Array, whole: RgbaPicture): InkPicture | null {
  const colours = mainColours(whole);
  const votes = colours.map(() => ({ ink: 0, all: 0 }));
  const step = max(1, floor((ink.length / VOTERS) ** 0.5));
  for (let y = 0; y < whole.heightPx; y += step)
    for (let x = 0; x < whole.widthPx; x += step) {
      const i = y * whole.widthPx + x;
      const vote = votes[nearestColour(colours, whole.rgba, i)];
      if (!vote) continue;
      vote.ink += ink[i]!;
      vote.all++;
    }
  const isInk = votes.map((v) => v.ink > MAJORITY * v.all);
  const letters = colours.filter((_, k) => isInk[k]);
  const ground = colours.filter((_, k) => !isInk[k]);
  if (!letters.length || !ground.length) return null;
  const by = inkBetween(whole, letters, ground);
  // Far from what was seen, what has the same colour is something else.
  const { widthPx, heightPx } = whole;
  const near = blurInk({ widthPx, heightPx, ink }, NEAR_PX);
  return { widthPx, heightPx, ink: by.map((v, i) => v * min(1, NEAR_GAIN * near[i]!)) };
}
const VOTERS = 20_000;
const MAJORITY = 0.5;
const NEAR_PX = 3;
const NEAR_GAIN = 6;
