// npm run eval:motion: ten motions in every format against stills of the interpolated document, at ten times each. Coded film is decoded by
// ffmpeg, Lottie played by lottie-web, SVG and CSS by Chromium; counts, sizes, rates and lengths as ffprobe reads them. Installs Debian's
// ffmpeg. Frames are drawn in a folder of its own.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { chromium, type Page } from "playwright-core";
import sharp from "sharp";
import type { StyleId } from "../../src/contracts/ids";
import type { Block, LetteringDocument } from "../../src/contracts/lettering";
import { MOTION_FILES, type Motion, type MotionFormat, type Track } from "../../src/contracts/motion";
import type { Ease } from "../../src/contracts/poses";
import { layoutLettering } from "../../src/core/letter/layoutLettering";
import { paintLettering } from "../../src/core/letter/paintLettering";
import { shapeBlock } from "../../src/core/letter/shapeBlock";
import { countFrames, frameMs, frameSize } from "../../src/core/motion/frames";
import { valueAt } from "../../src/core/motion/valueAt";
import { openFont } from "../../src/core/open/openFont";
import { openFace } from "../../src/core/outlines/openFace";
import { writeLetteringSvg } from "../../src/core/write/lettering/svg";
import { storeFile } from "../../src/server/db/fileStore";
import { assemble, bake, css, frameName, stretch } from "../../src/server/workers/motion.worker";

const folder = mkdtempSync(join(tmpdir(), "fond-quarry-motion-"));
process.env.FOND_QUARRY_DATA = join(folder, "data");
execFileSync("apt-get", ["install", "-y", "-qq", "--no-install-recommends", "ffmpeg"], { stdio: "ignore" });

const STYLE = "s_aaaaaaaaaaaa" as StyleId;
const STEADY = "s_bbbbbbbbbbbb" as StyleId;
const WIDTH_PX = 1280;
const MOMENTS = 10;

const fileOf = (name: string) => new Uint8Array(readFileSync(`node_modules/${name}`));
const packed = {
  [STYLE]: fileOf("@fontsource-variable/commissioner/files/commissioner-latin-full-normal.woff2"),
  [STEADY]: fileOf("@fontsource/kaushan-script/files/kaushan-script-latin-400-normal.woff2"),
};
const variable = await openFont(packed[STYLE]!);
const steady = await openFont(packed[STEADY]!);
const fonts = { [STYLE]: [storeFile(variable.sfnt)], [STEADY]: [storeFile(steady.sfnt)] };
const sfntOf = (styleId: string) => (styleId === STYLE ? variable.sfnt : steady.sfnt);

const sheet = { widthMm: 320, heightMm: 180, ground: null };
const blockOf = (more: Partial<Block> = {}): Block => ({
  ...{ id: "title", text: "Keepers of the Lamp", styleId: STYLE, size: { emMm: 26 }, align: "centre" },
  ...{ at: { xMm: 160, yMm: 95 }, fill: "#c8641e", features: { liga: 0, clig: 0 } },
  ...more,
});
const track = (property: string, values: (number | string)[], ease: Ease = "linear"): Track => ({
  ...{ target: "title", property },
  keys: values.map((value, i) => ({ timeMs: (i * 2000) / (values.length - 1), value, ease })),
});
type Case = { name: string; block: Block; tracks: Track[]; fps?: number };
const CASES: Case[] = [
  { name: "weight", block: blockOf(), tracks: [track("axis:wght", [100, 900], "in-out")] },
  {
    name: "weight and flare",
    block: blockOf(),
    tracks: [track("axis:wght", [200, 700]), track("axis:FLAR", [0, 100], "out")],
  },
  { name: "fade", block: blockOf(), tracks: [track("opacity", [0, 1, 0.2], "out")] },
  { name: "tracking", block: blockOf(), tracks: [track("trackingEm", [0.4, 0], [0.2, 0, 0, 1])] },
  {
    name: "place",
    block: blockOf({ align: "left" }),
    tracks: [track("xMm", [10, 120], "in"), track("yMm", [40, 150])],
  },
  { name: "scale", block: blockOf(), tracks: [track("scale", [0.3, 1.1, 1], "in-out")] },
  { name: "turn", block: blockOf(), tracks: [track("turnDeg", [-30, 200])] },
  { name: "colour", block: blockOf(), tracks: [track("fill", ["#c8641e", "#1c6b74", "#6b7a2a"])] },
  {
    name: "joined script with outline",
    block: blockOf({ styleId: STEADY, joined: true, outline: { widthMm: 0.6, colour: "#1c6b74", side: "outside" } }),
    tracks: [track("yMm", [150, 95], "out"), track("opacity", [0, 1])],
    fps: 30,
  },
  {
    name: "on an arc, held",
    block: blockOf({ path: { kind: "arc", radiusMm: 120, startDeg: -90 }, at: { xMm: 160, yMm: 60 } }),
    tracks: [track("axis:wght", [300, 800, 300], "hold"), track("opacity", [1, 0.5], "in")],
    fps: 29.97,
  },
];

/** The document as it stands at a time, by values alone. */
function documentAt({ block, tracks }: Case, timeMs: number): LetteringDocument {
  const now: Block = { ...block, at: { ...block.at } };
  let opacity = 1;
  for (const { property, keys } of tracks) {
    const value = valueAt(keys, timeMs);
    if (property.startsWith("axis:")) now.coordinates = { ...now.coordinates, [property.slice(5)]: Number(value) };
    else if (property === "xMm" || property === "yMm") now.at[property] = Number(value);
    else if (property === "opacity") opacity = Number(value);
    else if (property === "scale") now.size = { emMm: 26 * Math.max(0.001, Number(value)) };
    else if (property === "fill") now.fill = String(value);
    else if (property === "turnDeg" || property === "trackingEm") now[property] = Number(value);
  }
  const fade = (colour: string) =>
    `${colour}${Math.round(opacity * 255)
      .toString(16)
      .padStart(2, "0")}`;
  now.fill = fade(String(now.fill));
  if (now.outline) now.outline = { ...now.outline, colour: fade(now.outline.colour) };
  return { sheet, blocks: [now] };
}

async function drawStill(one: Case, timeMs: number, size: { widthPx: number; heightPx: number }): Promise<Buffer> {
  const document = documentAt(one, timeMs);
  const laid = layoutLettering(document, (b) => openFace(sfntOf(b.styleId), b.coordinates));
  if (!laid.ok) throw new Error(laid.code);
  const svg = writeLetteringSvg(paintLettering(document, laid.blocks.map(shapeBlock)), { title: "" });
  const sized = svg.replace(/width="[\d.]+mm" height="[\d.]+mm"/, `width="${size.widthPx}" height="${size.heightPx}"`);
  return sharp(Buffer.from(sized), { density: 72 }).ensureAlpha().raw().toBuffer();
}

type Difference = { whole: number; ink: number };
/** Mean difference of premultiplied colours and alpha, in per cent: over the whole frame, and where either has ink. @param paper - both are laid on it. */
function compare(a: Uint8Array, b: Uint8Array, paper: number[] | null): Difference {
  let [sum, inkSum, ink] = [0, 0, 0];
  for (let i = 0; i < a.length; i += 4) {
    let off = 0;
    const [p, q] = [a[i + 3]! / 255, b[i + 3]! / 255];
    for (let c = 0; c < 3; c++) {
      const under = paper ? paper[c]! : 0;
      off += Math.abs(a[i + c]! * p + under * (1 - p) - (b[i + c]! * q + under * (1 - q)));
    }
    off += paper ? 0 : Math.abs(a[i + 3]! - b[i + 3]!);
    const channels = paper ? 3 : 4;
    sum += off / channels;
    if (p > 0.02 || q > 0.02) {
      inkSum += off / channels;
      ink++;
    }
  }
  return { whole: (sum / (a.length / 4) / 255) * 100, ink: ink ? (inkSum / ink / 255) * 100 : 0 };
}

const PAPER = [243, 239, 230];
const paperHex = "#f3efe6";

type Reader = (n: number) => Promise<Uint8Array>;
const size = frameSize(sheet, WIDTH_PX);
const { require } = { require: createRequire(import.meta.url) };
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium-headless-shell",
  args: ["--no-sandbox", "--disable-gpu"],
});

/** All frames of a film as ffmpeg decodes them. */
function readFilm(file: string, decoder: string[]): Reader {
  const raw = execFileSync(
    "ffmpeg",
    ["-v", "error", ...decoder, "-i", file, "-fps_mode", "passthrough", "-f", "rawvideo", "-pix_fmt", "rgba", "-"],
    { maxBuffer: 2 ** 31 - 1 },
  );
  const bytes = size.widthPx * size.heightPx * 4;
  return (n) => Promise.resolve(new Uint8Array(raw.buffer, raw.byteOffset + n * bytes, bytes));
}

async function openPage(html: string, base: string): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: size.widthPx, height: size.heightPx } });
  writeFileSync(join(base, "play.html"), html);
  await page.goto(pathToFileURL(join(base, "play.html")).href);
  return page;
}

/** A page that shows a time, photographed without its background. */
async function photograph(page: Page, seek: (ms: number) => void, ms: number): Promise<Uint8Array> {
  await page.evaluate(seek, ms);
  const png = await page.screenshot({ omitBackground: true });
  return sharp(png).ensureAlpha().raw().toBuffer();
}

declare global {
  interface Window {
    lottie: { loadAnimation: (options: object) => { goToAndStop: (frame: number, isFrame: boolean) => void } };
    playing: { goToAndStop: (frame: number, isFrame: boolean) => void };
  }
}

async function openPlayer(format: MotionFormat, file: string, base: string, motion: Motion): Promise<Reader> {
  const style = "<style>html,body{margin:0;background:transparent;overflow:hidden}svg{display:block}</style>";
  if (format === "lottie") {
    const player = readFileSync(require.resolve("lottie-web/build/player/lottie.min.js"), "utf8");
    const html = `${style}<div id="at" style="width:${size.widthPx}px;height:${size.heightPx}px"></div><script>${player}</script><script>playing=lottie.loadAnimation({container:document.getElementById("at"),renderer:"svg",loop:false,autoplay:false,animationData:${readFileSync(file, "utf8")}})</script>`;
    const page = await openPage(html, base);
    await page.waitForTimeout(300);
    return (n) => photograph(page, (frame) => window.playing.goToAndStop(frame, true), n);
  }
  if (format === "svg") {
    const page = await openPage(`${style}${readFileSync(file, "utf8").replace(/<\?xml[^>]*>/, "")}`, base);
    return (n) =>
      photograph(
        page,
        (ms) => {
          const svg = window.document.querySelector("svg")!;
          svg.pauseAnimations();
          svg.setCurrentTime(ms / 1000);
        },
        frameMs(motion, n),
      );
  }
  const page = await browser.newPage({ viewport: { width: size.widthPx, height: size.heightPx } });
  await page.goto(pathToFileURL(join(base, "index.html")).href);
  await page.addStyleTag({ content: "html,body{margin:0;background:transparent;overflow:hidden}" });
  await page.evaluate(async () => {
    await window.document.fonts.ready;
  });
  return (n) =>
    photograph(
      page,
      (ms) => {
        for (const animation of window.document.getAnimations()) {
          animation.pause();
          animation.currentTime = ms;
        }
      },
      frameMs(motion, n) + 0.001,
    );
}

/** The faces as they came: how they are cut for the web is tried elsewhere. */
function writeCss(about: Parameters<typeof css>[0], base: string) {
  const faces = Object.entries(packed).map(([styleId, bytes]) => {
    const file = `${styleId}.woff2`;
    writeFileSync(join(base, file), bytes);
    const rest = Object.fromEntries((styleId === STYLE ? variable : steady).axes.map((a) => [a.tag, a.default]));
    return { styleId, codePoints: [], family: styleId, file, rest };
  });
  const written = css({ ...about, faces });
  writeFileSync(join(base, "index.html"), written.html);
  writeFileSync(join(base, "title.css"), written.css);
}

const FORMATS: MotionFormat[] = ["png-frames", "apng", "webm", "mp4", "gif", "lottie", "svg", "css"];
const LIMITS: Record<string, number> = { "png-frames": 1, apng: 1, webm: 3, mp4: 3, gif: 3, lottie: 3, svg: 3, css: 3 };
const worst: Record<string, Difference> = {};
const wrong: string[] = [];

for (const one of CASES) {
  const motion: Motion = { durationMs: 2000, fps: one.fps ?? 25, tracks: one.tracks };
  const count = countFrames(motion);
  const document: LetteringDocument = { sheet, blocks: [one.block] };
  for (const format of FORMATS) {
    const base = mkdtempSync(join(folder, "motion-"));
    const file = join(base, `title.${MOTION_FILES[format].extension}`);
    const ground = format === "mp4" ? paperHex : null;
    const about = { document, motion, fonts, ...size, ground };
    if (format === "lottie" || format === "svg")
      writeFileSync(file, bake({ what: "bake", ...about, format, title: "Title", repeats: false }));
    else if (format === "css") writeCss({ what: "css", ...about, title: "Title", repeats: false, faces: [] }, base);
    else {
      const ranges = [
        { from: 0, to: 20 },
        { from: 20, to: count },
      ];
      for (const range of ranges) await stretch({ what: "stretch", ...about, format, folder: base, ...range });
      if (format !== "png-frames")
        await assemble({ what: "assemble", ...about, format, folder: base, file, ranges, repeats: false });
    }
    const read: Reader =
      format === "png-frames"
        ? async (n) =>
            sharp(join(base, frameName(n)))
              .ensureAlpha()
              .raw()
              .toBuffer()
        : ["apng", "webm", "mp4", "gif"].includes(format)
          ? readFilm(file, format === "webm" ? ["-c:v", "libvpx-vp9"] : [])
          : await openPlayer(format, file, base, motion);
    const own = { whole: 0, ink: 0 };
    for (let i = 0; i < MOMENTS; i++) {
      const n = Math.round((i * (count - 1)) / (MOMENTS - 1));
      const still = await drawStill(one, frameMs(motion, n), size);
      const off = compare(await read(n), new Uint8Array(still), ground ? PAPER : null);
      own.whole = Math.max(own.whole, off.whole);
      own.ink = Math.max(own.ink, off.ink);
    }
    if (own.whole > LIMITS[format]!) wrong.push(`${one.name} ${format}: ${own.whole.toFixed(2)} %`);
    if (["apng", "webm", "mp4", "gif"].includes(format)) wrong.push(...probe(file, format, motion, count, one.name));
    console.log(
      `${one.name.padEnd(28)} ${format.padEnd(11)} whole ${own.whole.toFixed(3)} %  ink ${own.ink.toFixed(2)} %`,
    );
    const known = (worst[format] ??= { whole: 0, ink: 0 });
    known.whole = Math.max(known.whole, own.whole);
    known.ink = Math.max(known.ink, own.ink);
  }
}

/** What ffprobe reads otherwise than it was asked for. */
function probe(file: string, format: MotionFormat, { fps }: Motion, count: number, name: string): string[] {
  const entries = "stream=width,height,r_frame_rate,nb_read_frames,pix_fmt:stream_tags=alpha_mode:format=duration";
  const told = JSON.parse(
    execFileSync("ffprobe", ["-v", "error", "-count_frames", "-show_entries", entries, "-of", "json", file], {
      encoding: "utf8",
    }),
  ) as {
    streams: {
      width: number;
      height: number;
      r_frame_rate: string;
      nb_read_frames: string;
      pix_fmt: string;
      tags?: { alpha_mode?: string };
    }[];
    format: { duration?: string };
  };
  const stream = told.streams[0]!;
  const [num, den] = stream.r_frame_rate.split("/").map(Number);
  const faults: string[] = [];
  const say = (what: string) => faults.push(`${name} ${format}: ${what}`);
  if (stream.width !== size.widthPx || stream.height !== size.heightPx) say(`${stream.width} × ${stream.height}`);
  if (Number(stream.nb_read_frames) !== count) say(`${stream.nb_read_frames} of ${count} frames`);
  // GIF counts in hundredths: other rates come near.
  if (format !== "gif" && Math.abs(num! / den! - fps) > 0.01) say(`rate ${stream.r_frame_rate}`);
  if (told.format.duration && Math.abs(Number(told.format.duration) * 1000 - (count * 1000) / fps) > 25)
    say(`${told.format.duration} s`);
  if (format === "webm" && stream.tags?.alpha_mode !== "1") say("no alpha");
  if ((format === "apng" || format === "gif") && !/a/.test(stream.pix_fmt)) say("no alpha");
  return faults;
}

console.log("\nworst of ten motions at ten times:");
for (const [format, { whole, ink }] of Object.entries(worst))
  console.log(
    `  ${format.padEnd(11)} ${whole.toFixed(3)} % of the frame, ${ink.toFixed(2)} % where there is ink (limit ${LIMITS[format]} %)`,
  );
console.log(
  wrong.length
    ? `\nnot as asked for:\n  ${wrong.join("\n  ")}`
    : "\nall within their limits; counts, sizes, rates, lengths and alpha as ffprobe reads them",
);
await browser.close();
process.exit(wrong.length ? 1 : 0);
