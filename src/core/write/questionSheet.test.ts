// The question sheet: every form of it opens, holds what is needed, and nothing that a name could smuggle in.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { PDFDocument } from "pdf-lib";
import sharp from "sharp";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { openFont } from "../open/openFont";
import { writeQuestionHtml, writeQuestionPdf, writeQuestionSvg, type QuestionInput } from "./questionSheet";

let input: QuestionInput;
const paint = async (widthPx: number, heightPx: number) => ({
  png: new Uint8Array(
    await sharp({ create: { width: widthPx, height: heightPx, channels: 3, background: "#bbb" } })
      .png()
      .toBuffer(),
  ),
  widthPx,
  heightPx,
});
beforeAll(async () => {
  const { sfnt } = await openFont(demoBytes("familjen-grotesk", 400));
  input = {
    title: "Which face is this? “Quay”",
    subtitle: "quay.png · 2026-11-25",
    picture: await paint(640, 400),
    framed: [
      { x: 10, y: 20 },
      { x: 600, y: 20 },
      { x: 600, y: 90 },
      { x: 10, y: 90 },
    ],
    strip: await paint(320, 72),
    letters: [..."Quay"].map((char, i) => ({ char, box: { x: 8 + 70 * i, y: 8, width: 60, height: 50 } })),
    readAs: "Quay",
    tried: ["The words were typed. The line was compared letter by letter.", "844 styles were compared."],
    nearest: [
      {
        name: "Lora Bold",
        agreement: 0.62,
        why: "Its Q speaks most against it (41 %).",
        overlayPath: "M8,8L68,8L68,58Z",
      },
      {
        name: "Gelasio Bold",
        agreement: 0.6,
        why: "The same in these letters as the first.",
        overlayPath: "M9,8L60,8L68,58Z",
      },
    ],
    labelSfnt: sfnt,
    labelBoldSfnt: sfnt,
  };
});

describe("as PDF", () => {
  test("is one page that opens, with picture, line and its type in it", async () => {
    const doc = await PDFDocument.load(await writeQuestionPdf(input));
    expect(doc.getPageCount()).toBe(1);
    expect(doc.getTitle()).toBe(input.title);
    const kinds = doc.context.enumerateIndirectObjects().map(([, o]) => String(o).slice(0, 400));
    expect(kinds.filter((k) => k.includes("/Subtype /Image")).length).toBeGreaterThanOrEqual(2);
    expect(kinds.some((k) => k.includes("/FontDescriptor"))).toBe(true);
  });

  test("a line that could not be cut, no frame, no nearest face: still a sheet", async () => {
    const bare = { ...input, framed: null, letters: [], nearest: [], tried: ["x ".repeat(400)] };
    expect((await PDFDocument.load(await writeQuestionPdf(bare))).getPageCount()).toBe(1);
  });
});

describe("as SVG", () => {
  test("letters are outlines: nothing depends on the fonts of the machine", () => {
    const svg = writeQuestionSvg(input);
    expect(svg).not.toContain("<text");
    expect(svg.match(/<image /g)).toHaveLength(2 + input.nearest.length);
    expect(svg).toContain("M8,8L68,8L68,58Z");
  });

  test("a picture of it has ink where the title stands, and none in the margin", async () => {
    const { data, info } = await sharp(Buffer.from(writeQuestionSvg(input)))
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const darkest = (x0: number, y0: number, x1: number, y1: number) => {
      let least = 255;
      for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) least = Math.min(least, data[y * info.width + x]!);
      return least;
    };
    expect(darkest(48, 48, 300, 64)).toBeLessThan(100);
    expect(darkest(0, 0, info.width, 40)).toBe(255);
  });
});

describe("as HTML", () => {
  test("needs nothing from elsewhere", () => {
    const html = writeQuestionHtml(input);
    expect(
      [...html.matchAll(/(?:href|src)="([^"]+)"/g)].every(([, at]) => at!.startsWith("data:image/png;base64,")),
    ).toBe(true);
    expect(html).toContain("read as “Quay”");
    expect(html).toContain("Its Q speaks most against it (41 %).");
    expect(html.match(/<rect /g)).toHaveLength(4);
  });

  test("names are text, whatever they hold", () => {
    const evil = `<img src=x onerror="alert(1)">`;
    const html = writeQuestionHtml({
      ...input,
      title: evil,
      subtitle: evil,
      readAs: evil,
      tried: [evil],
      nearest: [{ name: evil, agreement: 1, why: evil, overlayPath: `M0,0"/><script>alert(1)</script>` }],
    });
    expect(html).not.toContain("<img");
    expect(html).not.toContain("<script");
    expect(html).toContain("&lt;img src=x onerror=&quot;alert(1)&quot;&gt;");
  });
});
