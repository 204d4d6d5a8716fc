// What is shown to a net, and what becomes of what it sees. The net here sees ink by lightness alone; the fitted one: server/workers/inkNet.test.ts.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { allOf } from "../../../tests/fixtures/allOf";
import { drawLine } from "../../../tests/fixtures/drawLine";
import { readDemo } from "../../../tests/fixtures/demoFont";
import type { OpenFace } from "../outlines/openFace";
import { seeInk, type InkNet } from "./learnedInk";
import { readPhotograph } from "./readPicture";
import { sampleArea } from "./straighten";

let face: OpenFace;
beforeAll(async () => {
  face = (await readDemo("work-sans", 400)).face;
});

const shown: { widthPx: number; heightPx: number }[] = [];
const darkIsInk: InkNet = (planes, widthPx, heightPx) => {
  shown.push({ widthPx, heightPx });
  const n = widthPx * heightPx;
  return Promise.resolve(planes.slice(0, n).map((r, i) => 1 - (r + planes[n + i]! + planes[2 * n + i]!) / 3));
};

describe("a picture is shown", () => {
  test.each([14, 40, 120, 400])("with letters of about one size, whatever theirs is (%i px)", async (sizePx) => {
    shown.length = 0;
    const seen = (await seeInk(drawLine(face, "Harbour", { sizePx }), darkIsInk))!;
    const rows = Array.from({ length: seen.heightPx }, (_, y) =>
      Math.max(...seen.ink.subarray(y * seen.widthPx, (y + 1) * seen.widthPx)),
    );
    const tall = rows.filter((v) => v > 0.5).length;
    expect(tall).toBeGreaterThan(sizePx < 20 ? 15 : 32);
    expect(tall).toBeLessThan(66);
    expect(shown.every((s) => s.widthPx % 32 === 0 && s.heightPx % 32 === 0)).toBe(true);
    expect(Math.max(...shown.map((s) => s.widthPx * s.heightPx))).toBeLessThan(300_000);
  });

  test("and nothing is seen where there is none", async () => {
    const empty = { widthPx: 300, heightPx: 120, rgba: new Uint8Array(4 * 300 * 120).fill(255) };
    expect(await seeInk(empty, darkIsInk)).toBeNull();
  });
});

test("a part that is drawn again has the same mean, smaller or larger", () => {
  const picture = drawLine(face, "Quay", { sizePx: 60 });
  const part = { left: 5.5, top: 3.25, right: picture.widthPx - 4.5, bottom: picture.heightPx - 2.25 };
  const means = [0.3, 1, 1.7].map((scale) => {
    const small = sampleArea(
      picture,
      part,
      Math.round((part.right - part.left) * scale),
      Math.round((part.bottom - part.top) * scale),
    );
    return small.rgba.reduce((sum, v, i) => (i % 4 === 0 ? sum + v : sum), 0) / (small.rgba.length / 4);
  });
  for (const mean of means) expect(Math.abs(mean - means[1]!)).toBeLessThan(1.5);
});

describe("readings of a photograph", () => {
  test("what the net sees is one of them, asked for once", async () => {
    shown.length = 0;
    const lines = (await readPhotograph(drawLine(face, "Harbour", { sizePx: 80 }), {}, null, darkIsInk))!;
    expect(shown).toEqual([]);
    const [learned] = await allOf(lines.others());
    const asked = shown.length;
    expect(learned!.reading).toBe("learned");
    expect(learned!.letters).toHaveLength(7);
    await allOf(lines.others());
    expect(shown).toHaveLength(asked);
  });

  test("the others are made as far as they are asked for, and the same lines are told again", async () => {
    const lines = (await readPhotograph(drawLine(face, "Harbour", { sizePx: 80 }), {}, null, darkIsInk))!;
    const begun = [];
    for await (const line of lines.others()) {
      begun.push(line);
      break;
    }
    const all = await allOf(lines.others());
    expect(all.length).toBeGreaterThan(1);
    expect(all[0]).toBe(begun[0]);
    expect(await allOf(lines.others())).toEqual(all);
  });

  test("and the first where nothing stands out by itself", async () => {
    // Half a step from its ground: no ink for who asks for contrast, for this net there is.
    const faint = drawLine(face, "Lamp", { sizePx: 80 });
    faint.rgba = faint.rgba.map((v, i) => (i % 4 === 3 ? 255 : v > 128 ? 201 : 199));
    const sharp: InkNet = (planes, w, h) => Promise.resolve(planes.slice(0, w * h).map((v) => (v < 200 / 255 ? 1 : 0)));
    const lines = (await readPhotograph(faint, {}, null, sharp))!;
    expect(lines.plain.reading).toBe("learned");
    expect(lines.plain.letters).toHaveLength(4);
  });
});
