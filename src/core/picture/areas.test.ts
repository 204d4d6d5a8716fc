import { beforeAll, describe, expect, test } from "@jest/globals";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { readDemo } from "../../../tests/fixtures/demoFont";
import type { OpenFace } from "../outlines/openFace";
import { findAreas } from "./areas";
import type { RgbaPicture } from "./ink";

let face: OpenFace;
beforeAll(async () => {
  face = (await readDemo("work-sans", 600)).face;
});

/** Pictures laid on one sheet at given places. */
function sheet(widthPx: number, heightPx: number, laid: { picture: RgbaPicture; x: number; y: number }[]): RgbaPicture {
  const rgba = new Uint8Array(4 * widthPx * heightPx).fill(255);
  for (const { picture: p, x, y } of laid)
    for (let row = 0; row < p.heightPx; row++)
      rgba.set(p.rgba.subarray(4 * row * p.widthPx, 4 * (row + 1) * p.widthPx), 4 * ((y + row) * widthPx + x));
  return { widthPx, heightPx, rgba };
}

describe("lines of lettering", () => {
  test("stacked lines are two, the one with more ink first", () => {
    const large = drawLine(face, "Harbour", { sizePx: 80 });
    const small = drawLine(face, "jetty", { sizePx: 34 });
    const { areas } = findAreas(
      sheet(700, 420, [
        { picture: small, x: 20, y: 10 },
        { picture: large, x: 30, y: 180 },
      ]),
    );
    expect(areas).toHaveLength(2);
    expect(areas[0]!.y).toBeGreaterThan(areas[1]!.y);
    expect(areas[0]!.height).toBeGreaterThan(areas[1]!.height);
  });

  test("words of one line stay one, dots stay with their letters", () => {
    expect(findAreas(drawLine(face, "jij in a jiffy", { sizePx: 60 })).areas).toHaveLength(1);
  });

  test("two columns far apart are two", () => {
    const left = drawLine(face, "Oil", { sizePx: 50 });
    const right = drawLine(face, "Wick", { sizePx: 50 });
    const { areas } = findAreas(
      sheet(1000, 220, [
        { picture: left, x: 10, y: 10 },
        { picture: right, x: 650, y: 10 },
      ]),
    );
    expect(areas).toHaveLength(2);
  });

  test("a large picture gives boxes in its own pixels", () => {
    const {
      areas: [area],
    } = findAreas(sheet(2400, 900, [{ picture: drawLine(face, "Lamp", { sizePx: 300 }), x: 900, y: 300 }]));
    expect(area!.x).toBeGreaterThan(850);
    expect(area!.x + area!.width).toBeLessThan(2400);
    expect(area!.height).toBeGreaterThan(150);
  });

  test("an empty picture has none", () => {
    expect(findAreas({ widthPx: 200, heightPx: 100, rgba: new Uint8Array(80_000).fill(240) }).areas).toEqual([]);
  });
});
