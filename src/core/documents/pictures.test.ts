// Pictures in documents built in code: listed in their order, taken out as they were put in.
import { describe, expect, test } from "@jest/globals";
import { PDFDocument, PDFName } from "pdf-lib";
import sharp from "sharp";
import { readDocument, takePicture } from "./readDocument";

/** A wedge of greys with a mark of its own, so that no two are the same. */
const wedge = (width: number, height: number, mark: number) =>
  sharp(
    Buffer.from(Uint8Array.from({ length: 3 * width * height }, (_, i) => (i + mark * 31 * Math.floor(i / 900)) % 251)),
    { raw: { width, height, channels: 3 } },
  );
const load = (bytes: Uint8Array) => ({ name: "scan.pdf", bytes, parts: null });

async function scans(): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const first = pdf.addPage([300, 400]);
  first.drawImage(await pdf.embedJpg(await wedge(240, 320, 1).jpeg().toBuffer()), { width: 300, height: 400 });
  const second = pdf.addPage([300, 400]);
  // Two of one size, of which the second is asked for.
  second.drawImage(await pdf.embedPng(await wedge(100, 80, 2).png().toBuffer()), { width: 100, height: 80 });
  second.drawImage(await pdf.embedPng(await wedge(100, 80, 3).png().toBuffer()), { x: 120, width: 100, height: 80 });
  // Too small for lettering.
  second.drawImage(await pdf.embedPng(await wedge(12, 8, 4).png().toBuffer()), { y: 200, width: 10, height: 10 });
  return pdf.save();
}

describe("pictures in a PDF", () => {
  test("are listed by page, small ones left out", async () => {
    const { pictures, fonts } = (await readDocument(load(await scans())))!;
    expect(fonts).toEqual([]);
    expect(pictures).toEqual([
      { page: 1, part: null, widthPx: 240, heightPx: 320 },
      { page: 2, part: null, widthPx: 100, heightPx: 80 },
      { page: 2, part: null, widthPx: 100, heightPx: 80 },
    ]);
  });

  test("a JPEG is taken out as its file", async () => {
    const taken = (await takePicture(load(await scans()), 0))!;
    expect("file" in taken && [...taken.file.subarray(0, 3)]).toEqual([0xff, 0xd8, 0xff]);
  });

  test("any other by its pixels, of several alike the right one", async () => {
    const taken = (await takePicture(load(await scans()), 2))!;
    if (!("pixels" in taken)) throw new Error("no pixels");
    const own = await wedge(100, 80, 3).raw().toBuffer();
    expect([taken.widthPx, taken.heightPx]).toEqual([100, 80]);
    const colours = Uint8Array.from({ length: own.length }, (_, i) => {
      const pixel = Math.floor(i / 3);
      return taken.pixels[pixel * taken.channels + (i % 3)]!;
    });
    expect(Buffer.from(colours).equals(own)).toBe(true);
  });

  test("a page of one bit a pixel, as scanners write, has dark lettering on white", async () => {
    const pdf = await PDFDocument.create();
    const [w, h] = [160, 48];
    const rows = new Uint8Array(20 * h).fill(0xff);
    for (let y = 10; y < 40; y++) rows[20 * y + 5] = 0;
    const stream = pdf.context.flateStream(rows, {
      ...{ Type: "XObject", Subtype: "Image", Width: w, Height: h },
      ...{ ColorSpace: "DeviceGray", BitsPerComponent: 1 },
    });
    const page = pdf.addPage([160, 48]);
    page.node.setXObject(PDFName.of("Scan"), pdf.context.register(stream));
    page.node.addContentStream(pdf.context.register(pdf.context.flateStream("q 160 0 0 48 0 0 cm /Scan Do Q")));
    const taken = (await takePicture(load(await pdf.save()), 0))!;
    if (!("pixels" in taken)) throw new Error("no pixels");
    const at = (x: number, y: number) => taken.pixels[(y * w + x) * taken.channels];
    expect([at(4, 20), at(43, 20), at(43, 4)]).toEqual([255, 0, 255]);
  });

  test("none at a place where there is none, nor in a broken file", async () => {
    expect(await takePicture(load(await scans()), 9)).toBeNull();
    expect(await takePicture(load(new TextEncoder().encode("%PDF-1.7 broken")), 0)).toBeNull();
  });
});

test("pictures of an archive are its parts", async () => {
  const png = await wedge(90, 40, 5).png().toBuffer();
  const files: Record<string, Uint8Array> = {
    "content.xml": new TextEncoder().encode("<office:document-content/>"),
    "Pictures/quay.png": png,
  };
  const parts = { paths: Object.keys(files), read: async (path: string) => files[path] ?? null };
  const source = { name: "a.odt", bytes: new TextEncoder().encode("PK"), parts };
  const found = (await readDocument(source))!;
  expect(found.pictures).toEqual([{ page: null, part: "Pictures/quay.png", widthPx: null, heightPx: null }]);
  expect(await takePicture(source, 0)).toEqual({ file: png });
});
