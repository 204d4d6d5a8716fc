// Words laid over each other as a whole: what is the same lies on itself, what is spaced wider is followed, another word costs more.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine } from "../../../../tests/fixtures/drawLine";
import { describeFaces, type DescribedFaces } from "../../../../tests/fixtures/describedFaces";
import { describeCells, drawCells } from "../../measure/cellForm";
import { readPicture, type InkLine } from "../../picture/readPicture";
import { spanOf } from "../../picture/straighten";
import { measureWord } from "./coarse";
import { glanceAtWhole, rankByWhole } from "./whole";
import { describeWord, FINE_ROWS, grainOf, warpWords } from "./warp";
import { wordingOf } from "../../picture/wording";

const IDS = ["great-vibes", "pacifico", "dancing-script", "lora", "work-sans", "caveat"];
let { faces, index }: DescribedFaces = {} as DescribedFaces;
beforeAll(async () => void ({ faces, index } = await describeFaces(IDS)));
const lineOf = (id: string, text: string, more = {}): InkLine =>
  readPicture(drawLine(faces.get(id)!, text, more))!.plain;
function wordOf(line: InkLine, columns?: number) {
  const span = spanOf(line.letters);
  const grain = grainOf(span, FINE_ROWS);
  return describeWord(line.strip, span, columns ? { ...grain, columns } : grain);
}

describe("warping", () => {
  test("a word lies on itself, column by column, at no cost", () => {
    const word = wordOf(lineOf("lora", "Harbour"));
    const { cost, onto } = warpWords(word, word)!;
    expect(cost).toBeLessThan(1e-6);
    onto.forEach((to, at) => expect(Math.abs(to - at)).toBeLessThan(1e-6));
  });

  test("follows letters that are spaced wider", () => {
    const a = lineOf("lora", "Harbour");
    const b = lineOf("lora", "Harbour", { trackingPx: 5 });
    const { columns } = grainOf(spanOf(a.letters), FINE_ROWS);
    const { cost, onto } = warpWords(wordOf(a, columns), wordOf(b, columns))!;
    expect(cost).toBeLessThan(0.5);
    const place = (line: InkLine, i: number) => {
      const { left, right } = spanOf(line.letters);
      const letter = line.letters[i]!;
      return (((letter.left + letter.right) / 2 - left) / (right - left)) * columns;
    };
    for (let i = 0; i < 7; i++)
      expect(Math.abs(onto[Math.round(place(a, i))]! - place(b, i))).toBeLessThan(columns * 0.03);
  });

  test("another word costs more, and nothing is told beyond what is enough", () => {
    const word = wordOf(lineOf("lora", "Harbour"));
    const { columns } = word;
    const same = warpWords(wordOf(lineOf("lora", "Harbour", { blurPx: 1.2 }), columns), word)!;
    const other = warpWords(wordOf(lineOf("lora", "Lanterns"), columns), word)!;
    expect(other.cost).toBeGreaterThan(2 * same.cost);
    expect(warpWords(wordOf(lineOf("lora", "Lanterns"), columns), word, other.cost / 2)).toBeNull();
  });
});

describe("words drawn from signatures", () => {
  test.each(["great-vibes", "pacifico", "dancing-script", "caveat"])("%s comes first by its whole word", (id) => {
    const ranks = rankByWhole(lineOf(id, "Brass Lantern"), measureWord(wordingOf("Brass Lantern"), index), index, 3);
    expect(index.ids[ranks[0]!.style]).toBe(id);
    expect(ranks[0]!.by).toBe("whole");
  });

  test("a word is looked up and drawn once, however many lines it is laid over", () => {
    const word = measureWord(wordingOf("Harbour"), index);
    const [set, spaced] = [lineOf("caveat", "Harbour"), lineOf("caveat", "Harbour", { trackingPx: 8 })];
    const nearest = (line: InkLine) => index.ids[glanceAtWhole(line, word, index, 2)[0]!.style];
    expect(nearest(set)).toBe("caveat");
    const drawn = word.entries.map((e) => e.rough);
    expect(nearest(spaced)).toBe("caveat");
    word.entries.forEach((e, i) => expect(e.rough).toBe(drawn[i]));
    expect(measureWord(wordingOf("Harbour"), index)).toBe(word);
    expect(measureWord(wordingOf("Harbours"), index)).not.toBe(word);
  });

  test("no face is near to a line that none sets so wide", () => {
    const word = measureWord(wordingOf("Harbour lights and lamps"), index);
    expect(glanceAtWhole(lineOf("lora", "Ha"), word, index, 3)).toEqual([]);
  });

  test("a letter is drawn back from its description", () => {
    const cells = Float32Array.from({ length: 256 }, (_, i) =>
      i % 16 > 3 && i % 16 < 12 && i > 64 && i < 192 ? 1 : 0,
    );
    const all = Array.from({ length: 16 }, (_, i) => i);
    const out = new Float32Array(256);
    drawCells(describeCells(cells), 1, all, all, out);
    let off = 0;
    for (let x = 0; x < 16; x++) for (let y = 0; y < 16; y++) off += Math.abs(out[x * 16 + y]! - cells[y * 16 + x]!);
    // The high frequencies are gone: edges are soft.
    expect(off / cells.reduce((a, b) => a + b, 0)).toBeLessThan(0.45);
    expect(Math.max(...out)).toBeLessThanOrEqual(1);
  });
});
