"use client";
// The one way from view to view by program: while the server is away nobody is sent to the browser's error page.
import { useRouter } from "next/navigation";
import { useCallback } from "react";
import { useBench } from "./BenchContext";

export const STAYS = "The server is not answering. This page stays open, and what you change is kept until it does.";

/** @returns a function that opens an address of this app, or says why the page stays. */
export function useGo(): (path: string) => void {
  const { isAway, say } = useBench();
  const router = useRouter();
  return useCallback((path) => (isAway ? say(STAYS) : router.push(path)), [isAway, say, router]);
}
