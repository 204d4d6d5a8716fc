// Worker entry: a motion in stretches of frames, each written to a file of its own, and those files put together. A stretch that is there
// already is not made again, so that a motion goes on where it was broken off.
import { createWriteStream, existsSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { once } from "node:events";
import { deserialize, serialize } from "node:v8";
import gifenc from "gifenc";
import {
  EncodedPacket,
  EncodedVideoPacketSource,
  FilePathTarget,
  Mp4OutputFormat,
  Output,
  WebMOutputFormat,
} from "mediabunny";
import sharp from "sharp";
import type { Block } from "@/contracts/lettering";
import type { MotionFormat } from "@/contracts/motion";
import { apngWriter } from "@/core/write/motion/apng";
import { writeAnimatedSvg } from "@/core/write/motion/animatedSvg";
import { bakeFrames } from "@/core/write/motion/bake";
import { writeCssMotion, type CssFace, type CssMotion } from "@/core/write/motion/cssMotion";
import { writeLottie, type MotionSize } from "@/core/write/motion/lottie";
import { channelsOf } from "@/core/motion/valueAt";
import { countFrames, frameMs, rateOf } from "@/core/motion/frames";
import { drawInk, drawWhole, frameAt, writePng, type AboutMotion, type Picture } from "./drawMotion";
import { canEncodeVideo, encodeStretch, type Stretch, type VideoFormat } from "./encodeVideo";

// Frames are drawn in two processes at once: none of them takes both cores.
sharp.concurrency(1);
sharp.cache(false);

/** Frames from `from` up to and without `to`. */
export type FrameRange = { from: number; to: number };
type InFolder = AboutMotion & { format: MotionFormat; folder: string };
export type MotionRequest =
  | ({ what: "stretch" } & InFolder & FrameRange)
  | ({ what: "assemble"; file: string; ranges: FrameRange[]; repeats: boolean } & InFolder)
  | ({ what: "bake"; format: "lottie" | "svg"; title: string; repeats: boolean } & AboutMotion)
  | ({ what: "css"; title: string; repeats: boolean; faces: CssFont[] } & AboutMotion)
  | { what: "canEncode" }
  | ({ what: "strip"; times: number[]; widthPx: number } & AboutMotion);
export type MotionReplies = {
  canEncode: { webm: boolean; mp4: boolean };
  stretch: null;
  assemble: null;
  bake: string;
  css: CssMotion;
  strip: Uint8Array;
};
type Asked<W extends MotionRequest["what"]> = Extract<MotionRequest, { what: W }>;
/** A web font of a style, and the characters it has. */
export type CssFont = CssFace & { styleId: string; codePoints: number[] };

export const frameName = (n: number) => `frame-${String(n).padStart(5, "0")}.png`;
const stretchName = ({ from }: FrameRange) => `stretch-${String(from).padStart(5, "0")}.bin`;

/** Written whole or not at all. */
function put(path: string, bytes: Uint8Array) {
  writeFileSync(`${path}.part`, bytes);
  renameSync(`${path}.part`, path);
}

/** Whether an encoder for a film of common size runs here. */
export async function canEncode(): Promise<MotionReplies["canEncode"]> {
  const size = { widthPx: 1920, heightPx: 1080 };
  const can = async (format: VideoFormat) => canEncodeVideo({ format, ...size });
  return { webm: await can("webm"), mp4: await can("mp4") };
}

/** Draws frames, and codes them where the format is one stream. */
export async function stretch(asked: Asked<"stretch">): Promise<null> {
  const { format, folder, from, to } = asked;
  if (format === "png-frames" || format === "apng") {
    for (let n = from; n < to; n++) {
      const path = join(folder, frameName(n));
      if (!existsSync(path)) put(path, await writePng(await drawWhole(asked, n), asked.widthPx, asked.heightPx));
    }
    return null;
  }
  const path = join(folder, stretchName(asked));
  if (existsSync(path)) return null;
  put(path, format === "gif" ? await gifStretch(asked) : serialize(await videoStretch(asked)));
  return null;
}

const isVideo = (format: MotionFormat): format is VideoFormat => format === "webm" || format === "mp4";

async function videoStretch(asked: Asked<"stretch">): Promise<Stretch> {
  const { format, widthPx, heightPx, motion, ground, from, to } = asked;
  if (!isVideo(format)) throw new Error(`${format} is no video`);
  async function* pictures(): AsyncGenerator<Picture | null> {
    for (let n = from; n < to; n++) yield await drawInk(asked, n);
  }
  const { frames, seconds } = rateOf(motion.fps);
  const settings = { format, widthPx, heightPx, fps: frames / seconds, hasAlpha: ground === null };
  return encodeStretch(settings, pictures(), ground ? channelsOf(ground) : null);
}

const MOST_COLOURS = 256;
/** A pixel is shown from this much ink on: GIF knows no half transparency. */
const HALF = 128;

/** Frames of a GIF without its head and its end. A place in the palette is kept for what is transparent. */
async function gifStretch(asked: Asked<"stretch">): Promise<Uint8Array> {
  const { GIFEncoder, quantize, applyPalette } = gifenc;
  const { widthPx, heightPx, motion, ground, from, to } = asked;
  const gif = GIFEncoder({ auto: false });
  for (let n = from; n < to; n++) {
    const rgba = await drawWhole(asked, n);
    const isOpen = ground === null;
    if (isOpen) for (let i = 3; i < rgba.length; i += 4) rgba[i] = rgba[i]! >= HALF ? 255 : 0;
    const format = isOpen ? "rgba4444" : "rgb565";
    const palette = quantize(rgba, MOST_COLOURS, { format, ...(isOpen && { oneBitAlpha: true }) });
    const index = applyPalette(rgba, palette, format);
    // Times are counted in hundredths: each frame ends at the nearest one.
    const endsAt = (k: number) => Math.round(frameMs(motion, k) / 10) * 10;
    gif.writeFrame(index, widthPx, heightPx, {
      ...{ palette, delay: endsAt(n + 1) - endsAt(n), first: false },
      ...(isOpen && {
        transparent: true,
        transparentIndex: Math.max(
          0,
          palette.findIndex((c) => c[3] === 0),
        ),
      }),
      dispose: isOpen ? 2 : -1,
    });
  }
  return gif.bytes();
}

export async function assemble(asked: Asked<"assemble">): Promise<null> {
  const { format, file } = asked;
  const part = `${file}.part`;
  if (format === "apng") await assembleApng(asked, part);
  else if (format === "gif") await assembleGif(asked, part);
  else await assembleVideo(asked, part);
  renameSync(part, file);
  return null;
}

async function writeAll(path: string, pieces: AsyncIterable<Uint8Array> | Iterable<Uint8Array>) {
  const out = createWriteStream(path);
  for await (const piece of pieces) if (!out.write(piece)) await once(out, "drain");
  out.end();
  await once(out, "close");
}

async function assembleApng({ motion, folder, repeats }: Asked<"assemble">, path: string) {
  const { frames, seconds } = rateOf(motion.fps);
  const count = countFrames(motion);
  const writer = apngWriter({ frames: count, delay: { num: seconds, den: frames }, plays: repeats ? 0 : 1 });
  const pictureOf = (n: number) => new Uint8Array(readFileSync(join(folder, frameName(n))));
  function* pieces() {
    yield* writer.begin(pictureOf(0));
    for (let n = 0; n < count; n++) yield* writer.frame(pictureOf(n));
    yield writer.end();
  }
  await writeAll(path, pieces());
}

async function assembleGif({ widthPx, heightPx, folder, ranges, repeats }: Asked<"assemble">, path: string) {
  function* pieces() {
    const head = Buffer.alloc(13);
    head.write("GIF89a", "latin1");
    head.writeUInt16LE(widthPx, 6);
    head.writeUInt16LE(heightPx, 8);
    // No palette for all frames: each has its own (GIF89a, 18).
    head[10] = 0x70;
    yield head;
    // Played without end (application extension of the format's users; absent: once).
    if (repeats) yield Buffer.from([0x21, 0xff, 0x0b, ...Buffer.from("NETSCAPE2.0"), 3, 1, 0, 0, 0]);
    for (const range of ranges) yield readFileSync(join(folder, stretchName(range)));
    yield Buffer.from([0x3b]);
  }
  await writeAll(path, pieces());
}

async function assembleVideo({ format, motion, folder, ranges, ground }: Asked<"assemble">, path: string) {
  const { frames, seconds } = rateOf(motion.fps);
  const fps = frames / seconds;
  const isWebm = format === "webm";
  const target = new FilePathTarget(path);
  const output = new Output({
    format: isWebm ? new WebMOutputFormat() : new Mp4OutputFormat({ fastStart: "in-memory" }),
    target,
  });
  const source = new EncodedVideoPacketSource(isWebm ? "vp9" : "avc");
  output.addVideoTrack(source, { frameRate: fps, canBeTransparent: isWebm && ground === null });
  await output.start();
  let n = 0;
  for (const range of ranges) {
    const { packets, config } = deserialize(readFileSync(join(folder, stretchName(range)))) as Stretch;
    const decoderConfig = {
      ...{ codec: config.codec, codedWidth: config.codedWidth, codedHeight: config.codedHeight },
      ...(config.description && { description: config.description }),
      colorSpace: { primaries: "bt709", transfer: "bt709", matrix: "bt709", fullRange: false } as const,
    };
    for (const { isKey, bytes, alpha } of packets) {
      const beside = alpha ? { alpha, alphaByteLength: alpha.length } : undefined;
      const packet = new EncodedPacket(bytes, isKey ? "key" : "delta", n / fps, 1 / fps, n, bytes.length, beside);
      await source.add(packet, { decoderConfig });
      n++;
    }
  }
  if (n !== countFrames(motion)) throw new Error(`${n} frames of ${countFrames(motion)} were put together`);
  await output.finalize();
}

const sizeOf = ({ document, motion, widthPx, heightPx, ground }: AboutMotion, title: string): MotionSize => {
  const { frames, seconds } = rateOf(motion.fps);
  return {
    sheet: document.sheet,
    widthPx,
    heightPx,
    fps: frames / seconds,
    frames: countFrames(motion),
    ground,
    title,
  };
};

const bakeAll = (asked: AboutMotion) =>
  bakeFrames(Array.from({ length: countFrames(asked.motion) }, (_, n) => frameAt(asked, frameMs(asked.motion, n))));

export function bake(asked: Asked<"bake">): string {
  const size = sizeOf(asked, asked.title);
  const groups = bakeAll(asked);
  return asked.format === "lottie"
    ? writeLottie(groups, size)
    : writeAnimatedSvg(groups, { ...size, repeats: asked.repeats });
}

export function css(asked: Asked<"css">): CssMotion {
  const { blocks } = asked.document;
  const faceOf = ({ styleId }: Block, text: string): CssFace => {
    const own = asked.faces.filter((f) => f.styleId === styleId);
    const codePoint = text.codePointAt(0) ?? 0;
    return own.find((f) => f.codePoints.includes(codePoint)) ?? own[0] ?? { family: "serif", file: "" };
  };
  return writeCssMotion(bakeAll(asked), { ...sizeOf(asked, asked.title), repeats: asked.repeats, blocks, faceOf });
}

const STRIP_GAP_PX = 8;

/** Moments side by side, each on the ground. @param asked.times - in ms. */
export async function strip(asked: Asked<"strip">): Promise<Uint8Array> {
  const { widthPx, heightPx, times, motion } = asked;
  const pictures = [];
  for (const [i, timeMs] of times.entries()) {
    // A moment as frame 0 of the same motion begun so much later: its time is asked for, not its frame.
    const rgba = await drawWhole({ ...asked, motion: { ...motion, fps: 1000 } }, Math.round(timeMs));
    const raw = { width: widthPx, height: heightPx, channels: 4 as const };
    pictures.push({ input: Buffer.from(rgba), raw, left: i * (widthPx + STRIP_GAP_PX), top: 0 });
  }
  const width = times.length * (widthPx + STRIP_GAP_PX) - STRIP_GAP_PX;
  const paper = sharp({ create: { width, height: heightPx, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } });
  return new Uint8Array(await paper.composite(pictures).png().toBuffer());
}
