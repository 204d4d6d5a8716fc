"use client";
// Names of characters in the browser. The table is large, so it comes by itself; until it is here a character goes by its code point.
import { useSyncExternalStore } from "react";
import { writeCodePoint } from "@/core/unicode/codePoint";

type NameCharacter = (codePoint: number) => string;

let known: NameCharacter = writeCodePoint;
let isAsked = false;
const listeners = new Set<() => void>();

function subscribe(listener: () => void) {
  listeners.add(listener);
  if (!isAsked) {
    isAsked = true;
    void import("@/core/unicode/names")
      .then(({ nameCharacter }) => {
        known = nameCharacter;
        for (const tell of listeners) tell();
      })
      // Asked for again by the next view.
      .catch(() => (isAsked = false));
  }
  return () => listeners.delete(listener);
}

/** What characters are called, by the Unicode Character Database; the view is drawn again when the names have come. */
export const useCharacterNames = (): NameCharacter =>
  useSyncExternalStore(
    subscribe,
    () => known,
    () => writeCodePoint,
  );
