// Writes big-endian numbers in a row, as every table of a font wants them.

export class Bytes {
  private parts: number[] = [];
  get length() {
    return this.parts.length;
  }
  u8(...values: number[]) {
    for (const v of values) this.parts.push(v & 0xff);
    return this;
  }
  u16(...values: number[]) {
    for (const v of values) this.parts.push((v >> 8) & 0xff, v & 0xff);
    return this;
  }
  i16 = (...values: number[]) => this.u16(...values);
  u32(...values: number[]) {
    for (const v of values) this.parts.push((v >>> 24) & 0xff, (v >>> 16) & 0xff, (v >>> 8) & 0xff, v & 0xff);
    return this;
  }
  /** 16.16 fixed. */
  fixed(value: number) {
    return this.u32(Math.round(value * 65536) >>> 0);
  }
  /** 2.14 fixed. */
  f2dot14(value: number) {
    return this.u16(Math.round(value * 16384));
  }
  tag(text: string) {
    for (let i = 0; i < 4; i++) this.parts.push(text.charCodeAt(i) || 0x20);
    return this;
  }
  bytes(data: Uint8Array | number[]) {
    for (const b of data) this.parts.push(b);
    return this;
  }
  pad(to = 4) {
    while (this.parts.length % to) this.parts.push(0);
    return this;
  }
  /** Sets a 16-bit number written earlier. */
  put16(at: number, value: number) {
    this.parts[at] = (value >> 8) & 0xff;
    this.parts[at + 1] = value & 0xff;
  }
  done(): Uint8Array {
    return Uint8Array.from(this.parts);
  }
}

function checksum(data: Uint8Array): number {
  let sum = 0;
  for (let i = 0; i < data.length; i += 4)
    sum =
      (sum + (((data[i] ?? 0) << 24) | ((data[i + 1] ?? 0) << 16) | ((data[i + 2] ?? 0) << 8) | (data[i + 3] ?? 0))) >>>
      0;
  return sum >>> 0;
}

/** Tables behind a directory, checksums and the whole file's adjustment set (OpenType, "Organization of an OpenType font"). */
export function assemble(tables: Record<string, Uint8Array>, flavour: number): Uint8Array {
  const tags = Object.keys(tables).sort();
  const power = 2 ** Math.floor(Math.log2(tags.length));
  const head = new Bytes().u32(flavour).u16(tags.length, power * 16, Math.log2(power), tags.length * 16 - power * 16);
  let at = 12 + 16 * tags.length;
  for (const tag of tags) {
    const data = tables[tag]!;
    head.tag(tag).u32(checksum(data), at, data.length);
    at += (data.length + 3) & ~3;
  }
  const out = new Uint8Array(at);
  out.set(head.done());
  let place = 12 + 16 * tags.length;
  let headAt = 0;
  for (const tag of tags) {
    if (tag === "head") headAt = place;
    out.set(tables[tag]!, place);
    place += (tables[tag]!.length + 3) & ~3;
  }
  new DataView(out.buffer).setUint32(headAt + 8, (0xb1b0afba - checksum(out)) >>> 0);
  return out;
}
