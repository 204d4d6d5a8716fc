// The sheet in its layouts and formats: what stands where, at which size, and that outlines and PDF show the same ink.
import { describe, expect, test } from "@jest/globals";
import { PDFDocument } from "pdf-lib";
import sharp from "sharp";
import { openFont } from "../open/openFont";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { inkOf } from "../../../tests/fixtures/pdfInk";
import { writeContactSheet, type SheetEntry, type SheetInput, type SheetLook } from "./contactSheet";
import { writeContactSheetHtml, writeContactSheetSvg } from "./contactSheetOutlines";
import { openSetFace } from "./setFace";
import { blockWidthPt, layOutBlock, layOutPages, openLabels, PLAIN_LOOK, type Block } from "./sheetLayout";

const LINES = ["Skerrow Light", "Open Night, 12 lamps & one tide"];
const MM_24_PT = (24 * 72) / 25.4;

async function entry(name: string, bytes: Uint8Array, more: Partial<SheetEntry> = {}): Promise<SheetEntry> {
  const font = await openFont(bytes);
  return { name, facts: "title · Cleared", note: "", sfnt: font.sfnt, coverage: font.codePoints, level: 1, ...more };
}
async function sheet(entries: SheetEntry[], look: Partial<SheetLook> = {}): Promise<SheetInput> {
  const label = (await openFont(demoBytes("familjen-grotesk", 400))).sfnt;
  const fonts = { labelSfnt: label, labelBoldSfnt: label };
  const words = { title: "Open Night poster", subtitle: "Trust", lines: LINES, ink: "#20262B", paper: "#FFFFFF" };
  return { ...words, ...fonts, entries, look: { ...PLAIN_LOOK, ...look } };
}
const someFaces = async (count: number) =>
  Promise.all(Array.from({ length: count }, (_, i) => entry(`Lora ${i}`, demoBytes("lora"))));

function layOut(input: SheetInput, isEndless = false) {
  const labels = openLabels(input);
  const { lines } = input;
  const look = input.look!;
  const blocks = input.entries.map((e) => layOutBlock(e, openSetFace(e, lines), labels, { lines, look }));
  return { blocks, pages: layOutPages(input, blocks, labels, { look, isEndless }) };
}
const samplesOf = (block: Block) => block.marks.flatMap((m) => (m.kind === "sample" ? [m] : []));

describe("layouts", () => {
  test("no two blocks of a page meet, and none leaves it", async () => {
    for (const columns of [2, 3, 6]) {
      const { pages } = layOut(await sheet(await someFaces(13), { layout: "columns", columns }));
      expect(pages.flatMap((p) => p.blocks)).toHaveLength(13);
      for (const { blocks, widthPt, heightPt } of pages)
        for (const [i, a] of blocks.entries()) {
          expect(a.x + a.block.widthPt).toBeLessThanOrEqual(widthPt - 40);
          expect(a.y + a.block.heightPt).toBeLessThanOrEqual(heightPt);
          for (const b of blocks.slice(0, i))
            expect(
              b.x + b.block.widthPt <= a.x + 0.01 ||
                a.y >= b.y + b.block.heightPt - 0.01 ||
                a.x + a.block.widthPt <= b.x,
            ).toBe(true);
        }
    }
  });

  test("in columns every line has the width of its column at most", async () => {
    const look = { layout: "columns", columns: 4 } as const;
    const { blocks } = layOut(await sheet(await someFaces(4), look));
    for (const block of blocks)
      for (const { set, sizePt } of samplesOf(block))
        expect((set.line.widthFu / block.face!.unitsPerEm) * sizePt).toBeLessThanOrEqual(
          blockWidthPt({ ...PLAIN_LOOK, ...look }) + 0.01,
        );
  });

  test("one face a page fills its width", async () => {
    const { pages, blocks } = layOut(await sheet(await someFaces(3), { layout: "large" }));
    expect(pages.map((p) => p.blocks.length)).toEqual([1, 1, 1]);
    const [first] = samplesOf(blocks[0]!);
    expect((first!.set.line.widthFu / blocks[0]!.face!.unitsPerEm) * first!.sizePt).toBeCloseTo(blocks[0]!.widthPt, 1);
  });

  test("a real size is real: never made smaller, broken where it is too long, on a wider page where a word is", async () => {
    const { blocks, pages } = layOut(await sheet(await someFaces(1), { realPt: MM_24_PT }));
    const first = samplesOf(blocks[0]!).filter((m) => m.sizePt === MM_24_PT);
    expect(first.map((m) => m.set.text).join(" ")).toBe("Skerrow Light");
    expect(pages[0]!.widthPt).toBeCloseTo(595.28, 1);
    const poster = layOut(await sheet(await someFaces(1), { realPt: 200 }));
    expect(poster.pages[0]!.widthPt).toBeGreaterThan(700);
    expect(samplesOf(poster.blocks[0]!)[0]!.sizePt).toBe(200);
  });

  test("a column of text is broken to the width, not made smaller", async () => {
    const words = Array.from({ length: 12 }, () => "one tide and twelve lamps").join(", ");
    const lines = [
      { text: "Light", sizeShare: 1, wraps: false },
      { text: words, sizeShare: 0.34, wraps: true },
    ];
    const { blocks } = layOut(await sheet([await entry("Lora", demoBytes("lora"), { lines })]));
    const [first, ...rest] = samplesOf(blocks[0]!);
    expect(rest.length).toBeGreaterThan(2);
    for (const m of rest) expect(m.sizePt).toBeCloseTo(0.34 * first!.sizePt, 5);
    expect(rest.map((m) => m.set.text.trim()).join(" ")).toBe(words);
  });
});

describe("formats", () => {
  test("outlines show the same ink as the PDF", async () => {
    const input = await sheet([await entry("Lora", demoBytes("lora")), await entry("Pacifico", demoBytes("pacifico"))]);
    const { pdf } = await writeContactSheet(input);
    const pixels = await sharp(Buffer.from(writeContactSheetSvg(input, "")), { density: 200 })
      .greyscale()
      .raw()
      .toBuffer();
    const drawn = pixels.reduce((sum, v) => sum + (255 - v) / 255, 0);
    const byPoppler = await inkOf(pdf, "poppler");
    expect(byPoppler).toBeGreaterThan(5000);
    expect(Math.abs(drawn - byPoppler) / byPoppler).toBeLessThan(0.05);
    expect(writeContactSheetSvg(input)).toMatch(/width="595\.28pt"/);
  });

  test("names, notes and titles are text, never markup", async () => {
    const bad = "<script>alert(1)</script>";
    const input = {
      ...(await sheet([await entry(`Lora ${bad}`, demoBytes("lora"), { note: bad, facts: bad })])),
      ...{ title: bad, subtitle: bad },
    };
    for (const text of [writeContactSheetHtml(input), writeContactSheetSvg(input)]) {
      expect(text).not.toContain("<script");
      expect(text).toContain("&lt;script&gt;");
    }
  });

  test("HTML says names and facts as text and has a drawing of each face", async () => {
    const html = writeContactSheetHtml(await sheet(await someFaces(3), { layout: "columns", columns: 3 }));
    expect(html.match(/<figure>/g)).toHaveLength(3);
    expect(html.match(/<svg/g)).toHaveLength(3);
    expect(html).toContain("<b>Lora 2</b> title · Cleared");
    expect(html).toContain("repeat(3,");
  });

  test("a file that cannot be drawn is named in every format", async () => {
    const input = await sheet([await entry("Broken", demoBytes("lora"), { sfnt: new Uint8Array(40) })]);
    expect((await writeContactSheet(input)).notDrawn).toEqual(["Broken"]);
    expect(writeContactSheetHtml(input)).toContain("cannot be drawn");
    expect(writeContactSheetSvg(input)).toContain("<title>Broken</title>");
  });

  test("large: as many pages as faces", async () => {
    const { pdf } = await writeContactSheet(await sheet(await someFaces(3), { layout: "large" }));
    expect((await PDFDocument.load(pdf)).getPageCount()).toBe(3);
  });
});
