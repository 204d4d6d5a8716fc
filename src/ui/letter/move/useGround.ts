"use client";
// What the letters stand over: the brief's paper, its picture, or a clip that was dropped in, played by the browser's own decoder.
import { useEffect, useState } from "react";
import { useBench } from "../../bench/BenchContext";
import { addressOf } from "../../parts/client";
import type { MotionClock } from "./motionClock";

const GROUNDS = [
  { value: "paper", name: "the brief’s paper" },
  { value: "night", name: "black" },
  { value: "picture", name: "the brief’s picture" },
  { value: "clip", name: "a clip" },
] as const;
export type GroundKind = (typeof GROUNDS)[number]["value"];

/** `source`: null while it is on its way, or where a colour is all there is. */
export type Ground = {
  kind: GroundKind;
  colour: string;
  source: HTMLImageElement | HTMLVideoElement | null;
  choose: (kind: GroundKind) => void;
  takeClip: (file: File) => void;
  kinds: { value: GroundKind; name: string }[];
  fault: string | null;
};

const NIGHT = "#101417";

export function useGround(clock: MotionClock, onNews: () => void): Ground {
  const { brief } = useBench();
  const [kind, setKind] = useState<GroundKind>("paper");
  const [source, setSource] = useState<Ground["source"]>(null);
  const [clip, setClip] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const address =
    kind === "picture" && brief.picture ? addressOf("getBriefPicture", { params: { id: brief.briefId } }) : null;
  useEffect(() => {
    if (!address) return;
    const image = new Image();
    image.onload = () => {
      setSource(image);
      onNews();
    };
    image.src = address;
    return () => setSource(null);
  }, [address, onNews]);
  useEffect(() => {
    if (kind !== "clip" || !clip) return;
    return playClip(clip, clock, onNews, setSource, setFault);
  }, [kind, clip, clock, onNews]);
  useEffect(() => () => void (clip && URL.revokeObjectURL(clip)), [clip]);
  return {
    ...{ kind, source, fault, choose: setKind },
    colour: kind === "paper" ? brief.paper : NIGHT,
    takeClip: (file) => {
      setFault(null);
      setClip(URL.createObjectURL(file));
      setKind("clip");
    },
    kinds: GROUNDS.filter((g) => (g.value !== "picture" || brief.picture) && (g.value !== "clip" || clip)).map((g) => ({
      ...g,
    })),
  };
}

/** Off by more than this, a playing clip is set again. */
const OFF_S = 0.15;

/** A clip that follows the clock. @returns what ends it. */
function playClip(
  url: string,
  clock: MotionClock,
  onNews: () => void,
  onSource: (source: HTMLVideoElement | null) => void,
  onFault: (fault: string) => void,
): () => void {
  const video = document.createElement("video");
  video.muted = true;
  video.playsInline = true;
  video.preload = "auto";
  video.onloadeddata = () => {
    onSource(video);
    onNews();
  };
  video.onseeked = onNews;
  video.onerror = () => onFault("This clip cannot be played by this browser. Try MP4 (H.264) or WebM.");
  video.src = url;
  const follow = () => {
    const { timeMs, isPlaying, rate } = clock.now;
    if (!video.duration) return;
    const wanted = (timeMs / 1000) % video.duration;
    if (isPlaying) {
      video.playbackRate = rate;
      if (Math.abs(video.currentTime - wanted) > OFF_S) video.currentTime = wanted;
      if (video.paused) void video.play().catch(() => {});
      return;
    }
    if (!video.paused) video.pause();
    if (Math.abs(video.currentTime - wanted) > 0.001) video.currentTime = wanted;
  };
  const leave = clock.subscribe(follow);
  return () => {
    leave();
    video.pause();
    video.removeAttribute("src");
    onSource(null);
  };
}

/** The ground on a canvas, over all of it as a film fills its frame. */
export function paintGround(
  context: CanvasRenderingContext2D,
  { source, colour }: Ground,
  width: number,
  height: number,
) {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  context.filter = "none";
  context.fillStyle = colour;
  context.fillRect(0, 0, width, height);
  if (!source) return;
  const [w, h] =
    source instanceof HTMLVideoElement
      ? [source.videoWidth, source.videoHeight]
      : [source.naturalWidth, source.naturalHeight];
  if (!w || !h) return;
  const scale = Math.max(width / w, height / h);
  context.drawImage(source, (width - w * scale) / 2, (height - h * scale) / 2, w * scale, h * scale);
}
