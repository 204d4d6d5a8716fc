// Frames → packets of coded video. Every stretch begins with a key frame, so that stretches that were coded apart stand after one another.
// Colours by ITU-R BT.709 in limited range; alpha as a second picture beside the first, as WebM carries it.
import { VideoEncoder, VideoFrame } from "@napi-rs/webcodecs";
import type { Picture } from "./drawMotion";

export type VideoFormat = "webm" | "mp4";
export type VideoPacket = { isKey: boolean; bytes: Uint8Array; alpha: Uint8Array | null };
/** What a player must know before the first packet; the same for all stretches. */
export type DecoderConfig = { codec: string; codedWidth: number; codedHeight: number; description: Uint8Array | null };
export type Stretch = { packets: VideoPacket[]; config: DecoderConfig };

export type VideoSettings = { format: VideoFormat; widthPx: number; heightPx: number; fps: number; hasAlpha: boolean };

/** Bits per pixel and frame: titles are flat, so that this is more than enough. */
const BITS_PER_PX = 0.16;
const LEAST_BITRATE = 1_500_000;

/** By size: the level of the codec that a frame of it needs. */
export function codecOf({ format, widthPx, heightPx }: Pick<VideoSettings, "format" | "widthPx" | "heightPx">): string {
  const isLarge = widthPx * heightPx > 1920 * 1088;
  if (format === "webm") return isLarge ? "vp09.00.52.08" : "vp09.00.41.08";
  return isLarge ? "avc1.640034" : "avc1.64002a";
}

export async function canEncodeVideo(
  settings: Pick<VideoSettings, "format" | "widthPx" | "heightPx">,
): Promise<boolean> {
  try {
    const size = { width: settings.widthPx, height: settings.heightPx };
    return (await VideoEncoder.isConfigSupported({ codec: codecOf(settings), ...size })).supported === true;
  } catch {
    return false;
  }
}

const COLOUR_SPACE = { primaries: "bt709", transfer: "bt709", matrix: "bt709", fullRange: false } as const;
/** Frames that may wait in an encoder: each holds some megabytes. */
const MOST_WAITING = 3;

type Coded = { isKey: boolean; bytes: Uint8Array };

/** One encoder over one stretch. */
class PlaneEncoder {
  readonly coded: Coded[] = [];
  config: DecoderConfig | null = null;
  private fault: Error | null = null;
  private readonly encoder: VideoEncoder;
  private count = 0;

  constructor(private readonly settings: VideoSettings) {
    const { widthPx, heightPx, fps, format } = settings;
    this.encoder = new VideoEncoder({
      output: (chunk, metadata) => {
        const bytes = new Uint8Array(chunk.byteLength);
        chunk.copyTo(bytes);
        this.coded.push({ isKey: chunk.type === "key", bytes });
        if (metadata?.decoderConfig) this.config ??= configOf(metadata.decoderConfig, widthPx, heightPx);
      },
      error: (error) => (this.fault ??= error),
    });
    this.encoder.configure({
      codec: codecOf(settings),
      width: widthPx,
      height: heightPx,
      framerate: fps,
      bitrate: Math.max(LEAST_BITRATE, Math.round(widthPx * heightPx * fps * BITS_PER_PX)),
      latencyMode: "realtime",
      ...(format === "mp4" && { avc: { format: "avc" as const } }),
    });
  }

  async add(i420: Uint8Array) {
    const { widthPx: codedWidth, heightPx: codedHeight, fps } = this.settings;
    const timestamp = Math.round((this.count * 1e6) / fps);
    const frame = new VideoFrame(i420, {
      format: "I420",
      codedWidth,
      codedHeight,
      timestamp,
      colorSpace: COLOUR_SPACE,
    });
    this.encoder.encode(frame, { keyFrame: this.count === 0 });
    frame.close();
    this.count++;
    // How many it looks ahead is its own affair; those that it has not begun are held here.
    while (this.encoder.encodeQueueSize > MOST_WAITING && !this.fault) await new Promise((r) => setTimeout(r, 1));
    if (this.fault) throw this.fault;
  }

  async end(): Promise<Coded[]> {
    await this.encoder.flush();
    if (this.fault) throw this.fault;
    this.encoder.close();
    if (this.coded.length !== this.count) throw new Error(`${this.count} frames gave ${this.coded.length} packets`);
    return this.coded;
  }
}

type RawConfig = { codec?: string; description?: ArrayBuffer | ArrayBufferView };
function configOf({ codec, description }: RawConfig, codedWidth: number, codedHeight: number): DecoderConfig {
  const bytes = !description
    ? null
    : ArrayBuffer.isView(description)
      ? new Uint8Array(description.buffer, description.byteOffset, description.byteLength).slice()
      : new Uint8Array(description).slice();
  return { codec: codec ?? "", codedWidth, codedHeight, description: bytes };
}

/** @param pictures - ink of each frame in order, null where it is empty. @param ground - red, green, blue; null: alpha is kept. */
export async function encodeStretch(
  settings: VideoSettings,
  pictures: AsyncIterable<Picture | null>,
  ground: readonly number[] | null,
): Promise<Stretch> {
  const colour = new PlaneEncoder(settings);
  const alpha = settings.hasAlpha ? new PlaneEncoder(settings) : null;
  const planes = new Planes(settings.widthPx, settings.heightPx);
  for await (const picture of pictures) {
    await colour.add(planes.colour(picture, ground));
    if (alpha) await alpha.add(planes.alpha(picture));
  }
  const coded = await colour.end();
  const beside = alpha ? await alpha.end() : null;
  return {
    packets: coded.map((packet, i) => ({ ...packet, alpha: beside?.[i]?.bytes ?? null })),
    config: colour.config ?? {
      codec: codecOf(settings),
      codedWidth: settings.widthPx,
      codedHeight: settings.heightPx,
      description: null,
    },
  };
}

const BLACK = 16;
const NEUTRAL = 128;
const lumaOf = (r: number, g: number, b: number) => BLACK + (219 / 255) * (0.2126 * r + 0.7152 * g + 0.0722 * b);
const blueOf = (r: number, g: number, b: number) => NEUTRAL + (224 / 255) * (-0.114572 * r - 0.385428 * g + 0.5 * b);
const redOf = (r: number, g: number, b: number) => NEUTRAL + (224 / 255) * (0.5 * r - 0.454153 * g - 0.045847 * b);

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
    const under = ground ?? (picture ? meanOf(picture) : [0, 0, 0]);
    const [r, g, b] = [under[0]!, under[1]!, under[2]!];
    this.fill(Math.round(lumaOf(r, g, b)), Math.round(blueOf(r, g, b)), Math.round(redOf(r, g, b)));
    if (!picture) return this.bytes;
    const { region, rgba } = picture;
    const flat = flatten(rgba, under, ground !== null);
    this.putLuma(region, flat);
    this.putChroma(region, flat);
    return this.bytes;
  }

  private putLuma({ left, top, width, height }: Picture["region"], rgb: Uint8Array) {
    for (let y = 0, i = 0; y < height; y++) {
      let to = (top + y) * this.widthPx + left;
      for (let x = 0; x < width; x++, i += 3) this.bytes[to++] = lumaOf(rgb[i]!, rgb[i + 1]!, rgb[i + 2]!) + 0.5;
    }
  }

  private putChroma({ left, top, width, height }: Picture["region"], rgb: Uint8Array) {
    const size = this.widthPx * this.heightPx;
    const half = this.widthPx / 2;
    for (let y = 0; y < height; y += 2)
      for (let x = 0; x < width; x += 2) {
        const i = (y * width + x) * 3;
        const k = i + width * 3;
        const mean = (c: number) => (rgb[i + c]! + rgb[i + 3 + c]! + rgb[k + c]! + rgb[k + 3 + c]!) / 4;
        const [r, g, b] = [mean(0), mean(1), mean(2)];
        const to = ((top + y) / 2) * half + (left + x) / 2;
        this.bytes[size + to] = blueOf(r, g, b) + 0.5;
        this.bytes[(size * 5) / 4 + to] = redOf(r, g, b) + 0.5;
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

function meanOf({ rgba }: Picture): number[] {
  let [r, g, b, sum] = [0, 0, 0, 0];
  for (let i = 0; i < rgba.length; i += 4) {
    const a = rgba[i + 3]!;
    if (!a) continue;
    r += rgba[i]! * a;
    g += rgba[i + 1]! * a;
    b += rgba[i + 2]! * a;
    sum += a;
  }
  return sum ? [r / sum, g / sum, b / sum] : [0, 0, 0];
}

/** Colours without alpha: laid on the ground, or as they are where there is any ink. */
function flatten(rgba: Uint8Array, under: readonly number[], isLaid: boolean): Uint8Array {
  const rgb = new Uint8Array((rgba.length / 4) * 3);
  for (let i = 0, k = 0; i < rgba.length; i += 4, k += 3) {
    const alpha = rgba[i + 3]! / 255;
    const share = isLaid ? alpha : alpha > 0 ? 1 : 0;
    for (let c = 0; c < 3; c++) rgb[k + c] = rgba[i + c]! * share + under[c]! * (1 - share) + 0.5;
  }
  return rgb;
}
