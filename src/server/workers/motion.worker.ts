// Worker entry: a motion in stretches of frames, each written to a file of its own, and those files put together. A stretch that is there
// already is not made again, so that a motion goes on where it was broken off.
import { createWriteStream, existsSync, readFileSync, renameSync } from "node:fs";
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
import { putWhole } from "../db/fileStore";
import { drawInk, drawWhole, frameAt, writePng, type AboutMotion, type Picture } from "./drawMotion";
import { canEncodeVideo, codecOf, encodeStretch, type VideoFormat, type VideoPacket } from "./encodeVideo";

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

/** Whether films can be coded here. */
export const canEncode = async (): Promise<MotionReplies["canEncode"]> => ({
  webm: await canEncodeVideo("webm"),
  mp4: await canEncodeVideo("mp4"),
});

/** Draws frames, and codes them where the format is one stream. */
export async function stretch(asked: Asked<"stretch">): Promise<null> {
  const { format, folder, from, to } = asked;
  if (format === "png-frames" || format === "apng") {
    for (let n = from; n < to; n++) {
      const path = join(folder, frameName(n));
      if (!existsSync(path))
        putWhole(path, await writePng(await drawWhole(asked, frameMs(asked.motion, n)), asked.widthPx, asked.heightPx));
    }
    return null;
  }
  const path = join(folder, stretchName(asked));
  if (existsSync(path)) return null;
  putWhole(path, format === "gif" ? await gifStretch(asked) : serialize(await videoStretch(asked)));
  return null;
}

const isVideo = (format: MotionFormat): format is VideoFormat => format === "webm" || format === "mp4";

async function videoStretch(asked: Asked<"stretch">): Promise<VideoPacket[]> {
  const { format, widthPx, heightPx, motion, ground, from, to } = asked;
  if (!isVideo(format)) throw new Error(`${format} is no video`);
  const pictures: (Picture | null)[] = [];
  for (let n = from; n < to; n++) pictures.push(await drawInk(asked, frameMs(motion, n)));
  const settings = { format, widthPx, heightPx, rate: rateOf(motion.fps), hasAlpha: ground === null };
  return encodeStretch(settings, pictures, ground ? channelsOf(ground) : null);
}

const MOST_COLOURS = 256;
/** A pixel is shown from this much ink on: GIF knows no half transparency. */
const SHOWN_FROM = 128;

/** Frames of a GIF without its head and its end. The last place in the palette is for what lies around the ink: the ground, or nothing. */
async function gifStretch(asked: Asked<"stretch">): Promise<Uint8Array> {
  const { widthPx, heightPx, motion, ground, from, to } = asked;
  const gif = gifenc.GIFEncoder({ auto: false });
  const isOpen = ground === null;
  for (let n = from; n < to; n++) {
    const { index, palette } = indexColours(await drawInk(asked, frameMs(motion, n)), asked);
    // Times are counted in hundredths: each frame ends at the nearest one.
    const endsAt = (k: number) => Math.round(frameMs(motion, k) / 10) * 10;
    gif.writeFrame(index, widthPx, heightPx, {
      ...{ palette, delay: endsAt(n + 1) - endsAt(n), first: false, dispose: isOpen ? 2 : 1 },
      ...(isOpen && { transparent: true, transparentIndex: palette.length - 1 }),
    });
  }
  return gif.bytes();
}

/** The ink in as many colours as a GIF has, the rest in the last of them. */
function indexColours(picture: Picture | null, { widthPx, heightPx, ground }: AboutMotion) {
  const { quantize, applyPalette } = gifenc;
  const under = ground ? channelsOf(ground) : null;
  const around = under ? under.slice(0, 3) : [0, 0, 0];
  if (!picture) return { index: new Uint8Array(widthPx * heightPx), palette: [around] };
  const { region, rgba } = picture;
  const isEmpty = Uint8Array.from({ length: rgba.length / 4 }, (_, i) =>
    Number(rgba[4 * i + 3]! < (under ? 1 : SHOWN_FROM)),
  );
  for (let i = 0; i < rgba.length; i += 4) {
    const alpha = under ? rgba[i + 3]! / 255 : 1;
    for (let c = 0; c < 3; c++) rgba[i + c] = Math.round(rgba[i + c]! * alpha + around[c]! * (1 - alpha));
    rgba[i + 3] = 255;
  }
  const colours = quantize(rgba, MOST_COLOURS - 1, { format: "rgb565" });
  const drawn = applyPalette(rgba, colours, "rgb565");
  const index = new Uint8Array(widthPx * heightPx).fill(colours.length);
  for (let y = 0, i = 0; y < region.height; y++) {
    const row = (region.top + y) * widthPx + region.left;
    for (let x = 0; x < region.width; x++, i++) if (!isEmpty[i]) index[row + x] = drawn[i]!;
  }
  return { index, palette: [...colours, around] };
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

async function assembleVideo(asked: Asked<"assemble">, path: string) {
  const { format, motion, folder, ranges, ground, widthPx, heightPx } = asked;
  if (!isVideo(format)) throw new Error(`${format} is no video`);
  const { frames, seconds } = rateOf(motion.fps);
  const fps = frames / seconds;
  const isWebm = format === "webm";
  const output = new Output({
    format: isWebm ? new WebMOutputFormat() : new Mp4OutputFormat({ fastStart: "in-memory" }),
    target: new FilePathTarget(path),
  });
  const source = new EncodedVideoPacketSource(isWebm ? "vp9" : "avc");
  output.addVideoTrack(source, { frameRate: fps, canBeTransparent: isWebm && ground === null });
  await output.start();
  const decoderConfig = {
    ...{ codec: codecOf({ format, widthPx, heightPx }), codedWidth: widthPx, codedHeight: heightPx },
    colorSpace: { primaries: "bt709", transfer: "bt709", matrix: "bt709", fullRange: false } as const,
  };
  let n = 0;
  for (const range of ranges) {
    const packets = deserialize(readFileSync(join(folder, stretchName(range)))) as VideoPacket[];
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
    return own.find((f) => f.codePoints.includes(codePoint)) ?? own[0] ?? { family: "serif", file: "", rest: {} };
  };
  return writeCssMotion(bakeAll(asked), { ...sizeOf(asked, asked.title), repeats: asked.repeats, blocks, faceOf });
}

const STRIP_GAP_PX = 8;

/** Moments side by side, each on the ground. @param asked.times - in ms. */
export async function strip(asked: Asked<"strip">): Promise<Uint8Array> {
  const { widthPx, heightPx, times } = asked;
  const pictures = [];
  for (const [i, timeMs] of times.entries()) {
    const rgba = await drawWhole(asked, timeMs);
    const raw = { width: widthPx, height: heightPx, channels: 4 as const };
    pictures.push({ input: Buffer.from(rgba), raw, left: i * (widthPx + STRIP_GAP_PX), top: 0 });
  }
  const width = times.length * (widthPx + STRIP_GAP_PX) - STRIP_GAP_PX;
  const paper = sharp({ create: { width, height: heightPx, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } });
  return new Uint8Array(await paper.composite(pictures).png().toBuffer());
}
