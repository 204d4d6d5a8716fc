"use client";
// While lines are lettered, one click on a kept face sets the chosen line in it: the view says how, the tray offers it.
import { useEffect, useSyncExternalStore } from "react";
import type { Kept } from "@/contracts/brief";

type Dressing = {
  wear: (entry: Kept) => void;
  /** Which lines are set in a face, in short; empty for none. */
  wornBy: (entry: Kept) => string;
};

let current: Dressing | null = null;
const listeners = new Set<() => void>();
const put = (next: Dressing | null) => {
  current = next;
  for (const tell of listeners) tell();
};
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** Offers it for as long as the component is there. @param dressing - the same object until something of it changes. */
export function useOfferDressing(dressing: Dressing | null) {
  useEffect(() => {
    put(dressing);
    return () => put(null);
  }, [dressing]);
}

export const useDressing = () =>
  useSyncExternalStore(
    subscribe,
    () => current,
    () => null,
  );
