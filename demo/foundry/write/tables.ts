// The small tables that say what a font is: names, metrics, character map. OpenType 1.9.1, a function a table.
import type { DrawnGlyph } from "../face";
import { Bytes } from "./bytes";
import type { Box } from "./outlines";

export type FontFacts = {
  family: string;
  style: string;
  weightClass: number;
  widthClass: number;
  slantDeg: number;
  ascender: number;
  descender: number;
  xHeight: number;
  capHeight: number;
  isMonospaced: boolean;
  fsType: number;
  copyright?: string;
  manufacturer?: string;
  designer?: string;
  licence?: string;
  licenceUrl?: string;
  version: string;
  vendor: string;
};

/** Seconds from 1904 to 2026-11-25: one fixed day, so that the same face gives the same bytes. */
const MADE = 3_878_409_600;

export function writeHead(box: Box, facts: FontFacts): Uint8Array {
  const isBold = facts.weightClass >= 700;
  const macStyle = (isBold ? 1 : 0) | (facts.slantDeg ? 2 : 0);
  return new Bytes()
    .u16(1, 0)
    .fixed(1)
    .u32(0, 0x5f0f3cf5)
    .u16(0x0003, 1000)
    .u32(0, MADE, 0, MADE)
    .i16(box.xMin, box.yMin, box.xMax, box.yMax)
    .u16(macStyle, 8)
    .i16(2, 1, 0)
    .done();
}

export function writeHhea(
  facts: FontFacts,
  box: Box,
  advances: number[],
  bearings: number[],
  widths: number[],
): Uint8Array {
  const right = Math.min(...advances.map((a, i) => a - bearings[i]! - widths[i]!));
  return new Bytes()
    .u16(1, 0)
    .i16(lineTop(facts), lineBottom(facts), 0)
    .u16(Math.max(...advances))
    .i16(Math.min(...bearings), right, Math.max(...bearings.map((b, i) => b + widths[i]!)))
    .i16(1, 0, 0, 0, 0, 0, 0, 0)
    .u16(advances.length)
    .done();
}
const lineTop = (f: FontFacts) => Math.max(f.ascender, f.capHeight) + 170;
const lineBottom = (f: FontFacts) => f.descender - 40;

export const writeHmtx = (advances: number[], bearings: number[]): Uint8Array => {
  const out = new Bytes();
  advances.forEach((a, i) => out.u16(a).i16(bearings[i]!));
  return out.done();
};

export function writeMaxp(
  glyphs: number,
  points: number,
  contours: number,
  partPoints: number,
  partContours: number,
): Uint8Array {
  return new Bytes().fixed(1).u16(glyphs, points, contours, partPoints, partContours, 1, 0, 0, 0, 0, 0, 0, 2, 1).done();
}
export const writeMaxpCff = (glyphs: number): Uint8Array => new Bytes().u32(0x00005000).u16(glyphs).done();

export function writeOs2(facts: FontFacts, advances: number[], codePoints: number[]): Uint8Array {
  const mean = Math.round(advances.reduce((s, a) => s + a, 0) / advances.length);
  const isRegular = facts.weightClass === 400 && !facts.slantDeg;
  const selection = (facts.slantDeg ? 0x01 : 0) | (facts.weightClass >= 700 ? 0x20 : 0) | (isRegular ? 0x40 : 0) | 0x80;
  const hasPrivate = codePoints.some((c) => c >= 0xe000 && c < 0xf900);
  return new Bytes()
    .u16(4)
    .i16(mean)
    .u16(facts.weightClass, facts.widthClass, facts.fsType)
    .i16(650, 600, 0, 75, 650, 600, 0, 350, 50, 300, 0)
    .u8(0, 0, 0, 0, 0, 0, 0, 0, 0, 0)
    .u32(0b111 | (1 << 31), hasPrivate ? 1 << 28 : 0, 0, 0)
    .tag(facts.vendor)
    .u16(selection, Math.min(0xffff, ...codePoints), Math.min(0xffff, Math.max(...codePoints)))
    .i16(facts.ascender, facts.descender, 200)
    .u16(lineTop(facts), -lineBottom(facts))
    .u32(0x00000001, 0)
    .i16(facts.xHeight, facts.capHeight)
    .u16(0, 0x20, 2)
    .done();
}

/** cmap format 4 for the basic plane. */
export function writeCmap(pairs: [number, number][]): Uint8Array {
  const sorted = [...pairs].sort((a, b) => a[0] - b[0]);
  const runs: { from: number; to: number; delta: number }[] = [];
  for (const [code, glyph] of sorted) {
    const last = runs[runs.length - 1];
    if (last && last.to === code - 1 && ((last.delta + code) & 0xffff) === glyph) last.to = code;
    else runs.push({ from: code, to: code, delta: (glyph - code) & 0xffff });
  }
  runs.push({ from: 0xffff, to: 0xffff, delta: 1 });
  const n = runs.length;
  const power = 2 ** Math.floor(Math.log2(n));
  const sub = new Bytes()
    .u16(4, 16 + 8 * n, 0, n * 2, power * 2, Math.log2(power), (n - power) * 2)
    .u16(...runs.map((r) => r.to))
    .u16(0)
    .u16(...runs.map((r) => r.from))
    .u16(...runs.map((r) => r.delta))
    .u16(...runs.map(() => 0))
    .done();
  return new Bytes().u16(0, 2, 0, 3).u32(20).u16(3, 1).u32(20).bytes(sub).done();
}

/** Windows, Unicode, English. */
export function writeName(strings: Record<number, string>): Uint8Array {
  const ids = Object.keys(strings)
    .map(Number)
    .filter((id) => strings[id])
    .sort((a, b) => a - b);
  const storage = new Bytes();
  const records = new Bytes();
  for (const id of ids) {
    const at = storage.length;
    for (let i = 0; i < strings[id]!.length; i++) storage.u16(strings[id]!.charCodeAt(i));
    records.u16(3, 1, 0x409, id, storage.length - at, at);
  }
  return new Bytes()
    .u16(0, ids.length, 6 + 12 * ids.length)
    .bytes(records.done())
    .bytes(storage.done())
    .done();
}

export function nameStrings(f: FontFacts): Record<number, string> {
  const full = `${f.family} ${f.style}`;
  const isPlain = ["Regular", "Italic", "Bold", "Bold Italic"].includes(f.style);
  const words = f.style.split(" ");
  const italic = words.includes("Italic");
  const legacy = isPlain ? f.family : `${f.family} ${words.filter((w) => w !== "Italic").join(" ")}`;
  const post = `${f.family}-${f.style}`.replace(/[^A-Za-z0-9-]/g, "").slice(0, 63);
  return {
    0: f.copyright ?? "",
    1: legacy,
    2: isPlain ? f.style : italic ? "Italic" : "Regular",
    3: `${f.version};${f.vendor.trim()};${post}`,
    4: full,
    5: `Version ${f.version}`,
    6: post,
    8: f.manufacturer ?? "",
    9: f.designer ?? "",
    13: f.licence ?? "",
    14: f.licenceUrl ?? "",
    16: isPlain ? "" : f.family,
    17: isPlain ? "" : f.style,
  };
}

/** post 2.0 with our own glyph names; 3.0 without (CFF holds them). */
export function writePost(glyphs: DrawnGlyph[], facts: FontFacts, withNames: boolean): Uint8Array {
  const out = new Bytes()
    .u32(withNames ? 0x00020000 : 0x00030000)
    .fixed(-facts.slantDeg)
    .i16(-100, 50)
    .u32(facts.isMonospaced ? 1 : 0, 0, 0, 0, 0);
  if (!withNames) return out.done();
  out.u16(glyphs.length).u16(...glyphs.map((g, i) => (i === 0 ? 0 : 257 + i)));
  for (const g of glyphs.slice(1)) out.u8(g.name.length).bytes([...g.name].map((c) => c.charCodeAt(0)));
  return out.done();
}
