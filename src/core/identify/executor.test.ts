// Work in shares: what is sent to another thread and comes back gives the same answer, and giving up early loses nobody.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine, type DrawOptions } from "../../../tests/fixtures/drawLine";
import { describeFaces, type DescribedFaces } from "../../../tests/fixtures/describedFaces";
import { readPicture } from "../picture/readPicture";
import { rankByPieces, rankByCuts, measureWord } from "./ranking/coarse";
import { rankByWhole } from "./ranking/whole";
import { partition, runTask, SHARES, inlineExecutor, type Executor, type Task, type ReplyTo } from "./executor";
import { fitText, identifyLine } from "./identifyLine";
import { SignatureIndex } from "../descriptors/extractDescriptors";
import { wordingOf } from "../picture/wording";

const IDS = [
  "lora",
  "work-sans",
  "zilla-slab",
  "pacifico",
  "dancing-script",
  "oswald",
  "karla",
  "arvo",
  "caveat",
  "rye",
];
let { faces, index, load }: DescribedFaces = {} as DescribedFaces;
beforeAll(async () => void ({ faces, index, load } = await describeFaces(IDS)));
const linesOf = (id: string, text: string, more: DrawOptions = {}) =>
  readPicture(drawLine(faces.get(id)!, text, more))!;

/** Everything is copied on its way there and back, as between threads; `sent` counts what went. */
function workElsewhere(sent: Task["kind"][]): Executor {
  const there = SignatureIndex.from(structuredClone(index.share()));
  return <J extends Task>(tasks: J[]) =>
    Promise.resolve(
      tasks.map((task): ReplyTo<J> => {
        sent.push(task.kind);
        return structuredClone(runTask(structuredClone(task), there, load));
      }),
    );
}

describe("shares", () => {
  test("are dealt out so that each has every other one, none twice", () => {
    const dealt = partition([1, 2, 3, 4, 5]);
    expect(dealt).toHaveLength(SHARES);
    expect(dealt.flat().sort()).toEqual([1, 2, 3, 4, 5]);
    expect(Math.abs(dealt[0]!.length - dealt[1]!.length)).toBeLessThanOrEqual(1);
  });

  test.each([
    ["cut letters", "zilla-slab", "Harbour", {}],
    ["a script in one piece", "pacifico", "Lantern", {}],
    ["letters that touch", "work-sans", "Harbour", { trackingPx: -3 }],
    ["a leaning line", "lora", "Evening", { lean: 0.24 }],
  ] as [string, string, string, DrawOptions][])("%s: the same answer from elsewhere", async (_what, id, text, more) => {
    const lines = linesOf(id, text, more);
    const sent: Task["kind"][] = [];
    const [here, there] = [
      await identifyLine(lines, text, index, inlineExecutor(index, load), 5),
      await identifyLine(lines, text, index, workElsewhere(sent), 5),
    ];
    expect(there.matches).toEqual(here.matches);
    expect(there.noneChance).toBe(here.noneChance);
    expect(here.matches[0]!.styleId).toBe(id);
    expect(sent).toEqual(expect.arrayContaining(["preview", "full"]));
  });

  test("how far a text is from a line is told the same as well", async () => {
    const { plain } = linesOf("zilla-slab", "Harbour");
    const right = await fitText(plain, "Harbour", index, inlineExecutor(index, load));
    expect(await fitText(plain, "Harbour", index, workElsewhere([]))).toBe(right);
    expect(await fitText(plain, "Hanbour", index, inlineExecutor(index, load))).toBeGreaterThan(right + 0.02);
    expect(await fitText(plain, "☃☃☃☃☃☃☃", index, inlineExecutor(index, load))).toBe(1);
  });
});

describe("giving up early", () => {
  test.each([
    ["by pieces", rankByPieces],
    ["by the whole word", rankByWhole],
  ] as const)("%s: the nearest few are those of the whole ranking", (_what, rank) => {
    for (const id of ["pacifico", "lora", "caveat"]) {
      const { plain } = linesOf(id, "Brass Lantern", { trackingPx: -2 });
      const word = measureWord(wordingOf("Brass Lantern"), index);
      const all = rank(plain, word, index, IDS.length);
      const few = rank(plain, word, index, 3);
      expect(few.map((r) => r.style)).toEqual(all.slice(0, 3).map((r) => r.style));
      few.forEach((r, i) => expect(r.cost).toBeCloseTo(all[i]!.cost, 6));
    }
  });

  test("shares of the index together are the index", () => {
    const { plain } = linesOf("karla", "Harbour");
    const ranked = (at?: number) =>
      rankByCuts(
        plain,
        measureWord(wordingOf("Harbour"), index, at === undefined ? undefined : { at, of: 2 }),
        index,
        99,
      );
    const together = [...ranked(0), ...ranked(1)].map((r) => r.style).sort((a, b) => a - b);
    expect(together).toEqual(
      ranked()
        .map((r) => r.style)
        .sort((a, b) => a - b),
    );
  });
});
