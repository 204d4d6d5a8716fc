// The newer measures on real faces that are known for them, and on drawn letters with known answers.
import { describe, expect, test } from "@jest/globals";
import { readDemo } from "../../../tests/fixtures/demoFont";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { openFont } from "../open/openFont";
import { openFace } from "../outlines/openFace";
import { readAnatomy } from "./anatomy";
import { measureCorners } from "./contour";
import { measureCases, measureRecognised } from "./forms";
import { measureHeights } from "./heights";
import { measureCapitalLean } from "./lean";
import { lettersOf } from "./letters";
import { measureFont } from "./measureFont";
import { legibleFromPx, measureOpenings } from "./openings";
import { findSetting, measureReach } from "./reach";
import { measureStress } from "./stress";
import { measureStrokes } from "./strokes";
import { measureEvenness } from "./texture";

const real = async (id: string, weight = 400, slope: "normal" | "italic" = "normal") =>
  lettersOf((await readDemo(id, weight, slope)).face);
const made = async (plan = {}) => openFace((await openFont(makeFont(plan))).sfnt);

describe("storeys", () => {
  test.each([
    ["lora", 2, 2],
    ["barlow", 2, 1],
    ["josefin-sans", 1, 1],
    ["outfit", 1, 1],
    ["libre-baskerville", 2, 2],
    ["alegreya", 2, 2],
    ["comfortaa", 1, 1],
  ])("%s: a of %d, g of %d", async (id, a, g) => {
    const { storeysA, storeysG } = measureOpenings(await real(id), 0);
    expect([storeysA, storeysG]).toEqual([a, g]);
  });
  test("an italic a is set upright first", async () => {
    expect(measureOpenings(await real("lora", 400, "italic"), 6).storeysA).toBe(1);
  });
});

describe("white", () => {
  test("open faces measure more open than closed ones", async () => {
    const open = measureOpenings(await real("josefin-sans"), 0).aperture!;
    const closed = measureOpenings(await real("anton"), 0).aperture!;
    expect(open).toBeGreaterThan(closed * 1.4);
  });
  test("heavy letters leave narrower gaps, and ask for more pixels", async () => {
    const light = measureOpenings(await real("work-sans", 300), 0).gapEm!;
    const heavy = measureOpenings(await real("work-sans", 900), 0).gapEm!;
    expect(heavy).toBeLessThan(light);
    expect(legibleFromPx(heavy, 0.5)!).toBeGreaterThan(legibleFromPx(light, 0.5)!);
    expect(legibleFromPx(null, 0.5)).toBeNull();
    expect(legibleFromPx(0.1, 0.5)).toBe(12);
    expect(legibleFromPx(0.02, 0.5)).toBe(50);
  });
  test.each([
    ["alegreya", "italic"],
    ["kalam", "normal"],
    ["lora", "normal"],
  ] as const)("a branch that leaves its stem low is no narrow counter: %s %s", async (id, slope) => {
    const { gapEm } = measureOpenings(await real(id, 400, slope), 0);
    expect(legibleFromPx(gapEm, 0.45)!).toBeLessThan(16);
  });
  test("a text face is of more even colour than a display one", async () => {
    const text = measureEvenness(await real("merriweather"), 0.55)!;
    const display = measureEvenness(await real("poiret-one"), 0.45)!;
    expect(text).toBeGreaterThan(display);
    expect(measureEvenness(await real("lora"), null)).toBeNull();
  });
});

describe("strokes", () => {
  test("stress: upright in a didone, leaning in an old face, none in an even one", async () => {
    expect(Math.abs(measureStress(await real("bodoni-moda"), 0)!)).toBeLessThan(4);
    expect(measureStress(await real("im-fell-english"), 0)!).toBeGreaterThan(6);
    expect(measureStress(await real("comfortaa", 700), 0) ?? 0).not.toBeGreaterThan(90);
  });
  test.each([
    ["bodoni-moda", "hairline"],
    ["zilla-slab", "slab"],
    ["alfa-slab-one", "slab"],
    ["rokkitt", "slab"],
  ])("serifs of %s: %s", async (id, form) => expect(measureStrokes(await real(id)).serifForm).toBe(form));
  test("no serif, no form", async () => expect(measureStrokes(await real("work-sans")).serifForm).toBeNull());
  test("bars are measured apart from stems", async () => {
    const { barEm, stemEm } = measureStrokes(await real("playfair-display"));
    expect(barEm!).toBeLessThan(stemEm! / 2);
  });
  test("capitals tell how an italic was drawn", async () => {
    expect(measureCapitalLean(await real("lora", 400, "italic"))!).toBeCloseTo(3, 0);
    expect(measureCapitalLean(await real("crimson-pro", 400, "italic"))!).toBeCloseTo(12, 0);
    expect(measureCapitalLean(lettersOf(await made({ slant: Math.tan((9 * Math.PI) / 180) })))!).toBeCloseTo(9, 0);
  });
  test("round ends and sharp joins are told apart", async () => {
    const { ends, joins } = measureCorners(await real("varela-round"));
    expect(ends!).toBeGreaterThan(0.8);
    expect(joins ?? 0).toBeLessThan(0.5);
    expect(measureCorners(await real("work-sans")).ends!).toBeLessThan(0.2);
  });
});

describe("heights", () => {
  test("overshoot is taken off in italics too", async () => {
    expect(measureHeights(await real("lora", 400, "italic"), false).xHeightEm).toBeCloseTo(0.5, 2);
    expect(measureHeights(await real("lora"), false).xHeightEm).toBeCloseTo(0.5, 2);
  });
});

describe("what letters are", () => {
  test.each([
    ["cinzel", "small-capitals"],
    ["amatic-sc", "small-capitals"],
    ["bangers", "capitals-only"],
    ["bungee", "capitals-only"],
    ["lora", "both"],
    ["unica-one", "both"],
    ["londrina-outline", "both"],
  ])("%s: %s", async (id, cases) => expect(measureCases(await real(id))).toBe(cases));
  test("speed lines and boxes do not make letters pictures; bars do", async () => {
    expect(measureRecognised(await real("faster-one"))!).toBeGreaterThan(0.15);
    expect(measureRecognised(await real("monofett"))!).toBeGreaterThan(0.15);
    expect(measureRecognised(await real("redacted-script"))!).toBeLessThan(0.15);
    expect(measureRecognised(await real("libre-barcode-39"))!).toBeLessThan(0.15);
  });
});

describe("notes", () => {
  test("every trait has a confidence or a reason", async () => {
    const { traits, notes } = measureFont((await readDemo("anton", 400, "normal")).face);
    for (const [trait, value] of Object.entries(traits)) {
      if (typeof value === "boolean" || typeof value === "object" ? value !== null : false) continue;
      if (["cases", "figures", "monospaced", "picture"].includes(trait)) continue;
      if (value === null) expect(notes.absent[trait]).toBeTruthy();
      else expect(notes.confidence[trait]).toBeGreaterThan(0);
    }
    expect(notes.absent.serifForm).toBe("no serifs");
  });
  test("missing letters are the reason when letters are missing", async () => {
    const { notes } = measureFont(await made({ without: "abcdefghijklmnopqrstuvwxyz" }));
    expect(notes.absent.xHeightEm).toMatch(/missing/);
  });
});

describe("axes", () => {
  test("a variable font is followed to both ends, and set where it is what was asked for", async () => {
    const { readFileSync } = await import("node:fs");
    const font = await openFont(
      new Uint8Array(
        readFileSync("node_modules/@fontsource-variable/archivo/files/archivo-latin-standard-normal.woff2"),
      ),
    );
    const { traits } = measureFont(openFace(font.sfnt));
    const { reach, axes } = measureReach(font.sfnt, font.axes, traits);
    expect(reach.weight![0]).toBeLessThan(250);
    expect(reach.weight![1]).toBeGreaterThan(800);
    expect(reach.width![1] - reach.width![0]).toBeGreaterThan(2);
    const defaults = Object.fromEntries(font.axes.map((a) => [a.tag, a.default]));
    const set = findSetting({ axes }, defaults, traits, "weight", { min: 700 });
    expect(set!.wght).toBeGreaterThan(500);
    const there = measureFont(openFace(font.sfnt, set!)).traits.weight!;
    expect(Math.abs(there - 700)).toBeLessThan(90);
    expect(findSetting({ axes }, defaults, traits, "weight", { min: 100 })).toBeNull();
  });
});

describe("anatomy", () => {
  test("parts lie where they must", async () => {
    const { face } = await readDemo("alegreya", 400, "normal");
    const { traits } = measureFont(face);
    const { letters, lines, unitsPerEm } = readAnatomy(face, traits);
    const part = (char: string, term: string) =>
      letters.find((l) => l.char === char)!.marks.find((m) => m.term === term)!;
    const em = (v: number) => v / unitsPerEm;
    expect(lines.map((l) => l.term)).toEqual(["ascender", "capital height", "x-height", "baseline", "descender"]);
    expect(em(part("e", "crossbar").y)).toBeGreaterThan(0.15);
    expect(part("e", "eye").y).toBeGreaterThan(part("e", "crossbar").y);
    expect(part("c", "terminal").y).toBeGreaterThan(part("c", "aperture").y);
    expect(part("g", "loop").y).toBeLessThan(0);
    expect(part("p", "bowl").x).toBeGreaterThan(part("p", "counter").x);
    expect(part("h", "stem").says).toMatch(/em$/);
    expect(part("h", "serif")).toBeDefined();
  });
  test("a face without serifs has no serif part, one without letters none at all", async () => {
    const sans = await readDemo("work-sans", 400, "normal");
    const marks = readAnatomy(sans.face, measureFont(sans.face).traits).letters.flatMap((l) =>
      l.marks.map((m) => m.term),
    );
    expect(marks).not.toContain("serif");
    const none = await made({ without: "hxgeacpsREQ" });
    expect(readAnatomy(none, measureFont(none).traits).letters).toEqual([]);
  });
});
