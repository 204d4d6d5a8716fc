// A drawn face → the bytes of a font: TrueType, OpenType with CFF outlines, variable TrueType, WOFF, collection.
import { zlibSync } from "fflate";
import opentype from "opentype.js";
import type { Face } from "../face";
import type { Point } from "../pen";
import { assemble, Bytes } from "./bytes";
import { writeGpos, writeGsub } from "./layout";
import { boundsOfGlyph, glyfDataOf, straightness, toQuadratic, writeGlyf, type Box, type GlyfData } from "./outlines";
import {
  nameStrings,
  writeCmap,
  writeHead,
  writeHhea,
  writeHmtx,
  writeMaxp,
  writeMaxpCff,
  writeName,
  writeOs2,
  writePost,
  type FontFacts,
} from "./tables";
import { writeFvar, writeGvar, writeStat, type AxisPlan, type InstancePlan, type Master } from "./variations";

const TRUETYPE = 0x00010000;
const CFF = 0x4f54544f;

export type VariablePlan = {
  axes: Omit<AxisPlan, "nameId">[];
  masters: Master[];
  instances: { name: string; coordinates: number[] }[];
  values: { axis: number; value: number; name: string; elided?: boolean }[];
};

function shared(face: Face, facts: FontFacts, data: GlyfData[], extraNames: Record<number, string> = {}) {
  const indexOf = new Map(face.glyphs.map((g, i) => [g.name, i]));
  const boxes = data.map((d) => boundsOfGlyph(d, data));
  const drawn = boxes.filter((b): b is Box => b !== null);
  const all: Box = {
    xMin: Math.min(...drawn.map((b) => b.xMin)),
    yMin: Math.min(...drawn.map((b) => b.yMin)),
    xMax: Math.max(...drawn.map((b) => b.xMax)),
    yMax: Math.max(...drawn.map((b) => b.yMax)),
  };
  const advances = face.glyphs.map((g) => g.advance);
  const bearings = boxes.map((b) => b?.xMin ?? 0);
  const widths = boxes.map((b) => (b ? b.xMax - b.xMin : 0));
  const pairs = face.glyphs.flatMap((g, i) => g.codePoints.map((c) => [c, i] as [number, number]));
  const gsub = writeGsub(face, indexOf);
  const gpos = writeGpos(face, indexOf);
  return {
    head: writeHead(all, facts),
    hhea: writeHhea(facts, all, advances, bearings, widths),
    hmtx: writeHmtx(advances, bearings),
    "OS/2": writeOs2(
      facts,
      advances,
      pairs.map((p) => p[0]),
    ),
    cmap: writeCmap(pairs),
    name: writeName({ ...nameStrings(facts), ...extraNames }),
    ...(gsub && { GSUB: gsub }),
    ...(gpos && { GPOS: gpos }),
  };
}

function maxpOf(data: GlyfData[]): Uint8Array {
  const points = (d: GlyfData): number =>
    "simple" in d ? d.simple.flat().length : d.parts.reduce((n, p) => n + points(data[p.index]!), 0);
  const contours = (d: GlyfData): number =>
    "simple" in d ? d.simple.length : d.parts.reduce((n, p) => n + contours(data[p.index]!), 0);
  const [simple, parts] = [data.filter((d) => "simple" in d), data.filter((d) => "parts" in d)];
  const most = (list: GlyfData[], f: (d: GlyfData) => number) => Math.max(0, ...list.map(f));
  return writeMaxp(
    data.length,
    most(simple, points),
    most(simple, contours),
    most(parts, points),
    most(parts, contours),
  );
}

export function writeTrueType(face: Face, facts: FontFacts): Uint8Array {
  const indexOf = new Map(face.glyphs.map((g, i) => [g.name, i]));
  const data = face.glyphs.map((g) => glyfDataOf(g, indexOf));
  return assemble(
    {
      ...shared(face, facts, data),
      maxp: maxpOf(data),
      post: writePost(face.glyphs, facts, true),
      ...writeGlyf(data, false),
    },
    TRUETYPE,
  );
}

/** The same face with cubic outlines. The CFF table is written by opentype.js, everything around it here. */
export function writeOpenType(face: Face, facts: FontFacts): Uint8Array {
  const byName = new Map(face.glyphs.map((g) => [g.name, g]));
  const indexOf = new Map(face.glyphs.map((g, i) => [g.name, i]));
  const glyphs = face.glyphs.map((g) => {
    const path = new opentype.Path();
    for (const part of g.parts ?? [{ glyph: g.name, dx: 0, dy: 0 }])
      for (const { start, curves } of byName.get(part.glyph)!.contours) {
        const at = (p: Point) => [Math.round(p.x + part.dx), Math.round(p.y + part.dy)] as const;
        const lines = straightness({ start, curves });
        path.moveTo(...at(start));
        curves.forEach(([a, b, c], i) =>
          lines[i] ? path.lineTo(...at(c)) : path.curveTo(...at(a), ...at(b), ...at(c)),
        );
        path.close();
      }
    return new opentype.Glyph({
      name: g.name,
      advanceWidth: g.advance,
      path,
      ...(g.codePoints[0] && { unicode: g.codePoints[0] }),
    });
  });
  const written = new Uint8Array(
    new opentype.Font({
      familyName: facts.family,
      styleName: facts.style,
      unitsPerEm: 1000,
      ascender: facts.ascender,
      descender: facts.descender,
      glyphs,
    }).toArrayBuffer(),
  );
  const data = face.glyphs.map((g) => glyfDataOf(g, indexOf));
  return assemble(
    {
      ...shared(face, facts, data),
      maxp: writeMaxpCff(face.glyphs.length),
      post: writePost(face.glyphs, facts, false),
      "CFF ": tableOf(written, "CFF "),
    },
    CFF,
  );
}

/** One table's bytes out of a font. */
export function tableOf(font: Uint8Array, tag: string): Uint8Array {
  const view = new DataView(font.buffer, font.byteOffset);
  for (let i = 0; i < view.getUint16(4); i++) {
    const at = 12 + 16 * i;
    if (String.fromCharCode(...font.subarray(at, at + 4)) === tag)
      return font.slice(view.getUint32(at + 8), view.getUint32(at + 8) + view.getUint32(at + 12));
  }
  throw new Error(`no table ${tag}`);
}

export function writeVariable(face: Face, facts: FontFacts, plan: VariablePlan): Uint8Array {
  const names: Record<number, string> = {};
  let next = 256;
  const named = (text: string) => {
    names[next] = text;
    return next++;
  };
  const axes = plan.axes.map((a) => ({ ...a, nameId: named(a.name) }));
  const instances: InstancePlan[] = plan.instances.map((i) => ({ nameId: named(i.name), coordinates: i.coordinates }));
  const values = plan.values.map((v) => ({
    axis: v.axis,
    value: v.value,
    nameId: named(v.name),
    elided: Boolean(v.elided),
  }));
  const indexOf = new Map(face.glyphs.map((g, i) => [g.name, i]));
  const data = face.glyphs.map((g): GlyfData =>
    g.parts ? glyfDataOf(g, indexOf) : { simple: g.contours.map((c) => toQuadratic(c, straightness(c), true)) },
  );
  return assemble(
    {
      ...shared(face, facts, data, names),
      maxp: maxpOf(data),
      post: writePost(face.glyphs, facts, true),
      ...writeGlyf(data, true),
      fvar: writeFvar(axes, instances),
      gvar: writeGvar(plan.masters, axes.length),
      STAT: writeStat(axes, values),
    },
    TRUETYPE,
  );
}

/** WOFF 1.0: each table packed where that makes it smaller. */
export function writeWoff(font: Uint8Array): Uint8Array {
  const view = new DataView(font.buffer, font.byteOffset);
  const count = view.getUint16(4);
  const entries = Array.from({ length: count }, (_, i) => {
    const at = 12 + 16 * i;
    const raw = font.slice(view.getUint32(at + 8), view.getUint32(at + 8) + view.getUint32(at + 12));
    const packed = zlibSync(raw, { level: 9 });
    return {
      tag: String.fromCharCode(...font.subarray(at, at + 4)),
      sum: view.getUint32(at + 4),
      raw,
      data: packed.length < raw.length ? packed : raw,
    };
  });
  const out = new Bytes();
  const bodyAt = 44 + 20 * count;
  const total = entries.reduce((n, e) => n + ((e.data.length + 3) & ~3), bodyAt);
  const sfntSize = entries.reduce((n, e) => n + ((e.raw.length + 3) & ~3), 12 + 16 * count);
  out.tag("wOFF").u32(view.getUint32(0), total).u16(count, 0).u32(sfntSize).u16(1, 0).u32(0, 0, 0, 0, 0);
  let at = bodyAt;
  for (const e of entries) {
    out.tag(e.tag).u32(at, e.data.length, e.raw.length, e.sum);
    at += (e.data.length + 3) & ~3;
  }
  for (const e of entries) out.bytes(e.data).pad(4);
  return out.done();
}

/** A collection: several fonts in one file, each with its own directory; tables are not shared. */
export function writeCollection(fonts: Uint8Array[]): Uint8Array {
  const headBytes = 12 + 4 * fonts.length;
  const places: number[] = [];
  let at = headBytes;
  for (const f of fonts) {
    places.push(at);
    at += (f.length + 3) & ~3;
  }
  const out = new Uint8Array(at);
  const view = new DataView(out.buffer);
  out.set(
    new Bytes()
      .tag("ttcf")
      .u16(1, 0)
      .u32(fonts.length, ...places)
      .done(),
  );
  fonts.forEach((f, k) => {
    out.set(f, places[k]);
    const tables = new DataView(f.buffer, f.byteOffset).getUint16(4);
    for (let i = 0; i < tables; i++) {
      const entry = places[k]! + 12 + 16 * i + 8;
      view.setUint32(entry, view.getUint32(entry) + places[k]!);
    }
  });
  return out;
}
