// Letters of other scripts: what is measured of them agrees with the Latin letters that the same hand drew to go with them.
import { describe, expect, test } from "@jest/globals";
import { demoBytes, demoPart, readBytes, readDemo } from "../../../tests/fixtures/demoFont";
import { openFont } from "../open/openFont";
import { joinParts } from "../outlines/joinParts";
import { openFace, type OpenFace } from "../outlines/openFace";
import { measureFont } from "./measureFont";

const read = (id: string, part: string, weight: number) => readBytes(demoPart(id, part, weight));

describe.each([
  ["rubik", "hebrew", [300, 400, 600, 900]],
  ["rubik", "arabic", [300, 500, 700, 900]],
  ["inknut-antiqua", "devanagari", [300, 500, 900]],
  ["teko", "devanagari", [300, 500, 700]],
  ["kalam", "devanagari", [300, 700]],
] as const)("%s in %s", (id, part, weights) => {
  test("weighs what its Latin letters weigh", async () => {
    const own = await Promise.all(weights.map(async (w) => (await read(id, part, w)).traits.weight!));
    const latin = await Promise.all(weights.map(async (w) => (await readDemo(id, w)).traits.weight!));
    own.forEach((weight, i) => expect(Math.abs(weight - latin[i]!)).toBeLessThan(60));
    expect(own).toEqual([...own].sort((a, b) => a - b));
  });
});

test("leaning letters lean, upright ones stand", async () => {
  expect((await read("kalam", "devanagari", 400)).traits.slantDeg).toBeCloseTo(12, -0.5);
  expect((await read("teko", "devanagari", 400)).traits.slantDeg).toBeCloseTo(0, 1);
});

test("what is read from Latin letters is said to be unmeasured; no kind is named, and it is no picture", async () => {
  const { traits, measured, kinds } = await read("rubik", "hebrew", 400);
  expect(traits).toMatchObject({ picture: false, xHeightEm: null, serif: null, width: null });
  expect(measured.notes.absent.xHeightEm).toBe("not measured for this script");
  expect(measured.notes.confidence.weight).toBeGreaterThan(0);
  expect(traits.bodyEm).toBeCloseTo(0.57, 1);
  expect(kinds).toEqual([]);
});

test("something else in the places of Latin letters makes no picture of a face that has letters of a script", async () => {
  const opened = async (bytes: Uint8Array) => openFace((await openFont(bytes)).sfnt);
  const bars = await opened(demoBytes("libre-barcode-39"));
  const hebrew = await opened(demoPart("rubik", "hebrew"));
  expect(measureFont(bars)).toMatchObject({ isOtherScript: false, traits: { picture: true } });
  const { isOtherScript, traits } = measureFont(joinParts([bars, hebrew]));
  expect({ isOtherScript, picture: traits.picture }).toEqual({ isOtherScript: true, picture: false });
  expect(traits.weight).toBe(measureFont(hebrew).traits.weight);
});

describe("shapes that nobody recognises, in the places of Latin letters", () => {
  const ALPHABET = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz";
  const opened = async (id: string) => openFace((await openFont(demoBytes(id))).sfnt);
  /** As fonts of old scripts do it: another letter of the face in each place. */
  const turned = (face: OpenFace, by: number): OpenFace => ({
    ...face,
    glyphOf(codePoint) {
      const at = ALPHABET.indexOf(String.fromCodePoint(codePoint));
      return face.glyphOf(at < 0 ? codePoint : ALPHABET.codePointAt((at + by) % ALPHABET.length)!);
    },
  });

  test.each([
    ...["rubik", "lora", "josefin-sans", "pacifico", "oswald", "alfa-slab-one", "ibm-plex-mono", "special-elite"],
    ...["crimson-pro", "karla", "spectral", "work-sans", "vollkorn", "tangerine", "marcellus", "uncial-antiqua"],
  ])("%s: written, so no picture, and no kind is named", async (id) => {
    const face = await opened(id);
    expect(measureFont(face).isOtherScript).toBe(false);
    const { isOtherScript, traits } = measureFont(turned(face, 31));
    expect({ isOtherScript, picture: traits.picture }).toEqual({ isOtherScript: true, picture: false });
    expect(traits.stemEm).toBeGreaterThan(0);
  });

  test("letters that are mapped and have no outlines make no picture either", async () => {
    const face = await opened("lora");
    const empty = { verbs: "", coords: new Float64Array() };
    const letters = new Set([...ALPHABET].map((c) => face.glyphOf(c.codePointAt(0)!)));
    const blank: OpenFace = {
      ...face,
      outline: (g) => (letters.has(g) ? empty : face.outline(g)),
      polygons: (g) => (letters.has(g) ? [] : face.polygons(g)),
    };
    const { isOtherScript, traits } = measureFont(blank);
    expect({ isOtherScript, picture: traits.picture, stemEm: traits.stemEm }).toEqual({
      isOtherScript: true,
      picture: false,
      stemEm: null,
    });
  });

  test.each(["libre-barcode-39", "redacted-script"])("%s: not written, so a picture", async (id) => {
    expect(measureFont(await opened(id))).toMatchObject({ isOtherScript: false, traits: { picture: true } });
  });
});
