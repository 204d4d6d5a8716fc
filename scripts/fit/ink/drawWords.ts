// Draws words that the ink net is fitted to: node scripts/runScript.mjs scripts/fit/ink/drawWords.ts <folder of families> <out> [count]
// Families of the demo library, and copies of them under other names, are left out: evaluations look for those.
// Writes <out>.bin, 8-bit coverage row by row, one word after the other, and <out>.json: [{ at, widthPx, heightPx, family, text }].
import { closeSync, openSync, readdirSync, readFileSync, writeFileSync, writeSync } from "node:fs";
import { join } from "node:path";
import { listDemoFonts } from "../../../demo/packages";
import { seededRandom } from "../../../src/core/geometry/numbers";
import type { InkPicture } from "../../../src/core/geometry/raster";
import { openFont } from "../../../src/core/open/openFont";
import { openFace } from "../../../src/core/outlines/openFace";
import { measureTypeset, rasterTypeset } from "../../../src/core/typeset/pens";
import { typesetText } from "../../../src/core/typeset/typesetText";

const [folder, out, count = "12000"] = process.argv.slice(2) as [string, string, string?];
/** Height of the ink from the lowest to the highest, and the longest word. */
const INK_PX = 64;
const LONGEST_PX = 900;

const plain = (name: string) => name.toLowerCase().replace(/[^a-z]/g, "");
const demo = new Set(listDemoFonts(process.cwd()).map((f) => plain(f.family ?? "")));
const isOfDemo = (family: string) =>
  [...demo].some((d) => d && (plain(family).startsWith(d) || d.startsWith(plain(family))));

const next = seededRandom(20_261);
const pick = <T>(list: readonly T[]) => list[Math.floor(next() * list.length)]!;
/** The most used words; layout of the file: src/core/theme/wordTable.ts. */
const words = readWords(readFileSync("dist-workers/words.bin"));
function readWords(bytes: Buffer): string[] {
  const [count, dims] = [bytes.readUInt32LE(0), bytes.readUInt32LE(4)];
  const [list] = bytes.toString("utf8", 8 + count * dims + count).split("\n\n");
  return list!.split("\n", 20_000).filter((w) => /^[a-z]{2,10}$/.test(w));
}

function inventText(): string {
  const parts = Array.from({ length: 1 + Math.floor(next() * next() * 3.6) }, () => pick(words));
  const title = parts.map((w) => w[0]!.toUpperCase() + w.slice(1)).join(" ");
  const how = next();
  const text =
    how < 0.5
      ? title
      : how < 0.8
        ? title.toUpperCase()
        : how < 0.92
          ? title.toLowerCase()
          : `${title} ${Math.floor(next() * 2100)}`;
  return text.slice(0, 26);
}

const files = readdirSync(folder)
  .filter((family) => !isOfDemo(family))
  .flatMap((family) =>
    readdirSync(join(folder, family, "files")).map((name) => ({ family, path: join(folder, family, "files", name) })),
  );
const families = [...new Set(files.map((f) => f.family))];
console.log(`${families.length} families, ${files.length} files`);

const file = openSync(`${out}.bin`, "w");
const list: { at: number; widthPx: number; heightPx: number; family: string; text: string }[] = [];
let at = 0;
/** Words of each file are drawn while it is open. */
const perFile = Math.ceil(Number(count) / files.length);
for (const { family, path } of files) {
  try {
    const face = openFace((await openFont(readFileSync(path))).sfnt);
    for (let k = 0; k < perFile; k++) {
      const text = inventText();
      const typeset = typesetText(face, text, { widthEm: null });
      const box = measureTypeset(face, typeset);
      if (!box || typeset.lines[0]!.missing.length) continue;
      const s = Math.min(INK_PX / (box.yMax - box.yMin), LONGEST_PX / (box.xMax - box.xMin));
      const [widthPx, heightPx] = [Math.ceil((box.xMax - box.xMin) * s) + 2, Math.ceil((box.yMax - box.yMin) * s) + 2];
      const picture: InkPicture = { widthPx, heightPx, ink: new Float32Array(widthPx * heightPx) };
      rasterTypeset(face, typeset, { a: s, b: 0, c: 0, d: -s, e: 1 - box.xMin * s, f: 1 + box.yMax * s }, picture);
      writeSync(
        file,
        Uint8Array.from(picture.ink, (v) => Math.round(255 * Math.min(1, v))),
      );
      list.push({ at, widthPx, heightPx, family, text });
      at += widthPx * heightPx;
    }
  } catch (error) {
    console.error(path, (error as Error).message);
  }
}
closeSync(file);
writeFileSync(`${out}.json`, JSON.stringify(list));
console.log(`${list.length} words, ${(at / 1e6).toFixed(0)} MB`);
