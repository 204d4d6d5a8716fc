// The worker that writes question sheets: pictures of all kinds come in, each form of the sheet goes out.
import { beforeAll, describe, expect, test } from "@jest/globals";
import { PDFDocument } from "pdf-lib";
import sharp from "sharp";
import { demoBytes } from "../../../tests/fixtures/demoFont";
import { openFont } from "@/core/open/openFont";
import writeQuestionSheet, { type QuestionSheetRequest } from "./questionSheet.worker";

let request: QuestionSheetRequest;
const plain = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: "#1c6b74" } });
beforeAll(async () => {
  const { sfnt } = await openFont(demoBytes("familjen-grotesk", 400));
  request = {
    ...{ kind: "pdf", title: "Which face is this?", subtitle: "sign.png", readAs: "Quay" },
    picture: await plain(300, 100).png().toBuffer(),
    framed: [
      { x: 0, y: 0 },
      { x: 300, y: 0 },
      { x: 300, y: 100 },
    ],
    strip: await plain(120, 40).png().toBuffer(),
    ...{ letters: [], tried: ["Nothing yet."], nearest: [], labelSfnt: sfnt, labelBoldSfnt: sfnt },
  };
});

describe("a question sheet", () => {
  test("as PDF, PNG and HTML", async () => {
    expect((await PDFDocument.load(await writeQuestionSheet(request))).getPageCount()).toBe(1);
    const png = await sharp(await writeQuestionSheet({ ...request, kind: "png" })).metadata();
    expect([png.format, png.width]).toEqual(["png", 1240]);
    expect(png.height / png.width).toBeCloseTo(Math.SQRT2, 2);
    const html = new TextDecoder().decode(await writeQuestionSheet({ ...request, kind: "html" }));
    expect(html).toContain('viewBox="0 0 300 100"');
  });

  test.each(["jpeg", "webp", "gif", "tiff", "avif"] as const)("of a picture as %s", async (format) => {
    const picture = await plain(300, 100).toFormat(format).toBuffer();
    expect((await writeQuestionSheet({ ...request, picture })).length).toBeGreaterThan(2000);
  });

  test("a large picture is made smaller, and its frame with it", async () => {
    const picture = await plain(4200, 1400).png().toBuffer();
    const framed = [
      { x: 0, y: 0 },
      { x: 4200, y: 0 },
      { x: 4200, y: 1400 },
    ];
    const html = new TextDecoder().decode(await writeQuestionSheet({ ...request, kind: "html", picture, framed }));
    expect(html).toContain('viewBox="0 0 1400 467"');
    expect(html).toContain('points="0,0 1400,0 1400,');
  });

  test("one on its side by EXIF is set upright", async () => {
    const picture = await plain(300, 100).withMetadata({ orientation: 6 }).jpeg().toBuffer();
    const html = new TextDecoder().decode(
      await writeQuestionSheet({ ...request, kind: "html", picture, framed: null }),
    );
    expect(html).toContain('viewBox="0 0 100 300"');
  });

  test("a picture that cannot be read is an error, not half a sheet", async () => {
    await expect(writeQuestionSheet({ ...request, picture: new TextEncoder().encode("no picture") })).rejects.toThrow();
  });
});
