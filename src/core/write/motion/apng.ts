// PNG pictures of one size → one animated PNG (PNG Third Edition, W3C): their compressed data is taken over as it is, so that no more than
// one picture is held at a time.
import CRC32 from "crc-32";

const SIGNATURE = Uint8Array.of(137, 80, 78, 71, 13, 10, 26, 10);

type Chunk = { type: string; data: Uint8Array };

export function readChunks(png: Uint8Array): Chunk[] {
  const view = new DataView(png.buffer, png.byteOffset, png.byteLength);
  const chunks: Chunk[] = [];
  for (let at = 8; at + 12 <= png.length;) {
    const length = view.getUint32(at);
    const type = String.fromCharCode(...png.subarray(at + 4, at + 8));
    chunks.push({ type, data: png.subarray(at + 8, at + 8 + length) });
    at += 12 + length;
  }
  return chunks;
}

function writeChunk(type: string, data: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(12 + data.length);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, data.length);
  for (let i = 0; i < 4; i++) bytes[4 + i] = type.charCodeAt(i);
  bytes.set(data, 8);
  view.setUint32(8 + data.length, CRC32.buf(bytes.subarray(4, 8 + data.length)) >>> 0);
  return bytes;
}

const uint32s = (...values: number[]) => {
  const view = new DataView(new ArrayBuffer(4 * values.length));
  values.forEach((v, i) => view.setUint32(4 * i, v));
  return new Uint8Array(view.buffer);
};

type ApngOptions = {
  frames: number;
  /** How long each is shown, in seconds, as a fraction of two 16-bit numbers. */
  delay: { num: number; den: number };
  /** 0: without end. */
  plays: number;
};

/** Writes an animated PNG piece by piece: `begin` once, `frame` for each picture in order, `end`. */
export function apngWriter({ frames, delay, plays }: ApngOptions) {
  let sequence = 0;
  let count = 0;
  /** @param first - the first picture: what readers without animation show. */
  const begin = (first: Uint8Array): Uint8Array[] => {
    const header = readChunks(first).filter((c) => !["IDAT", "IEND", "acTL", "fcTL"].includes(c.type));
    const [ihdr, ...others] = header;
    return [
      SIGNATURE,
      writeChunk("IHDR", ihdr!.data),
      writeChunk("acTL", uint32s(frames, plays)),
      ...others.map((c) => writeChunk(c.type, c.data)),
    ];
  };
  const control = (width: number, height: number) => {
    const data = new Uint8Array(26);
    const view = new DataView(data.buffer);
    [sequence++, width, height, 0, 0].forEach((v, i) => view.setUint32(4 * i, v));
    view.setUint16(20, delay.num);
    view.setUint16(22, delay.den);
    return writeChunk("fcTL", data);
  };
  const frame = (png: Uint8Array): Uint8Array[] => {
    const chunks = readChunks(png);
    const header = chunks[0]!.data;
    const view = new DataView(header.buffer, header.byteOffset);
    const data = chunks.filter((c) => c.type === "IDAT").map((c) => c.data);
    const isFirst = count++ === 0;
    return [
      control(view.getUint32(0), view.getUint32(4)),
      ...data.map((d) => (isFirst ? writeChunk("IDAT", d) : writeChunk("fdAT", joined(uint32s(sequence++), d)))),
    ];
  };
  return { begin, frame, end: () => writeChunk("IEND", new Uint8Array(0)) };
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  const both = new Uint8Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}
