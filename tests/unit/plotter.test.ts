// The plotter reads the files that the application writes, and some that it does not; it says what it would cut, and refuses what it cannot.
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Block } from "@/contracts/lettering";
import { LETTERING_FILES } from "@/contracts/operations/letterings";
import { CUT_FORMATS, Plot, type CutFormat } from "@/contracts/plotter";
import { checkLettering } from "@/core/letter/checkLettering";
import { layoutLettering } from "@/core/letter/layoutLettering";
import { paintLettering } from "@/core/letter/paintLettering";
import { planCut } from "@/core/letter/planCut";
import { shapeBlock } from "@/core/letter/shapeBlock";
import { writeLetteringDxf } from "@/core/write/lettering/dxf";
import { writeLetteringHpgl } from "@/core/write/lettering/hpgl";
import { writeLetteringSvg } from "@/core/write/lettering/svg";
import { startLibraries } from "../../demo/libraries/server";
import { CuttingPlotter } from "../../demo/plotter/plotter";
import { askPlotter, sendCutFile } from "../../src/server/libraries/plotter";
import { demoBytes } from "../fixtures/demoFont";
import { blockOf, documentOf, openForLettering, type OpenedFace } from "../fixtures/lettering";

let face: OpenedFace;
beforeAll(async () => {
  face = await openForLettering(demoBytes("kaushan-script"));
});
function shapesOf(...blocks: Block[]) {
  const document = documentOf(...blocks);
  const laid = layoutLettering(document, face.faceOf);
  if (!laid.ok) throw new Error(laid.code);
  return { document, shapes: laid.blocks.map(shapeBlock) };
}
function fileOf(format: CutFormat, ...blocks: Block[]): string {
  const { document, shapes } = shapesOf(...blocks);
  const painted = paintLettering(document, shapes);
  if (format === "svg") return writeLetteringSvg(painted, { title: "Hull letters" });
  return format === "dxf" ? writeLetteringDxf(painted) : writeLetteringHpgl(painted);
}
const plotter = new CuttingPlotter();
const take = (format: CutFormat, text: string) => plotter.take(LETTERING_FILES[format].type, text);
function cut(format: CutFormat, text: string): Plot {
  const taken = take(format, text);
  if (!taken.ok) throw new Error(taken.message);
  return Plot.parse(taken.plot);
}
const codeOf = (format: CutFormat, text: string) => {
  const taken = take(format, text);
  return taken.ok ? "cut" : taken.code;
};

const JOINED = blockOf("Wren", { joined: true });
const APART = blockOf("No. 7 Boat");

describe("what it cuts", () => {
  test.each(CUT_FORMATS)("%s: as many pieces and as long a way as the check counts", (format) => {
    for (const block of [JOINED, APART]) {
      const { shapes } = shapesOf(block);
      const checked = checkLettering(shapes, { minStrokeMm: 0.1, minGapMm: 0.1 });
      const plot = cut(format, fileOf(format, block));
      expect(plot.pieces).toBe(checked.pieces);
      expect(plot.cuts).toHaveLength(checked.pieces + checked.islands);
      expect(plot.toolUps).toBe(plot.cuts.length);
      expect(Math.abs(plot.cutMm / checked.cutLengthMm - 1)).toBeLessThan(0.003);
    }
  });

  test.each(CUT_FORMATS)("%s: single pieces are packed, pieces of a group lie as they were set", (format) => {
    const loose = cut(format, fileOf(format, APART));
    expect(loose.movedPieces).toBeGreaterThan(3);
    expect(loose.groups).toBe(0);
    const kept = cut(format, fileOf(format, { ...APART, keepTogether: "hull" }));
    expect(kept).toMatchObject({ movedPieces: 0, groups: 1, pieces: loose.pieces });
    // Each as far from the first as the layout says.
    const lefts = (plot: Plot) =>
      plot.cuts.map((c) => Math.min(...c.points.filter((_, i) => i % 2 === 0))).sort((a, b) => a - b);
    const placed = shapesOf(APART).shapes[0]!.letters.map((l) => Math.min(...l.polygons.map((p) => p[0]!)));
    expect(lefts(kept)).toHaveLength(loose.cuts.length);
    expect(lefts(kept).at(-1)! - lefts(kept)[0]!).toBeGreaterThan(placed.at(-1)! - placed[0]! - 30);
  });

  test("what lies within is cut before what lies around it, and the time is that of its ways", () => {
    const plot = cut("svg", fileOf("svg", APART));
    const isWithin = (inner: number[], outer: number[]) =>
      [0, 1].every((k) => {
        const of = (p: number[]) => p.filter((_, i) => i % 2 === k);
        return Math.min(...of(inner)) > Math.min(...of(outer)) && Math.max(...of(inner)) < Math.max(...of(outer));
      });
    plot.cuts.forEach((outer, i) => {
      for (const later of plot.cuts.slice(i + 1))
        if (later.piece === outer.piece) expect(isWithin(later.points, outer.points)).toBe(false);
    });
    expect(plot.seconds).toBeCloseTo(plot.cutMm / 120 + plot.travelMm / 400 + plot.toolUps * 0.12, 6);
  });

  test("the nearest piece comes next: a row is cut from one end to the other, whatever its order in the file", () => {
    const square = (x: number) => Float64Array.of(x, 0, x + 5, 0, x + 5, 5, x, 5);
    const pieces = [40, 0, 60, 20].map((x) => ({ edge: square(x), counters: [] }));
    const { cuts, travelMm, cutMm } = planCut(pieces, { cutMmPerS: 1, travelMmPerS: 1, liftSeconds: 0 });
    expect(cuts.map((c) => c.piece)).toEqual([1, 3, 0, 2]);
    expect(cutMm).toBe(80);
    expect(travelMm).toBe(60);
  });
});

const svg = (inner: string, size = 'width="100mm" height="50mm" viewBox="0 0 200 100"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${size}>${inner}</svg>`;

describe("drawings of other programs", () => {
  test("transforms, arcs, rectangles and short forms of an SVG are measured in the film's millimetres", () => {
    const circle = "M-20 0a20 20 0 1 0 40 0a20 20 0 1 0-40 0z";
    const plot = cut("svg", svg(`<g transform="translate(50 50) scale(.5)"><path d="${circle}"/></g>`));
    expect(plot.cutMm).toBeCloseTo(Math.PI * 10, 0);
    expect(cut("svg", svg('<rect x="1" y="2" width="40" height="20"/>')).cutMm).toBeCloseTo(60, 6);
    expect(cut("svg", svg('<defs><path d="M0 0h9v9z"/></defs><path d="M0 0h10v10h-10z"/>')).cuts).toHaveLength(1);
  });

  test("arcs of polylines, circles, inches and turned blocks of a DXF", () => {
    const dxf = (units: number, entities: string, blocks = "") =>
      `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n${units}\n0\nENDSEC\n${blocks}0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
    const circle = "0\nCIRCLE\n8\n0\n10\n1\n20\n1\n40\n1\n";
    expect(cut("dxf", dxf(1, circle)).cutMm).toBeCloseTo(2 * Math.PI * 25.4, 0);
    const lens = "0\nLWPOLYLINE\n8\n0\n90\n2\n70\n1\n10\n0\n20\n0\n42\n1\n10\n10\n20\n0\n42\n1\n";
    expect(cut("dxf", dxf(4, lens)).cutMm).toBeCloseTo(Math.PI * 10, 0);
    const block = `0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n8\n0\n2\nhull\n70\n0\n10\n0\n20\n0\n3\nhull\n${circle}0\nENDBLK\n8\n0\n0\nENDSEC\n`;
    const insert = "0\nINSERT\n8\n0\n2\nhull\n10\n5\n20\n5\n50\n90\n41\n2\n42\n2\n";
    expect(cut("dxf", dxf(4, insert, block))).toMatchObject({ groups: 1, pieces: 1 });
    expect(codeOf("dxf", dxf(0, circle))).toBe("unread");
  });

  test("relative moves of an HPGL are added up", () => {
    const plot = cut("hpgl", "IN;PU400,400;PR;PD400,0,0,400,-400,0,0,-400;PU;SP0;");
    expect(plot.cutMm).toBeCloseTo(40, 6);
  });
});

describe("what it refuses", () => {
  test("open paths, with their place", () => {
    expect(take("svg", svg('<path d="M20 20L40 20L40 40"/>'))).toEqual({
      ok: false,
      code: "open-path",
      message: "A path is open, the first at 10, 10 mm. Nothing was cut.",
    });
    expect(codeOf("hpgl", "IN;PU0,0;PD400,0,400,400;PU;")).toBe("open-path");
  });

  test("what is higher than the film or longer than the roll, until a wider one is put in", () => {
    const tall = svg('<path d="M0 0h10v90h-10z"/>', 'width="100mm" height="900mm" viewBox="0 0 10 90"');
    expect(codeOf("svg", tall)).toBe("too-wide");
    plotter.load(1200);
    expect(codeOf("svg", tall)).toBe("cut");
    plotter.load(610);
    const long = svg('<path d="M0 0h90v1h-90z"/>', 'width="20000mm" height="200mm" viewBox="0 0 90 1"');
    expect(codeOf("svg", long)).toBe("too-wide");
  });

  test("text, nothing, and what is no drawing at all", () => {
    expect(codeOf("svg", svg("<text>Wren</text>"))).toBe("has-text");
    expect(codeOf("svg", svg(""))).toBe("empty");
    expect(codeOf("svg", "hull")).toBe("unread");
    expect(codeOf("svg", svg('<path d="M0 0 hull"/>'))).toBe("unread");
    expect(codeOf("svg", svg('<path d="M0 0h9v9z"/>', 'viewBox="0 0 9 9"'))).toBe("unread");
    expect(codeOf("dxf", "hull")).toBe("unread");
    expect(codeOf("hpgl", "IN;XX1,2;")).toBe("unread");
    expect(codeOf("hpgl", "IN;PD1;")).toBe("unread");
    expect(plotter.take("image/png", "")).toMatchObject({ code: "unknown-form" });
  });
});

describe("over HTTP", () => {
  const folder = mkdtempSync(join(tmpdir(), "fond-quarry-plotter-"));
  let served: { url: string; close: () => void };
  beforeAll(async () => {
    expect(existsSync(folder)).toBe(true);
    served = await startLibraries(0, folder);
  });
  afterAll(() => {
    served.close();
    rmSync(folder, { recursive: true, force: true });
  });
  const bytes = (text: string) => new TextEncoder().encode(text);
  const setFaults = (faults: object) =>
    fetch(`${served.url}/faults/plotter`, { method: "PUT", body: JSON.stringify(faults) });

  test("says what it holds, cuts a file, keeps the plot, and refuses in its own words", async () => {
    const url = `${served.url}/plotter`;
    const about = await askPlotter(url);
    expect(about.ok && about.value).toMatchObject({ name: "Roll cutter", filmWidthMm: 610 });
    const sent = await sendCutFile(url, "svg", bytes(fileOf("svg", JOINED)));
    if (!sent.ok) throw new Error(sent.message);
    expect(await (await fetch(`${url}/plots/${sent.value.plotId}`)).json()).toEqual(sent.value);
    expect(await sendCutFile(url, "hpgl", bytes("IN;PU0,0;PD400,0,400,400;PU;"))).toMatchObject({
      ok: false,
      code: "plotter-refused",
      message: expect.stringContaining("open"),
    });
  });

  test("errors, answers that break off and silence are told apart from a refusal", async () => {
    const url = `${served.url}/plotter`;
    for (const faults of [{ error: true }, { half: true }, { down: true }]) {
      await setFaults({ error: false, half: false, down: false, ...faults });
      expect(await askPlotter(url)).toMatchObject({ ok: false, code: "plotter-silent" });
    }
    await setFaults({ error: false, half: false, down: false });
    expect((await askPlotter(url)).ok).toBe(true);
  });
});
