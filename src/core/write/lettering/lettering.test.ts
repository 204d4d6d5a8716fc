// Files of a lettering, read back: boxes, colours, layers, true sizes.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { unzipSync, strFromU8 } from "fflate";
import { PDFDocument } from "pdf-lib";
import sharp from "sharp";
import type { Block } from "@/contracts/lettering";
import { areaOf, boundsOf, flattenOutline } from "@/core/geometry/outline";
import { layoutLettering } from "@/core/letter/layoutLettering";
import { boundsOfPaint, paintLettering, type PaintedLettering } from "@/core/letter/paintLettering";
import { shapeBlock } from "@/core/letter/shapeBlock";
import { demoBytes } from "../../../../tests/fixtures/demoFont";
import { blockOf, documentOf, openForLettering, type OpenedFace } from "../../../../tests/fixtures/lettering";
import { parsePath } from "../../../../tests/fixtures/parsePath";
import { blurredInk } from "./blur";
import { writeLetteringDxf } from "./dxf";
import { UNITS_PER_MM, writeLetteringHpgl } from "./hpgl";
import { writeOpenRaster } from "./openRaster";
import { writeLetteringPdf } from "./pdf";
import { writeLetteringSvg } from "./svg";

let face: OpenedFace;
beforeAll(async () => {
  face = await openForLettering(demoBytes("kaushan-script"));
});
function painted(...blocks: Block[]): PaintedLettering {
  const document = documentOf(...blocks);
  const laid = layoutLettering(document, face.faceOf);
  if (!laid.ok) throw new Error(laid.code);
  return paintLettering(document, laid.blocks.map(shapeBlock));
}
const JOINED = blockOf("Wren", { joined: true });
const TWO = [
  blockOf("Wren", { keepTogether: "hull" }),
  blockOf("No. 7", {
    id: "line-2",
    at: { xMm: 40, yMm: 140 },
    size: { emMm: 30 },
    fill: "#a8431a80",
    keepTogether: "hull",
  }),
];

describe("SVG", () => {
  test("is as large as the sheet in millimetres, and its paths lie where the letters do", () => {
    const lettering = painted(JOINED);
    const svg = writeLetteringSvg(lettering, { title: "Hull & letters" });
    expect(svg).toContain('width="300mm" height="160mm" viewBox="0 0 300 160"');
    expect(svg).toContain("<title>Hull &amp; letters</title>");
    const box = boundsOf(flattenOutline(parsePath(/ d="([^"]+)"/.exec(svg)![1]!), 0.002))!;
    const wanted = boundsOfPaint(lettering)!;
    for (const side of ["xMin", "yMin", "xMax", "yMax"] as const) expect(box[side]).toBeCloseTo(wanted[side], 2);
  });

  test("blocks that are kept together are one group; alpha stands beside the colour", () => {
    const svg = writeLetteringSvg(painted(...TWO), { title: "" });
    expect(svg.match(/data-keep-together/g)).toHaveLength(1);
    expect(svg.indexOf('id="line-2"')).toBeGreaterThan(svg.indexOf("data-keep-together"));
    expect(svg).toContain('fill="#a8431a" fill-opacity="0.502"');
  });

  test("a gradient runs over the ink box, and colours of single parts stand for themselves", () => {
    const svg = writeLetteringSvg(
      painted(
        blockOf("Wi", {
          fill: { from: "#20262b", to: "#1c6b74", angleDeg: 0 },
          letters: [{ at: 1, fills: ["#9c2b3b", "#6b7a2a"] }],
        }),
      ),
      { title: "" },
    );
    const box = boundsOfPaint(painted(blockOf("Wi")))!;
    const [, x1, x2] = /x1="([\d.]+)" y1="[\d.]+" x2="([\d.]+)"/.exec(svg)!;
    expect(Number(x1)).toBeCloseTo(box.xMin, 2);
    expect(Number(x2)).toBeCloseTo(box.xMax, 2);
    expect(svg).toContain('fill="#9c2b3b"');
    expect(svg).toContain('fill="#6b7a2a"');
  });

  test("live text keeps its words at their places, and shaped letters as outlines", () => {
    const block = blockOf("Wren", { letters: [{ at: 3, scale: 1.4 }], features: { liga: 0 } });
    const svg = writeLetteringSvg(painted(block), { title: "", fontOf: () => ({ family: "hull", base64: "AAAA" }) });
    expect(svg.match(/<tspan/g)).toHaveLength(3);
    expect(svg).toContain('<tspan font-family="hull" x="20" y="80">W</tspan>');
    expect(svg).toContain("font-feature-settings:&quot;liga&quot; 0");
    expect(svg.match(/<path/g)).toHaveLength(1);
  });
});

test("DXF is in millimetres, y up, each contour one closed spline of cubic curves", () => {
  const lettering = painted(JOINED);
  const dxf = writeLetteringDxf(lettering)
    .split(/\r?\n/)
    .map((l) => l.trim());
  expect(dxf[dxf.indexOf("$INSUNITS") + 2]).toBe("4");
  const contours = (lettering.blocks[0]!.parts[0]!.outline.verbs.match(/M/g) ?? []).length;
  expect(dxf.filter((l) => l === "SPLINE")).toHaveLength(contours);
  // Group codes and values in turn: 20 is the y of a point.
  const pairs = dxf.flatMap((value, i) => (i % 2 ? [] : [[value, dxf[i + 1]!] as const]));
  const from = pairs.findIndex(([, value]) => value === "ENTITIES");
  const ys = pairs.slice(from).flatMap(([code, value]) => (code === "20" ? [Number(value)] : []));
  const box = boundsOfPaint(lettering)!;
  expect(Math.min(...ys)).toBeGreaterThan(160 - box.yMax - 5);
  expect(Math.max(...ys)).toBeLessThan(160 - box.yMin + 5);
});

test("DXF holds blocks that are kept together as one reference", () => {
  const dxf = writeLetteringDxf(painted(...TWO))
    .split(/\r?\n/)
    .map((l) => l.trim());
  expect(dxf.filter((l) => l === "INSERT")).toHaveLength(1);
  expect(dxf).toContain("line-2 a8431a");
});

test("HPGL closes every contour, inner ones first, a pen per colour", () => {
  const lettering = painted(blockOf("O"), blockOf("8", { id: "line-2", at: { xMm: 120, yMm: 80 }, fill: "#a8431a" }));
  const hpgl = writeLetteringHpgl(lettering);
  expect(hpgl.match(/SP\d/g)).toEqual(["SP1", "SP2", "SP0"]);
  const contours = [...hpgl.matchAll(/PU(\d+),(\d+);\nPD([\d,]+);/g)].map(([, x, y, points]) => {
    const numbers = points!.split(",").map(Number);
    expect(numbers.slice(-2)).toEqual([Number(x), Number(y)]);
    return numbers;
  });
  // The counters of the 8 before its edge.
  const area = (n: number[]) => Math.abs(areaOf(Float64Array.from(n)));
  const last = contours.slice(-2);
  expect(area(last[0]!)).toBeLessThan(area(last[1]!));
  const xs = contours.flatMap((c) => c.filter((_, i) => i % 2 === 0));
  const box = boundsOfPaint(lettering)!;
  expect(Math.abs(Math.min(...xs) / UNITS_PER_MM - box.xMin)).toBeLessThan(0.03);
  expect(Math.abs(Math.max(...xs) / UNITS_PER_MM - box.xMax)).toBeLessThan(0.03);
});

describe("PDF", () => {
  test("has the size of the sheet; with marks it is larger and says where it is trimmed", async () => {
    const plain = await PDFDocument.load(
      await writeLetteringPdf(painted(JOINED), { title: "Hull", bleedMm: 0, marks: false }),
    );
    const [width, height] = [300, 160].map((mm) => (mm * 72) / 25.4);
    expect(plain.getPage(0).getWidth()).toBeCloseTo(width!, 6);
    expect(plain.getPage(0).getHeight()).toBeCloseTo(height!, 6);
    const marked = await PDFDocument.load(
      await writeLetteringPdf(painted(JOINED), { title: "Hull", bleedMm: 3, marks: true }),
    );
    const page = marked.getPage(0);
    expect(page.getWidth()).toBeGreaterThan(width!);
    expect(page.getTrimBox().width).toBeCloseTo(width!, 6);
    expect(page.getBleedBox().width).toBeCloseTo(width! + (2 * 3 * 72) / 25.4, 6);
  });

  test("looks as the SVG does by another renderer: gradients, alpha, outlines, shadows", async () => {
    const folder = mkdtempSync(join(tmpdir(), "fond-quarry-pdf-"));
    try {
      const lettering = painted(
        blockOf("Wren", {
          fill: { from: "#a8431a", to: "#1c6b7440", angleDeg: 20 },
          outline: { widthMm: 1, colour: "#20262b", side: "outside" },
          shadow: { dxMm: 3, dyMm: 3, blurMm: 4, colour: "#20262b80" },
        }),
        TWO[1]!,
      );
      writeFileSync(join(folder, "a.pdf"), await writeLetteringPdf(lettering, { title: "", bleedMm: 0, marks: false }));
      execFileSync("pdftoppm", [
        "-png",
        "-singlefile",
        "-scale-to-x",
        "900",
        "-scale-to-y",
        "480",
        join(folder, "a.pdf"),
        join(folder, "a"),
      ]);
      const grey = (input: string | Buffer) =>
        sharp(input)
          .resize(900, 480, { fit: "fill" })
          .flatten({ background: "#ffffff" })
          .removeAlpha()
          .raw()
          .toBuffer();
      const other = await grey(join(folder, "a.png"));
      const svg = writeLetteringSvg(lettering, { title: "" }).replace(
        /width="300mm" height="160mm"/,
        'width="900" height="480"',
      );
      const own = await grey(Buffer.from(svg));
      const off = own.reduce((sum, v, i) => sum + Math.abs(v - other[i]!), 0) / own.length / 255;
      expect(off).toBeLessThan(0.006);
      // It is no empty page.
      expect(own.reduce((sum, v) => sum + (255 - v), 0) / own.length).toBeGreaterThan(5);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
});

test("OpenRaster begins with its media type, unpacked, and lists layers from the top", () => {
  const png = Uint8Array.of(1, 2, 3);
  const layers = ["line-1", "line & 2"].map((name) => ({ name, png }));
  const bytes = writeOpenRaster({ widthPx: 30, heightPx: 16, layers, merged: png, thumbnail: png });
  expect(strFromU8(bytes.subarray(30, 38))).toBe("mimetype");
  expect(strFromU8(bytes.subarray(38, 54))).toBe("image/openraster");
  const files = unzipSync(bytes);
  const stack = strFromU8(files["stack.xml"]!);
  expect([...stack.matchAll(/name="([^"]+)" src="([^"]+)"/g)].map((m) => m.slice(1))).toEqual([
    ["line &amp; 2", "data/layer1.png"],
    ["line-1", "data/layer0.png"],
  ]);
  expect(Object.keys(files).sort()).toEqual([
    "Thumbnails/thumbnail.png",
    "data/layer0.png",
    "data/layer1.png",
    "mergedimage.png",
    "mimetype",
    "stack.xml",
  ]);
});

test("a soft shadow keeps its ink and spreads it by the deviation that is asked for", () => {
  const square = { verbs: "MLLLZ", coords: Float64Array.of(0, 0, 20, 0, 20, 20, 0, 20) };
  const { alpha, widthPx, heightPx, box } = blurredInk(square, 2)!;
  const mmPerPx = (box.xMax - box.xMin) / widthPx;
  const ink = (alpha.reduce((sum, v) => sum + v, 0) / 255) * mmPerPx * ((box.yMax - box.yMin) / heightPx);
  expect(ink).toBeGreaterThan(395);
  expect(ink).toBeLessThan(405);
  // At the edge half of it is left.
  const row = Math.floor(heightPx / 2) * widthPx;
  expect(alpha[row + Math.round((0 - box.xMin) / mmPerPx)]! / 255).toBeCloseTo(0.5, 1);
});
