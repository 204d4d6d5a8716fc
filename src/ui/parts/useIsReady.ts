"use client";
// Whether the page's code has taken over what the server sent: what is typed before would be lost.
import { useSyncExternalStore } from "react";

const never = () => () => {};

export const useIsReady = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
