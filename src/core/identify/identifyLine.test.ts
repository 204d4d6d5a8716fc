import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine, type DrawOptions } from "../../../tests/fixtures/drawLine";
import { readDemo } from "../../../tests/fixtures/demoFont";
import { makeFont } from "../../../tests/fixtures/makeFont";
import { openFont } from "../open/openFont";
import { openFace, type OpenFace } from "../outlines/openFace";
import { readPicture } from "../picture/readPicture";
import { chancesOf, sharesOf } from "./answer/chance";
import { likenessOf } from "../descriptors/twins";
import { predictBoxes } from "./ranking/align";
import { fitLine, rankByCuts, measureWord, trimmedMean } from "./ranking/coarse";
import { inlineExecutor } from "./executor";
import { wordingOf } from "../picture/wording";
import { identifyLine, type IdentifyResult } from "./identifyLine";
import { SIGNATURE_BYTES, SignatureIndex, DESCRIBED, extractDescriptors } from "../descriptors/extractDescriptors";

const STYLES = [
  ["lora", 400],
  ["lora", 700],
  ["work-sans", 400],
  ["work-sans", 500],
  ["work-sans", 700],
  ["zilla-slab", 700],
  ["alfa-slab-one", 400],
  ["playfair-display", 400],
  ["dancing-script", 600],
  ["pacifico", 400],
  ["oswald", 500],
  ["space-mono", 400],
  ["bungee", 400],
  ["rye", 400],
  ["libre-franklin", 500],
  ["karla", 400],
  ["gelasio", 400],
  ["caveat", 400],
] as const;
const faces = new Map<string, OpenFace>();
let index: SignatureIndex;

beforeAll(async () => {
  const rows = [];
  for (const [id, weight] of STYLES) {
    const { face } = await readDemo(id, weight);
    faces.set(`${id} ${weight}`, face);
    rows.push({ id: `${id} ${weight}`, family: id, signature: extractDescriptors(face) });
  }
  index = SignatureIndex.of(rows);
});

const load = (id: string) => faces.get(id) ?? null;
function identify(id: string, text: string, options: DrawOptions = {}, typed = text): Promise<IdentifyResult> {
  const line = readPicture(drawLine(faces.get(id)!, text, options))!;
  return identifyLine(line, typed, index, inlineExecutor(index, load), 10);
}

describe("signatures", () => {
  test("have their size, boxes in em, and say what is absent", async () => {
    const face = openFace((await openFont(makeFont({ without: "&", stem: 100, capHeight: 700 }))).sfnt);
    const signature = extractDescriptors(face);
    expect(signature).toHaveLength(SIGNATURE_BYTES);
    const own = SignatureIndex.of([{ id: "a", family: "A", signature }]);
    expect(own.box(0, SignatureIndex.at("&"))).toBeNull();
    const box = own.box(0, SignatureIndex.at("I"))!;
    expect(box.top).toBeCloseTo(0.7, 3);
    expect(box.bottom).toBeCloseTo(0, 3);
    expect(box.right - box.left).toBeCloseTo(0.1, 3);
    expect(SignatureIndex.at("☃")).toBe(-1);
    expect(new Set(DESCRIBED).size).toBe(DESCRIBED.length);
  });
});

describe("a clear picture", () => {
  test.each(STYLES.filter((_, i) => i % 2 === 0).map(([id, weight]) => `${id} ${weight}`))(
    "of %s is named first",
    async (id) => {
      const { matches, noneChance } = await identify(id, "Harbour Quay");
      expect(matches[0]!.styleId).toBe(id);
      expect(matches[0]!.score).toBeGreaterThan(0.8);
      expect(noneChance).toBeLessThan(0.2);
    },
  );

  test("agreement per letter follows the text, spaces left out", async () => {
    const { matches } = await identify("lora 400", "Fog Bell");
    expect(matches[0]!.letters.map((l) => l.char).join("")).toBe("FogBell");
    expect(matches[0]!.letters.every((l) => l.agreement > 0.75)).toBe(true);
    const other = matches.find((m) => m.styleId === "alfa-slab-one 400");
    if (other)
      expect(other.letters.reduce((a, l) => a + l.agreement, 0)).toBeLessThan(
        matches[0]!.letters.reduce((a, l) => a + l.agreement, 0),
      );
  });

  test("the overlay lies on the ink", async () => {
    const line = readPicture(drawLine(faces.get("zilla-slab 700")!, "Lamp"))!;
    const { matches } = await identifyLine(line, "Lamp", index, inlineExecutor(index, load), 1);
    const numbers = matches[0]!.overlayPath.match(/-?[\d.]+/g)!.map(Number);
    const xs = numbers.filter((_, i) => i % 2 === 0);
    expect(Math.abs(Math.min(...xs) - line.plain.letters[0]!.left)).toBeLessThan(1);
    expect(Math.abs(Math.max(...xs) - line.plain.letters[3]!.right)).toBeLessThan(1);
  });
});

describe("a hard picture", () => {
  test.each(
    [
      ["light on dark, shaded", { ink: [240, 236, 228], paper: [40, 60, 70], shade: 0.4 }],
      ["noise", { noise: 60 }],
      ["small", { sizePx: 26, blurPx: 0.4 }],
      ["turned and blurred", { turnDeg: 6, blurPx: 1.3 }],
      ["spaced wide", { trackingPx: 12 }],
      ["letters touching", { trackingPx: -3 }],
      ["seen from the side, so that it leans", { lean: 0.22 }],
      ["leaning the other way", { lean: -0.15 }],
    ].map(([what, options], i) => [what, ["lora 700", "work-sans 700"][i % 2]!, options] as const),
  )("%s (%s)", async (_what, id, options) => {
    expect((await identify(id, "Evening Watch", options as DrawOptions)).matches[0]!.styleId).toBe(id);
  });

  test("joined script, which cannot be cut", async () => {
    for (const id of ["dancing-script 600", "pacifico 400"])
      expect((await identify(id, "Brass Lantern")).matches[0]!.styleId).toBe(id);
  });

  test("one letter of the reading wrong", async () => {
    expect((await identify("zilla-slab 700", "Lanterns", {}, "Lanterms")).matches[0]!.styleId).toBe("zilla-slab 700");
  });

  test("a face that is not there: less sure, and said so", async () => {
    const { face } = await readDemo("unifrakturcook", 700);
    const line = readPicture(drawLine(face, "Harbour Quay"))!;
    const { noneChance, matches } = await identifyLine(line, "Harbour Quay", index, inlineExecutor(index, load), 5);
    expect(noneChance).toBeGreaterThan(0.5);
    expect(matches[0]!.chance).toBeLessThan(0.5);
  });

  test("the overlays of a leaning line lie on the strip that is shown", async () => {
    const read = readPicture(drawLine(faces.get("zilla-slab 700")!, "Lamp", { lean: 0.25 }))!;
    const { matches, line, leanTan } = await identifyLine(read, "Lamp", index, inlineExecutor(index, load), 3);
    expect(leanTan).not.toBe(0);
    expect(matches[0]!.styleId).toBe("zilla-slab 700");
    const { left } = line.letters[0]!;
    const { right } = line.letters[line.letters.length - 1]!;
    for (const { overlayPath } of matches) {
      const xs = overlayPath
        .match(/-?[\d.]+/g)!
        .map(Number)
        .filter((_, i) => i % 2 === 0);
      // The first is the face itself; those behind it only come near.
      const nearPx = overlayPath === matches[0]!.overlayPath ? 1.6 : 8;
      expect(Math.abs(Math.min(...xs) - left)).toBeLessThan(nearPx);
      expect(Math.abs(Math.max(...xs) - right)).toBeLessThan(nearPx);
    }
  });

  test("a text that no face can set gives no match instead of an error", async () => {
    const line = readPicture(drawLine(faces.get("lora 400")!, "Quay"))!;
    expect(await identifyLine(line, "☃☃☃☃", index, inlineExecutor(index, load), 5)).toMatchObject({
      matches: [],
      noneChance: 1,
    });
  });
});

describe("chances", () => {
  const evidence = (cost: number, letterCount = 8) => ({
    ...{ cost, nextFamilyCost: Math.min(1, cost + 0.2), letterCount, blurPx: 0.6, noisy: false },
    worstAgreement: 1 - cost,
    isAssumed: false,
    agreed: 0,
    ...{ edge: 0.3, spacingEm: 0.005, warp: 0.01 },
  });
  test("add up to at most one and fall with the cost", () => {
    for (const best of [0.05, 0.2, 0.4, 0.9]) {
      const { chances, none } = chancesOf([best, best + 0.02, best + 0.2], evidence(best));
      expect(chances.reduce((a, b) => a + b, 0) + none).toBeLessThanOrEqual(1.000001);
      expect(chances).toEqual([...chances].sort((a, b) => b - a));
    }
  });

  test("none of these grows with the best cost", () => {
    const none = [0.05, 0.2, 0.3, 0.5].map((cost) => chancesOf([cost], evidence(cost)).none);
    expect(none).toEqual([...none].sort((a, b) => a - b));
    expect(none[3]).toBeGreaterThan(0.6);
    expect(none[0]).toBeLessThan(0.2);
  });

  test("few letters tell less", () => {
    const gap = (letters: number) => sharesOf([0.1, 0.14], { letterCount: letters, edge: 0.3 })[0]!;
    expect(gap(2)).toBeLessThan(gap(12));
  });
});

describe("twins", () => {
  test("the same face twice cannot be told apart, two weights can, and a letter tells", () => {
    const at = (id: string) => index.ids.indexOf(id);
    expect(likenessOf(index, at("lora 400"), at("lora 400"), [..."Quay"])).toEqual({
      isSameHere: true,
      tellingLetter: null,
    });
    const weights = likenessOf(index, at("lora 400"), at("lora 700"), [..."Quay"]);
    expect(weights.isSameHere).toBe(false);
    expect(weights.tellingLetter).toMatch(/^[A-Za-z0-9&?!]$/);
  });
});

describe("the coarse stage", () => {
  test("keeps the right style among the best few", () => {
    const line = readPicture(drawLine(faces.get("gelasio 400")!, "Harbour", { noise: 40, blurPx: 1 }))!;
    const ranks = rankByCuts(line.plain, measureWord(wordingOf("Harbour"), index), index, 5);
    expect(ranks.map((r) => index.ids[r.style])).toContain("gelasio 400");
    expect(ranks).toHaveLength(5);
  });

  test("one transform lays a style's boxes over the cuts", () => {
    const boxes = [0, 1, 2].map((i) => ({
      left: 0,
      right: 0.4 + 0.1 * i,
      top: 0.5 + 0.2 * (i % 2),
      bottom: i === 2 ? -0.2 : 0,
      advance: 0.6,
    }));
    const cuts = boxes.map((b, i) => ({
      left: 10 + 50 * i,
      right: 10 + 50 * i + b.right * 80,
      top: 100 - b.top * 100,
      bottom: 100 - b.bottom * 100,
    }));
    const fit = fitLine(cuts, boxes)!;
    expect(fit.scalePx).toBeCloseTo(100, 3);
    expect(fit.aspect).toBeCloseTo(0.8, 3);
    expect(fit.baselinePx).toBeCloseTo(100, 3);
    expect(fit.heightError).toBeLessThan(1e-6);
  });

  test("predicted boxes meet both ends of the ink", () => {
    const box = { left: 0.05, right: 0.5, top: 0.7, bottom: 0, advance: 0.55 };
    const { placed, scalePx } = predictBoxes({ left: 8, right: 208, top: 10, bottom: 80 }, [box, box, box], [0]);
    expect(scalePx).toBeCloseTo(100, 6);
    expect(placed[0]!.left).toBeCloseTo(8, 6);
    expect(placed[2]!.right).toBeCloseTo(208, 6);
  });

  test("a trimmed mean forgets the worst fifth", () => {
    expect(trimmedMean([1, 1, 1, 1, 100])).toBe(1);
    expect(trimmedMean([])).toBe(Infinity);
  });
});
