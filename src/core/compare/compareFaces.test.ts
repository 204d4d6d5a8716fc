// Widths of lines against the shaper of a Debian package, and the letters that tell faces apart against another program's pictures.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import opentype from "opentype.js";
import sharp from "sharp";
import { levelFactor } from "../brief/level";
import { seededRandom } from "../geometry/numbers";
import { demoBytes, readBytes } from "../../../tests/fixtures/demoFont";
import { compareFaces } from "./compareFaces";

const IDS = [
  "arvo",
  "zilla-slab",
  "rokkitt",
  "work-sans",
  "libre-franklin",
  "manrope",
  "lora",
  "merriweather",
  "playfair-display",
  "alegreya",
];
type Demo = Awaited<ReturnType<typeof readBytes>> & { id: string; sfnt: Uint8Array };
let demos: Demo[];
beforeAll(async () => {
  demos = await Promise.all(
    IDS.map(async (id) => {
      const read = await readBytes(demoBytes(id, 400));
      return { ...read, id, sfnt: read.font.sfnt };
    }),
  );
});
const compared = (some: readonly Demo[], text: string) =>
  compareFaces(
    some.map((d) => ({ face: d.face, level: levelFactor(d.traits, "x-height") })),
    text,
  );

describe("the width of a line", () => {
  test("of 200 random lines is as another shaper has it, within 0.002 em", () => {
    const folder = mkdtempSync(join(tmpdir(), "fond-quarry-width-"));
    const random = seededRandom(17);
    const letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz  .,&-'0123456789éüñ";
    try {
      for (const demo of demos) {
        const lines = Array.from({ length: 20 }, () =>
          Array.from(
            { length: 4 + Math.floor(random() * 24) },
            () => letters[Math.floor(random() * letters.length)]!,
          ).join(""),
        ).map((line) => line.trim() || "Quay");
        const [font, text] = [join(folder, `${demo.id}.ttf`), join(folder, `${demo.id}.txt`)];
        writeFileSync(font, demo.sfnt);
        writeFileSync(text, lines.join("\n"));
        const said = execFileSync("hb-shape", ["--output-format=json", `--text-file=${text}`, font], {
          encoding: "utf8",
        });
        const widths = said
          .trim()
          .split("\n")
          .map((l) => (JSON.parse(l) as { ax: number }[]).reduce((sum, g) => sum + g.ax, 0) / demo.face.unitsPerEm);
        lines.forEach((line, i) => {
          const { lineWidthEm } = compared([demo, demo], line).faces[0]!;
          expect(Math.abs(lineWidthEm - widths[i]!)).toBeLessThanOrEqual(0.002);
        });
      }
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });

  test("a character that is missing is told, and counts with the advance of glyph 0", () => {
    const lacking = demos.find((d) => d.face.glyphOf("☃".codePointAt(0)!) === null)!;
    const [with_, without] = ["A☃", "A"].map((text) => compared([lacking, lacking], text).faces[0]!);
    expect(with_!.missing).toEqual(["☃"]);
    expect(without!.missing).toEqual([]);
    expect(with_!.lineWidthEm - without!.lineWidthEm).toBeCloseTo(
      lacking.face.advanceFu(0) / lacking.face.unitsPerEm,
      3,
    );
  });
});

const EM = 64;
/** A letter as another reader has it (opentype.js) and another renderer draws it (librsvg): grey, ink 255. */
async function pictureOf(demo: Demo, char: string): Promise<Buffer> {
  const font = opentype.parse(demo.sfnt.slice().buffer);
  const glyph = font.charToGlyph(char);
  const scale = (EM * levelFactor(demo.traits, "x-height")) / font.unitsPerEm;
  const { x1, x2 } = glyph.getBoundingBox();
  const path = glyph.getPath(0, 0, font.unitsPerEm).toPathData(2);
  const side = EM * 2;
  const move = `translate(${side / 2 - ((x1 + x2) / 2) * scale} ${EM * 1.3}) scale(${scale})`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}"><rect width="100%" height="100%" fill="#fff"/><path d="${path}" transform="${move}"/></svg>`;
  const { data } = await sharp(Buffer.from(svg)).greyscale().raw().toBuffer({ resolveWithObject: true });
  return data;
}
function apart(a: Buffer, b: Buffer): number {
  let [off, either] = [0, 0];
  for (let i = 0; i < a.length; i++) {
    const [x, y] = [a[i]!, b[i]!];
    off += x > y ? x - y : y - x;
    either += 255 - (x < y ? x : y);
  }
  return off / either;
}

test("the letter that tells two faces apart is one of the first of another program's pictures, for 36 of 40 pairs and more", async () => {
  const characters = [..."abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ"];
  const pictures = new Map<string, Buffer>();
  for (const demo of demos) for (const c of characters) pictures.set(`${demo.id} ${c}`, await pictureOf(demo, c));
  const pairs = demos.flatMap((a, i) => demos.slice(i + 1).map((b) => [a, b] as const)).slice(0, 40);
  expect(pairs).toHaveLength(40);
  let agreed = 0;
  for (const [a, b] of pairs) {
    const first = compared([a, b], "a").letters[0]!.char;
    const theirs = characters
      .map((char) => ({ char, off: apart(pictures.get(`${a.id} ${char}`)!, pictures.get(`${b.id} ${char}`)!) }))
      .sort((p, q) => q.off - p.off);
    if (theirs.slice(0, 3).some((t) => t.char === first)) agreed++;
  }
  expect(agreed).toBeGreaterThanOrEqual(36);
}, 60_000);

test("the same face twice: nothing differs", () => {
  const [demo] = demos;
  expect(compared([demo!, demo!], "Quay").letters.every((l) => l.difference === 0)).toBe(true);
});
