// Reading the letters of a strip with Tesseract, offline: one warm worker. Its answer is a suggestion to be corrected.
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { createWorker, PSM, type Worker } from "tesseract.js";

const require = createRequire(import.meta.url);
let warm: Promise<Worker> | null = null;

async function start(): Promise<Worker> {
  const data = dirname(require.resolve("@tesseract.js-data/eng/package.json"));
  const worker = await createWorker("eng", 1, {
    langPath: join(data, "4.0.0_best_int"),
    gzip: true,
    cacheMethod: "none",
  });
  await worker.setParameters({ tessedit_pageseg_mode: PSM.SINGLE_LINE });
  return worker;
}

/** Starts the reader ahead of its first use. */
export async function warmReader(): Promise<void> {
  warm ??= start();
  await warm;
}

/** @param png - dark letters on light, one line. @returns text with single spaces, confidence 0–1. */
export async function readText(png: Buffer): Promise<{ text: string; confidence: number }> {
  warm ??= start();
  const worker = await warm.catch((error: unknown) => {
    warm = null;
    throw error;
  });
  const { data } = await worker.recognize(png);
  return { text: data.text.replace(/\s+/g, " ").trim(), confidence: data.confidence / 100 };
}
