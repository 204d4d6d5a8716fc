// Pictures that people give a brief: formats, turning, size, and what must not come in.
import { describe, expect, test } from "@jest/globals";
import sharp from "sharp";
import preparePicture from "./preparePicture.worker";

const plain = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: "#1c6b74" } });
const prepared = async (image: Uint8Array) => preparePicture({ image });

describe("a picture of a brief", () => {
  test.each(["png", "jpeg", "webp", "tiff", "gif", "avif"] as const)("%s comes in as JPEG", async (format) => {
    const reply = await prepared(await plain(320, 200).toFormat(format).toBuffer());
    if (!reply.ok) throw new Error(reply.detail);
    expect([reply.widthPx, reply.heightPx]).toEqual([320, 200]);
    expect([...reply.jpeg.slice(0, 3)]).toEqual([0xff, 0xd8, 0xff]);
  });
  test("a large one is made smaller, a small one is not made larger", async () => {
    const large = await prepared(await plain(4000, 1000).jpeg().toBuffer());
    expect(large).toMatchObject({ ok: true, widthPx: 1800, heightPx: 450 });
    expect(await prepared(await plain(10, 10).png().toBuffer())).toMatchObject({ ok: true, widthPx: 10 });
  });
  test("one that lies on its side by EXIF is set upright, and loses its EXIF", async () => {
    const turned = await prepared(await plain(300, 100).withMetadata({ orientation: 6 }).jpeg().toBuffer());
    if (!turned.ok) throw new Error(turned.detail);
    expect([turned.widthPx, turned.heightPx]).toEqual([100, 300]);
    expect((await sharp(turned.jpeg).metadata()).exif).toBeUndefined();
  });
  test("clear places become white", async () => {
    const clear = await sharp({
      create: { width: 8, height: 8, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } },
    })
      .png()
      .toBuffer();
    const reply = await prepared(clear);
    if (!reply.ok) throw new Error(reply.detail);
    const { data } = await sharp(reply.jpeg).raw().toBuffer({ resolveWithObject: true });
    expect(data[0]).toBeGreaterThan(250);
  });
  test("drawings that may fetch, junk, halves and bombs are refused with a code", async () => {
    const text = (s: string) => new TextEncoder().encode(s);
    expect(await prepared(text("<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'/>"))).toMatchObject({
      ok: false,
      code: "picture-broken",
    });
    expect(await prepared(text("only named like a picture"))).toMatchObject({ ok: false, code: "picture-broken" });
    const whole = await plain(600, 400).png().toBuffer();
    expect(await prepared(whole.subarray(0, whole.length / 2))).toMatchObject({ ok: false, code: "picture-broken" });
    const bomb = await plain(16000, 4000).png({ compressionLevel: 9 }).toBuffer();
    expect(bomb.length).toBeLessThan(1_000_000);
    expect(await prepared(bomb)).toMatchObject({ ok: false, code: "picture-too-large" });
  });
});
