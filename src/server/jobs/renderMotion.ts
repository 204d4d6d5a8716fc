// Job: a motion, stretch by stretch in a folder of its own, then put together. What was drawn before the program ended is there after it.
import { existsSync, mkdirSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { FaultError, type Outcome } from "@/contracts/errors";
import { MOTION_FILES } from "@/contracts/motion";
import { countFrames, rateOf } from "@/core/motion/frames";
import { putWhole } from "../db/fileStore";
import { dataFolder, getDb } from "../db/open";
import type { JobContext } from "../queue/queue";
import type { MotionPayload } from "../queue/payloads";
import { prepareDocument } from "../usecases/letterings";
import { askMotion, MOTION_PROCESSES } from "../workers/pool";
import type { FrameRange } from "../workers/motion.worker";
import { startArchive } from "./archiveFile";
import { writeCssArchive } from "./motionCss";

/** Frames of a stretch: about a second or two of work, so that cancelling and progress are felt. */
const STRETCH = { frames: 6, coded: 25 };

/** Where a motion's frames lie until it is put together. */
const motionFolder = (jobId: string) => join(dataFolder(), "motion", jobId);

export async function renderMotion({ job, signal, progress }: JobContext): Promise<void> {
  const payload = JSON.parse(job.payload) as MotionPayload;
  const fonts = valueOf(prepareDocument(getDb(), payload.document));
  const frames = countFrames(payload.motion);
  const about = { ...payload, fonts };
  const folder = motionFolder(job.jobId);
  const file = `${folder}.${MOTION_FILES[payload.format].extension}`;
  mkdirSync(folder, { recursive: true });
  if (payload.format === "lottie" || payload.format === "svg") {
    progress({ total: 1, done: 0 });
    const text = valueOf(await askMotion({ what: "bake", ...about, format: payload.format }, signal));
    if (signal.aborted) return;
    putWhole(file, Buffer.from(text));
    return end(folder, file, 1, progress);
  }
  if (payload.format === "css") {
    await writeCssArchive(about, job.jobId, signal);
    return signal.aborted ? undefined : end(folder, file, 1, progress);
  }
  const ranges = stretchesOf(
    frames,
    payload.format === "png-frames" || payload.format === "apng" ? STRETCH.frames : STRETCH.coded,
  );
  await drawAll(ranges, frames, signal, progress, async (range) => {
    valueOf(await askMotion({ what: "stretch", ...about, folder, ...range }, signal));
  });
  if (signal.aborted) return;
  progress({ message: "Putting the frames together" });
  if (payload.format === "png-frames") await zipFrames(folder, job.jobId, payload, frames);
  else valueOf(await askMotion({ what: "assemble", ...about, folder, file, ranges }, signal));
  if (!signal.aborted) end(folder, file, frames, progress);
}

function valueOf<T>(outcome: Outcome<T>): T {
  if (outcome.ok) return outcome.value;
  throw new FaultError(outcome.code, outcome.message);
}

function end(folder: string, file: string, total: number, progress: JobContext["progress"]) {
  progress({ done: total, total, filePath: file, message: "" });
  rmSync(folder, { recursive: true, force: true });
}

function stretchesOf(frames: number, length: number): FrameRange[] {
  const ranges: FrameRange[] = [];
  for (let from = 0; from < frames; from += length) ranges.push({ from, to: Math.min(frames, from + length) });
  return ranges;
}

/** As many stretches at once as there are processes; the first fault ends them all. */
async function drawAll(
  ranges: readonly FrameRange[],
  total: number,
  signal: AbortSignal,
  progress: JobContext["progress"],
  draw: (range: FrameRange) => Promise<void>,
) {
  let [next, done] = [0, 0];
  let hasFailed = false;
  progress({ done, total });
  const lane = async () => {
    while (next < ranges.length && !signal.aborted && !hasFailed) {
      const range = ranges[next++]!;
      try {
        await draw(range);
      } catch (error) {
        hasFailed = true;
        if (!signal.aborted) throw error;
        return;
      }
      done += range.to - range.from;
      progress({ done, total });
    }
  };
  await Promise.all(Array.from({ length: MOTION_PROCESSES }, lane));
}

/** Frames as they are, and beside them what a program must know to play them. */
async function zipFrames(
  folder: string,
  jobId: string,
  { motion, widthPx, heightPx, ground, title }: MotionPayload,
  frames: number,
) {
  const names = readdirSync(folder)
    .filter((name) => name.endsWith(".png"))
    .sort();
  if (names.length !== frames) throw new Error(`${names.length} of ${frames} frames are there`);
  const archive = startArchive();
  for (const name of names) archive.addFile(name, join(folder, name));
  const rate = rateOf(motion.fps);
  const about = {
    title,
    frames,
    rate: { num: rate.frames, den: rate.seconds },
    widthPx,
    heightPx,
    hasAlpha: ground === null,
    pattern: "frame-%05d.png",
  };
  archive.add("frames.json", `${JSON.stringify(about, null, 1)}\n`);
  await archive.finish("motion", jobId);
}

/** Folders of motions that no job will go on with. @param isOpen - whether a job waits or runs. */
export function clearMotionFolders(isOpen: (jobId: string) => boolean) {
  const root = join(dataFolder(), "motion");
  if (!existsSync(root)) return;
  for (const entry of readdirSync(root, { withFileTypes: true }))
    if (entry.isDirectory() && !isOpen(entry.name)) rmSync(join(root, entry.name), { recursive: true, force: true });
}
