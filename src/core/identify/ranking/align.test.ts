import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine } from "../../../../tests/fixtures/drawLine";
import { readDemo } from "../../../../tests/fixtures/demoFont";
import type { OpenFace } from "../../outlines/openFace";
import { readPicture } from "../../picture/readPicture";
import type { CutBox } from "../../picture/straighten";
import { alignFromSide, alignPieces, countParts } from "./align";
import { instancesOf } from "../../descriptors/instances";
import { readByShape, readWords, type TextFit } from "../hypotheses/readShapes";
import { inlineExecutor } from "../executor";
import { fitText, identifyLine } from "../identifyLine";
import { SignatureIndex, extractDescriptors, type GlyphBox } from "../../descriptors/extractDescriptors";

const letter = (width: number, top = 0.5, bottom = 0): GlyphBox => ({
  left: 0,
  right: width,
  top,
  bottom,
  advance: width,
});
/** A piece in pixels from em, 100 px an em, baseline at 100. */
const piece = (left: number, right: number, top = 0.5, bottom = 0): CutBox => ({
  left: 100 * left,
  right: 100 * right,
  top: 100 - 100 * top,
  bottom: 100 - 100 * bottom,
});

describe("into how many pieces a word falls", () => {
  const joined = { ...letter(0.5), advance: 0.48 };
  test.each([
    ["letters apart", [letter(0.4), { ...letter(0.4), left: 0.05 }, { ...letter(0.4), left: 0.05 }], [0], 3],
    ["letters that run into each other", [joined, joined, joined], [0], 1],
    ["two such words", [joined, joined, joined, joined], [0, 2], 2],
    ["letters of which one is lacking", [joined, null, joined], [0], 3],
  ] as [string, (GlyphBox | null)[], number[], number][])("%s", (_what, boxes, wordStarts, parts) =>
    expect(countParts(boxes, wordStarts)).toBe(parts),
  );
});

describe("a line seen from the side", () => {
  const letters = [letter(0.6), letter(0.5), letter(0.4), letter(0.6)];
  /** The letters side by side, a gap of 0.05 em between them, seen this much narrower. */
  const seen = (narrower: number) => {
    let pen = 0;
    return letters.map(({ right }) => {
      const box = piece(pen * narrower, (pen + right) * narrower);
      pen += right + 0.05;
      return box;
    });
  };

  test.each([0.6, 0.8, 1])("letters %d times as wide stand where their pieces are", (narrower) => {
    const pieces = seen(narrower);
    const { placed } = alignFromSide(pieces, letters, [0])!;
    placed.forEach((box, i) => {
      expect(Math.abs(box!.left - pieces[i]!.left)).toBeLessThan(2);
      expect(Math.abs(box!.right - pieces[i]!.right)).toBeLessThan(2);
    });
  });

  test("widths agree better than if it were seen from the front", () => {
    const pieces = seen(0.6);
    expect(alignFromSide(pieces, letters, [0])!.cost).toBeLessThan(0.3 * (alignPieces(pieces, letters, [0])?.cost ?? Infinity)); // oxfmt-ignore
  });

  test("what is far narrower is no line of this text", () => {
    expect(alignFromSide(seen(0.3), letters, [0])).toBeNull();
  });
});

describe("pieces and letters", () => {
  test("one for one where all stand apart", () => {
    const { placed, cost } = alignPieces([piece(0, 0.4), piece(0.5, 1)], [letter(0.4), letter(0.5)], [0])!;
    expect(placed).toEqual([piece(0, 0.4), piece(0.5, 1)].map((b) => expect.objectContaining(b)));
    expect(cost).toBeLessThan(1);
  });

  test("two letters share a piece as their widths say", () => {
    const { placed } = alignPieces(
      [piece(0, 0.9), piece(1, 1.3, 0.8)],
      [letter(0.6), letter(0.3), letter(0.3, 0.8)],
      [0],
    )!;
    expect(placed[0]!.right).toBeCloseTo(60, 0);
    expect(placed[1]!.left).toBeCloseTo(60, 0);
    expect(placed[2]!.left).toBeCloseTo(100, 0);
  });

  test("a letter in two pieces is one", () => {
    const { placed } = alignPieces(
      [piece(0, 0.3), piece(0.35, 0.7), piece(0.8, 1.2)],
      [letter(0.7), letter(0.4)],
      [0],
    )!;
    expect(placed[0]).toMatchObject({ left: 0, right: 70 });
    expect(placed[1]).toMatchObject({ left: 80 });
  });

  test("a speck between letters is left out", () => {
    const pieces = [piece(0, 0.4), piece(0.68, 0.7, 0.3, 0.28), piece(1, 1.4), piece(2, 2.4)];
    const { placed } = alignPieces(pieces, [letter(0.4), letter(0.4), letter(0.4)], [0])!;
    expect(placed.map((b) => Math.round(b!.left))).toEqual([0, 100, 200]);
  });

  test("a word far too long for its letters is not laid over them", () => {
    expect(alignPieces([piece(0, 9)], [letter(0.4), letter(0.4)], [0])).toBeNull();
  });
});

describe("described locations of variable fonts", () => {
  const axis = (tag: string, min: number, own: number, max: number) => ({ tag, name: tag, min, default: own, max });
  test("a weight axis is signed end to end, the default left out", () => {
    const weights = instancesOf([axis("wght", 100, 400, 900)]).map((c) => c.wght!);
    expect(weights[0]).toBe(100);
    expect(weights[weights.length - 1]).toBe(900);
    expect(weights.length).toBeGreaterThan(4);
  });
  test("many axes stay within bounds", () => {
    const many = instancesOf([
      axis("wght", 100, 400, 900),
      axis("wdth", 50, 100, 150),
      axis("opsz", 8, 14, 144),
      axis("slnt", -15, 0, 0),
      axis("SOFT", 0, 0, 100),
    ]);
    expect(many.length).toBeGreaterThan(8);
    expect(many.length).toBeLessThanOrEqual(27);
    expect(many.every((c) => !("SOFT" in c))).toBe(true);
  });
  test("a font without axes has none", () => expect(instancesOf([])).toEqual([]));
});

describe("reading by shape", () => {
  const faces = new Map<string, OpenFace>();
  let index: SignatureIndex;
  beforeAll(async () => {
    const rows = [];
    for (const id of ["work-sans", "lora", "zilla-slab", "oswald"]) {
      const { face } = await readDemo(id, id === "oswald" ? 500 : 400);
      faces.set(id, face);
      rows.push({ id, family: id, signature: extractDescriptors(face) });
    }
    index = SignatureIndex.of(rows);
  });
  const load = (id: string) => faces.get(id) ?? null;
  const lineOf = (id: string, text: string, more = {}) =>
    readPicture(drawLine(faces.get(id)!, text, { trackingPx: 2, ...more }))!;

  test.each(["Harbour", "QUAY", "Fog 1874", "Oil & Wick"])("%s is spelt without knowing it", (text) =>
    expect(readByShape(lineOf("work-sans", text).plain, index, null)!.text).toBe(text),
  );

  test("a wrong guess is doubted, a right one stays", async () => {
    const fitOf: TextFit = (line, text, by) => fitText(line, text, index, inlineExecutor(index, load), by);
    const lines = lineOf("lora", "Harbour");
    const wrong = await readWords(lines, index, fitOf, () => Promise.resolve({ text: "Hanbour", confidence: 0.9 }));
    expect(wrong).toMatchObject({ text: "Harbour", byReader: "Hanbour" });
    const right = await readWords(lines, index, fitOf, () => Promise.resolve({ text: "Harbour", confidence: 0.9 }));
    expect(right).toMatchObject({ text: "Harbour", byReader: "Harbour" });
    expect(right.confidence).toBeGreaterThan(0.8);
  });

  test("what the letter reader cannot make out is shown to it otherwise", async () => {
    const fitOf: TextFit = (line, text, by) => fitText(line, text, index, inlineExecutor(index, load), by);
    // Letters that run into each other are not spelt one by one.
    const lines = lineOf("lora", "Harbour", { trackingPx: -9 });
    const asked: string[] = [];
    const read = await readWords(lines, index, fitOf, (_line, shown) => {
      asked.push(shown);
      return Promise.resolve({ text: shown === "smaller" ? "Harbour" : "ulHr", confidence: 0.4 });
    });
    expect(read).toMatchObject({ text: "Harbour", byReader: "ulHr" });
    expect(asked).toEqual(["as it is", "softer", "smaller", "leaning less"]);
    const once: string[] = [];
    await readWords(lineOf("lora", "Harbour"), index, fitOf, (_line, shown) => {
      once.push(shown);
      return Promise.resolve({ text: "Harbour", confidence: 0.9 });
    });
    expect(once).toEqual(["as it is"]);
  });

  test("letters in one piece are found by the face that sets them", async () => {
    const lines = lineOf("zilla-slab", "Harbour", { trackingPx: -3 });
    expect(lines.plain.letters.length).toBeLessThan(7);
    expect((await identifyLine(lines, "Harbour", index, inlineExecutor(index, load), 4)).matches[0]!.styleId).toBe(
      "zilla-slab",
    );
  });
});
