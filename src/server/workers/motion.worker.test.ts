// Stretches of a motion: what is there is not drawn again, and what was put together has all its frames.
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import type { Motion } from "@/contracts/motion";
import { openFont } from "@/core/open/openFont";
import { demoVariableBytes } from "../../../tests/fixtures/demoFont";
import { blockOf, documentOf } from "../../../tests/fixtures/lettering";
import { storeFile } from "../db/fileStore";
import { readWebm, readMp4 } from "../../../demo/cuttingRoom/readVideo";
import { encodeStretch } from "./encodeVideo";
import { assemble, frameName, stretch, strip } from "./motion.worker";

const root = mkdtempSync(join(tmpdir(), "fond-quarry-motion-"));
let fonts: Record<string, string[]>;
beforeAll(async () => {
  process.env.FOND_QUARRY_DATA = root;
  const { sfnt } = await openFont(demoVariableBytes("commissioner"));
  fonts = { [blockOf("").styleId]: [storeFile(sfnt)] };
});
afterAll(() => rmSync(root, { recursive: true, force: true }));

const motion: Motion = {
  durationMs: 480,
  fps: 25,
  tracks: [
    {
      target: "line-1",
      property: "axis:wght",
      keys: [
        { timeMs: 0, value: 100 },
        { timeMs: 480, value: 900 },
      ],
    },
  ],
};
const about = (ground: string | null = null) => ({
  ...{ document: documentOf(blockOf("Lamp", { fill: "#c8641e" })), motion, fonts, ground, widthPx: 300, heightPx: 160 },
});
const RANGES = [
  { from: 0, to: 5 },
  { from: 5, to: 10 },
  { from: 10, to: 12 },
];
const newFolder = (name: string) => {
  const folder = join(root, name);
  mkdirSync(folder);
  return folder;
};

test("frames that are there are kept as they are, those that are not are drawn; halves do not count", async () => {
  const folder = newFolder("frames");
  writeFileSync(join(folder, frameName(1)), "drawn before");
  writeFileSync(join(folder, `${frameName(2)}.part`), "half");
  await stretch({ what: "stretch", ...about(), format: "png-frames", folder, from: 0, to: 4 });
  expect(readFileSync(join(folder, frameName(1)), "utf8")).toBe("drawn before");
  expect(readdirSync(folder).sort()).toEqual([0, 1, 2, 3].map(frameName));
  const { width, height, hasAlpha } = await sharp(join(folder, frameName(2))).metadata();
  expect([width, height, hasAlpha]).toEqual([300, 160, true]);
});

test.each([
  ["webm", null, true],
  ["mp4", "#20262b", false],
] as const)(
  "%s is put together of its stretches: as many frames as asked for, at their rate",
  async (format, ground, hasAlpha) => {
    const folder = newFolder(format);
    for (const range of RANGES) await stretch({ what: "stretch", ...about(ground), format, folder, ...range });
    const file = join(root, `title.${format}`);
    await assemble({ what: "assemble", ...about(ground), format, folder, file, ranges: RANGES, repeats: false });
    const bytes = new Uint8Array(readFileSync(file));
    const film = format === "webm" ? readWebm(bytes) : await readMp4(bytes);
    expect(film).toMatchObject({ widthPx: 300, heightPx: 160, frames: 12, hasAlpha });
    expect(film!.fps).toBeCloseTo(25, 2);
    // A file that is broken off is no film, or one with fewer frames.
    const half = bytes.subarray(0, Math.floor(bytes.length / 2));
    const rest = format === "webm" ? readWebm(half) : null;
    expect(rest?.frames ?? 0).toBeLessThan(12);
  },
);

test("frames at the end of a stretch that are as the last one are a byte each, and the ink of one colour is coded once", async () => {
  const region = { left: 16, top: 16, width: 32, height: 16 };
  const ink = (alpha: number) => {
    const rgba = new Uint8Array(4 * region.width * region.height);
    for (let i = 0; i < rgba.length; i += 4) rgba.set([243, 239, 230, alpha], i);
    return { region, rgba };
  };
  const size = { widthPx: 64, heightPx: 48, rate: { frames: 25, seconds: 1 } };
  const pictures = [ink(120), ink(120), ink(255), ink(255), ink(255)];
  const film = await encodeStretch({ ...size, format: "webm", hasAlpha: true }, pictures, null);
  expect(film.map((f) => f.isKey)).toEqual([true, false, false, false, false]);
  expect(film.slice(1).map((f) => f.bytes.length)).toEqual([1, 1, 1, 1]);
  // The second frame is as the first, but another follows it: it is coded.
  expect(film.slice(1).map((f) => f.alpha!.length === 1)).toEqual([false, false, true, true]);
  // A faint shadow of another colour is a colour, too: not all frames are alike then.
  const shaded = pictures.map((picture, n) => {
    const rgba = picture.rgba.slice();
    for (let i = 0; i < 400; i += 4) rgba.set([16, 24, 60, 24 + 8 * n], i);
    return { ...picture, rgba };
  });
  const two = await encodeStretch({ ...size, format: "webm", hasAlpha: true }, shaded, null);
  expect(two.slice(1).some((f) => f.bytes.length === 1)).toBe(false);
  // The other codec knows no such packet.
  const plain = await encodeStretch({ ...size, format: "mp4", hasAlpha: false }, pictures, [0, 0, 0]);
  expect(plain).toHaveLength(5);
  expect(Math.min(...plain.map((f) => f.bytes.length))).toBeGreaterThan(4);
});

test("a GIF on nothing has transparent edges, on a ground none", async () => {
  for (const ground of [null, "#20262b"]) {
    const folder = newFolder(`gif${ground}`);
    for (const range of RANGES) await stretch({ what: "stretch", ...about(ground), format: "gif", folder, ...range });
    const file = join(root, "title.gif");
    await assemble({ what: "assemble", ...about(ground), format: "gif", folder, file, ranges: RANGES, repeats: true });
    const picture = sharp(file, { animated: true });
    expect(await picture.metadata()).toMatchObject({ pages: 12, pageHeight: 160, width: 300, loop: 0 });
    const [r, g, b, alpha] = await sharp(file).ensureAlpha().raw().toBuffer();
    expect(ground ? [r, g, b, alpha] : alpha).toEqual(ground ? [0x20, 0x26, 0x2b, 255] : 0);
  }
});

test("moments stand side by side", async () => {
  const png = await strip({ what: "strip", ...about("#20262b"), widthPx: 150, heightPx: 80, times: [0, 240, 480] });
  expect(await sharp(png).metadata()).toMatchObject({ width: 3 * 150 + 2 * 8, height: 80 });
});
