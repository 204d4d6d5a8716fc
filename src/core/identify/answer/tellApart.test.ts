// Where two faces differ in a letter: fonts drawn from rectangles, which differ where they are told to.
import { describe, expect, test } from "@jest/globals";
import { readDemo } from "../../../../tests/fixtures/demoFont";
import { makeFont, type FontPlan } from "../../../../tests/fixtures/makeFont";
import { boundsOf, flattenOutline } from "../../geometry/outline";
import { parsePath } from "../../../../tests/fixtures/parsePath";
import { openFace } from "../../outlines/openFace";
import { tellApart } from "./tellApart";

const face = (plan: FontPlan = {}) => openFace(makeFont(plan));
const plain = face();

describe("two faces in one letter", () => {
  test("feet are where they differ, at an end of a stem", () => {
    const apart = tellApart(plain, face({ serif: 90 }), "H")!;
    expect(apart.where).toMatch(/^(top|bottom)( left| right)?$/);
    const middle = apart.place.y + apart.place.height / 2;
    expect(Math.min(Math.abs(middle - apart.box.y), Math.abs(middle - apart.box.y - apart.box.height))).toBeLessThan(
      120,
    );
  });

  test("a thicker stem differs all along it; the place lies within both", () => {
    const { place, box } = tellApart(plain, face({ stem: 150 }), "l")!;
    expect(place.y).toBeGreaterThanOrEqual(box.y - 20);
    expect(place.y + place.height).toBeLessThanOrEqual(box.y + box.height + 20);
  });

  test("units an em do not matter, and faces are brought to one height of letters", () => {
    const large = face({ unitsPerEm: 2000, stem: 180, xHeight: 1000, capHeight: 1400 });
    const taller = face({ xHeight: 750, capHeight: 1050, stem: 135 });
    for (const other of [large, taller]) {
      const { paths } = tellApart(plain, other, "x")!;
      const [p, q] = paths.map((d) => boundsOf(flattenOutline(parsePath(d), 1))!) as [never, never];
      const height = ({ yMin, yMax }: { yMin: number; yMax: number }) => yMax - yMin;
      expect(Math.abs(height(p) - height(q))).toBeLessThan(12);
    }
  });

  test("both lie over each other, baseline on baseline", async () => {
    const [a, b] = [(await readDemo("zilla-slab", 700)).face, (await readDemo("arvo", 700)).face];
    const { paths, box, letter } = tellApart(a, b, "R")!;
    expect(letter).toBe("R");
    const [p, q] = paths.map((d) => boundsOf(flattenOutline(parsePath(d), 1))!);
    expect(Math.abs((p!.xMin + p!.xMax) / 2 - (q!.xMin + q!.xMax) / 2)).toBeLessThan(2);
    expect(Math.abs(p!.yMax)).toBeLessThan(15);
    expect(box.width).toBeGreaterThanOrEqual(p!.xMax - p!.xMin - 1);
  });

  test("the same face differs nowhere, but can be shown", () => {
    expect(tellApart(plain, face(), "a")).not.toBeNull();
  });

  test.each([
    ["the first", "q", { without: "q" }, {}],
    ["the second", "q", {}, { without: "q" }],
    ["both, of a space,", " ", {}, {}],
  ])("%s lacks the letter", (_which, letter, a, b) => expect(tellApart(face(a), face(b), letter)).toBeNull());
});
