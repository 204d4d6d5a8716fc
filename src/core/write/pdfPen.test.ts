import { describe, expect, test } from "@jest/globals";
import fontkit from "@pdf-lib/fontkit";
import { decodePDFRawStream, PDFDocument, PDFRawStream, rgb } from "pdf-lib";
import { demoBytes, demoPart } from "../../../tests/fixtures/demoFont";
import { inkOf } from "../../../tests/fixtures/pdfInk";
import { textOfPdf } from "../../../tests/fixtures/pdfText";
import { openFont } from "../open/openFont";
import { openFace } from "../outlines/openFace";
import { glyphsOf, typesetLine } from "../typeset/typesetText";
import { openPdfPen } from "./pdfPen";

const AT = { xPt: 20, yPt: 40, sizePt: 40, ink: rgb(0, 0, 0) };

async function write(
  family: string,
  text: string,
  options: { features?: Record<string, number>; asOutlines?: boolean },
) {
  const font = await openFont(demoBytes(family));
  const doc = await PDFDocument.create();
  doc.registerFontkit(fontkit);
  // A location, even an empty axis, makes outlines of a face.
  const location: Record<string, number> = options.asOutlines ? { none: 1 } : {};
  const face = { sfnt: font.sfnt, coverage: font.codePoints, features: options.features, location };
  const pen = await openPdfPen(doc, face, [text]);
  pen.draw(doc.addPage([600, 100]), pen.set(text), AT);
  return { pdf: await doc.save({ useObjectStreams: false }), sfnt: font.sfnt };
}

/** Where a page's content puts text, in points: the reading of an independent, very small interpreter. */
async function placesIn(pdf: Uint8Array): Promise<{ x: number; y: number; glyphs: number }[]> {
  const doc = await PDFDocument.load(pdf);
  const content = doc.context
    .enumerateIndirectObjects()
    .flatMap(([, o]) =>
      o instanceof PDFRawStream ? [Buffer.from(decodePDFRawStream(o).decode()).toString("latin1")] : [],
    )
    .find((s) => s.includes(" Tm"))!;
  return [...content.matchAll(/1 0 0 1 (\S+) (\S+) Tm\s+<([0-9A-F]+)> Tj/g)].map(([, x, y, hex]) => ({
    x: Number(x),
    y: Number(y),
    glyphs: hex!.length / 4,
  }));
}

describe("text of an embedded subset", () => {
  test("stands where the shaper put it, kerning and all", async () => {
    const { pdf, sfnt } = await write("lora", "AVATAR To", {});
    const places = await placesIn(pdf);
    const face = openFace(sfnt);
    const glyphs = glyphsOf(typesetLine(face, "AVATAR To"));
    let at = 0;
    for (const { x, y, glyphs: count } of places) {
      expect(x).toBeCloseTo(AT.xPt + (glyphs[at]!.xFu * AT.sizePt) / face.unitsPerEm, 2);
      expect(y).toBeCloseTo(AT.yPt, 5);
      at += count;
    }
    expect(at).toBe(glyphs.length);
    // Kerned pairs begin a part of their own.
    expect(places.length).toBeGreaterThan(3);
  });

  test("is read by other programs as it was written, through ligatures and features", async () => {
    const { pdf } = await write("alegreya", "office flower", { features: { dlig: 1, liga: 1 } });
    expect(textOfPdf(pdf).trim()).toBe("office flower");
    expect((await placesIn(pdf)).reduce((sum, p) => sum + p.glyphs, 0)).toBeLessThan("office flower".length);
  });

  test("looks as its outlines do", async () => {
    const [text, outlines] = await Promise.all([
      write("lora", "Waves & Tide", {}),
      write("lora", "Waves & Tide", { asOutlines: true }),
    ]);
    const [a, b] = await Promise.all([inkOf(text.pdf, "poppler"), inkOf(outlines.pdf, "poppler")]);
    expect(a).toBeGreaterThan(1000);
    expect(Math.abs(a - b) / b).toBeLessThan(0.03);
    expect(textOfPdf(outlines.pdf).trim()).toBe("");
  });
});

test("a line over two parts of a face is text of both, each glyph where it was set", async () => {
  const [latin, cyrillic] = await Promise.all([openFont(demoBytes("lora")), openFont(demoPart("lora", "cyrillic"))]);
  const doc = await PDFDocument.create();
  doc.registerFontkit(fontkit);
  const face = {
    sfnt: latin.sfnt,
    coverage: [...latin.codePoints, ...cyrillic.codePoints],
    parts: [cyrillic.sfnt],
  };
  const text = "Quay Гавань";
  const pen = await openPdfPen(doc, face, [text]);
  pen.draw(doc.addPage([600, 100]), pen.set(text), AT);
  const pdf = await doc.save({ useObjectStreams: false });
  expect(textOfPdf(pdf).trim()).toBe(text);
  expect((await placesIn(pdf)).reduce((n, p) => n + p.glyphs, 0)).toBe(text.length);
  // Beside its Latin alone, the Cyrillic word has left ink at its place.
  const { widthFu } = typesetLine(openFace(latin.sfnt), "Quay ");
  const second = (await placesIn(pdf)).find((p) => Math.abs(p.x - (20 + (widthFu / pen.unitsPerEm) * 40)) < 0.6);
  expect(second).toBeDefined();
});
