// npm run fuzz:pictures [count] [seed]: damaged, wild and far too large pictures through the real worker that identifies them, against the
// fonts of a data folder (FOND_QUARRY_DATA). Seeded. Ends with 1 when one has no outcome, takes too long, or memory grows beyond its bound.
import sharp from "sharp";
import { crc32, deflateSync } from "node:zlib";
import { dataFolder, getDb } from "../src/server/db/open";
import { identifyInWorker } from "../src/server/workers/pool";
import { lastSeq } from "../src/server/queries/styles";
import { cutShort, flipBits, int, mutate, putExtreme, putNoise, type Mutation } from "./mutations";

const count = Number(process.argv[2] ?? 1000);
const seed = Number(process.argv[3] ?? 20261125);
const LONGEST_MS = 60_000;
const MAX_MB = 3000;

const WORDS = ["Skerrow", "Fog + Brass", "12 lamps", "one tide"];
const drawing = (words: string, width = 420, height = 90) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#f3efe6"/><text x="20" y="64" font-size="52" fill="#20262b">${words}</text></svg>`;
const base = (words: string) => sharp(Buffer.from(drawing(words)));
const BASES: Uint8Array[] = (
  await Promise.all(
    WORDS.map(async (words) => [
      await base(words).png().toBuffer(),
      await base(words).jpeg({ quality: 80 }).withMetadata({ orientation: 6 }).toBuffer(),
      await base(words).webp().toBuffer(),
      await base(words).gif().toBuffer(),
      await base(words).tiff().toBuffer(),
      Buffer.from(drawing(words)),
    ]),
  )
)
  .flat()
  .map((b) => Uint8Array.from(b));

const MUTATIONS: Mutation[] = [
  flipBits(10),
  putNoise(300),
  cutShort,
  // a number of the header at its extremes
  (b, r) => {
    putExtreme(b, r, Math.min(64, b.length - 4));
    return b;
  },
  // a piece twice
  (b, r) => {
    const at = int(r, b.length);
    const piece = b.subarray(at, at + int(r, 500));
    const out = new Uint8Array(b.length + piece.length);
    out.set(b.subarray(0, at));
    out.set(piece, at);
    out.set(b.subarray(at), at + piece.length);
    return out;
  },
];

function pngChunk(type: string, data: Uint8Array): Buffer {
  const out = Buffer.alloc(12 + data.length);
  out.writeUInt32BE(data.length, 0);
  out.write(type, 4, "latin1");
  out.set(data, 8);
  out.writeUInt32BE(crc32(out.subarray(4, 8 + data.length)), 8 + data.length);
  return out;
}
/** One bit a pixel, all of one colour: a few kilobytes for hundreds of millions of pixels. */
function packedPng(widthPx: number, heightPx: number): Uint8Array {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(widthPx, 0);
  head.writeUInt32BE(heightPx, 4);
  head.set([1, 0, 0, 0, 0], 8);
  const rows = deflateSync(Buffer.alloc((1 + Math.ceil(widthPx / 8)) * heightPx), { level: 9 });
  const signature = Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]);
  return Buffer.concat([signature, pngChunk("IHDR", head), pngChunk("IDAT", rows), pngChunk("IEND", Buffer.alloc(0))]);
}
const laughs = `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">${Array.from({ length: 9 }, (_, i) => `<!ENTITY ${String.fromCharCode(98 + i)} "${`&${String.fromCharCode(97 + i)};`.repeat(10)}">`).join("")}]><svg xmlns="http://www.w3.org/2000/svg" width="200" height="60"><text y="40">&j;</text></svg>`;
const text = (s: string) => new TextEncoder().encode(s);
/** Made to burst, or to reach out. */
const BOMBS: [string, Uint8Array][] = [
  ["PNG of 900 megapixels", packedPng(30_000, 30_000)],
  ["PNG of 60 megapixels", packedPng(60_000, 1000)],
  ["PNG of 49 megapixels, which is allowed", packedPng(7000, 7000)],
  ["SVG a million wide", text(drawing("x", 1_000_000, 1_000_000))],
  ["SVG of entities upon entities", text(laughs)],
  [
    "SVG that names a file",
    text(
      `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="200" height="60"><image xlink:href="file:///etc/passwd" width="200" height="60"/></svg>`,
    ),
  ],
  [
    "SVG of a hundred thousand shapes",
    text(
      `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="300">${"<circle cx='9' cy='9' r='80' opacity='.1'/>".repeat(100_000)}</svg>`,
    ),
  ],
  [
    "noise of two megapixels",
    await sharp(Buffer.from(Array.from({ length: 2_000_000 }, (_, i) => (i * 2654435761) >>> 24)), {
      raw: { width: 2000, height: 1000, channels: 1 },
    })
      .png()
      .toBuffer(),
  ],
  [
    "one pixel",
    await sharp({ create: { width: 1, height: 1, channels: 3, background: "#000" } })
      .png()
      .toBuffer(),
  ],
  [
    "nine thousand by four",
    await sharp({ create: { width: 9000, height: 4, channels: 3, background: "#123" } })
      .png()
      .toBuffer(),
  ],
];

const version = lastSeq(getDb());
const outcomes = new Map<string, number>();
const slow: string[] = [];
let [longest, mostMb, lost] = [0, 0, 0];
async function put(name: string, image: Uint8Array): Promise<string> {
  const started = performance.now();
  let outcome: string;
  try {
    const reply = await identifyInWorker({
      image,
      text: null,
      frame: {},
      limit: 3,
      cut: null,
      ink: null,
      styleId: null,
      dataFolder: dataFolder(),
      version,
    });
    outcome = reply.ok ? "read and compared" : reply.code;
  } catch (error) {
    outcome = `no outcome: ${(error as Error).message.slice(0, 80)}`;
    lost++;
  }
  const ms = performance.now() - started;
  longest = Math.max(longest, ms);
  if (ms > LONGEST_MS) slow.push(`${name}: ${Math.round(ms)} ms`);
  mostMb = Math.max(mostMb, process.memoryUsage().rss / 1e6);
  return `${outcome}, ${(ms / 1000).toFixed(1)} s`;
}
const began = performance.now();
for (const [name, image] of BOMBS) console.error(`${name}: ${await put(name, image)}`);
for (let n = 0; n < count; n++) {
  const outcome = (await put(String(n), mutate(BASES, MUTATIONS, seed + n))).replace(/, [\d.]+ s$/, "");
  outcomes.set(outcome, (outcomes.get(outcome) ?? 0) + 1);
  if ((n + 1) % 200 === 0) console.error(`${n + 1} of ${count}, ${Math.round(mostMb)} MB at most`);
}
for (const [outcome, n] of [...outcomes].sort((a, b) => b[1] - a[1]))
  console.error(`${String(n).padStart(6)}  ${outcome}`);
console.error(
  `${count} pictures and ${BOMBS.length} made to burst; ${lost} without an outcome; the longest took ${(longest / 1000).toFixed(1)} s; ${Math.round(mostMb)} MB at most; ${((performance.now() - began) / 1000).toFixed(0)} s in all; seed ${seed}`,
);
process.exit(!lost && !slow.length && mostMb < MAX_MB ? 0 : 1);
