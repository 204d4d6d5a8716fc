import { beforeAll, describe, expect, test } from "@jest/globals";
import { readFileSync } from "node:fs";
import { demoPart, readDemo } from "../../../tests/fixtures/demoFont";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { boundsOf } from "../geometry/outline";
import { openFont } from "../open/openFont";
import { joinParts } from "../outlines/joinParts";
import { openFace, type OpenFace } from "../outlines/openFace";
import { glyphsOf, typesetLine, typesetText } from "./typesetText";

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
    const width = (location: Record<string, number>) => {
      const face = openFace(sfnt, location);
      const b = boundsOf(face.polygons(face.glyphOf(0x48)!))!;
      return b.xMax - b.xMin;
    };
    expect(width({ wdth: 125, wght: 400 })).toBeGreaterThan(width({ wdth: 62, wght: 400 }) * 1.2);
    expect(width({ wght: 900, wdth: 100 })).not.toBe(width({ wght: 100, wdth: 100 }));
  });
});

describe("one line", () => {
  test("places glyphs one after another, clusters follow the text", () => {
    const line = typesetLine(lora, "Quay");
    const glyphs = glyphsOf(line);
    expect(line.runs).toHaveLength(1);
    expect(line.runs[0]).toMatchObject({ from: 0, to: 4, direction: "ltr", script: "Latn" });
    expect(glyphs.map((g) => g.cluster)).toEqual([0, 1, 2, 3]);
    expect(glyphs[0]!.xFu).toBe(0);
    for (let i = 1; i < glyphs.length; i++) expect(glyphs[i]!.xFu).toBeGreaterThan(glyphs[i - 1]!.xFu);
    expect(line.widthFu).toBe(glyphs.reduce((a, g) => a + g.advanceFu, 0));
  });

  test("kerning draws AV together, and can be switched off", () => {
    const kerned = typesetLine(lora, "AVAV").widthFu;
    expect(kerned).toBeLessThan(typesetLine(lora, "AVAV", { features: { kern: 0 } }).widthFu);
  });

  test("ligatures stand for several characters, and can be switched off", async () => {
    const { face } = await readDemo("alegreya");
    const joined = glyphsOf(typesetLine(face, "office", { features: { liga: 1 } }));
    const apart = glyphsOf(typesetLine(face, "office", { features: { liga: 0, dlig: 0, clig: 0, calt: 0 } }));
    expect(apart).toHaveLength(6);
    expect(joined.length).toBeLessThan(6);
    expect(joined.map((g) => g.cluster)).toEqual([...joined.map((g) => g.cluster)].sort((a, b) => a - b));
  });

  test("what the face lacks is glyph 0, a missing cluster, and as wide as the box it is given", async () => {
    const face = openFace((await openFont(makeFont({ without: "&" }))).sfnt);
    const plain = typesetLine(face, "A&A");
    expect(glyphsOf(plain).map((g) => g.glyphId > 0)).toEqual([true, false, true]);
    const boxed = typesetLine(face, "A&A", { missingEm: 0.5 });
    const [first, , last] = glyphsOf(boxed);
    expect(boxed.missing).toEqual([{ text: "&", cluster: 1, xFu: first!.advanceFu, widthFu: 500 }]);
    expect(last!.xFu).toBe(first!.advanceFu + 500);
    expect(boxed.widthFu).toBe(first!.advanceFu + 500 + last!.advanceFu);
  });

  test("what is not covered is missing even where the shaper knows a way", () => {
    const coverage: [number, number][] = [[0x41, 0x5a]];
    const line = typesetLine(lora, "Aé Z", { coverage, missingEm: 0.5 });
    expect(line.missing.map((m) => m.text)).toEqual(["é"]);
    expect(glyphsOf(line).map((g) => g.cluster)).toEqual([0, 2, 3]);
  });

  test("nothing gives nothing", () =>
    expect(typesetLine(lora, "")).toEqual({
      from: 0,
      to: 0,
      direction: "ltr",
      runs: [],
      missing: [],
      widthFu: 0,
    }));
});

describe("direction", () => {
  // No face is asked: what a run is, and where it stands, is known without its glyphs.
  const runsOf = (text: string, direction?: "ltr" | "rtl") => {
    const line = typesetLine(lora, text, { direction });
    return { base: line.direction, runs: line.runs.map((r) => [text.slice(r.from, r.to), r.direction]) };
  };
  test.each([
    [
      "Quay שלום 9",
      {
        base: "ltr",
        runs: [
          ["Quay ", "ltr"],
          ["9", "ltr"],
          ["שלום ", "rtl"],
        ],
      },
      undefined,
    ],
    [
      "שלום Quay",
      {
        base: "rtl",
        runs: [
          ["Quay", "ltr"],
          ["שלום ", "rtl"],
        ],
      },
      undefined,
    ],
    [
      "(ab)",
      {
        base: "rtl",
        runs: [
          [")", "rtl"],
          ["ab", "ltr"],
          ["(", "rtl"],
        ],
      },
      "rtl" as const,
    ],
  ])("%s", (text, expected, base) => {
    const got = runsOf(text, base);
    expect(got.base).toBe(expected.base);
    expect(got.runs.map(([, d]) => d)).toEqual(expected.runs.map(([, d]) => d));
  });

  test("glyphs of a run from right to left stand in reading order from its right end", () => {
    const line = typesetLine(lora, "ab\u202Ecd\u202C");
    const turned = line.runs.find((r) => r.direction === "rtl")!;
    const letters = turned.glyphs.filter((g) => g.advanceFu > 0);
    expect(letters.map((g) => "ab\u202Ecd".slice(g.cluster, g.cluster + 1))).toEqual(["d", "c"]);
  });
});

describe("lines", () => {
  const set = (text: string, widthEm: number | null) =>
    typesetText(lora, text, { widthEm }).lines.map((l) => text.slice(l.from, l.to));

  test("are broken where the text allows it, and no line is wider than its room", () => {
    const text = "Lighthouse keepers wait for the evening boat, as ever.";
    const lines = set(text, 9);
    expect(lines.length).toBeGreaterThan(2);
    expect(lines.join(" ")).toBe(text);
    for (const line of typesetText(lora, text, { widthEm: 9 }).lines)
      expect(line.widthFu).toBeLessThanOrEqual(9 * lora.unitsPerEm);
    // The next word would not have fitted.
    lines.slice(0, -1).forEach((line, i) => {
      const longer = `${line} ${lines[i + 1]!.split(" ")[0]}`;
      expect(typesetLine(lora, longer).widthFu).toBeGreaterThan(9 * lora.unitsPerEm);
    });
  });

  test("end where the text says so", () => {
    expect(set("Open\nNight", null)).toEqual(["Open", "Night"]);
    expect(set("Open\n\nNight", null)).toEqual(["Open", "", "Night"]);
    expect(set("Open Night\n", null)).toEqual(["Open Night"]);
    expect(set("", null)).toEqual([""]);
  });

  test("a word wider than its room has a line of its own", () =>
    expect(set("a Lighthouse b", 3)).toEqual(["a", "Lighthouse", "b"]));

  test("figures and units, dashes and quotes are not torn from what they belong to", () =>
    expect(set("from “Quay” to 12\u00a0km", 3)).toEqual(["from", "“Quay”", "to", "12\u00a0km"]));

  test("words of a script without spaces are told apart", () => {
    const text = "ประภาคารเก่าริมทะเล";
    const lines = set(text, 6);
    expect(lines.length).toBeGreaterThan(1);
    expect(lines.join("")).toBe(text);
  });
});

describe("a face in parts", () => {
  let cyrillic: OpenFace;
  let whole: OpenFace;
  beforeAll(async () => {
    cyrillic = openFace((await openFont(demoPart("lora", "cyrillic"))).sfnt);
    whole = joinParts([lora, cyrillic]);
  });
  const widthOf = (face: OpenFace, text: string) => typesetLine(face, text).widthFu;

  test("sets each word in the part that has it, as that part alone would", () => {
    const line = typesetLine(whole, "Quay Гавань");
    expect(line.missing).toEqual([]);
    expect(line.runs.map((r) => [r.script, r.part])).toEqual([
      ["Latn", 0],
      ["Cyrl", 1],
    ]);
    expect(line.widthFu).toBe(widthOf(lora, "Quay ") + widthOf(cyrillic, "Гавань"));
    const drawn = glyphsOf(line).map((g) => whole.outline(g.glyphId).verbs.length);
    expect(drawn.filter((n) => n === 0)).toHaveLength(1);
    expect(whole.glyphOf(0x416)).not.toBe(cyrillic.glyphOf(0x416));
    expect(whole.outline(whole.glyphOf(0x416)!)).toBe(cyrillic.outline(cyrillic.glyphOf(0x416)!));
  });

  test("what no part has is one box; what the main part has is set as before", () => {
    expect(typesetLine(whole, "Ж漢").missing.map((m) => m.text)).toEqual(["漢"]);
    expect(typesetLine(whole, "AVATAR")).toEqual(typesetLine(lora, "AVATAR"));
  });

  test("a mark stays with its letter where the same part has both", () => {
    // U+0301 is in the Cyrillic file: Russian stress.
    const stressed = typesetLine(whole, "за\u0301мок");
    expect(stressed.runs.map((r) => r.part)).toEqual([1]);
    expect(stressed.missing).toEqual([]);
  });

  test("one file is the face itself", () => expect(joinParts([lora])).toBe(lora));
});
