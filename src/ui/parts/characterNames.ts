"use client";
// Names of characters in the browser. The table is large, so it comes when the first name is asked for and the page has nothing else to do;
// until it is here a character goes by its code point.
import { useSyncExternalStore } from "react";
import { writeCodePoint } from "@/core/unicode/codePoint";

type NameCharacter = (codePoint: number) => string;

/** Later than this the table is fetched, idle or not. */
const MAX_WAIT_MS = 2_000;
let isAsked = false;
const listeners = new Set<() => void>();

/** Writes the code point, and has the names come. */
const nameLater: NameCharacter = (codePoint) => {
  if (!isAsked && typeof window !== "undefined") {
    isAsked = true;
    // Not every browser tells when it is idle.
    if ("requestIdleCallback" in window) requestIdleCallback(fetchNames, { timeout: MAX_WAIT_MS });
    else setTimeout(fetchNames, MAX_WAIT_MS);
  }
  return writeCodePoint(codePoint);
};

let known: NameCharacter = nameLater;

function fetchNames() {
  void import("@/core/unicode/names")
    .then(({ nameCharacter }) => {
      known = nameCharacter;
      for (const tell of listeners) tell();
    })
    // Asked for again by the next name.
    .catch(() => (isAsked = false));
}

function subscribe(listener: () => void) {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** What characters are called, by the Unicode Character Database; the view is drawn again when the names have come. */
export const useCharacterNames = (): NameCharacter =>
  useSyncExternalStore(
    subscribe,
    () => known,
    () => nameLater,
  );
