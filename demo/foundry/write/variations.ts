// A variable font's tables: axes (fvar), how each point moves (gvar), what the styles are called (STAT). OpenType 1.9.1.
import type { DrawnGlyph } from "../face";
import { Bytes } from "./bytes";
import { straightness, toQuadratic, type GlyfPoint } from "./outlines";

export type AxisPlan = { tag: string; name: string; min: number; default: number; max: number; nameId: number };
export type InstancePlan = { nameId: number; coordinates: number[] };
/** A place in the design space in −1…1 per axis, and the glyphs drawn there. */
export type Master = { peak: number[]; glyphs: DrawnGlyph[] };

export function writeFvar(axes: AxisPlan[], instances: InstancePlan[]): Uint8Array {
  const out = new Bytes().u16(1, 0, 16, 2, axes.length, 20, instances.length, axes.length * 4 + 4);
  for (const a of axes) out.tag(a.tag).fixed(a.min).fixed(a.default).fixed(a.max).u16(0, a.nameId);
  for (const i of instances) {
    out.u16(i.nameId, 0);
    for (const c of i.coordinates) out.fixed(c);
  }
  return out.done();
}

export function writeStat(
  axes: AxisPlan[],
  values: { axis: number; value: number; nameId: number; elided: boolean }[],
): Uint8Array {
  const out = new Bytes()
    .u16(1, 1, 8, axes.length)
    .u32(18)
    .u16(values.length)
    .u32(18 + 8 * axes.length)
    .u16(2);
  axes.forEach((a, i) => out.tag(a.tag).u16(a.nameId, i));
  values.forEach((_, i) => out.u16(2 * values.length + 12 * i));
  for (const v of values) out.u16(1, v.axis, v.elided ? 2 : 0, v.nameId).fixed(v.value);
  return out.done();
}

type Movable = { x: number; y: number }[];
/** The points that gvar moves: outline points or part offsets, then the four phantom points. */
function movable(glyph: DrawnGlyph, base: DrawnGlyph): Movable {
  const own: Movable = glyph.parts
    ? glyph.parts.map((p) => ({ x: Math.round(p.dx), y: Math.round(p.dy) }))
    : glyph.contours.flatMap((c, i): GlyfPoint[] => toQuadratic(c, straightness(base.contours[i]!), true));
  return [...own, { x: 0, y: 0 }, { x: glyph.advance, y: 0 }, { x: 0, y: 0 }, { x: 0, y: 0 }];
}

/** Share of a master that another place in the space already carries (each axis linear from the default). */
const scalar = (peak: number[], at: number[]) =>
  peak.reduce((s, p, i) => (p === 0 ? s : s * (p * at[i]! > 0 ? Math.min(1, at[i]! / p) : 0)), 1);

/** @param masters - the default first (peak all 0). Masters on one axis before those on two. */
export function writeGvar(masters: Master[], axisCount: number): Uint8Array {
  const [base, ...rest] = masters;
  const tuples = new Bytes();
  for (const m of rest) for (const p of m.peak) tuples.f2dot14(p);
  const data = base!.glyphs.map((glyph, g) =>
    glyphVariations(
      glyph,
      rest.map((m) => m.glyphs[g]!),
      rest.map((m) => m.peak),
    ),
  );
  const headerBytes = 20 + 4 * (data.length + 1);
  const shared = tuples.done();
  const out = new Bytes()
    .u16(1, 0, axisCount, rest.length)
    .u32(headerBytes)
    .u16(data.length, 1)
    .u32(headerBytes + shared.length);
  let at = 0;
  for (const d of [...data, new Uint8Array(0)]) {
    out.u32(at);
    at += d.length;
  }
  out.bytes(shared);
  for (const d of data) out.bytes(d);
  return out.done();
}

function glyphVariations(glyph: DrawnGlyph, others: DrawnGlyph[], peaks: number[][]): Uint8Array {
  const home = movable(glyph, glyph);
  if (home.length === 4 && others.every((o) => o.advance === glyph.advance)) return new Uint8Array(0);
  const known: { peak: number[]; dx: number[]; dy: number[] }[] = [];
  others.forEach((other, m) => {
    const there = movable(other, glyph);
    if (there.length !== home.length)
      throw new Error(`${glyph.name} has ${there.length} points, wanted ${home.length}`);
    const rest = (pick: "x" | "y", deltas: (k: (typeof known)[number]) => number[]) =>
      home.map((p, i) => {
        const carried = known.reduce((s, k) => s + scalar(k.peak, peaks[m]!) * deltas(k)[i]!, 0);
        return Math.round(there[i]![pick] - p[pick] - carried);
      });
    known.push({ peak: peaks[m]!, dx: rest("x", (k) => k.dx), dy: rest("y", (k) => k.dy) });
  });
  const bodies = known.map((k) => new Bytes().bytes(packDeltas(k.dx)).bytes(packDeltas(k.dy)).done());
  const headerBytes = 4 + 4 * bodies.length;
  // One shared list of point numbers: "all of them", a single 0.
  const out = new Bytes().u16(0x8000 | bodies.length, headerBytes);
  bodies.forEach((b, i) => out.u16(b.length, i));
  out.u8(0);
  bodies.forEach((b) => out.bytes(b));
  return out.pad(2).done();
}

/** Packed deltas: runs of zeros, bytes or words, up to 64 each. */
function packDeltas(deltas: number[]): Uint8Array {
  const out = new Bytes();
  const kind = (v: number) => (v === 0 ? 0x80 : Math.abs(v) < 128 ? 0 : 0x40);
  for (let i = 0; i < deltas.length;) {
    const k = kind(deltas[i]!);
    let n = 1;
    while (n < 64 && i + n < deltas.length && kind(deltas[i + n]!) === k) n++;
    out.u8(k | (n - 1));
    for (let j = i; j < i + n; j++)
      if (k === 0) out.u8(deltas[j]!);
      else if (k === 0x40) out.i16(deltas[j]!);
    i += n;
  }
  return out.done();
}
