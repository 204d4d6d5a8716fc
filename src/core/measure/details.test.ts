import { describe, expect, test } from "@jest/globals";
import { readBytes, readDemo } from "../../../tests/fixtures/demoFont";
import { makeFont, type FontPlan } from "../../../tests/fixtures/makeFont";
import { openFont } from "../open/openFont";
import { openFace } from "../outlines/openFace";
import { measureBuild } from "./build";
import { measureRoughness, measureRoundness } from "./contour";
import { formOf, measureCases, measureLegibility } from "./forms";
import { isMonospaced, measureFigures, measureHeights, measureProportion, measureWidthEm } from "./heights";
import { measureConnection } from "./joining";
import { lettersOf, medianEm, pick, type Letters } from "./letters";
import { measureStrokes, readPlainStems } from "./strokes";

const made = async (plan: FontPlan = {}): Promise<Letters> =>
  lettersOf(openFace((await openFont(makeFont(plan))).sfnt));
const real = async (id: string, weight = 400, slope: "normal" | "italic" = "normal") =>
  lettersOf((await readDemo(id, weight, slope)).face);

describe("letters", () => {
  test("are read once, absent ones are null", async () => {
    const letters = await made({ without: "&" });
    expect(letters.get("n")).toBe(letters.get("n"));
    expect(letters.get("&")).toBeNull();
    expect(letters.get(" ")).toBeNull();
    expect(pick(letters, "n&o").map((l) => l.char)).toEqual(["n", "o"]);
    expect(medianEm(letters, "HIE", (l) => l.bounds.yMax)).toBeCloseTo(0.7, 6);
    expect(medianEm(letters, "&", (l) => l.bounds.yMax)).toBeNull();
  });
});

describe("heights and widths", () => {
  test("round letters serve where flat ones are missing", async () => {
    const letters = await made({ without: "xzvwHIETZ", xHeight: 470 });
    const heights = measureHeights(letters, false);
    expect(heights.xHeightEm).toBeCloseTo(0.47, 3);
    expect(heights.capHeightEm).toBeCloseTo(0.7, 3);
  });

  test("capitals serve where there is no lower case", async () => {
    const letters = await made({ without: "abcdefghijklmnopqrstuvwxyzé" });
    expect(measureWidthEm(letters)).toBeGreaterThan(0.2);
    expect(measureHeights(letters, false).xHeightEm).toBeNull();
    expect(measureProportion(letters)).not.toBeNull();
  });

  test("condensed families measure narrower than their normal ones", async () => {
    const narrow = measureProportion(await real("barlow-condensed"))!;
    const normal = measureProportion(await real("barlow"))!;
    const wide = measureProportion(await real("krona-one"))!;
    expect(narrow).toBeLessThan(normal * 0.85);
    expect(wide).toBeGreaterThan(normal * 1.15);
  });

  test.each([
    ["old-standard-tt", "lining", null],
    ["sorts-mill-goudy", "old-style", null],
    ["ibm-plex-mono", "lining", "tabular"],
  ])("figures of %s: %s, %s", async (id, height, spacing) => {
    const figures = measureFigures(await real(id));
    expect(figures.height).toBe(height);
    if (spacing) expect(figures.spacing).toBe(spacing);
  });

  test("figures that are not all there are not judged", async () => {
    expect(measureFigures(await made({ without: "0" }))).toEqual({ height: null, spacing: null });
  });

  test("a proportional face is not monospaced, whatever one letter does", async () => {
    expect(isMonospaced(await real("lora"))).toBe(false);
    expect(isMonospaced(await made({ monospaced: true }))).toBe(true);
    expect(isMonospaced(await made({ without: "imWl.aMj" }))).toBe(false);
  });
});

describe("strokes", () => {
  test("italics of a family keep its stem within a fifth", async () => {
    const roman = measureStrokes(await real("ibm-plex-sans")).stemEm!;
    const italic = measureStrokes(await real("ibm-plex-sans", 400, "italic")).stemEm!;
    expect(Math.abs(italic / roman - 1)).toBeLessThan(0.2);
  });

  test("contrast parts a Didone from a grotesque", async () => {
    expect(measureStrokes(await real("bodoni-moda")).contrast!).toBeGreaterThan(2.5);
    expect(measureStrokes(await real("work-sans")).contrast!).toBeLessThan(1.5);
  });

  test("serifs stand between nothing and one", async () => {
    for (const [id, least, most] of [
      ["work-sans", 0, 0.2],
      ["zilla-slab", 0.5, 1],
      ["playfair-display", 0.5, 1],
      ["oswald", 0, 0.2],
    ] as const) {
      const serif = measureStrokes(await real(id)).serif!;
      expect([id, serif >= least && serif <= most]).toEqual([id, true]);
    }
  });

  test("plain stems are steady in drawn letters", async () => {
    const stems = readPlainStems(await made({ stem: 80 }));
    expect(stems.length).toBeGreaterThan(5);
    for (const s of stems) expect(s.stemFu).toBeCloseTo(80, 0);
  });
});

describe("contours", () => {
  test("rectangles have no roundness, round ends have", async () => {
    expect(measureRoundness(await made())).toBeLessThan(0.02);
    expect(measureRoundness(await real("varela-round"))!).toBeGreaterThan(0.5);
    expect(measureRoundness(await made({ without: "HELTNFIMilkvxzt" }))).toBeNull();
  });

  test("worn letters are rough, drawn ones are not", async () => {
    expect(measureRoughness(await real("special-elite"))!).toBeGreaterThan(0.15);
    expect(measureRoughness(await real("lora"))!).toBeLessThan(0.05);
    expect(measureRoughness(await made())!).toBe(0);
  });

  test("how letters are built", async () => {
    const plain = measureBuild(await made());
    expect(plain).toMatchObject({ pieces: 1, holes: 0, solidity: 1, axisAligned: 1 });
    expect(plain.unevenness).toBe(0);
    expect(measureBuild(await real("allerta-stencil")).roundPieces).toBeGreaterThanOrEqual(2);
    expect(measureBuild(await real("londrina-outline")).solidity!).toBeLessThan(0.5);
    expect(measureBuild(await real("caveat")).unevenness!).toBeGreaterThan(0.02);
  });

  test("overlapping contours count as one piece", async () => {
    // Cut from a variable master: its strokes overlap.
    expect(measureBuild(await real("cinzel")).pieces).toBe(1);
  });
});

describe("forms and joins", () => {
  test("a form does not depend on the em", async () => {
    const small = await made();
    const large = await made({ unitsPerEm: 2000, stem: 180, xHeight: 1000, capHeight: 1400 });
    const [a, b] = [formOf(small, small.get("H")!), formOf(large, large.get("H")!)];
    expect(a).toHaveLength(36);
    expect(Math.abs(a[0]! - b[0]!)).toBeLessThan(1);
  });

  test("letters are letters, bars are not", async () => {
    expect(measureLegibility(await real("lora"))!).toBeGreaterThan(0.85);
    expect(measureLegibility(await real("libre-barcode-39"))!).toBeLessThan(0.4);
    expect(
      measureLegibility(await made({ without: "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXY" })),
    ).toBeNull();
  });

  test.each([
    ["bangers", "capitals-only"],
    ["cinzel", "small-capitals"],
    ["lora", "both"],
  ])("cases of %s: %s", async (id, cases) => expect(measureCases(await real(id))).toBe(cases));

  test("script letters join, printed ones do not", async () => {
    expect(measureConnection(await real("dancing-script"))!).toBeGreaterThan(0.8);
    expect(measureConnection(await real("work-sans"))).toBe(0);
    expect(measureConnection(await made({ without: "e" }))).not.toBeNull();
    expect(measureConnection(await made({ without: "aeiou" }))).toBeNull();
  });
});

test("every number is kept to a ten-thousandth", async () => {
  const { traits } = await readBytes(makeFont({ stem: 87 }));
  for (const value of Object.values(traits))
    if (typeof value === "number") expect(value).toBe(Number(value.toFixed(4)));
});
