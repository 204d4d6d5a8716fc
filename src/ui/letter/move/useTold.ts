"use client";
// What a viewer would trip over: letters too faint on their ground, strokes that flicker, too short a time to read.
import { useEffect, useRef, useState } from "react";
import type { LetteringDocument } from "@/contracts/lettering";
import { lowestContrast, type ContrastMoment, type LowestContrast } from "@/core/motion/contrastOver";
import { readingMs } from "@/core/motion/readingTime";
import { letterBeside } from "../letterInWorker";
import type { FontAddresses } from "../letter.worker";
import type { InkSample, MotionTold } from "./moveTasks";
import { paintGround, type Ground } from "./useGround";

export type Told = {
  contrast: LowestContrast | null;
  readMs: number;
  standsMs: number;
  thinnest: { px: number; timeMs: number } | null;
};

const SMALL_PX = 160;
/** A change is looked at when the hand has come to rest. */
const REST_MS = 400;

/** @param widthPx - of the film that is made. */
export function useTold(
  document: LetteringDocument,
  fonts: FontAddresses | null,
  ground: Ground,
  widthPx: number,
): Told | null {
  const [told, setTold] = useState<MotionTold | null>(null);
  const [contrast, setContrast] = useState<LowestContrast | null>(null);
  const count = useRef(0);
  const pxPerMm = widthPx / document.sheet.widthMm;
  useEffect(() => {
    if (!fonts || !document.motion) return;
    const own = ++count.current;
    const timer = setTimeout(() => {
      void letterBeside({ what: "tell", document, lookMm: (2 * FLICKERS_PX) / pxPerMm, fonts }).then((answer) => {
        if (own === count.current) setTold(answer.told ?? null);
      });
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [document, fonts, pxPerMm]);
  useEffect(() => {
    if (!told) return;
    let isGone = false;
    void readContrast(told.samples, document.sheet, ground).then((lowest) => !isGone && setContrast(lowest));
    return () => {
      isGone = true;
    };
  }, [told, ground.kind, ground.source, ground.colour]); // oxlint-disable-line react/exhaustive-deps -- the ground's functions are new each time
  if (!told) return null;
  const thinnest = told.thinnest && { px: told.thinnest.mm * pxPerMm, timeMs: told.thinnest.timeMs };
  const text = document.blocks.map((b) => b.text).join(" ");
  return { contrast, readMs: readingMs(text), standsMs: told.standsMs, thinnest };
}

/** Strokes narrower than this flicker when they move. */
export const FLICKERS_PX = 1.5;

async function readContrast(
  samples: readonly InkSample[],
  sheet: LetteringDocument["sheet"],
  ground: Ground,
): Promise<LowestContrast | null> {
  const canvas = window.document.createElement("canvas");
  canvas.width = SMALL_PX;
  canvas.height = Math.max(1, Math.round((SMALL_PX * sheet.heightMm) / sheet.widthMm));
  const context = canvas.getContext("2d", { willReadFrequently: true })!;
  const video = ground.source instanceof HTMLVideoElement ? ground.source : null;
  const times = [...new Set(samples.map((s) => s.timeMs))];
  // Every frame of a clip is sought: fewer of them are looked at.
  const looked = video ? times.filter((_, i) => i % 5 === 0) : times;
  const own = video ? await openCopy(video) : null;
  const moments: ContrastMoment[] = [];
  let isPainted = false;
  for (const timeMs of looked) {
    if (own) await seekTo(own, timeMs / 1000);
    if (own || !isPainted) paintGround(context, own ? { ...ground, source: own } : ground, canvas.width, canvas.height);
    isPainted = true;
    for (const { colour, opacity, box } of samples.filter((s) => s.timeMs === timeMs)) {
      const pixels = readBox(context, box, canvas.width / sheet.widthMm);
      if (pixels) moments.push({ timeMs, colour, opacity, ground: pixels });
    }
  }
  return lowestContrast(moments);
}

function readBox(context: CanvasRenderingContext2D, box: InkSample["box"], scale: number): number[] | null {
  const { width, height } = context.canvas;
  const [x0, y0] = [Math.max(0, Math.floor(box.xMin * scale)), Math.max(0, Math.floor(box.yMin * scale))];
  const [x1, y1] = [Math.min(width, Math.ceil(box.xMax * scale)), Math.min(height, Math.ceil(box.yMax * scale))];
  if (x1 <= x0 || y1 <= y0) return null;
  const { data } = context.getImageData(x0, y0, x1 - x0, y1 - y0);
  const pixels: number[] = [];
  for (let i = 0; i < data.length; i += 4) pixels.push(data[i]!, data[i + 1]!, data[i + 2]!);
  return pixels;
}

/** The same clip once more, so that the one that is seen is not moved. */
async function openCopy({ src }: HTMLVideoElement): Promise<HTMLVideoElement> {
  const copy = window.document.createElement("video");
  copy.muted = true;
  await new Promise<void>((resolve) => {
    copy.onloadeddata = () => resolve();
    copy.onerror = () => resolve();
    copy.src = src;
  });
  return copy;
}

const seekTo = (video: HTMLVideoElement, seconds: number) =>
  new Promise<void>((resolve) => {
    if (!video.duration) return resolve();
    video.onseeked = () => resolve();
    video.onerror = () => resolve();
    video.currentTime = seconds % video.duration;
  });
