"use client";
// How wide the wall is, and how many columns it holds.
import { useLayoutEffect, useState, type RefObject } from "react";

export const MOST_COLUMNS = 8;
/** A strip narrower than this shows too little of a line. */
const COLUMN_PX = 380;
/** Until the wall is measured. */
const USUAL = 2;

export const columnsIn = (widthPx: number) =>
  widthPx ? Math.min(MOST_COLUMNS, Math.max(1, Math.floor(widthPx / COLUMN_PX))) : USUAL;

/** @returns the width of the wall, 0 until it is measured. */
export function useWidthPx(wall: RefObject<HTMLElement | null>): number {
  const [widthPx, setWidth] = useState(0);
  useLayoutEffect(() => {
    const element = wall.current;
    if (!element) return;
    const measure = () => setWidth(element.clientWidth);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [wall]);
  return widthPx;
}
