// Reading the letters of a strip with Tesseract, offline: one warm worker. Its answer is a suggestion to be corrected.
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import sharp, { type Sharp } from "sharp";
import { createWorker, PSM, type Worker } from "tesseract.js";
import type { Shown } from "@/core/identify/hypotheses/readShapes";
import { leanLine, type InkLine } from "@/core/picture/readPicture";

const { max, round } = Math;

const require = createRequire(import.meta.url);
let warm: Promise<Worker> | null = null;

async function start(): Promise<Worker> {
  const data = dirname(require.resolve("@tesseract.js-data/eng/package.json"));
  const worker = await createWorker("eng", 1, {
    langPath: join(data, "4.0.0_best_int"),
    gzip: true,
    cacheMethod: "none",
  });
  await worker.setParameters({ tessedit_pageseg_mode: PSM.SINGLE_LINE, user_defined_dpi: "150" });
  return worker;
}

/** Starts the reader ahead of its first use. */
export async function warmReader(): Promise<void> {
  warm ??= start();
  await warm;
}

/** Paper around the line: the reader wants some. */
const MARGIN_PX = 14;
/** What the other ways of showing a line do to it. */
const SOFTER_PX = 1.5;
const SMALLER = 0.6;
const LESS_LEAN_TAN = 0.2;

/** Reads a line of ink. @returns text with single spaces, confidence 0–1. */
export async function readLetters(line: InkLine, shown: Shown): Promise<{ text: string; confidence: number }> {
  warm ??= start();
  const worker = await warm.catch((error: unknown) => {
    warm = null;
    throw error;
  });
  const png = await (
    await showLine(line, shown)
  )
    .extend({ top: MARGIN_PX, bottom: MARGIN_PX, left: MARGIN_PX, right: MARGIN_PX, background: "#ffffff" })
    .png()
    .toBuffer();
  const { data } = await worker.recognize(png);
  return { text: data.text.replace(/\s+/g, " ").trim(), confidence: data.confidence / 100 };
}

async function showLine(line: InkLine, shown: Shown): Promise<Sharp> {
  if (shown === "leaning less") return drawStrip(leanLine(line, LESS_LEAN_TAN).line);
  const strip = drawStrip(line);
  if (shown === "as it is") return strip;
  const changed =
    shown === "softer" ? strip.blur(SOFTER_PX) : strip.resize(max(8, round(line.strip.widthPx * SMALLER)));
  // What a picture is changed by comes before its margin only if it is drawn in between.
  return sharp(await changed.png().toBuffer());
}

/** The straightened line as a picture, dark on light. */
export function drawStrip({ strip: { widthPx, heightPx, ink } }: InkLine): Sharp {
  const grey = Buffer.from(Uint8Array.from(ink, (v) => 255 - Math.round(v * 255)));
  return sharp(grey, { raw: { width: widthPx, height: heightPx, channels: 1 } });
}
