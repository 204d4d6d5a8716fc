import { beforeAll, describe, expect, test } from "@jest/globals";
import sharp from "sharp";
import { readDemo } from "../../../tests/fixtures/demoFont";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { openFont } from "../open/openFont";
import { openFace, type OpenFace } from "../outlines/openFace";
import { drawTypeset, measureTypeset, rasterTypeset, writeTypesetPath, writeTypesetSvg } from "./pens";
import { typesetText } from "./typesetText";

let lora: OpenFace;
beforeAll(async () => {
  lora = (await readDemo("lora")).face;
});

test("every drawn glyph comes once, lines below one another, glyph 0 as a box", async () => {
  const face = openFace((await openFont(makeFont({ without: "&" }))).sfnt);
  const seen: string[] = [];
  drawTypeset(typesetText(face, "A&\nB", { widthEm: null, missingEm: 0.5 }), {
    glyph: (g, at) => seen.push(`${g.cluster} at ${at.yFu}`),
    missing: (m, at) => seen.push(`no ${m.text} at ${at.yFu}`),
  });
  expect(seen).toEqual(["0 at 0", "no & at 0", "3 at -1200"]);
});

describe("measure", () => {
  test("is the box around the ink, not around the advances", async () => {
    const face = openFace((await openFont(makeFont({ stem: 90, capHeight: 700 }))).sfnt);
    const one = typesetText(face, "I", { widthEm: null });
    expect(measureTypeset(face, one)).toEqual({ xMin: 60, xMax: 150, yMin: 0, yMax: 700 });
    const two = typesetText(face, "II", { widthEm: null });
    expect(measureTypeset(face, two)).toEqual({ xMin: 60, xMax: 210 + 150, yMin: 0, yMax: 700 });
  });

  test("of blank text is null", () =>
    expect(measureTypeset(lora, typesetText(lora, "  ", { widthEm: null }))).toBeNull());
});

describe("path, raster and SVG draw the same", () => {
  test("ink of our raster and of an independent renderer of the SVG", async () => {
    const set = typesetText(lora, "Open Night\nat the quay", { widthEm: null });
    const svg = writeTypesetSvg(lora, set, { sizePx: 100, title: "Open & <Night>", ink: "#000000" })!;
    expect(svg).toContain("<title>Open &amp; &lt;Night&gt;</title>");
    const { data, info } = await sharp(Buffer.from(svg))
      .flatten({ background: "#fff" })
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const box = measureTypeset(lora, set)!;
    const s = 100 / lora.unitsPerEm;
    const picture = {
      widthPx: info.width,
      heightPx: info.height,
      ink: new Float32Array(info.width * info.height),
    };
    rasterTypeset(lora, set, { a: s, b: 0, c: 0, d: -s, e: -box.xMin * s, f: box.yMax * s }, picture);
    const difference = picture.ink.reduce((sum, v, i) => sum + Math.abs(v * 255 - (255 - data[i]!)), 0);
    expect(difference / picture.ink.length).toBeLessThan(2);
    expect(picture.ink.reduce((a, v) => a + v, 0)).toBeGreaterThan(2000);
  });

  test("a path follows the map it is given", () => {
    const set = typesetText(lora, "I", { widthEm: null });
    const plain = writeTypesetPath(lora, set);
    const moved = writeTypesetPath(lora, set, { a: 1, b: 0, c: 0, d: -1, e: 1000, f: 0 });
    const firstX = (path: string) => Number(/^M(-?[\d.]+)/.exec(path)![1]);
    expect(firstX(moved) - firstX(plain)).toBe(1000);
  });
});
