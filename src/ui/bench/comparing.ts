"use client";
// Faces that stand in the comparison of a brief: chosen on any view, kept in this browser over reloads, the same in all its tabs.
import { useMemo, useSyncExternalStore } from "react";
import { COMPARED_AT_MOST } from "@/contracts/compare";
import { useBench } from "./BenchContext";

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

type Comparing = {
  ids: readonly string[];
  /** Adds a face, or removes one that stands there, and says so. */
  turn: (styleId: string, name: string) => void;
  put: (ids: readonly string[]) => void;
  /** What makes an element take a face that is dropped on it. */
  drop: Pick<React.DOMAttributes<HTMLElement>, "onDragOver" | "onDrop">;
};

export function useComparing(): Comparing {
  const { brief, say } = useBench();
  const { briefId } = brief;
  const ids = useSyncExternalStore(
    subscribe,
    () => listOf(briefId),
    () => NONE,
  );
  return useMemo(() => {
    const turn = (styleId: string, name: string) => say(turnFace(briefId, styleId, name));
    return {
      ids,
      turn,
      put: (next) => write(briefId, [...new Set(next)].slice(0, COMPARED_AT_MOST)),
      drop: {
        onDragOver: (event) => event.dataTransfer.types.includes(FACE_TYPE) && event.preventDefault(),
        onDrop: (event) => {
          const styleId = event.dataTransfer.getData(FACE_TYPE);
          if (styleId && !ids.includes(styleId)) turn(styleId, "The face");
        },
      },
    };
  }, [briefId, ids, say]);
}

/** @returns what became of it, in words. */
function turnFace(briefId: string, styleId: string, name: string): string {
  const now = listOf(briefId);
  if (now.includes(styleId)) {
    write(
      briefId,
      now.filter((id) => id !== styleId),
    );
    return `${name} removed from the comparison`;
  }
  if (now.length >= COMPARED_AT_MOST) return `The comparison is full: ${COMPARED_AT_MOST} faces. Remove one first.`;
  write(briefId, [...now, styleId]);
  return `${name} added to the comparison (${now.length + 1})`;
}

/** A face that is dragged, by its own type: files that are dropped are another matter. */
const FACE_TYPE = "application/x-fond-quarry-face";
export const carryFace = (event: React.DragEvent, styleId: string) => event.dataTransfer.setData(FACE_TYPE, styleId);
