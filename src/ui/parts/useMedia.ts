"use client";
// Whether a media query holds, now and when it changes.
import { useCallback, useSyncExternalStore } from "react";

/** @param onServer - what is taken for it where there is no window. */
export function useMedia(query: string, onServer: boolean): boolean {
  const subscribe = useCallback(
    (onChange: () => void) => {
      const media = window.matchMedia(query);
      media.addEventListener("change", onChange);
      return () => media.removeEventListener("change", onChange);
    },
    [query],
  );
  return useSyncExternalStore(
    subscribe,
    () => window.matchMedia(query).matches,
    () => onServer,
  );
}
