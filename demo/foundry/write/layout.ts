// GSUB and GPOS: substitutions by feature, ligatures, kerning by pairs. OpenType 1.9.1, chapter 2 "Common table formats".
import type { Face } from "../face";
import { Bytes } from "./bytes";

type Lookup = { type: number; subtable: Uint8Array };
type Feature = { tag: string; lookups: number[] };

/** Script, feature and lookup lists around the lookups; every feature works for all of DFLT and latn. */
function writeTable(features: Feature[], lookups: Lookup[]): Uint8Array {
  const sorted = [...features].sort((a, b) => (a.tag < b.tag ? -1 : 1));
  const langSys = new Bytes().u16(0, 0xffff, sorted.length, ...sorted.map((_, i) => i)).done();
  const script = new Bytes().u16(4, 0).bytes(langSys).done();
  const scripts = new Bytes()
    .u16(2)
    .tag("DFLT")
    .u16(14)
    .tag("latn")
    .u16(14 + script.length);
  scripts.bytes(script).bytes(script);
  const featureTables = sorted.map((f) => new Bytes().u16(0, f.lookups.length, ...f.lookups).done());
  const featureList = new Bytes().u16(sorted.length);
  let at = 2 + 6 * sorted.length;
  sorted.forEach((f, i) => {
    featureList.tag(f.tag).u16(at);
    at += featureTables[i]!.length;
  });
  featureTables.forEach((t) => featureList.bytes(t));
  const lookupTables = lookups.map((l) => new Bytes().u16(l.type, 0, 1, 8).bytes(l.subtable).done());
  const lookupList = new Bytes().u16(lookups.length);
  at = 2 + 2 * lookups.length;
  for (const t of lookupTables) {
    lookupList.u16(at);
    at += t.length;
  }
  lookupTables.forEach((t) => lookupList.bytes(t));
  const [s, f] = [scripts.done(), featureList.done()];
  return new Bytes()
    .u16(1, 0, 10, 10 + s.length, 10 + s.length + f.length)
    .bytes(s)
    .bytes(f)
    .bytes(lookupList.done())
    .done();
}

const coverage = (glyphs: number[]) => new Bytes().u16(1, glyphs.length, ...glyphs).done();

function singles(pairs: [number, number][]): Uint8Array {
  const sorted = [...pairs].sort((a, b) => a[0] - b[0]);
  return new Bytes()
    .u16(2, 6 + 2 * sorted.length, sorted.length, ...sorted.map((p) => p[1]))
    .bytes(coverage(sorted.map((p) => p[0])))
    .done();
}

function ligatures(list: { parts: number[]; to: number }[]): Uint8Array {
  const firsts = [...new Set(list.map((l) => l.parts[0]!))].sort((a, b) => a - b);
  const sets = firsts.map((first) => {
    const own = list.filter((l) => l.parts[0] === first).sort((a, b) => b.parts.length - a.parts.length);
    const tables = own.map((l) => new Bytes().u16(l.to, l.parts.length, ...l.parts.slice(1)).done());
    const set = new Bytes().u16(own.length);
    let at = 2 + 2 * own.length;
    for (const t of tables) {
      set.u16(at);
      at += t.length;
    }
    tables.forEach((t) => set.bytes(t));
    return set.done();
  });
  const out = new Bytes().u16(1, 6 + 2 * firsts.length + sets.reduce((n, s) => n + s.length, 0), firsts.length);
  let at = 6 + 2 * firsts.length;
  for (const s of sets) {
    out.u16(at);
    at += s.length;
  }
  sets.forEach((s) => out.bytes(s));
  return out.bytes(coverage(firsts)).done();
}

/** @returns the table, or null when the face has no substitutions. */
export function writeGsub(face: Face, indexOf: Map<string, number>): Uint8Array | null {
  const lookups: Lookup[] = [];
  const features: Feature[] = [];
  for (const [tag, swap] of Object.entries(face.features)) {
    const pairs = Object.entries(swap).map(([a, b]) => [indexOf.get(a)!, indexOf.get(b)!] as [number, number]);
    if (!pairs.length) continue;
    features.push({ tag, lookups: [lookups.length] });
    lookups.push({ type: 1, subtable: singles(pairs) });
  }
  const joined = Object.entries(face.ligatures).map(([parts, to]) => ({
    parts: parts.split(" ").map((p) => indexOf.get(p)!),
    to: indexOf.get(to)!,
  }));
  if (joined.length) {
    features.push({ tag: "liga", lookups: [lookups.length] });
    lookups.push({ type: 4, subtable: ligatures(joined) });
  }
  return features.length ? writeTable(features, lookups) : null;
}

/** @returns the table, or null when the face has no kerning. */
export function writeGpos(face: Face, indexOf: Map<string, number>): Uint8Array | null {
  const byFirst = new Map<number, [number, number][]>();
  for (const [pair, by] of Object.entries(face.kerning)) {
    const [a, b] = pair.split(" ").map((n) => indexOf.get(n)!) as [number, number];
    byFirst.set(a, [...(byFirst.get(a) ?? []), [b, by]]);
  }
  if (!byFirst.size) return null;
  const firsts = [...byFirst.keys()].sort((a, b) => a - b);
  const sets = firsts.map((f) => {
    const pairs = byFirst.get(f)!.sort((a, b) => a[0] - b[0]);
    const set = new Bytes().u16(pairs.length);
    for (const [second, by] of pairs) set.u16(second).i16(by);
    return set.done();
  });
  const setBytes = sets.reduce((n, s) => n + s.length, 0);
  const out = new Bytes().u16(1, 10 + 2 * firsts.length + setBytes, 0x0004, 0, firsts.length);
  let at = 10 + 2 * firsts.length;
  for (const s of sets) {
    out.u16(at);
    at += s.length;
  }
  sets.forEach((s) => out.bytes(s));
  return writeTable([{ tag: "kern", lookups: [0] }], [{ type: 2, subtable: out.bytes(coverage(firsts)).done() }]);
}
