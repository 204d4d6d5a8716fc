// Frames → packets of coded video. Every stretch begins with a key frame, so that stretches that were coded apart stand after one another.
// Colours by ITU-R BT.709 in limited range; alpha as a second picture beside the first, as WebM carries it.
import type { Encoder } from "node-av";
import type { Picture } from "./drawMotion";

export type VideoFormat = "webm" | "mp4";
export type VideoPacket = { isKey: boolean; bytes: Uint8Array; alpha: Uint8Array | null };
type VideoSettings = {
  format: VideoFormat;
  widthPx: number;
  heightPx: number;
  rate: { frames: number; seconds: number };
  hasAlpha: boolean;
};

// Taken out of the global object once: the loops below call them for every pixel.
const { abs, max } = Math;

/** Bits per pixel and frame: titles are flat, so that this is more than enough. */
const BITS_PER_PX = 0.16;
const LEAST_BITRATE = 1_500_000;
/** Stretches are shorter: their first frame is their only key. */
const MOST_BETWEEN_KEYS = 1000;

/** By size: the level of the codec that a frame of it needs. */
export function codecOf({ format, widthPx, heightPx }: Pick<VideoSettings, "format" | "widthPx" | "heightPx">): string {
  const isLarge = widthPx * heightPx > 1920 * 1088;
  if (format === "webm") return isLarge ? "vp09.00.52.08" : "vp09.00.41.08";
  return isLarge ? "avc1.640034" : "avc1.64002a";
}

/** Loaded when something is coded, not with the worker: pictures need none of it, and it takes a while to be read. */
async function loadCoder() {
  const av = await import("node-av");
  const constants = await import("node-av/constants");
  av.Log.setLevel(constants.AV_LOG_ERROR);
  return { ...av, constants };
}
type Coder = Awaited<ReturnType<typeof loadCoder>>;

/** What is coded is seldom more than flat letters: the fast ways do. */
const encoderOf = (format: VideoFormat, { constants }: Coder) =>
  format === "webm"
    ? ({
        name: constants.FF_ENCODER_LIBVPX_VP9,
        options: { deadline: "realtime", "cpu-used": 8, "lag-in-frames": 0, "auto-alt-ref": 0, "row-mt": false },
      } as const)
    : ({ name: constants.FF_ENCODER_LIBX264, options: { preset: "veryfast", tune: "zerolatency" } } as const);

/** Whether an encoder for it runs on this machine. */
export async function canEncodeVideo(format: VideoFormat): Promise<boolean> {
  const coder = await loadCoder();
  return coder.Codec.findEncoderByName(encoderOf(format, coder).name) !== null;
}

type Coded = { isKey: boolean; bytes: Uint8Array };

/** One encoder over one stretch. */
class PlaneEncoder {
  private readonly coded: Coded[] = [];
  private count = 0;
  private constructor(
    private readonly settings: VideoSettings,
    private readonly coder: Coder,
    private readonly encoder: Encoder,
  ) {}

  static async open(settings: VideoSettings): Promise<PlaneEncoder> {
    const { widthPx, heightPx, rate, format } = settings;
    const coder = await loadCoder();
    const { name, options } = encoderOf(format, coder);
    const perSecond = rate.frames / rate.seconds;
    const encoder = await coder.Encoder.create(name, {
      bitrate: Math.max(LEAST_BITRATE, Math.round(widthPx * heightPx * perSecond * BITS_PER_PX)),
      gopSize: MOST_BETWEEN_KEYS,
      maxBFrames: 0,
      threadCount: 1,
      options: { ...options },
    });
    return new PlaneEncoder(settings, coder, encoder);
  }

  async add(i420: Uint8Array) {
    const { widthPx: width, heightPx: height, rate } = this.settings;
    const timeBase = { num: rate.seconds, den: rate.frames };
    const { Frame, constants } = this.coder;
    const buffer = Buffer.from(i420.buffer, i420.byteOffset, i420.byteLength);
    const frame = Frame.fromVideoBuffer(buffer, {
      width,
      height,
      format: constants.AV_PIX_FMT_YUV420P,
      pts: BigInt(this.count),
      timeBase,
    });
    frame.colorRange = constants.AVCOL_RANGE_MPEG;
    frame.colorSpace = constants.AVCOL_SPC_BT709;
    frame.colorPrimaries = constants.AVCOL_PRI_BT709;
    frame.colorTrc = constants.AVCOL_TRC_BT709;
    try {
      await this.encoder.encode(frame);
    } finally {
      frame.free();
    }
    this.count++;
    await this.take();
  }

  private async take() {
    for (let packet = await this.encoder.receive(); packet; packet = await this.encoder.receive()) {
      this.coded.push({ isKey: packet.isKeyframe, bytes: new Uint8Array(packet.data ?? []) });
      packet.free();
    }
  }

  /** The packet of the frame that was added last. */
  get newest(): Coded {
    this.expectWhole();
    return this.coded[this.count - 1]!;
  }

  private expectWhole() {
    if (this.coded.length !== this.count) throw new Error(`${this.count} frames gave ${this.coded.length} packets`);
  }

  async end(): Promise<Coded[]> {
    await this.encoder.flush();
    await this.take();
    this.encoder.close();
    this.expectWhole();
    if (!this.coded[0]?.isKey) throw new Error("the first packet is no key frame");
    return this.coded;
  }
}

/**
 * Colours first, then alpha: one encoder at a time, each takes some hundred megabytes.
 * @param pictures - ink of each frame in order, null where it is empty. @param ground - red, green, blue; null: alpha is kept.
 */
export async function encodeStretch(
  settings: VideoSettings,
  pictures: readonly (Picture | null)[],
  ground: readonly number[] | null,
): Promise<VideoPacket[]> {
  const planes = new Planes(settings.widthPx, settings.heightPx);
  const coded = await encodePlane(settings, pictures, (picture) => planes.colour(picture, ground));
  if (!settings.hasAlpha) return coded.map((packet) => ({ ...packet, alpha: null }));
  const beside = await encodePlane(settings, pictures, (picture) => planes.alpha(picture));
  return coded.map((packet, i) => ({ ...packet, alpha: beside[i]!.bytes }));
}

async function encodePlane(
  settings: VideoSettings,
  pictures: readonly (Picture | null)[],
  planeOf: (picture: Picture | null) => Uint8Array,
): Promise<Coded[]> {
  const encoder = await PlaneEncoder.open(settings);
  const last = new Uint8Array((settings.widthPx * settings.heightPx * 3) / 2);
  // Frames that are as the last one that was coded.
  let repeats = 0;
  for (const [i, picture] of pictures.entries()) {
    const plane = planeOf(picture);
    if (i && Buffer.compare(plane, last) === 0) {
      repeats++;
      continue;
    }
    for (; repeats; repeats--) await encoder.add(last);
    await encoder.add(plane);
    last.set(plane);
  }
  const shown = settings.format === "webm" ? showAgain(encoder.newest) : null;
  if (shown) return [...(await encoder.end()), ...new Array<Coded>(repeats).fill({ isKey: false, bytes: shown })];
  for (; repeats; repeats--) await encoder.add(last);
  return encoder.end();
}

/**
 * A packet of VP9 that shows a frame again which the decoder has kept ("VP9 Bitstream & Decoding Process Specification", 6.2,
 * show_existing_frame): a byte in place of a whole frame. Only for the end of a stretch: a key frame follows it.
 * @param packet - of the frame that is shown again. @returns null where the decoder does not keep that frame.
 */
function showAgain({ isKey, bytes }: Coded): Uint8Array | null {
  // Two bits that mark a frame, two of the profile, show_existing_frame; after a key frame all eight places hold it.
  const shows = (place: number) => Uint8Array.of(0b1000_1000 | place);
  if (isKey) return shows(0);
  const [head, next, after] = [bytes[0]!, bytes[1]!, bytes[2]!];
  // Profile 0, a frame between keys that is shown. Unless it is resilient to errors, two bits stand before the places that it goes to.
  if (head >> 4 !== 0b1000 || (head & 0b0110) !== 0b0110) return null;
  const places = head & 1 ? next : ((next << 2) | (after >> 6)) & 0xff;
  const place = [0, 1, 2, 3, 4, 5, 6, 7].find((k) => places & (1 << k));
  return place === undefined ? null : shows(place);
}

// BT.709 in limited range, in parts of 65,536: brightness 16–235, blue and red 16–240 about 128.
const HALF = 32_768;
const lumaOf = (r: number, g: number, b: number) => 16 + ((11_966 * r + 40_254 * g + 4_064 * b + HALF) >> 16);
const blueOf = (r: number, g: number, b: number) => 128 + ((-6_596 * r - 22_189 * g + 28_785 * b + HALF) >> 16);
const redOf = (r: number, g: number, b: number) => 128 + ((28_785 * r - 26_145 * g - 2_640 * b + HALF) >> 16);
const NEUTRAL = 128;

/** Buffers of one frame in planes: brightness, then blue and red at half the resolution (I420). */
class Planes {
  private readonly bytes: Uint8Array;
  constructor(
    private readonly widthPx: number,
    private readonly heightPx: number,
  ) {
    this.bytes = new Uint8Array((widthPx * heightPx * 3) / 2);
  }

  private fill(y: number, u: number, v: number) {
    const size = this.widthPx * this.heightPx;
    this.bytes.fill(y, 0, size);
    this.bytes.fill(u, size, (size * 5) / 4);
    this.bytes.fill(v, (size * 5) / 4);
  }

  /** Without a ground, what is empty has the mean colour of the ink, so that no edge turns darker where colours are halved. */
  colour(picture: Picture | null, ground: readonly number[] | null): Uint8Array {
    const ink = picture && !ground ? inkOf(picture) : null;
    const [r, g, b] = (ground ?? ink?.mean ?? [0, 0, 0]).map(Math.round) as [number, number, number];
    this.fill(lumaOf(r, g, b), blueOf(r, g, b), redOf(r, g, b));
    if (picture && !ink?.isOne) this.putColours(picture, [r, g, b], ground !== null);
    return this.bytes;
  }

  /** Four pixels at a time: each has its brightness, all four share a blue and a red. Where all are empty, `under` is there already. */
  private putColours({ region, rgba }: Picture, under: readonly number[], isLaid: boolean) {
    const { left, top, width, height } = region;
    const { bytes, widthPx } = this;
    const size = widthPx * this.heightPx;
    const seen = isLaid ? mix : colourOfInk;
    const [underR, underG, underB] = [under[0]!, under[1]!, under[2]!];
    for (let y = 0; y < height; y += 2) {
      let to = (top + y) * widthPx + left;
      let half = size + ((top + y) >> 1) * (widthPx >> 1) + (left >> 1);
      let i = y * width * 4;
      for (let x = 0; x < width; x += 2, i += 8, to += 2, half++) {
        const k = i + width * 4;
        if ((rgba[i + 3]! | rgba[i + 7]! | rgba[k + 3]! | rgba[k + 7]!) === 0) continue;
        let [r, g, b] = [2, 2, 2];
        for (let corner = 0; corner < 4; corner++) {
          const at = (corner < 2 ? i : k) + (corner & 1) * 4;
          const alpha = rgba[at + 3]!;
          const ownR = seen(rgba[at]!, alpha, underR);
          const ownG = seen(rgba[at + 1]!, alpha, underG);
          const ownB = seen(rgba[at + 2]!, alpha, underB);
          bytes[to + (corner >> 1) * widthPx + (corner & 1)] = lumaOf(ownR, ownG, ownB);
          r += ownR;
          g += ownG;
          b += ownB;
        }
        bytes[half] = blueOf(r >> 2, g >> 2, b >> 2);
        bytes[half + (size >> 2)] = redOf(r >> 2, g >> 2, b >> 2);
      }
    }
  }

  /** Alpha as brightness, over the whole range of a byte. */
  alpha(picture: Picture | null): Uint8Array {
    this.fill(0, NEUTRAL, NEUTRAL);
    if (!picture) return this.bytes;
    const { region, rgba } = picture;
    for (let y = 0, i = 3; y < region.height; y++) {
      let to = (region.top + y) * this.widthPx + region.left;
      for (let x = 0; x < region.width; x++, i += 4) this.bytes[to++] = rgba[i]!;
    }
    return this.bytes;
  }
}

/** Steps by which a colour may be off where it is seen, from rounding: ink is of one colour up to these. */
const ONE_COLOUR = 2;

/** @returns the mean colour of ink, and whether it is the only one: seen as faint as it is, no pixel would differ. */
function inkOf({ rgba }: Picture): { mean: number[]; isOne: boolean } {
  let [r, g, b, sum] = [0, 0, 0, 0];
  for (let i = 0; i < rgba.length; i += 4) {
    const a = rgba[i + 3]!;
    if (!a) continue;
    r += rgba[i]! * a;
    g += rgba[i + 1]! * a;
    b += rgba[i + 2]! * a;
    sum += a;
  }
  if (!sum) return { mean: [0, 0, 0], isOne: true };
  const [meanR, meanG, meanB] = [r / sum, g / sum, b / sum];
  const isOff = (i: number, a: number) =>
    max(abs(rgba[i]! - meanR), abs(rgba[i + 1]! - meanG), abs(rgba[i + 2]! - meanB)) * a > ONE_COLOUR * 255;
  let isOne = true;
  for (let i = 0; isOne && i < rgba.length; i += 4) {
    const a = rgba[i + 3]!;
    isOne = !a || !isOff(i, a);
  }
  return { mean: [meanR, meanG, meanB], isOne };
}

/** A channel of ink as it is seen on a ground. */
const mix = (ink: number, alpha: number, under: number) => ((ink * alpha + under * (255 - alpha) + 127) / 255) | 0;
/** Without a ground the ink keeps its colour; only what is empty is given one. */
const colourOfInk = (ink: number, alpha: number, under: number) => (alpha ? ink : under);
