import { beforeAll, describe, expect, test } from "@jest/globals";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { flattenOutline } from "../geometry/outline";
import { measureFont } from "../measure/measureFont";
import { openFont } from "../open/openFont";
import { openFace, type OpenFace } from "./openFace";
import { withoutRules } from "./withoutRules";

const demoFace = async (id: string) => openFace((await openFont(demoBytes(id))).sfnt);

const drawnBy = (face: OpenFace, outline: OpenFace["outline"]): OpenFace => ({
  ...face,
  outline,
  polygons: (glyphId) => flattenOutline(outline(glyphId), face.unitsPerEm / 1000),
});

/** The face with lines at the given heights behind every letter, as wide as its advance, some cut in two. */
function ruled(face: OpenFace, heights: number[], isCut = false): OpenFace {
  const rule = (from: number, to: number, y: number) => [from, y, to, y, to, y + 10, from, y + 10];
  return drawnBy(face, (glyphId) => {
    const { verbs, coords } = face.outline(glyphId);
    const width = face.advanceFu(glyphId);
    const lines = heights.flatMap((y) =>
      isCut && glyphId % 4 === 0 ? [rule(0, width / 3, y), rule(width / 2, width, y)] : [rule(0, width, y)],
    );
    return {
      verbs: verbs + "MLLLZ".repeat(lines.length),
      coords: Float64Array.from([...coords, ...lines.flat()]),
    };
  });
}

describe("a face on ruled lines", () => {
  let face: OpenFace;
  beforeAll(async () => {
    face = await demoFace("caveat");
  });

  test.each([false, true])("is measured as without them (lines cut where letters cross them: %s)", (isCut) => {
    const lines = [-700, -250, 0, 250, 700];
    const given = ruled(face, lines, isCut);
    expect(given.polygons(face.glyphOf(110)!)).not.toHaveLength(face.polygons(face.glyphOf(110)!).length);
    expect(measureFont(given).traits).toEqual(measureFont(face).traits);
  });

  test("a face without rules is itself; its own bars and stems stay", async () => {
    expect(withoutRules(face)).toBe(face);
    const slab = await demoFace("rokkitt");
    expect(withoutRules(slab)).toBe(slab);
  });

  test("rectangles that are parts of letters are kept beside the rules", () => {
    const own = 9999;
    const withBar: OpenFace = {
      ...face,
      outline: (glyphId) => {
        const { verbs, coords } = face.outline(glyphId);
        return { verbs: `${verbs}MLLLZ`, coords: Float64Array.from([...coords, 0, 40, own, 40, own, 90, 0, 90]) };
      },
      advanceFu: () => own * 2,
    };
    const [plain, cleaned] = [withBar, withoutRules(ruled(withBar, [0, 500]))].map((f) => f.outline(f.glyphOf(110)!));
    expect(cleaned).toEqual(plain);
  });
});
