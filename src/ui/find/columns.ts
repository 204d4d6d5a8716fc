"use client";
// How wide the wall is, and how many columns it holds.
import type { RefObject } from "react";
import { useMeasured } from "../parts/useMeasured";

export const MOST_COLUMNS = 8;
/** A strip narrower than this shows too little of a line. */
const COLUMN_PX = 380;
/** Until the wall is measured. */
const USUAL = 2;

/** Of two columns, chosen by hand in little room, the facts stand below each other. */
const NARROW_PX = 300;
export const isNarrow = (widthPx: number, columns: number) => widthPx > 0 && widthPx / columns < NARROW_PX;

export const columnsIn = (widthPx: number) =>
  widthPx ? Math.min(MOST_COLUMNS, Math.max(1, Math.floor(widthPx / COLUMN_PX))) : USUAL;

const widthOf = (element: HTMLElement) => element.clientWidth;
/** @returns the width of the wall, 0 until it is measured. */
export const useWidthPx = (wall: RefObject<HTMLElement | null>): number => useMeasured(wall, widthOf) ?? 0;
