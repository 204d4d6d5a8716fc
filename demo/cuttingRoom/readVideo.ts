// What an editing program reads in the head of a film: size, rate, length, alpha, codec. WebM by its EBML elements (RFC 8794, RFC 9559),
// MP4 by a package; neither shares code with what writes them.
import { createFile, MP4BoxBuffer } from "mp4box";

type FilmFacts = {
  codec: string;
  widthPx: number;
  heightPx: number;
  frames: number;
  fps: number;
  durationMs: number;
  hasAlpha: boolean;
};

const ID = {
  segment: 0x18538067,
  info: 0x1549a966,
  timestampScale: 0x2ad7b1,
  duration: 0x4489,
  tracks: 0x1654ae6b,
  trackEntry: 0xae,
  codecId: 0x86,
  defaultDuration: 0x23e383,
  video: 0xe0,
  pixelWidth: 0xb0,
  pixelHeight: 0xba,
  alphaMode: 0x53c0,
  cluster: 0x1f43b675,
  simpleBlock: 0xa3,
  blockGroup: 0xa0,
  blockAdditions: 0x75a1,
} as const;
/** Elements that are looked into. */
const HOLDERS = new Set<number>([ID.segment, ID.info, ID.tracks, ID.trackEntry, ID.video, ID.cluster, ID.blockGroup]);

type Element = { id: number; from: number; to: number };

/** The length of a number is told by its first bit that is set. */
function readVint(bytes: Uint8Array, at: number, keepsMark: boolean): { value: number; next: number } | null {
  const first = bytes[at] ?? 0;
  const length = Math.clz32(first) - 23;
  if (first === 0 || length > 8 || at + length > bytes.length) return null;
  let value = keepsMark ? first : first & (0xff >> length);
  for (let i = 1; i < length; i++) value = value * 256 + bytes[at + i]!;
  // All bits set: the length is not known, the element goes to the end.
  const isOpen = !keepsMark && value === 2 ** (7 * length) - 1;
  return { value: isOpen ? Infinity : value, next: at + length };
}

function* walk(bytes: Uint8Array, from: number, to: number): Generator<Element> {
  for (let at = from; at < to;) {
    const id = readVint(bytes, at, true);
    const size = id && readVint(bytes, id.next, false);
    if (!id || !size) return;
    const end = Math.min(to, size.next + size.value);
    yield { id: id.value, from: size.next, to: end };
    if (HOLDERS.has(id.value)) yield* walk(bytes, size.next, end);
    at = end;
  }
}

/** @returns null where it is no WebM with a film in it. */
export function readWebm(bytes: Uint8Array): FilmFacts | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const numberOf = ({ from, to }: Element) => {
    let value = 0;
    for (let i = from; i < to; i++) value = value * 256 + bytes[i]!;
    return value;
  };
  const floatOf = ({ from, to }: Element) => (to - from === 4 ? view.getFloat32(from) : view.getFloat64(from));
  const facts = {
    codec: "",
    widthPx: 0,
    heightPx: 0,
    frames: 0,
    frameNs: 0,
    scaleNs: 1e6,
    length: 0,
    alphaMode: 0,
    beside: 0,
  };
  for (const element of walk(bytes, 0, bytes.length)) {
    if (element.id === ID.codecId) facts.codec = new TextDecoder().decode(bytes.subarray(element.from, element.to));
    if (element.id === ID.pixelWidth) facts.widthPx = numberOf(element);
    if (element.id === ID.pixelHeight) facts.heightPx = numberOf(element);
    if (element.id === ID.defaultDuration) facts.frameNs = numberOf(element);
    if (element.id === ID.timestampScale) facts.scaleNs = numberOf(element);
    if (element.id === ID.duration) facts.length = floatOf(element);
    if (element.id === ID.alphaMode) facts.alphaMode = numberOf(element);
    if (element.id === ID.simpleBlock || element.id === ID.blockGroup) facts.frames++;
    if (element.id === ID.blockAdditions) facts.beside++;
  }
  const { codec, widthPx, heightPx, frames, frameNs, scaleNs, length, alphaMode, beside } = facts;
  if (!codec || !widthPx || !frames) return null;
  const durationMs = (length * scaleNs) / 1e6;
  const fps = frameNs ? 1e9 / frameNs : (frames * 1000) / durationMs;
  return { codec, widthPx, heightPx, frames, fps, durationMs, hasAlpha: alphaMode === 1 && beside === frames };
}

/** @returns null where it is no MP4 with a film in it. */
export async function readMp4(bytes: Uint8Array): Promise<FilmFacts | null> {
  const file = createFile();
  const info = await new Promise<Parameters<NonNullable<typeof file.onReady>>[0] | null>((resolve) => {
    file.onReady = resolve;
    file.onError = () => resolve(null);
    file.appendBuffer(MP4BoxBuffer.fromArrayBuffer(bytes.slice().buffer, 0));
    file.flush();
    setTimeout(() => resolve(null), 2_000);
  });
  const track = info?.videoTracks[0];
  if (!track) return null;
  const durationMs = (track.samples_duration / track.timescale) * 1000;
  const { width, height } = track.video ?? { width: 0, height: 0 };
  const fps = (track.nb_samples * 1000) / durationMs;
  return {
    codec: track.codec,
    widthPx: width,
    heightPx: height,
    frames: track.nb_samples,
    fps,
    durationMs,
    hasAlpha: false,
  };
}
