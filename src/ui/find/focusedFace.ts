"use client";
// The face on the wall that was last in focus: what stands beside the wall can speak of it.
import { useSyncExternalStore } from "react";
import type { ShownItem } from "@/contracts/styles";

let face: ShownItem | null = null;
const listeners = new Set<() => void>();

export function setFocusedFace(next: ShownItem | null) {
  if (face?.styleId === next?.styleId) return;
  face = next;
  for (const tell of listeners) tell();
}

export const useFocusedFace = () =>
  useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => face,
    () => null,
  );
