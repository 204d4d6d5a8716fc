// Frames of a motion as pictures: outlines laid out at a moment, drawn where there is ink, laid on the ground. Faces and shapes that were
// used last are kept for the next frames of the same motion.
import { LRUCache } from "lru-cache";
import sharp from "sharp";
import type { Block, LetteringDocument } from "@/contracts/lettering";
import type { Motion } from "@/contracts/motion";
import { channelsOf } from "@/core/motion/valueAt";
import { drawFrame, newFrameMemory, type Frame, type FrameMemory } from "@/core/motion/drawFrame";
import { joinMovingParts } from "@/core/outlines/joinParts";
import { openMovingFace, type MovingFace } from "@/core/outlines/openFace";
import { findRegion, writeFrameSvg, type Region } from "@/core/write/motion/frameSvg";
import { readStored } from "../db/fileStore";

/** Style id → the digests of its bare fonts, the main part first. */
export type MotionFonts = Record<string, string[]>;
export type AboutMotion = {
  document: LetteringDocument;
  motion: Motion;
  fonts: MotionFonts;
  widthPx: number;
  heightPx: number;
  /** null: nothing lies behind the letters. */
  ground: string | null;
};
/** Red, green, blue, alpha of a part of a frame, row by row; the rest is empty. */
export type Picture = { region: Region; rgba: Uint8Array };

const MAX_FACES = 24;
const opened = new LRUCache<string, MovingFace>({ max: MAX_FACES });

function openMoving(sfnts: readonly string[]): MovingFace {
  const key = sfnts.join();
  let moving = opened.get(key);
  if (!moving) {
    moving = joinMovingParts(sfnts.map((sha256) => openMovingFace(readStored(sha256))));
    opened.set(key, moving);
  }
  return moving;
}

/** The motion that was drawn last: what was worked out for it serves its other frames, also in a later question. */
let last: { about: AboutMotion; key: string; memory: FrameMemory; document: LetteringDocument; motion: Motion } | null =
  null;

function open(about: AboutMotion) {
  if (last?.about === about) return last;
  const { document, motion, fonts } = about;
  const key = JSON.stringify([document, motion, fonts]);
  return (last = last?.key === key ? { ...last, about } : { about, key, document, motion, memory: newFrameMemory() });
}

/** @throws Error where a block cannot be laid out: that is found before a motion is begun. */
export function frameAt(about: AboutMotion, timeMs: number): Frame {
  const { document, motion, memory } = open(about);
  const faceOf = ({ styleId }: Block) => openMoving(about.fonts[styleId] ?? []);
  const frame = drawFrame(document, motion, timeMs, faceOf, memory);
  if (!frame.ok) throw new Error(`block ${frame.blockId}: ${frame.code}`);
  return frame;
}

/** @returns what is drawn at a time, without its ground; null where nothing is. */
export async function drawInk(about: AboutMotion, timeMs: number): Promise<Picture | null> {
  const { sheet } = about.document;
  const frame = frameAt(about, timeMs);
  const size = { sheet, widthPx: about.widthPx, heightPx: about.heightPx };
  const region = findRegion(frame, size);
  if (!region) return null;
  const svg = writeFrameSvg(frame, size, region);
  const drawn = sharp(Buffer.from(svg), { density: 72, unlimited: true, limitInputPixels: false });
  const { data, info } = await drawn.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  if (info.width !== region.width || info.height !== region.height || info.channels !== 4)
    throw new Error(`a frame came out as ${info.width} × ${info.height} × ${info.channels}`);
  return { region, rgba: new Uint8Array(data.buffer, data.byteOffset, data.length) };
}

/** A whole frame: ink on its ground, or on nothing. @returns red, green, blue, alpha, row by row. */
export async function drawWhole(about: AboutMotion, timeMs: number): Promise<Uint8Array> {
  const { widthPx, heightPx, ground } = about;
  const whole = new Uint8Array(widthPx * heightPx * 4);
  const under = ground ? channelsOf(ground) : null;
  if (under) new Uint32Array(whole.buffer).fill(new Uint32Array(Uint8Array.from(under).buffer)[0]!);
  const ink = await drawInk(about, timeMs);
  if (ink) layOn(whole, widthPx, ink, under);
  return whole;
}

function layOn(whole: Uint8Array, widthPx: number, { region, rgba }: Picture, under: readonly number[] | null) {
  const { left, top, width, height } = region;
  for (let y = 0; y < height; y++) {
    const from = y * width * 4;
    const to = ((top + y) * widthPx + left) * 4;
    if (!under) {
      whole.set(rgba.subarray(from, from + width * 4), to);
      continue;
    }
    for (let i = 0; i < width * 4; i += 4) blend(whole, to + i, rgba, from + i, under);
  }
}

/** One pixel over a ground of one colour. */
function blend(whole: Uint8Array, to: number, rgba: Uint8Array, from: number, under: readonly number[]) {
  const alpha = rgba[from + 3]! / 255;
  if (alpha === 0) return;
  const below = (under[3]! / 255) * (1 - alpha);
  const all = alpha + below;
  for (let c = 0; c < 3; c++) whole[to + c] = Math.round((rgba[from + c]! * alpha + under[c]! * below) / all);
  whole[to + 3] = Math.round(all * 255);
}

export const writePng = async (rgba: Uint8Array, width: number, height: number): Promise<Uint8Array> => {
  const png = sharp(rgba, { raw: { width, height, channels: 4 } }).png({
    compressionLevel: 3,
    adaptiveFiltering: false,
  });
  return new Uint8Array(await png.toBuffer());
};
