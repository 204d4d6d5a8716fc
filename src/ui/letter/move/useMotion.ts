"use client";
// The motion of a lettering at work: its clock, its moments, the pose that is chosen.
import { parseAsString, useQueryState } from "nuqs";
import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import type { LetteringDocument } from "@/contracts/lettering";
import type { Pose } from "@/contracts/poses";
import { inOrder } from "@/core/motion/posesToTracks";
import { makeId } from "../../bench/makeId";
import type { FontAddresses } from "../letter.worker";
import { MotionClock, type ClockState } from "./motionClock";
import { MomentStore } from "./momentStore";

const NOTHING = () => () => {};

/** @param looksAhead - it will be played. @returns null until the fonts are known. */
export function useMoments(
  document: LetteringDocument,
  fonts: FontAddresses | null,
  looksAhead = true,
): MomentStore | null {
  const [store, setStore] = useState<MomentStore | null>(null);
  const last = useRef<MomentStore | null>(null);
  useEffect(() => {
    if (!fonts) return;
    const next = new MomentStore(document, fonts, last.current, looksAhead);
    last.current = next;
    setStore(next);
    return () => next.end();
  }, [document, fonts, looksAhead]);
  return store;
}

/** Draws again when moments have come. */
export const useMomentNews = (store: MomentStore | null) =>
  useSyncExternalStore(
    store?.subscribe ?? NOTHING,
    () => store?.news ?? 0,
    () => 0,
  );

export function useClock(durationMs: number): MotionClock {
  const [clock] = useState(() => new MotionClock(durationMs));
  useEffect(() => clock.setDuration(durationMs), [clock, durationMs]);
  useEffect(() => clock.halt, [clock]);
  return clock;
}

/** The time as parts of the page show it. */
export function useTime(clock: MotionClock): ClockState {
  return useSyncExternalStore(
    clock.subscribe,
    () => clock.lately,
    () => clock.lately,
  );
}

/** Poses by their times, and the one that is chosen; the address holds which. */
export function usePose(document: LetteringDocument, clock: MotionClock) {
  const [wanted, setWanted] = useQueryState("pose", parseAsString.withOptions({ history: "replace" }));
  const poses: Pose[] = inOrder(document.motion?.poses ?? []);
  const pose = poses.find((p) => p.id === wanted) ?? poses[Math.min(1, poses.length - 1)] ?? null;
  const choose = (id: string) => {
    void setWanted(id);
    const found = poses.find((p) => p.id === id);
    clock.halt();
    if (found) clock.seek(found.timeMs);
  };
  const step = (by: 1 | -1) => {
    const next = poses[poses.findIndex((p) => p.id === pose?.id) + by];
    if (next) choose(next.id);
  };
  return { poses, pose, choose, step, setWanted };
}
export type PoseChoice = ReturnType<typeof usePose>;

export const newPoseId = () => `p_${makeId(2)}`;
