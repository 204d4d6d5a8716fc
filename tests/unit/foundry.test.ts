// The made-up foundry: its fonts are valid in an independent checker, and what is measured of them is what they were drawn from.
import { describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { drawStyle, trialOf, TRIAL_CHARACTERS } from "../../demo/foundry/build";
import { FAMILIES } from "../../demo/foundry/families";
import { SANS, type Design } from "../../demo/foundry/design";
import { drawFace, type Face } from "../../demo/foundry/face";
import { drawScript } from "../../demo/foundry/specialFaces";
import { drawVariable } from "../../demo/foundry/variableFace";
import {
  writeCollection,
  writeOpenType,
  writeTrueType,
  writeVariable,
  writeWoff,
} from "../../demo/foundry/write/writeFont";
import { fontFacts } from "../fixtures/fontFacts";
import readFont from "../../src/server/workers/readFont.worker";
import { openFace } from "../../src/core/outlines/openFace";
import { glyphsOf, typesetLine } from "../../src/core/typeset/typesetText";

const factsOf = ({ slantDeg, xHeight, capHeight }: Design) =>
  fontFacts({ slantDeg, xHeight, capHeight, descender: -330 });
const folder = mkdtempSync(join(tmpdir(), "fond-quarry-foundry-"));
/** Runs the sanitizer that browsers use; throws with its message when it refuses. */
function sanitize(name: string, bytes: Uint8Array) {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  execFileSync("ots-sanitize", [path, `${path}.out`], { stdio: ["ignore", "ignore", "pipe"] });
}
const traitsOf = async (bytes: Uint8Array) => {
  const reply = await readFont({ bytes, fallbackFamily: "Probe" });
  if (!reply.ok) throw new Error(reply.detail);
  return reply.reading;
};
const within = (is: number | null, should: number, share = 0.02) =>
  expect(Math.abs(is! / should - 1)).toBeLessThan(share);

describe("the families", () => {
  test("are at least 24 with 70 styles, and every name is there once", () => {
    const styles = FAMILIES.flatMap((f) => f.styles.map((s) => `${f.family} ${s.style}`));
    expect(FAMILIES.length).toBeGreaterThanOrEqual(24);
    expect(styles.length).toBeGreaterThanOrEqual(70);
    expect(new Set(styles).size).toBe(styles.length);
  });

  test("the same design gives the same bytes", () => {
    const d = { ...SANS, treatment: "rough" as const, seed: 5 };
    const draw = () => writeTrueType(drawFace(d, { characters: "nog" }), factsOf(d));
    expect(draw()).toEqual(draw());
  });
});

/** Designs that no family uses. */
const UNSEEN: [string, Partial<Design>][] = [
  ["a light wide sans", { stem: 61, thin: 54, width: 1.22, xHeight: 488 }],
  ["a heavy leaning slab", { stem: 151, thin: 110, slantDeg: 7, serif: "slab", serifLength: 40, serifThickness: 58 }],
  ["a text serif", { stem: 76, thin: 33, xHeight: 447, serif: "bracketed", serifLength: 36, serifThickness: 24 }],
  ["a backward leaning one", { stem: 90, thin: 80, slantDeg: -6 }],
  ["round ends", { stem: 97, thin: 97, terminal: "round", xHeight: 533 }],
  ["an inline", { stem: 168, thin: 150, treatment: "inline" }],
  ["a torn one", { stem: 120, thin: 104, treatment: "rough", seed: 3 }],
  ["a stencil", { stem: 111, thin: 96, treatment: "stencil" }],
];

describe("measured against true", () => {
  test.each(UNSEEN)("%s", async (_name, over) => {
    const d: Design = { ...SANS, ...over };
    const face = drawFace(d);
    const bytes = writeTrueType(face, factsOf(d));
    sanitize("face.ttf", bytes);
    const { measured, classified } = await traitsOf(bytes);
    within(measured.traits.stemEm, d.stem / 1000);
    within(measured.traits.xHeightEm, d.xHeight / 1000);
    within(measured.traits.widthEm, face.meanAdvance / 1000);
    expect(Math.abs(measured.traits.slantDeg! - d.slantDeg)).toBeLessThan(0.5);
    expect(measured.traits.serif! >= 0.5).toBe(d.serif !== "none");
    expect(measured.traits.connected).toBeLessThan(0.5);
    if (d.treatment) expect(classified.treatments.map((t) => t.value)).toContain(d.treatment);
  });

  test("a script that no family uses: joined, its stems and lean found behind the hairlines", async () => {
    const d: Design = {
      ...SANS,
      stem: 58,
      thin: 36,
      xHeight: 395,
      capHeight: 650,
      ascender: 740,
      descender: -300,
      slantDeg: 21,
      terminal: "round",
    };
    const bytes = writeTrueType(drawScript(d), factsOf(d));
    sanitize("script.ttf", bytes);
    const { measured, classified, opened } = await traitsOf(bytes);
    within(measured.traits.stemEm, 0.058);
    // Its joins hang a little below the baseline, which counts as overshoot.
    within(measured.traits.xHeightEm, 0.395, 0.025);
    expect(Math.abs(measured.traits.slantDeg! - 21)).toBeLessThan(0.5);
    expect(measured.traits.connected).toBeGreaterThan(0.5);
    expect(classified.kinds.map((k) => k.value)).toContain("script");
    expect(opened.features).toEqual(expect.arrayContaining(["swsh", "ss01", "kern"]));
    expect(opened.codePoints.some(([from, to]) => from <= 0xe000 && to >= 0xe000)).toBe(true);
  });
});

describe("the formats", () => {
  const d: Design = { ...SANS, serif: "bracketed", serifLength: 38, serifThickness: 26, thin: 44 };
  let face: Face;
  const drawn = () => (face ??= drawFace(d, { smallCapitals: true, oldStyleFigures: true }));

  test("TrueType and OpenType carry the same face", async () => {
    const [ttf, otf] = [writeTrueType(drawn(), factsOf(d)), writeOpenType(drawn(), factsOf(d))];
    sanitize("a.ttf", ttf);
    sanitize("a.otf", otf);
    const [a, b] = [await traitsOf(ttf), await traitsOf(otf)];
    expect([a.opened.format, b.opened.format]).toEqual(["ttf", "otf"]);
    within(a.measured.traits.stemEm, b.measured.traits.stemEm!, 0.01);
    expect(a.opened.codePoints).toEqual(b.opened.codePoints);
    expect(a.opened.features).toEqual(expect.arrayContaining(["smcp", "c2sc", "onum", "tnum", "kern"]));
  });

  test("features change glyphs, kerning moves them", () => {
    const open = openFace(writeTrueType(drawn(), factsOf(d)));
    const ids = (text: string, features: Record<string, number>) =>
      glyphsOf(typesetLine(open, text, { features })).map((g) => g.glyphId);
    for (const [text, tag] of [
      ["n", "smcp"],
      ["N", "c2sc"],
      ["3", "onum"],
      ["1", "tnum"],
    ] as const)
      expect(ids(text, { [tag]: 1 })).not.toEqual(ids(text, {}));
    const width = (features: Record<string, number>) => typesetLine(open, "AV", { features }).widthFu;
    expect(width({ kern: 1 })).toBeLessThan(width({ kern: 0 }) - 15);
  });

  test("WOFF and collections open", async () => {
    const ttf = writeTrueType(drawn(), factsOf(d));
    sanitize("a.woff", writeWoff(ttf));
    expect((await traitsOf(writeWoff(ttf))).opened.format).toBe("woff");
    expect(writeCollection([ttf, ttf]).length).toBeGreaterThan(2 * ttf.length);
  });

  test("the variable family has two axes that do what they say", async () => {
    const { face: master, plan } = drawVariable({ ...SANS, stem: 84 });
    const bytes = writeVariable(master, factsOf(SANS), plan);
    sanitize("v.ttf", bytes);
    const { opened } = await traitsOf(bytes);
    expect(opened.axes.map((a) => [a.tag, a.min, a.default, a.max])).toEqual([
      ["wght", 300, 400, 900],
      ["wdth", 75, 100, 125],
    ]);
    expect(opened.instances.map((i) => i.name)).toContain("Expanded Black");
  });

  test("a trial font holds its few characters and no more", async () => {
    const trial = writeTrueType(trialOf(drawn()), factsOf(d));
    sanitize("trial.ttf", trial);
    const { opened } = await traitsOf(trial);
    const count = opened.codePoints.reduce((s, [a, b]) => s + b - a + 1, 0);
    expect(count).toBeLessThanOrEqual(new Set(TRIAL_CHARACTERS).size + 1);
    expect(count).toBeGreaterThan(30);
  });

  test("pictures are told from letters", async () => {
    const plan = FAMILIES.find((f) => f.draws === "weather")!;
    const bytes = writeTrueType(drawStyle(plan, plan.styles[0]!), factsOf(SANS));
    sanitize("pictures.ttf", bytes);
    expect((await traitsOf(bytes)).measured.traits.picture).toBe(true);
  });
});
