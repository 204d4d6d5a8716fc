// Text that is not set plainly: small capitals, figures and letters chosen by a face's own features. The faces are drawn by the
// demo's foundry, which has such features, beside faces of the demo library, which have none.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawStyle } from "../../../demo/foundry/build";
import { SANS, type Design } from "../../../demo/foundry/design";
import { drawFace, type Face } from "../../../demo/foundry/face";
import { FAMILIES } from "../../../demo/foundry/families";
import { writeTrueType } from "../../../demo/foundry/write/writeFont";
import { drawLine, type DrawOptions } from "../../../tests/fixtures/drawLine";
import { fontFacts } from "../../../tests/fixtures/fontFacts";
import { seeFromSide } from "../../../tests/fixtures/seenFromSide";
import { describeFaces, type DescribedFaces } from "../../../tests/fixtures/describedFaces";
import { openFace } from "../outlines/openFace";
import { readPicture, type InkLine } from "../picture/readPicture";
import { inlineExecutor, type Executor } from "./executor";
import { fitText, identifyLine } from "./identifyLine";
import { SignatureIndex, extractDescriptors } from "../descriptors/extractDescriptors";
import { proposeSmallCapitals } from "./hypotheses/smallCapitals";
import { wordingOf, writeSmall } from "../picture/wording";

const HOLMGATE = "Holmgate Text";
const SWAPPED = "With a set";
let described: DescribedFaces;
let executor: Executor;
const write = (face: Face, { slantDeg, xHeight, capHeight }: Design) =>
  openFace(writeTrueType(face, fontFacts({ slantDeg, xHeight, capHeight, descender: -330 })));
/** A text face with small capitals and old-style figures, and a plain one whose first stylistic set has another a and r. */
function drawHolmgate() {
  const plan = FAMILIES.find((f) => f.family === HOLMGATE)!;
  return write(drawStyle(plan, plan.styles[0]!), plan.styles[0]!.design);
}
const drawSwapped = () => write(drawFace(SANS, { swaps: { ss01: { a: "o", r: "x" } } }), SANS);
beforeAll(async () => {
  described = await describeFaces(["lora", "zilla-slab", "work-sans", "oswald", "great-vibes", "playfair-display"]);
  described.faces.set(HOLMGATE, drawHolmgate()).set(SWAPPED, drawSwapped());
  const rows = [...described.faces].map(([id, face]) => ({ id, family: id, signature: extractDescriptors(face) }));
  described.index = SignatureIndex.of(rows);
  executor = inlineExecutor(described.index, described.load);
});
const picture = (id: string, text: string, options: DrawOptions = {}) =>
  readPicture(drawLine(described.faces.get(id)!, text, options))!;
async function identify(id: string, text: string, options: DrawOptions = {}, typed = text) {
  const result = await identifyLine(picture(id, text, options), typed, described.index, executor, 5);
  return { ...result, first: result.matches[0]! };
}

describe("small capitals", () => {
  const lineOf = (heights: number[]) =>
    ({
      letters: heights.map((h, i) => ({ left: 20 * i, right: 20 * i + 15, top: 100 - h, bottom: 100 })),
    }) as unknown as InkLine;
  test.each([
    ["by their heights, typed as a sentence", "Harbour", [70, 52, 53, 52, 53, 52, 52], ".xxxxxx"],
    ["by their heights, typed in capitals", "HARBOUR", [70, 52, 53, 52, 53, 52, 52], ".xxxxxx"],
    ["two words, one letter with a tail", "Quay Lamp", [84, 52, 53, 52, 70, 52, 52, 53], ".xxx.xxx"],
    ["all of one height, known to be in lower case", "harbour", [52, 53, 52, 53, 52, 53, 52], "xxxxxxx"],
  ])("%s", (_how, text, heights, want) => {
    const { small } = proposeSmallCapitals(lineOf(heights), wordingOf(text))!;
    expect(small!.is.map((s) => (s ? "x" : ".")).join("")).toBe(want);
    if (want.includes(".")) expect(small!.size).toBeCloseTo(0.74, 1);
  });

  test.each([
    ["plain capitals", "HARBOUR", [70, 71, 70, 70, 71, 70, 70]],
    ["heights of many kinds", "Jetty plug", [70, 50, 64, 60, 66, 90, 75, 30, 40]],
    ["a letter that is two in capitals", "Straße", [70, 52, 52, 52, 52, 52]],
    ["nothing", "", []],
  ])("not assumed: %s", (_what, text, heights) => {
    expect(proposeSmallCapitals(lineOf(heights), wordingOf(text))).toBeNull();
  });

  test("the text as capitals and as lowercase letters", () => {
    const wording = {
      ...wordingOf("The Quay"),
      small: { is: [false, true, true, false, true, true, true], size: 0.7 },
    };
    expect([writeSmall(wording, "upper"), writeSmall(wording, "lower")]).toEqual(["THE QUAY", "The Quay"]);
  });

  test.each(["Brass Lantern", "BRASS LANTERN"])("a face's own, typed “%s”", async (typed) => {
    const { first, setAs } = await identify(HOLMGATE, "Brass Lantern", { features: { smcp: 1 } }, typed);
    expect([first.styleId, setAs, first.features]).toEqual([HOLMGATE, "small-capitals", ["smcp"]]);
    expect(first.score).toBeGreaterThan(0.85);
  });

  test.each(["lora", "work-sans", "oswald"])("made of %s, which has none", async (id) => {
    const { first, setAs } = await identify(id, "Brass Lantern", { smallCapitals: 0.7 });
    expect([first.styleId, setAs, first.features]).toEqual([id, "small-capitals", []]);
    expect(first.score).toBeGreaterThan(0.85);
  });

  test("unread, the capitals that a letter reader sees fit as small ones", async () => {
    const { plain } = picture("lora", "Brass Lantern", { smallCapitals: 0.7 });
    const fit = (text: string) => fitText(plain, text, described.index, executor);
    expect(await fit("BRASS LANTERN")).toBeLessThan(0.3);
    expect(await fit("BRASS LANTERN")).toBeLessThan(await fit("Brass Lautern"));
  });

  test("are not seen in plain text; chances fall from match to match", async () => {
    for (const id of ["lora", "work-sans", HOLMGATE]) {
      const { first, setAs, matches } = await identify(id, "Brass Lantern");
      const chances = matches.map((m) => m.chance);
      expect(chances).toEqual([...chances].sort((a, b) => b - a));
      expect([first.styleId, setAs, first.features]).toEqual([id, "plain", []]);
    }
  });
});

describe("seen from the side", () => {
  const fromSide = (id: string, text: string, left: number, right: number) =>
    readPicture(seeFromSide(drawLine(described.faces.get(id)!, text, { sizePx: 90, marginPx: 50 }), left, right))!;
  test.each([
    ["lora", 0.62, 1],
    ["zilla-slab", 1, 0.62],
    ["oswald", 0.66, 1],
  ])("%s, ends %d and %d as high, is compared as seen from the front", async (id, left, right) => {
    const { line, matches, noneChance, taper } = await identifyLine(
      fromSide(id, "Harbour Light", left, right),
      ...(["Harbour Light", described.index, executor, 5] as const),
    );
    expect([matches[0]!.styleId, line.reading]).toEqual([id, expect.stringMatching(/evened/)]);
    expect(matches[0]!.score).toBeGreaterThan(0.8);
    expect(noneChance).toBeLessThan(0.5);
    expect(Math.abs(taper)).toBeLessThan(0.05);
  });
});

describe("chosen by features", () => {
  test("old-style figures", async () => {
    const { first } = await identify(HOLMGATE, "1874–1936", { features: { onum: 1 } });
    expect([first.styleId, first.features]).toEqual([HOLMGATE, ["onum"]]);
  });

  test("letters of a stylistic set in a word of plain ones", async () => {
    const [first, plain] = [
      (await identify(SWAPPED, "Harbour Lamp", { features: { ss01: 1 } })).first,
      (await identify(SWAPPED, "Harbour Lamp")).first,
    ];
    expect([first.styleId, first.features]).toEqual([SWAPPED, ["ss01"]]);
    expect([plain.styleId, plain.features]).toEqual([SWAPPED, []]);
    expect(Math.abs(plain.score - first.score)).toBeLessThan(0.1);
    expect(Math.min(...first.letters.map((l) => l.agreement))).toBeGreaterThan(0.8);
  });
});
