"use client";
// How many columns the wall has: as many as were chosen, or as its width holds.
import { useLayoutEffect, useState, type RefObject } from "react";

export const MOST_COLUMNS = 8;
/** A strip narrower than this shows too little of a line. */
const COLUMN_PX = 380;
/** Until the wall is measured. */
const USUAL = 2;

const columnsIn = (widthPx: number) => Math.min(MOST_COLUMNS, Math.max(1, Math.floor(widthPx / COLUMN_PX)));

/** @param chosen - 0: as many as fit. */
export function useColumns(chosen: number, wall: RefObject<HTMLElement | null>): number {
  const [fitting, setFitting] = useState(USUAL);
  useLayoutEffect(() => {
    const element = wall.current;
    if (!element) return;
    const measure = () => setFitting(columnsIn(element.clientWidth));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [wall]);
  return chosen || fitting;
}
