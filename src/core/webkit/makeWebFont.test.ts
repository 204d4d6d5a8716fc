// Thirty styles cut to the words of a brief: exactly the characters, every pair and feature as it was, by other readers than our own.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import opentype from "opentype.js";
import { demoBytes, demoVariableBytes } from "../../../tests/fixtures/demoFont";
import { openFont, type OpenedFont } from "../open/openFont";
import { fallbackFor } from "./fallbacks";
import { makeWebFont, type WebFont, type WebFontAsked } from "./makeWebFont";
import { createSubsetter, type Subsetter } from "./subsetter";

const WORDS = "Skerrow Light Open Night 12 lamps & one tide";
const CHARACTERS = [...new Set([...WORDS])].map((c) => c.codePointAt(0)!);

let subset: Subsetter;
let folder = "";
beforeAll(async () => {
  subset = await createSubsetter(readFileSync("node_modules/harfbuzzjs/dist/harfbuzz-subset.wasm"));
  folder = mkdtempSync(join(tmpdir(), "webkit-"));
  return () => rmSync(folder, { recursive: true });
});

const cut = async (font: OpenedFont, asked: Partial<WebFontAsked> = {}): Promise<WebFont> =>
  (await makeWebFont(
    subset,
    { sfnt: font.sfnt, codePoints: CHARACTERS, held: {}, formats: ["woff2", "woff"], calledInside: null, ...asked },
    font.codePoints,
  ))!;

/** Every kept pair one after the other, and the words themselves. */
const pairsOf = (codePoints: readonly number[]) => {
  const letters = codePoints.filter((c) => c !== 32).map((c) => String.fromCodePoint(c));
  return [WORDS, ...letters.map((a) => letters.map((b) => a + b).join(" "))].join("\n");
};

type Shaped = { cl: number; dx: number; dy: number; ax: number; xb: number; yb: number; w: number; h: number };
/** By hb-shape: what each line comes to, without the numbers of glyphs, which cutting changes. */
function shape(bytes: Uint8Array, text: string, features = "", variations = ""): Shaped[][] {
  const file = join(folder, "font.ttf");
  const words = join(folder, "words.txt");
  writeFileSync(file, bytes);
  writeFileSync(words, text);
  const asked = ["--output-format=json", "--show-extents", "--no-glyph-names", `--text-file=${words}`];
  if (features) asked.push(`--features=${features}`);
  if (variations) asked.push(`--variations=${variations}`);
  return execFileSync("hb-shape", [...asked, file], { encoding: "utf8", maxBuffer: 1 << 28 })
    .trim()
    .split("\n")
    .map((line) => (JSON.parse(line) as (Shaped & { g: number })[]).map(({ g: _, ...rest }) => rest));
}
const bare = async (web: WebFont, format: "woff2" | "woff" = "woff2") => (await openFont(web.files[format]!)).sfnt;

// oxfmt-ignore
const STYLES = [
  "alegreya", "alegreya-sans", "aleo", "alfa-slab-one", "amatic-sc", "barlow", "bitter", "cardo", "caveat", "cinzel",
  "cormorant", "crimson-pro", "dm-sans", "fredoka", "gelasio", "great-vibes", "ibm-plex-mono", "ibm-plex-serif", "inknut-antiqua", "josefin-sans",
  "libre-baskerville", "lobster", "lora", "old-standard-tt", "oswald", "pacifico", "playfair-display", "sorts-mill-goudy", "spectral", "zilla-slab",
];

describe.each(STYLES)("%s, cut to the characters of a brief", (id) => {
  let font: OpenedFont;
  let web: WebFont;
  beforeAll(async () => {
    font = await openFont(demoBytes(id));
    web = await cut(font);
  });

  test("maps exactly what was asked, in either format, and is at least 70 % smaller", async () => {
    for (const format of ["woff2", "woff"] as const) {
      const read = opentype.parse((await bare(web, format)).slice().buffer);
      const mapped = Object.keys(read.tables.cmap.glyphIndexMap).map(Number);
      expect(mapped.sort((a, b) => a - b)).toEqual([...CHARACTERS].sort((a, b) => a - b));
    }
    expect(web.files.woff2!.length).toBeLessThan(0.3 * demoBytes(id).length);
  });

  test("every kept pair and every feature is as it was", async () => {
    const [before, after] = [font.sfnt, await bare(web)];
    const text = pairsOf(web.codePoints);
    expect(shape(after, text)).toEqual(shape(before, text));
    const optional = font.features.filter(
      (f) => /^(?:ss\d\d|[a-z]{4})$/.test(f) && !["aalt", "init", "medi", "fina"].includes(f),
    );
    for (const features of [optional.join(","), "-kern,-liga,-calt"])
      expect(shape(after, WORDS, features)).toEqual(shape(before, WORDS, features));
  });
});

describe("a variable font", () => {
  test("stays variable, and is the same at any place", async () => {
    const font = await openFont(demoVariableBytes("fraunces"));
    const after = await bare(await cut(font));
    expect((await openFont(after)).axes.map((a) => a.tag)).toEqual(font.axes.map((a) => a.tag));
    for (const at of ["", "wght=640", "wght=300,opsz=120"])
      expect(shape(after, WORDS, "", at)).toEqual(shape(font.sfnt, WORDS, "", at));
  });

  test("is held at a place where that is asked", async () => {
    const font = await openFont(demoVariableBytes("fraunces"));
    const held = { wght: 640, opsz: 120, SOFT: 0, WONK: 0 };
    const after = await openFont(await bare(await cut(font, { held })));
    expect(after.axes).toEqual([]);
    const [own, whole] = [shape(after.sfnt, WORDS), shape(font.sfnt, WORDS, "", "wght=640,opsz=120,SOFT=0,WONK=0")];
    own.flat().forEach((g, i) => expect(Math.abs(g.ax - whole.flat()[i]!.ax)).toBeLessThanOrEqual(1));
  });
});

test("a font whose name is reserved is called otherwise inside; its licence stays", async () => {
  const font = await openFont(demoBytes("lora"));
  const after = await openFont((await cut(font, { calledInside: "Kit Seven" })).files.woff2!);
  expect({ family: after.family, full: after.names[4], file: after.names[6] }).toEqual({
    family: "Kit Seven",
    full: "Kit Seven",
    file: "KitSeven",
  });
  expect([after.names[0], after.names[13]]).toEqual([font.names[0], font.names[13]]);
});

test("a font that has none of the characters gives none", async () => {
  const font = await openFont(demoBytes("lora"));
  const asked = { sfnt: font.sfnt, codePoints: [0x4e00], held: {}, formats: ["woff2" as const], calledInside: null };
  expect(await makeWebFont(subset, asked, font.codePoints)).toBeNull();
});

test("a damaged font is refused, not made", async () => {
  const font = await openFont(demoBytes("lora"));
  await expect(cut({ ...font, sfnt: font.sfnt.slice(0, 200) })).rejects.toThrow();
});

test("the stand-in takes as much room as the face", async () => {
  const { metrics } = await cut(await openFont(demoBytes("oswald")));
  const rule = fallbackFor('"Oswald stand-in"', "sans", metrics, { weight: 400, isItalic: false });
  const share = Number(/size-adjust: ([\d.]+)%/.exec(rule)![1]) / 100;
  expect(share * 0.4472).toBeCloseTo(metrics.meanAdvanceEm, 3);
  expect(share * Number(/ascent-override: ([\d.]+)%/.exec(rule)![1])).toBeCloseTo(100 * metrics.ascentEm, 1);
});
