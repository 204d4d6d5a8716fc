// npm run fuzz [count] [seed]: mutated fonts through the real reader, in its worker threads with their limits. Seeded, so that any
// font can be made again. Ends with 1 when one has no outcome, takes over ten seconds, or the process grows beyond its bound.
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { SANS } from "../demo/foundry/design";
import { drawFace } from "../demo/foundry/face";
import { drawScript } from "../demo/foundry/specialFaces";
import { drawVariable } from "../demo/foundry/variableFace";
import {
  writeCollection,
  writeOpenType,
  writeTrueType,
  writeVariable,
  writeWoff,
} from "../demo/foundry/write/writeFont";
import { fontFacts } from "../tests/fixtures/fontFacts";
import { readFontInWorker } from "../src/server/workers/pool";
import { splitCollection } from "../src/core/open/container";
import { cutShort, flipBits, int, mutate, putExtreme, putNoise, type Mutation } from "./mutations";

const count = Number(process.argv[2] ?? 5000);
const seed = Number(process.argv[3] ?? 20261125);
const AT_ONCE = 4;
const LONGEST_MS = 10_000;
const MAX_MB = 3000;

const facts = fontFacts({ family: "Fuzz", descender: -300, xHeight: 500, vendor: "FUZZ" });
const few = "ABEHMORSTaeghinorstx0123&";
const plain = drawFace({ ...SANS }, { characters: few });
const text = drawFace({ ...SANS, serif: "bracketed", serifLength: 38, serifThickness: 26, thin: 44 });
const { face, plan } = drawVariable({ ...SANS });
const packaged = (id: string, file: string) =>
  new Uint8Array(readFileSync(join("node_modules", "@fontsource", id, "files", file)));
const BASES: Uint8Array[] = [
  writeTrueType(plain, facts),
  writeOpenType(plain, facts),
  writeTrueType(text, facts),
  writeOpenType(
    drawScript({ ...SANS, xHeight: 380, thin: 30, stem: 48, terminal: "round", slantDeg: 18 }, { characters: few }),
    facts,
  ),
  writeWoff(writeTrueType(plain, facts)),
  writeVariable(face, facts, plan),
  writeCollection([writeTrueType(plain, facts), writeOpenType(plain, facts)]),
  packaged("lora", "lora-latin-400-normal.woff2"),
  packaged("caveat", "caveat-latin-400-normal.woff2"),
];

const MUTATIONS: Mutation[] = [
  flipBits(12),
  putNoise(400),
  cutShort,
  // some counts or offsets at their extremes
  (b, r) => {
    for (let i = 0; i < 1 + int(r, 4); i++) putExtreme(b, r, b.length - 4);
    return b;
  },
  // the table directory
  (b, r) => {
    const entries = Math.min(20, ((b[4] ?? 0) << 8) | (b[5] ?? 0));
    const at = 12 + 16 * int(r, Math.max(1, entries)) + [0, 8, 9, 10, 11, 12, 13, 14, 15][int(r, 9)]!;
    if (at < b.length) b[at] = int(r, 256);
    return b;
  },
  // bytes put in or taken out: all that follows is shifted
  (b, r) => {
    const at = int(r, b.length);
    const n = 1 + int(r, 60);
    if (r() < 0.5) return Uint8Array.from([...b.subarray(0, at), ...b.subarray(Math.min(b.length, at + n))]);
    const out = new Uint8Array(b.length + n);
    out.set(b.subarray(0, at));
    out.set(b.subarray(at), at + n);
    return out;
  },
  // the inside of one table
  (b, r) => {
    const entries = Math.min(20, ((b[4] ?? 0) << 8) | (b[5] ?? 0));
    const entry = 12 + 16 * int(r, Math.max(1, entries));
    if (entry + 16 > b.length) return b;
    const view = new DataView(b.buffer, b.byteOffset);
    const [offset, length] = [view.getUint32(entry + 8), view.getUint32(entry + 12)];
    for (let i = 0; i < 1 + int(r, 8); i++) {
      const at = offset + int(r, Math.max(1, Math.min(length, 200)));
      if (at < b.length) b[at] = int(r, 256);
    }
    return b;
  },
];

const outcomes = new Map<string, number>();
const slow: string[] = [];
let longest = 0;
let mostMb = 0;
let done = 0;
let next = 0;
const started = performance.now();
async function run() {
  while (next < count) {
    const n = next++;
    let bytes = mutate(BASES, MUTATIONS, seed + n);
    // As the import does: a collection is split first.
    if (bytes[0] === 0x74 && bytes[1] === 0x74 && bytes[2] === 0x63 && bytes[3] === 0x66)
      try {
        bytes = splitCollection(bytes)[0]!;
      } catch (error) {
        outcomes.set((error as { code: string }).code, (outcomes.get((error as { code: string }).code) ?? 0) + 1);
        done++;
        continue;
      }
    const t = performance.now();
    const reply = await readFontInWorker({ bytes, fallbackFamily: "Fuzz" });
    const ms = performance.now() - t;
    longest = Math.max(longest, ms);
    if (ms > LONGEST_MS) slow.push(`${n}: ${Math.round(ms)} ms`);
    const outcome = reply.ok ? `read, ${reply.reading.opened.health.degree}` : reply.code;
    outcomes.set(outcome, (outcomes.get(outcome) ?? 0) + 1);
    if (!reply.ok && reply.code === "reader-failed" && process.argv.includes("--say")) console.error(n, reply.detail);
    if (process.argv.includes("--keep") && !reply.ok && /took|memory/.test(reply.code))
      writeFileSync(`/tmp/fuzz-${n}.font`, bytes);
    mostMb = Math.max(mostMb, process.memoryUsage().rss / 1e6);
    if (++done % 500 === 0) console.error(`${done} of ${count}, ${Math.round(mostMb)} MB at most`);
  }
}
await Promise.all(Array.from({ length: AT_ONCE }, run));
console.error(
  [...outcomes]
    .sort((a, b) => b[1] - a[1])
    .map(([code, n]) => `${String(n).padStart(6)}  ${code}`)
    .join("\n"),
);
const isBounded = mostMb < MAX_MB;
console.error(
  `${done} of ${count} fonts have an outcome; the longest took ${(longest / 1000).toFixed(1)} s; ${slow.length} over 10 s; ${Math.round(mostMb)} MB at most; ${((performance.now() - started) / 1000).toFixed(0)} s in all; seed ${seed}`,
);
if (slow.length) console.error(slow.join("\n"));
process.exit(done === count && !slow.length && isBounded ? 0 : 1);
