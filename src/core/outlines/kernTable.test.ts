// Kerning by the old table, against another shaper, and against tables that are cut or lie.
import { describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openFont } from "../open/openFont";
import { openFace } from "./openFace";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { applyKernPairs, readKernPairs } from "./kernTable";
import { glyphsOf, typesetLine } from "../typeset/typesetText";

/** Advances and offsets as the independent shaper of the Debian package gives them. */
function shapeElsewhere(sfnt: Uint8Array, text: string): { ax: number; dx: number }[] {
  const folder = mkdtempSync(join(tmpdir(), "fond-quarry-kern-"));
  try {
    const path = join(folder, "font.ttf");
    writeFileSync(path, sfnt);
    const said = execFileSync("hb-shape", ["--output-format=json", path, text], { encoding: "utf8" });
    return JSON.parse(said) as { ax: number; dx: number }[];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

test.each([
  ["arvo", 700, "AVATAR To. Wa, Ty"],
  ["arvo", 400, "Wren & Tern No. 7"],
  ["lora", 400, "AVATAR To. Wa, Ty"],
  ["kaushan-script", 400, "Open Night"],
])("%s %i: “%s” is as wide as elsewhere, glyph by glyph", async (id, weight, text) => {
  const { sfnt } = await openFont(demoBytes(id, weight));
  const line = typesetLine(openFace(sfnt), text);
  const [glyphs, widthFu] = [glyphsOf(line), line.widthFu];
  const other = shapeElsewhere(sfnt, text);
  expect(glyphs.map((g) => g.advanceFu)).toEqual(other.map((g) => g.ax));
  expect(widthFu).toBe(other.reduce((sum, g) => sum + g.ax, 0));
  let pen = 0;
  for (const [i, g] of glyphs.entries()) {
    expect(g.xFu).toBe(pen + other[i]!.dx);
    pen += g.advanceFu;
  }
});

test("kerning can be switched off", async () => {
  const face = openFace((await openFont(demoBytes("arvo", 700))).sfnt);
  expect(typesetLine(face, "AVATAR").widthFu).toBeLessThan(
    typesetLine(face, "AVATAR", { features: { kern: 0 } }).widthFu,
  );
});

/** A table of version 0 with one format-0 subtable. */
function table(pairs: [left: number, right: number, value: number][], coverage = 1, stated = pairs.length): Uint8Array {
  const view = new DataView(new ArrayBuffer(4 + 14 + 6 * pairs.length));
  view.setUint16(2, 1);
  view.setUint16(6, 14 + 6 * pairs.length);
  view.setUint16(8, coverage);
  view.setUint16(10, stated);
  pairs.forEach(([left, right, value], i) => {
    view.setUint16(18 + 6 * i, left);
    view.setUint16(20 + 6 * i, right);
    view.setInt16(22 + 6 * i, value);
  });
  return new Uint8Array(view.buffer);
}

describe("tables", () => {
  test("pairs are read; those of nothing, of other directions and of other formats are not", () => {
    expect([...readKernPairs(table([[1, 2, -40]]))!]).toEqual([[65_538, -40]]);
    expect(readKernPairs(table([[1, 2, 0]]))).toBeNull();
    for (const coverage of [0, 3, 5, 0x0201]) expect(readKernPairs(table([[1, 2, -40]], coverage))).toBeNull();
  });

  test("what is cut off, or states more than it has, gives what is there", () => {
    const whole = table([
      [1, 2, -40],
      [3, 4, -10],
    ]);
    for (let length = 0; length <= whole.length; length++) {
      const pairs = readKernPairs(whole.slice(0, length));
      expect(pairs?.size ?? 0).toBe(length < 24 ? 0 : length < 30 ? 1 : 2);
    }
    expect(readKernPairs(table([[1, 2, -40]], 1, 65_535))!.size).toBe(1);
  });

  test("a value is shared between the two glyphs", () => {
    const glyphs = [1, 2].map((glyphId, i) => ({ glyphId, cluster: i, xFu: 100 * i, yFu: 0, advanceFu: 100 }));
    applyKernPairs(glyphs, new Map([[65_538, -41]]));
    expect(glyphs.map((g) => [g.xFu, g.advanceFu])).toEqual([
      [0, 79],
      [59, 80],
    ]);
  });
});
