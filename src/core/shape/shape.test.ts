import { beforeAll, describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { readDemo } from "../../../tests/fixtures/demoFont";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { boundsOf } from "../geometry/outline";
import { openFont } from "../open/openFont";
import { openFace, type OpenFace } from "../outlines/openFace";
import { shapeText } from "./shapeText";

let lora: OpenFace;
beforeAll(async () => {
  lora = (await readDemo("lora")).face;
});

describe("a face", () => {
  test("gives outlines, advances and glyphs of characters", async () => {
    const face = openFace((await openFont(makeFont({ stem: 90, capHeight: 700, without: "&" }))).sfnt);
    expect(face.unitsPerEm).toBe(1000);
    const glyph = face.glyphOf("I".codePointAt(0)!)!;
    expect(boundsOf(face.polygons(glyph))).toEqual({ xMin: 60, xMax: 150, yMin: 0, yMax: 700 });
    expect(face.advanceFu(glyph)).toBe(210);
    expect(face.glyphOf("&".codePointAt(0)!)).toBeNull();
  });

  test("keeps what it drew", () => {
    const glyph = lora.glyphOf(0x52)!;
    expect(lora.outline(glyph)).toBe(lora.outline(glyph));
    expect(lora.polygons(glyph)).toBe(lora.polygons(glyph));
  });

  test("draws nothing for a space", () => {
    expect(lora.polygons(lora.glyphOf(0x20)!)).toEqual([]);
    expect(lora.advanceFu(lora.glyphOf(0x20)!)).toBeGreaterThan(0);
  });

  test("follows its axes", async () => {
    const bytes = new Uint8Array(
      readFileSync("node_modules/@fontsource-variable/archivo/files/archivo-latin-standard-normal.woff2"),
    );
    const { sfnt, axes } = await openFont(bytes);
    expect(axes.map((a) => a.tag).sort()).toEqual(["wdth", "wght"]);
    const width = (coordinates: Record<string, number>) => {
      const face = openFace(sfnt, coordinates);
      const b = boundsOf(face.polygons(face.glyphOf(0x48)!))!;
      return b.xMax - b.xMin;
    };
    expect(width({ wdth: 125, wght: 400 })).toBeGreaterThan(width({ wdth: 62, wght: 400 }) * 1.2);
    expect(width({ wght: 900, wdth: 100 })).not.toBe(width({ wght: 100, wdth: 100 }));
  });
});

describe("shaping", () => {
  test("places glyphs one after another, clusters follow the text", () => {
    const { glyphs, widthFu } = shapeText(lora, "Quay");
    expect(glyphs.map((g) => g.cluster)).toEqual([0, 1, 2, 3]);
    expect(glyphs[0]!.xFu).toBe(0);
    for (let i = 1; i < glyphs.length; i++) expect(glyphs[i]!.xFu).toBeGreaterThan(glyphs[i - 1]!.xFu);
    expect(widthFu).toBe(glyphs.reduce((a, g) => a + g.advanceFu, 0));
  });

  test("kerning draws AV together, and can be switched off", () => {
    const kerned = shapeText(lora, "AVAV").widthFu;
    const plain = shapeText(lora, "AVAV", { kern: 0 }).widthFu;
    expect(kerned).toBeLessThan(plain);
  });

  test("ligatures stand for several characters, and can be switched off", async () => {
    const { face } = await readDemo("alegreya");
    const joined = shapeText(face, "office", { liga: 1 }).glyphs;
    const apart = shapeText(face, "office", { liga: 0, dlig: 0, clig: 0, calt: 0 }).glyphs;
    expect(apart).toHaveLength(6);
    expect(joined.length).toBeLessThan(6);
    expect(joined.map((g) => g.cluster)).toEqual([...joined.map((g) => g.cluster)].sort((a, b) => a - b));
  });

  test("a character that the face lacks is glyph 0", async () => {
    const face = openFace((await openFont(makeFont({ without: "&" }))).sfnt);
    expect(shapeText(face, "A&A").glyphs.map((g) => g.glyphId > 0)).toEqual([true, false, true]);
  });

  test("nothing gives nothing", () => expect(shapeText(lora, "")).toEqual({ glyphs: [], widthFu: 0 }));
});
