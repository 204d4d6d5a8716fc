// The worker that identifies, over a real data folder with a few fonts: how pictures come in, what is asked, what is refused.
import { afterAll, beforeAll, describe, expect, jest, test } from "@jest/globals";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { demoBytes, readDemo } from "../../../tests/fixtures/demoFont";
import { drawLine, type DrawOptions } from "../../../tests/fixtures/drawLine";
import type { OpenFace } from "@/core/outlines/openFace";

const data = mkdtempSync(join(tmpdir(), "fond-quarry-identify-"));
process.env.FOND_QUARRY_DATA = data;
const { openDatabase } = await import("../db/open");
const { putLibrary } = await import("../queries/libraries");
const { takeFont } = await import("../store/takeFont");
const { default: readFont } = await import("./readFont.worker");
const { default: identify } = await import("./identify.worker");

const FONTS = [
  ["zilla-slab", 700],
  ["lora", 700],
  ["work-sans", 600],
  ["great-vibes", 400],
  ["oswald", 500],
] as const;
/** Brings a font in as an import does. */
async function bringIn(id: string, weight: number) {
  const db = openDatabase(join(data, "fond-quarry.db"));
  const bytes = demoBytes(id, weight);
  const reply = await readFont({ bytes, fallbackFamily: id });
  if (!reply.ok) throw new Error(reply.detail);
  const source = { libraryId: "own", path: `${id}.woff2`, statedFamily: null, evidence: [] };
  idOf.set(id, (await takeFont(db, bytes, reply.reading, source)).styleId);
  faces.set(id, (await readDemo(id, weight)).face);
  db.close();
}
const faces = new Map<string, OpenFace>();
const idOf = new Map<string, string>();
beforeAll(async () => {
  const db = openDatabase(join(data, "fond-quarry.db"));
  putLibrary(db, "own", "Own", "own", "2026-11-25");
  db.close();
  for (const [id, weight] of FONTS) await bringIn(id, weight);
  jest.spyOn(console, "error").mockImplementation(() => undefined);
});
afterAll(() => rmSync(data, { recursive: true, force: true }));

function picture(id: string, text: string, options: DrawOptions = {}) {
  const { widthPx, heightPx, rgba } = drawLine(faces.get(id)!, text, options);
  return sharp(Buffer.from(rgba), { raw: { width: widthPx, height: heightPx, channels: 4 } });
}
type Ask = Partial<Parameters<typeof identify>[0]>;
const ask = (image: Uint8Array, more: Ask = {}) =>
  identify({
    ...{
      image,
      text: "Harbour",
      frame: {},
      limit: 5,
      cut: null,
      ink: null,
      styleId: null,
      dataFolder: data,
      version: 1,
    },
    ...more,
  });
async function firstOf(image: Uint8Array, more: Ask = {}) {
  const reply = await ask(image, more);
  if (!reply.ok) throw new Error(reply.code);
  return reply.value.matches[0]!.styleId;
}

describe("on the way", () => {
  test("what is taken for ink, then what comes nearest, then the answer; no step goes back", async () => {
    const image = await picture("zilla-slab", "Harbour").png().toBuffer();
    const told: import("./identify.worker").IdentifyTold[] = [];
    const request = { text: "Harbour", frame: {}, limit: 5, cut: null, ink: null, styleId: null };
    const reply = await identify({ image, ...request, dataFolder: data, version: 1 }, undefined, (s) => told.push(s));
    expect(reply.ok).toBe(true);
    expect(told[0]!.step).toBe("seen");
    const nearer = told.flatMap((s) => (s.step === "nearer" ? [s] : []));
    expect(nearer.length).toBeGreaterThan(2);
    expect(nearer.map((s) => s.share)).toEqual(nearer.map((s) => s.share).sort((a, b) => a - b));
    expect(nearer.at(-1)!.nearest[0]).toBe(idOf.get("zilla-slab"));
  });

  test("nothing more is begun for somebody who has gone", async () => {
    const image = await picture("zilla-slab", "Harbour").png().toBuffer();
    const gone = new AbortController();
    const request = { text: null, frame: {}, limit: 5, cut: null, ink: null, styleId: null };
    const asked = identify({ image, ...request, dataFolder: data, version: 1 }, gone.signal, () => gone.abort());
    await expect(asked).rejects.toThrow();
  });

  test("ink by hand is scaled with a picture that is shrunk", async () => {
    const image = await picture("zilla-slab", "Harbour").resize(5200).png().toBuffer();
    const rubbed = {
      rubsOut: true,
      radiusPx: 400,
      points: [
        { x: 4700, y: 0 },
        { x: 4700, y: 3000 },
      ],
    };
    const ink = { letters: "found" as const, letterAt: [], groundAt: [], strokes: [rubbed] };
    const reply = await ask(image, { ink, text: null });
    if (!reply.ok) throw new Error(reply.code);
    expect(reply.value.reading.letters.length).toBeLessThan(7);
  });
});

describe("pictures as they come", () => {
  test.each(["png", "jpeg", "webp", "tiff", "gif", "avif"] as const)("%s", async (format) => {
    const image = await picture("zilla-slab", "Harbour").toFormat(format).toBuffer();
    expect(await firstOf(image)).toBe(idOf.get("zilla-slab"));
  });

  test("in greys, with sixteen bits, with clear places", async () => {
    const grey = await picture("lora", "Harbour").greyscale().png().toBuffer();
    expect(await firstOf(grey)).toBe(idOf.get("lora"));
    const deep = await picture("lora", "Harbour").toColourspace("rgb16").png().toBuffer();
    expect(await firstOf(deep)).toBe(idOf.get("lora"));
    const ink = await picture("lora", "Harbour").greyscale().negate().raw().toBuffer({ resolveWithObject: true });
    const { width, height } = ink.info;
    const clear = await sharp({ create: { width, height, channels: 3, background: "#222" } })
      .joinChannel(ink.data, { raw: { width, height, channels: 1 } })
      .png()
      .toBuffer();
    expect(await firstOf(clear)).toBe(idOf.get("lora"));
  });

  test("on its side by EXIF", async () => {
    const image = await picture("zilla-slab", "Harbour").rotate(270).withMetadata({ orientation: 6 }).jpeg().toBuffer();
    expect(await firstOf(image)).toBe(idOf.get("zilla-slab"));
  });

  test("a line of something else along two sides, as a grab of a screen has", async () => {
    const image = await picture("zilla-slab", "Harbour", { ink: [240, 240, 240], paper: [12, 12, 12], marginPx: 14 })
      .extend({ right: 1, bottom: 1, background: "#ffffff" })
      .png()
      .toBuffer();
    expect(await firstOf(image)).toBe(idOf.get("zilla-slab"));
  });

  test.each([
    ["nothing", new Uint8Array(0), "picture-empty"],
    ["no picture", new TextEncoder().encode("<html>"), "picture-broken"],
    ["an empty sheet", null, "no-ink"],
  ])("%s is refused with its code", async (_what, bytes, code) => {
    const blank = sharp({ create: { width: 300, height: 90, channels: 3, background: "#fff" } });
    expect(await ask(bytes ?? (await blank.png().toBuffer()))).toMatchObject({ ok: false, code });
  });

  test("one cut short is refused, not half read", async () => {
    const image = await picture("lora", "Harbour").png().toBuffer();
    expect(await ask(image.subarray(0, image.length >> 1))).toMatchObject({ ok: false, code: "picture-broken" });
  });
});

describe("what is asked", () => {
  test("a script in one piece is compared as a whole word", async () => {
    const reply = await ask(await picture("great-vibes", "Jetty").png().toBuffer(), { text: "Jetty" });
    if (!reply.ok) throw new Error(reply.code);
    expect(reply.value.matches[0]!.styleId).toBe(idOf.get("great-vibes"));
    expect(reply.value.strip.cut).toBe("whole-word");
  });

  test("the part within a frame", async () => {
    const below = await picture("oswald", "Lanterns").png().toBuffer();
    const both = picture("lora", "Harbour").extend({ bottom: 130, background: "#faf8f0" });
    const image = await sharp(await both.png().toBuffer())
      .composite([{ input: below, left: 0, top: 125 }])
      .png()
      .toBuffer();
    const frame = { box: { x: 0, y: 130, width: 300, height: 100 } };
    expect(await firstOf(image, { text: "Lanterns", frame })).toBe(idOf.get("oswald"));
  });

  test("one style alone, tried by name", async () => {
    const styleId = idOf.get("lora")!;
    const reply = await ask(await picture("zilla-slab", "Harbour").png().toBuffer(), { styleId });
    if (!reply.ok) throw new Error(reply.code);
    expect(reply.value.matches.map((m) => m.styleId)).toEqual([styleId]);
    expect(reply.value.matches[0]!.score).toBeLessThan(0.9);
  });

  test("a font that came in since is among them at the next question, and one that changed is compared as it is now", async () => {
    const version = (n: number) => ({ text: "Quarry", version: n });
    await bringIn("pacifico", 400);
    const script = await picture("pacifico", "Quarry").png().toBuffer();
    expect(await firstOf(script, version(1))).not.toBe(idOf.get("pacifico"));
    expect(await firstOf(script, version(2))).toBe(idOf.get("pacifico"));
    await bringIn("alfa-slab-one", 400);
    const slab = await picture("alfa-slab-one", "Quarry").png().toBuffer();
    expect(await firstOf(slab, version(3))).toBe(idOf.get("alfa-slab-one"));
    expect(await firstOf(script, version(3))).toBe(idOf.get("pacifico"));
  });

  test("one that is not here", async () => {
    const image = await picture("lora", "Harbour").png().toBuffer();
    expect(await ask(image, { styleId: "s_ffffffffffffffffffff" })).toMatchObject({ ok: false, code: "not-owned" });
  });

  test("a sketch: the nearest by build, without a chance", async () => {
    const reply = await ask(await picture("zilla-slab", "Harbour").png().toBuffer(), { isSketch: true });
    if (!reply.ok) throw new Error(reply.code);
    expect(reply.value.matches[0]!.styleId).toBe(idOf.get("zilla-slab"));
    expect(reply.value.matches.every((m) => m.chance === 0)).toBe(true);
    expect(reply.value.notInLibraries.chance).toBe(1);
  });

  test("letters as a person cut them: what lies outside of the boxes is gone", async () => {
    const image = await picture("zilla-slab", "Harbour").png().toBuffer();
    const whole = await ask(image);
    if (!whole.ok) throw new Error(whole.code);
    const { reading, strip } = whole.value;
    const letters = reading.letters.slice(0, 4).map(({ char, box }) => ({ char, box }));
    const cut = { reading: strip.reading, leanTan: strip.leanTan, letters };
    const reply = await ask(image, { text: "Harb", cut });
    if (!reply.ok) throw new Error(reply.code);
    expect(reply.value.matches[0]!.styleId).toBe(idOf.get("zilla-slab"));
    expect(reply.value.reading.letters.map((l) => l.char).join("")).toBe("Harb");
    expect(await ask(image, { cut: { ...cut, reading: "no such view" } })).toMatchObject({ ok: false, code: "no-ink" });
  });
});
