// Motions as files: what is kept of frames, and what programs that read them rely on.
import { beforeAll, describe, expect, test } from "@jest/globals";
import CRC32 from "crc-32";
import sharp from "sharp";
import type { Motion, Track } from "@/contracts/motion";
import { drawFrame, newFrameMemory, type Frame } from "@/core/motion/drawFrame";
import { countFrames, frameMs } from "@/core/motion/frames";
import { openFont } from "@/core/open/openFont";
import { openMovingFace, type MovingFace } from "@/core/outlines/openFace";
import { demoVariableBytes } from "../../../../tests/fixtures/demoFont";
import { blockOf, documentOf } from "../../../../tests/fixtures/lettering";
import { writeAnimatedSvg } from "./animatedSvg";
import { apngWriter, readChunks } from "./apng";
import { bakeFrames, numberAt, thin } from "./bake";
import { writeCssMotion } from "./cssMotion";
import { cubicsOf } from "./cubics";
import { findRegion, writeFrameSvg } from "./frameSvg";
import { writeLottie } from "./lottie";

let face: MovingFace;
beforeAll(async () => {
  face = openMovingFace((await openFont(demoVariableBytes("commissioner"))).sfnt);
});

const ramp = (property: string, from: number | string, to: number | string, more: Partial<Track> = {}): Track => ({
  ...{ target: "line-1", property },
  keys: [
    { timeMs: 0, value: from, ease: "in-out" },
    { timeMs: 400, value: to },
  ],
  ...more,
});
const SIZE = {
  sheet: documentOf().sheet,
  widthPx: 600,
  heightPx: 320,
  fps: 25,
  frames: 20,
  ground: null,
  title: "Fog & brass",
};

function framesOf(tracks: Track[], block = blockOf("Fog"), masks?: string[]): Frame[] {
  const motion: Motion = { durationMs: 800, fps: 25, tracks, ...(masks && { masks }) };
  const memory = newFrameMemory();
  return Array.from({ length: countFrames(motion) }, (_, n) => {
    const frame = drawFrame(documentOf(block), motion, frameMs(motion, n), () => face, memory);
    if (!frame.ok) throw new Error(frame.code);
    return frame;
  });
}

describe("keys", () => {
  test("those on the straight way between their neighbours are left out; nothing is further off than asked", () => {
    const eased = Array.from({ length: 50 }, (_, i) => Math.sin(i / 16) * 40);
    const keys = thin(eased, 0.5);
    expect(keys.length).toBeLessThan(30);
    eased.forEach((v, i) => expect(Math.abs(numberAt(keys, i) - v)).toBeLessThanOrEqual(0.5 + 1e-9));
    expect(thin([3, 3, 3], 0.1)).toEqual([{ frame: 0, value: 3 }]);
    expect(thin([0, 1, 2, 3], 0.1)).toHaveLength(2);
  });

  test("a motion that rests after half its time has no keys there, and turns go on past a half circle", () => {
    const [group] = bakeFrames(framesOf([ramp("turnDeg", 0, 300), ramp("opacity", 0, 1)]));
    expect(numberAt(group!.turnDeg, 19)).toBeCloseTo(300, 3);
    expect(group!.opacity.filter((k) => k.frame > 10 && k.frame < 19)).toEqual([]);
    expect(group!.xMm).toHaveLength(1);
    expect(group!.parts[0]!.outline).toHaveLength(1);
  });

  test("an axis on its way changes outlines point for point", () => {
    const [part] = bakeFrames(framesOf([ramp("axis:wght", 100, 900)]))[0]!.parts;
    expect(part!.isMorph).toBe(true);
    expect(part!.outline.length).toBeGreaterThan(8);
  });
});

test("contours become closed chains of cubic curves that end where they begin", () => {
  const [frame] = framesOf([]);
  const contours = cubicsOf(frame!.groups[0]!.parts[0]!.outline);
  expect(contours.length).toBeGreaterThanOrEqual(4);
  for (const { points, into, out } of contours) {
    expect([into.length, out.length]).toEqual([points.length, points.length]);
    const [first, last] = [points[0]!, points[points.length - 1]!];
    expect(Math.hypot(first[0] - last[0], first[1] - last[1])).toBeGreaterThan(1e-9);
  }
});

describe("Lottie", () => {
  type Layer = {
    ty: number;
    ks: { o: { a: number; k: unknown } };
    shapes?: { it: { ty: string }[] }[];
    hasMask?: boolean;
  };
  const read = (frames: Frame[], more: object = {}) =>
    JSON.parse(writeLottie(bakeFrames(frames), { ...SIZE, ...more })) as {
      fr: number;
      op: number;
      w: number;
      h: number;
      layers: Layer[];
      assets: unknown[];
    };

  test("a layer per letter that runs by itself, the first one lowest; size, rate and length of the film", () => {
    const perLetter = { staggerMs: 40, order: "first" as const };
    const file = read(framesOf([ramp("opacity", 0, 1, { perLetter })]), { ground: "#20262b" });
    expect([file.fr, file.op, file.w, file.h]).toEqual([25, 20, 600, 320]);
    expect(file.layers.map((l) => l.ty)).toEqual([4, 4, 4, 1]);
    expect(file.layers[0]!.ks.o.a).toBe(1);
    expect(file.layers[0]!.shapes![0]!.it.map((i) => i.ty)).toEqual(expect.arrayContaining(["sh", "fl", "tr"]));
  });

  test("a mask stands still in a composition around the letters that move behind it", () => {
    const file = read(framesOf([ramp("yMm", 120, 80)], blockOf("Fog"), ["line-1"]));
    expect(file.assets).toHaveLength(1);
    expect(file.layers).toEqual([expect.objectContaining({ ty: 0, hasMask: true })]);
  });

  test("gradients and blurred shadows are kept", () => {
    const block = blockOf("Fog", {
      fill: { from: "#1c6b74", to: "#a9c4b480", angleDeg: 90 },
      shadow: { dxMm: 1, dyMm: 1, blurMm: 2, colour: "#20262b" },
    });
    const text = JSON.stringify(read(framesOf([ramp("opacity", 0, 1)], block)));
    expect(text).toContain('"ty":"gf"');
    expect(text).toContain('"ty":29');
  });
});

describe("animated SVG and CSS", () => {
  test("what rests is said once, what moves by its keys; titles are escaped", () => {
    const svg = writeAnimatedSvg(bakeFrames(framesOf([ramp("xMm", 20, 60), ramp("fill", "#c8641e", "#1c6b74")])), {
      ...SIZE,
      repeats: true,
    });
    expect(svg).toContain("<title>Fog &amp; brass</title>");
    expect(svg.match(/type="translate"/g)).toHaveLength(1);
    expect(svg).not.toContain('type="rotate"');
    expect(svg).toContain('repeatCount="indefinite"');
    for (const [, times, values] of svg.matchAll(/keyTimes="([^"]+)" values="([^"]+)"/g)) {
      const stops = times!.split(";").map(Number);
      expect(stops).toHaveLength(values!.split(";").length);
      expect([stops[0], stops[stops.length - 1]]).toEqual([0, 1]);
      expect(stops.every((t, i) => i === 0 || t > stops[i - 1]!)).toBe(true);
    }
  });

  test("CSS keeps letters as text in their font, with all its axes; what is shaped by hand is drawn", () => {
    const block = blockOf("Fog", { letters: [{ at: 1, points: [{ point: 0, dxEm: 0.1, dyEm: 0 }] }] });
    const options = {
      ...SIZE,
      repeats: false,
      faceOf: () => ({ family: "title-1", file: "fonts/a.woff2", rest: { wght: 100, slnt: 0 } }),
    };
    const perLetter = { staggerMs: 40, order: "last" as const };
    const tracks = [ramp("axis:wght", 100, 900, { perLetter })];
    const { html, css } = writeCssMotion(bakeFrames(framesOf(tracks, block)), { ...options, blocks: [block] });
    expect(html.match(/<text/g)).toHaveLength(2);
    expect(html.match(/<path class/g)).toHaveLength(1);
    expect(html).toContain('aria-label="Fog"');
    const settings = /-variation-settings:"wght" [\d.]+,"slnt" 0/;
    expect(settings.test(css)).toBe(true);
    expect(css).toContain('src:url("fonts/a.woff2")');
    expect(css).toContain("prefers-reduced-motion");
  });
});

describe("frames and APNG", () => {
  const draw = async (frame: Frame) =>
    sharp(Buffer.from(writeFrameSvg(frame, SIZE)))
      .png()
      .toBuffer();

  test("a part of a frame is the same part of the whole", async () => {
    const [, , frame] = framesOf([ramp("xMm", 20, 60)]);
    const region = findRegion(frame!, SIZE)!;
    expect([region.left, region.top, region.width, region.height].every((v) => v % 2 === 0)).toBe(true);
    const raw = async (svg: string) => sharp(Buffer.from(svg)).ensureAlpha().raw().toBuffer();
    const whole = await sharp(Buffer.from(writeFrameSvg(frame!, SIZE)))
      .extract(region)
      .ensureAlpha()
      .raw()
      .toBuffer();
    const part = await raw(writeFrameSvg(frame!, SIZE, region));
    let worst = 0;
    whole.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - part[i]!))));
    expect(worst).toBeLessThanOrEqual(1);
    expect(part.some((v) => v > 0)).toBe(true);
  });

  test("an empty frame has no part that is drawn", () => {
    expect(findRegion(framesOf([ramp("opacity", 0, 1)])[0]!, SIZE)).toBeNull();
  });

  test("pictures are put together with counts, numbers in order and sums that hold", async () => {
    const frames = framesOf([ramp("xMm", 20, 60)]).slice(0, 3);
    const pictures = (await Promise.all(frames.map(draw))).map((b) => new Uint8Array(b));
    const writer = apngWriter({ frames: 3, delay: { num: 1001, den: 30_000 }, plays: 0 });
    const bytes = Buffer.concat([...writer.begin(pictures[0]!), ...pictures.flatMap(writer.frame), writer.end()]);
    const chunks = readChunks(new Uint8Array(bytes));
    expect(chunks.filter((c) => c.type === "fcTL")).toHaveLength(3);
    expect(chunks[chunks.length - 1]!.type).toBe("IEND");
    const numbers = chunks
      .filter((c) => c.type === "fcTL" || c.type === "fdAT")
      .map((c) => Buffer.from(c.data).readUInt32BE(0));
    expect(numbers).toEqual(numbers.map((_, i) => i));
    for (const { type, data } of chunks) {
      const at = bytes.indexOf(Buffer.from(data));
      if (!data.length || at < 0) continue;
      expect(bytes.readUInt32BE(at + data.length)).toBe(
        CRC32.buf(Buffer.concat([Buffer.from(type), Buffer.from(data)])) >>> 0,
      );
    }
    // Who does not know of motion sees the first picture.
    expect(await sharp(bytes).raw().toBuffer()).toEqual(await sharp(pictures[0]).raw().toBuffer());
  });
});
