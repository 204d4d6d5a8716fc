"use client";
// Faces that stand in the comparison of a brief: chosen on any view, kept in this browser over reloads, the same in all its tabs.
import { useMemo, useSyncExternalStore } from "react";
import { COMPARED_AT_MOST } from "@/contracts/compare";

const keyOf = (briefId: string) => `compare ${briefId}`;
const listeners = new Set<() => void>();
const NONE: readonly string[] = [];
/** What was read last, so that the same list stays the same object. */
const read = new Map<string, { text: string; ids: readonly string[] }>();

function listOf(briefId: string): readonly string[] {
  const text = localStorage.getItem(keyOf(briefId)) ?? "";
  const known = read.get(briefId);
  if (known?.text === text) return known.ids;
  const ids = text.split(" ").filter((id) => /^s_[a-z0-9]{8,32}$/.test(id));
  read.set(briefId, { text, ids });
  return ids;
}

function write(briefId: string, ids: readonly string[]) {
  localStorage.setItem(keyOf(briefId), ids.join(" "));
  listeners.forEach((tell) => tell());
}

function subscribe(onChange: () => void) {
  listeners.add(onChange);
  window.addEventListener("storage", onChange);
  return () => {
    listeners.delete(onChange);
    window.removeEventListener("storage", onChange);
  };
}

/** What became of a face that was to be added or removed. */
type Turned = "added" | "removed" | "full";
type Comparing = {
  ids: readonly string[];
  turn: (styleId: string) => Turned;
  put: (ids: readonly string[]) => void;
};

export function useComparing(briefId: string): Comparing {
  const ids = useSyncExternalStore(
    subscribe,
    () => listOf(briefId),
    () => NONE,
  );
  return useMemo(
    () => ({
      ids,
      turn: (styleId) => {
        const now = listOf(briefId);
        if (now.includes(styleId)) {
          write(
            briefId,
            now.filter((id) => id !== styleId),
          );
          return "removed";
        }
        if (now.length >= COMPARED_AT_MOST) return "full";
        write(briefId, [...now, styleId]);
        return "added";
      },
      put: (next) => write(briefId, [...new Set(next)].slice(0, COMPARED_AT_MOST)),
    }),
    [briefId, ids],
  );
}

/** Said after a face was turned in or out. */
export const sayTurned = (turned: Turned, name: string, count: number): string =>
  turned === "full"
    ? `The comparison is full: ${COMPARED_AT_MOST} faces. Remove one first.`
    : turned === "added"
      ? `${name} added to the comparison (${count})`
      : `${name} removed from the comparison`;

/** How many stand in the comparison now. */
export const comparedNow = (briefId: string) => listOf(briefId).length;

/** A face that is dragged, by its own type: files that are dropped are another matter. */
const FACE_TYPE = "application/x-fond-quarry-face";
export const carryFace = (event: React.DragEvent, styleId: string) => event.dataTransfer.setData(FACE_TYPE, styleId);
export const carriesFace = (event: React.DragEvent) => event.dataTransfer.types.includes(FACE_TYPE);
export const faceOf = (event: React.DragEvent): string => event.dataTransfer.getData(FACE_TYPE);
