// Outlines as the shaper draws them, against the path that it prints itself.
import { describe, expect, test } from "@jest/globals";
import { parsePath } from "../../../tests/fixtures/parsePath";
import { openFont } from "../open/openFont";
import { openFace } from "./openFace";
import { demoBytes, demoVariableBytes } from "../../../tests/fixtures/demoFont";
import { makeFont } from "../../../tests/fixtures/makeFont";

describe("an outline is drawn number by number", () => {
  test.each<[string, () => Uint8Array, Record<string, number>]>([
    ["quadratic", () => demoBytes("lora"), {}],
    ["cubic", () => makeFont({ family: "Beacon", stem: 77 }), {}],
    ["at a place between the masters", () => demoVariableBytes("roboto-flex"), { wght: 333.3, wdth: 71 }],
  ])("%s", async (_, bytes, location) => {
    const { sfnt } = await openFont(bytes());
    const face = openFace(sfnt, location);
    let drawn = 0;
    for (let glyph = 0; glyph < 200; glyph++) {
      const outline = face.outline(glyph);
      expect(outline).toEqual(parsePath(face.font.glyphToPath(glyph)));
      drawn += Number(outline.coords.length > 0);
    }
    expect(drawn).toBeGreaterThan(2);
    expect(face.outline(65_000).verbs).toBe("");
  });
});
