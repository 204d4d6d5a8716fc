"use client";
// Text to the clipboard, and what is said of it.
import { useBench } from "../bench/BenchContext";

/** @returns copies a text, and tells it in these words once it is there. */
export function useCopy() {
  const { say } = useBench();
  return async (text: string, told: string) => {
    try {
      await navigator.clipboard.writeText(text);
      say(told);
    } catch {
      say("The browser does not allow copying here.", true);
    }
  };
}
