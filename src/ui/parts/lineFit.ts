// How much smaller or larger a line is set so that it fits its room.

/** Share of its room that a line fills when faces are levelled by line width, and the most it may grow for that. */
const LINE_SHARE = 0.82;
const LARGEST = 1.25;
const SMALLEST = 0.2;

/** The width of a line at its full size, as far as it is known. `of` names what the width depends on. */
export type FullWidth = { of: string; widthPx: number };

/**
 * Where letters stand on whole pixels, a line's width is not proportional to its size: a width read at one fit asks for another fit, at which
 * it reads differently, without end. So of all widths read for the same line the largest counts: the fit can only fall, and settles.
 * @param widthPx - as read, divided by the fit that it was read at.
 */
export function fullWidth(known: FullWidth, of: string, widthPx: number): FullWidth {
  return known.of === of && known.widthPx >= widthPx ? known : { of, widthPx };
}

/**
 * @param isLevelled - faces are levelled by line width: a line is made to fill its share of the room.
 * @returns the factor of size; 1 where nothing needs to change.
 */
export function lineFit(widthPx: number, roomPx: number, isLevelled: boolean): number {
  if (widthPx <= 0) return 1;
  if (isLevelled) return Math.min(LARGEST, Math.max(SMALLEST, (LINE_SHARE * roomPx) / widthPx));
  return widthPx > roomPx ? Math.max(SMALLEST, roomPx / widthPx) : 1;
}

/** Widths come in whole pixels: in little room a pixel is much, and no reason to set the line again. */
export const isOtherFit = (next: number, fit: number, roomPx: number) =>
  Math.abs(next / fit - 1) > Math.max(0.004, 1.5 / Math.max(1, roomPx));
