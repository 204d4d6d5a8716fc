"use client";
// What is measured of an element: before it is first painted, and whenever its size changes.
import { useLayoutEffect, useState, type RefObject } from "react";

/** @param read - the same function each time. @returns what it read last, null until the element is there. */
export function useMeasured<T>(of: RefObject<HTMLElement | null>, read: (element: HTMLElement) => T): T | null {
  const [measured, setMeasured] = useState<T | null>(null);
  useLayoutEffect(() => {
    const element = of.current;
    if (!element) return;
    const measure = () => setMeasured(() => read(element));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [of, read]);
  return measured;
}

/** The inner size of an element. */
export const readInner = (e: HTMLElement) => ({ widthPx: e.clientWidth, heightPx: e.clientHeight });
