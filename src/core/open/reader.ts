// Reads big-endian numbers out of one table and refuses to read past its end.
import { FontFileError } from "./fontFileError";

export class TableReader {
  private readonly view: DataView;
  constructor(
    readonly tag: string,
    readonly bytes: Uint8Array,
  ) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  }
  get length() {
    return this.bytes.byteLength;
  }
  private need(offset: number, size: number) {
    if (offset < 0 || offset + size > this.length)
      throw new FontFileError("table-damaged", this.tag, offset, `${size} more bytes`, `the end at ${this.length}`);
  }
  u8(offset: number) {
    this.need(offset, 1);
    return this.view.getUint8(offset);
  }
  u16(offset: number) {
    this.need(offset, 2);
    return this.view.getUint16(offset);
  }
  i16(offset: number) {
    this.need(offset, 2);
    return this.view.getInt16(offset);
  }
  u32(offset: number) {
    this.need(offset, 4);
    return this.view.getUint32(offset);
  }
  /** Fixed 16.16 as a number, exact. */
  fixed(offset: number) {
    this.need(offset, 4);
    return this.view.getInt32(offset) / 65536;
  }
  tag4(offset: number) {
    this.need(offset, 4);
    return String.fromCharCode(this.u8(offset), this.u8(offset + 1), this.u8(offset + 2), this.u8(offset + 3));
  }
  slice(offset: number, size: number) {
    this.need(offset, size);
    return this.bytes.subarray(offset, offset + size);
  }
}
