import { describe, expect, test } from "@jest/globals";
import opentype from "opentype.js";
import { readBytes, readDemo } from "../../../tests/fixtures/demoFont";
import { makeFont, type FontPlan } from "../../../tests/fixtures/makeFont";
import { describeCells, likeness } from "./cellForm";

const measure = async (plan: FontPlan) => (await readBytes(makeFont(plan))).traits;

describe("a font with known dimensions", () => {
  test("stems, heights and widths come out as drawn", async () => {
    const t = await measure({ stem: 90, xHeight: 480, capHeight: 700 });
    expect(t.stemEm).toBeCloseTo(0.09, 3);
    expect(t.xHeightEm).toBeCloseTo(0.48, 3);
    expect(t.capHeightEm).toBeCloseTo(0.7, 3);
    expect(t.ascenderEm).toBeCloseTo(0.7, 3);
    // p and q reach to −0.2, g and y stand on the line in this font.
    expect(t.descenderEm).toBeCloseTo(-0.1, 3);
    expect(t.slantDeg).toBeCloseTo(0, 1);
    expect(t.serif).toBe(0);
    expect(t.monospaced).toBe(false);
  });

  test("the em does not matter", async () => {
    const small = await measure({ stem: 90 });
    const plan = { unitsPerEm: 2000, stem: 180, xHeight: 1000, capHeight: 1400 };
    const large = await measure(plan);
    expect(large.stemEm).toBeCloseTo(small.stemEm!, 3);
    expect(large.xHeightEm).toBeCloseTo(small.xHeightEm!, 3);
    expect(large.weight).toBeCloseTo(small.weight!, -1);
  });

  test("weight grows with the stem and stays on its scale", async () => {
    const weights = [];
    for (const stem of [20, 50, 85, 120, 160, 220]) weights.push((await measure({ stem })).weight!);
    expect(weights).toEqual([...weights].sort((a, b) => a - b));
    expect(new Set(weights).size).toBe(6);
    expect(weights[0]).toBeLessThan(150);
    expect(weights[2]).toBeGreaterThan(330);
    expect(weights[2]).toBeLessThan(480);
    expect(weights[5]).toBeLessThanOrEqual(1000);
  });

  test.each([0, 6, 12, 18])("leaning by %i degrees", async (deg) => {
    const t = await measure({ slant: Math.tan((deg * Math.PI) / 180) });
    expect(t.slantDeg).toBeCloseTo(deg, 0);
    expect(t.stemEm).toBeCloseTo(0.09 * Math.cos((deg * Math.PI) / 180), 2);
  });

  test("contrast is thick to thin", async () => {
    expect((await measure({ stem: 120, thin: 120 })).contrast).toBeCloseTo(1, 0);
    const high = (await measure({ stem: 120, thin: 30 })).contrast!;
    expect(high).toBeGreaterThan(2.5);
    // 4 : 1 in the strokes; the square ring's corners count as thicker still.
    expect(high).toBeLessThan(5.7);
  });

  test("feet that reach out are serifs, with their thickness", async () => {
    const slab = await measure({ stem: 100, serif: 60, serifThickness: 90 });
    expect(slab.serif).toBeGreaterThan(0.9);
    expect(slab.serifThickness).toBeCloseTo(0.9, 1);
    const hairline = await measure({ stem: 100, serif: 60, serifThickness: 20 });
    expect(hairline.serif).toBeGreaterThan(0.5);
    expect(hairline.serifThickness!).toBeLessThan(0.4);
  });

  test("equal advances are monospaced and tabular", async () => {
    const t = await measure({ monospaced: true });
    expect(t.monospaced).toBe(true);
    expect(t.figures.spacing).toBe("tabular");
    expect(t.widthEm).toBeCloseTo(0.6, 3);
  });

  test("letters that reach into each other are connected", async () => {
    expect((await measure({ joined: true })).connected).toBeGreaterThan(0.9);
    expect((await measure({})).connected).toBe(0);
  });

  test("lowercase letters drawn as capitals", async () => {
    expect((await measure({ smallCapitals: 1 })).cases).toBe("capitals-only");
    expect((await measure({ smallCapitals: 0.75 })).cases).toBe("small-capitals");
    expect((await measure({})).cases).toBe("both");
  });

  test("what cannot be measured is null, and nothing breaks", async () => {
    const t = await measure({ without: "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz" });
    expect(t.stemEm).toBeNull();
    expect(t.xHeightEm).toBeNull();
    expect(t.weight).toBeNull();
    expect(t.cases).toBeNull();
    expect(t.picture).toBe(true);
  });
});

describe("against an independent reader on real fonts", () => {
  test.each(["lora", "zilla-slab", "oswald", "ibm-plex-mono"])(
    "%s: mean advance to a thousandth em, heights to 1 %% of em",
    async (id) => {
      const { font, traits } = await readDemo(id);
      const other = opentype.parse(font.sfnt.slice().buffer);
      const letters = [..."abcdefghijklmnopqrstuvwxyz"].map((c) => other.charToGlyph(c));
      const mean = letters.reduce((a, g) => a + g.advanceWidth, 0) / 26 / other.unitsPerEm;
      expect(traits.widthEm).toBeCloseTo(mean, 3);
      const tops = [..."xzvw"].map((c) => other.charToGlyph(c).getBoundingBox().y2).sort((a, b) => a - b);
      expect(traits.xHeightEm! - (tops[1]! + tops[2]!) / 2 / other.unitsPerEm).toBeCloseTo(0, 2);
      if (font.os2?.xHeightFu)
        expect(Math.abs(traits.xHeightEm! - font.os2.xHeightFu / font.unitsPerEm)).toBeLessThan(0.012);
    },
  );

  test("heavier styles of a family measure heavier", async () => {
    for (const id of ["rokkitt", "work-sans", "vollkorn"]) {
      const weights = [];
      for (const w of [400, 600, 900]) weights.push((await readDemo(id, w)).traits.weight!);
      expect(weights).toEqual([...weights].sort((a, b) => a - b));
    }
  });

  test("italics lean as their post table says, within 1.5 degrees", async () => {
    for (const id of ["work-sans", "ibm-plex-sans", "libre-franklin"]) {
      const { font, traits } = await readDemo(id, 400, "italic");
      expect(Math.abs(traits.slantDeg! + font.italicAngleDeg!)).toBeLessThan(1.5);
    }
  });
});

describe("kinds and treatments on real fonts", () => {
  test.each([
    ["alfa-slab-one", 400, "slab"],
    ["zilla-slab", 700, "slab"],
    ["work-sans", 400, "sans"],
    ["playfair-display", 400, "serif"],
    ["dancing-script", 400, "script"],
    ["caveat", 400, "handwritten"],
    ["unifrakturcook", 700, "blackletter"],
    ["space-mono", 400, "monospaced"],
    ["bungee-shade", 400, "display"],
    ["libre-barcode-39", 400, "picture"],
  ] as const)("%s %i is %s", async (id, weight, kind) => expect((await readDemo(id, weight)).kinds).toContain(kind));

  test.each([
    ["allerta-stencil", "stencil"],
    ["pixelify-sans", "pixel"],
    ["londrina-outline", "outline"],
    ["cabin-sketch", "rough"],
    ["varela-round", "rounded"],
    ["doto", "dotted"],
  ] as const)("%s is treated: %s", async (id, treatment) =>
    expect((await readDemo(id)).treatments).toContain(treatment),
  );

  test("every guess has a confidence and a reason", async () => {
    const { measured, font, face } = await readDemo("rye");
    const { classifyFont } = await import("../kind/classifyFont");
    const { extractDescriptors } = await import("../descriptors/extractDescriptors");
    const { kinds, treatments } = classifyFont({
      measured,
      signature: extractDescriptors(face),
      family: font.family!,
      features: font.features,
    });
    for (const g of [...kinds, ...treatments]) {
      expect(g.confidence).toBeGreaterThan(0);
      expect(g.confidence).toBeLessThanOrEqual(1);
      expect(g.because.length).toBeGreaterThan(8);
    }
    expect(kinds.map((k) => k.confidence)).toEqual([...kinds.map((k) => k.confidence)].sort((a, b) => b - a));
  });
});

describe("forms", () => {
  test("a form is like itself and unlike its mirror", () => {
    const cells = Float32Array.from({ length: 256 }, (_, i) => (i % 16 < 5 ? 1 : 0));
    const mirrored = Float32Array.from({ length: 256 }, (_, i) => (i % 16 > 10 ? 1 : 0));
    expect(likeness(describeCells(cells), describeCells(cells))).toBeCloseTo(1, 6);
    expect(likeness(describeCells(cells), describeCells(mirrored))).toBeLessThan(0);
    expect(likeness(describeCells(new Float32Array(256)), describeCells(cells))).toBe(0);
  });
});
