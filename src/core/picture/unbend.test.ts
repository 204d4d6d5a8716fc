// Lettering on an arc: bent here by the circle's own formula, laid straight again by three points, and identified.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { describeFaces, type DescribedFaces } from "../../../tests/fixtures/describedFaces";
import { inlineExecutor } from "../identify/executor";
import { identifyLine } from "../identify/identifyLine";
import type { RgbaPicture } from "./ink";
import { readPicture } from "./readPicture";
import { unbendBaseline } from "./unbend";

let { faces, index, load }: DescribedFaces = {} as DescribedFaces;
beforeAll(
  async () =>
    void ({ faces, index, load } = await describeFaces([
      ["lora", 700],
      ["zilla-slab", 700],
      ["work-sans", 700],
      ["arvo", 700],
      ["oswald", 500],
    ])),
);

/** Bends a straight line of lettering. @param sweepRad - the angle its width takes; below 0 it hangs like a bowl. */
function bend(flat: RgbaPicture, sweepRad: number) {
  const turn = Math.sign(sweepRad);
  const radius = flat.widthPx / Math.abs(sweepRad);
  const size = Math.ceil(2 * (radius + flat.heightPx) + 20);
  const middle = size / 2;
  const rgba = new Uint8Array(4 * size * size).fill(255);
  const base = flat.heightPx * 0.7;
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const [dx, dy] = [x + 0.5 - middle, y + 0.5 - middle];
      // From the top (an arch) or the bottom (a bowl) of the circle.
      const angle = Math.atan2(dx, -turn * dy);
      const along = angle * radius + flat.widthPx / 2;
      const over = turn * (Math.hypot(dx, dy) - radius);
      const [sx, sy] = [Math.round(along - 0.5), Math.round(base - over - 0.5)];
      if (sx < 0 || sy < 0 || sx >= flat.widthPx || sy >= flat.heightPx) continue;
      for (let c = 0; c < 4; c++) rgba[4 * (y * size + x) + c] = flat.rgba[4 * (sy * flat.widthPx + sx) + c]!;
    }
  const at = (share: number) => {
    const a = (share - 0.5) * Math.abs(sweepRad);
    return { x: middle + radius * Math.sin(a), y: middle - turn * radius * Math.cos(a) };
  };
  return { picture: { widthPx: size, heightPx: size, rgba }, baseline: [at(0.02), at(0.5), at(0.98)] };
}

describe("a curved baseline", () => {
  test.each([
    ["an arch", 1.2],
    ["a steep arch", 2.4],
    ["a bowl", -1.1],
  ])("%s: the face is found once the lettering lies straight", async (_what, sweepRad) => {
    const { picture, baseline } = bend(drawLine(faces.get("zilla-slab")!, "Harbour Light"), sweepRad);
    const lines = readPicture(picture, { baseline })!;
    expect(lines.plain.letters).toHaveLength(12);
    expect(Math.abs(lines.plain.slopeDeg)).toBeLessThan(1);
    const { matches } = await identifyLine(lines, "Harbour Light", index, inlineExecutor(index, load), 3);
    expect(matches[0]!.styleId).toBe("zilla-slab");
    expect(matches[0]!.score).toBeGreaterThan(0.7);
  });

  test("a straight baseline that slopes is laid level", () => {
    const flat = drawLine(faces.get("lora")!, "Quay", { turnDeg: 14 });
    const tan = Math.tan((-14 * Math.PI) / 180);
    const [w, h] = [flat.widthPx, flat.heightPx];
    const at = (x: number) => ({ x, y: h * 0.65 + tan * (x - w / 2) });
    for (const sign of [1, -1]) {
      const through = [at(10), at(w / 2), at(w - 10)].map((p) => ({ x: p.x, y: h * 0.65 + sign * (p.y - h * 0.65) }));
      const out = unbendBaseline(flat, through, 1600)!;
      expect(out.widthPx).toBeGreaterThan(w * 0.9);
    }
  });

  test("points that are none of a baseline, or too few, give nothing; far beyond the picture is its border", () => {
    const flat = drawLine(faces.get("lora")!, "Quay");
    const p = { x: 10, y: 10 };
    expect(unbendBaseline(flat, [p, p, p], 1600)).toBeNull();
    expect(unbendBaseline(flat, [p, { x: 50, y: 10 }], 1600)).toBeNull();
    const wide = unbendBaseline(
      flat,
      [
        { x: -900, y: 9 },
        { x: 0, y: -700 },
        { x: 900, y: 9 },
      ],
      400,
    )!;
    expect(Math.max(wide.widthPx, wide.heightPx)).toBeLessThanOrEqual(401);
  });
});
