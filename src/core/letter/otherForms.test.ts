// Other forms of a letter, and the parts that it can be coloured by.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { openFont } from "../open/openFont";
import { openFace, type OpenFace } from "../outlines/openFace";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { partsOfLetter, splitContours } from "./letterParts";
import { otherForms } from "./otherForms";

const open = async (id: string, weight = 400): Promise<OpenFace> =>
  openFace((await openFont(demoBytes(id, weight))).sfnt);

describe("other forms", () => {
  let alegreya: OpenFace;
  beforeAll(async () => {
    alegreya = await open("alegreya");
  });

  test("begin with the one that comes by itself, each glyph once", () => {
    for (const char of "aRg4&") {
      const forms = otherForms(alegreya, char);
      expect(forms[0]).toEqual({ glyphId: alegreya.glyphOf(char.codePointAt(0)!), feature: null, value: 0 });
      expect(new Set(forms.map((f) => f.glyphId)).size).toBe(forms.length);
      for (const { feature, value } of forms.slice(1)) {
        expect(alegreya.features()).toContain(feature);
        expect(value).toBeGreaterThanOrEqual(1);
      }
    }
  });

  test("are none of a character that the face lacks, and only its own where it has no others", async () => {
    expect(otherForms(alegreya, "☃")).toEqual([]);
    const plain = await open("vt323");
    expect(otherForms(plain, "a")).toHaveLength(1);
  });
});

describe("parts of a letter", () => {
  test("are its outer contours with the counters within them", async () => {
    const face = await open("work-sans", 700);
    const parts = (char: string) => partsOfLetter(face.outline(face.glyphOf(char.codePointAt(0)!)!));
    const contours = (verbs: string) => (verbs.match(/M/g) ?? []).length;
    expect(parts("I").map((p) => contours(p.verbs))).toEqual([1]);
    expect(parts("O").map((p) => contours(p.verbs))).toEqual([2]);
    expect(parts("B").map((p) => contours(p.verbs))).toEqual([3]);
    expect(parts("i").map((p) => contours(p.verbs))).toEqual([1, 1]);
    expect(
      parts("%")
        .map((p) => contours(p.verbs))
        .sort(),
    ).toEqual([1, 2, 2]);
  });

  test("split by contour, nothing is lost", async () => {
    const face = await open("noto-sans-symbols-2").catch(() => open("work-sans", 700));
    const outline = face.outline(face.glyphOf("✂".codePointAt(0)!) ?? face.glyphOf("B".codePointAt(0)!)!);
    const contours = splitContours(outline);
    expect(contours.map((c) => c.verbs).join("")).toBe(outline.verbs);
    expect(contours.flatMap((c) => [...c.coords])).toEqual([...outline.coords]);
  });
});
