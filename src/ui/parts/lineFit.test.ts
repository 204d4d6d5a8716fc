// A line fits its room, and its fit settles however a browser rounds the widths of letters.
import { describe, expect, test } from "@jest/globals";
import { fullWidth, isOtherFit, lineFit, type FullWidth } from "./lineFit";

/** Sets a line again and again, as a sample does. @param read - the width in px at a fit. @returns every fit it was set at. */
function settle(read: (fit: number) => number, roomPx: number, isLevelled: boolean): number[] {
  const fits = [1];
  let known: FullWidth = { of: "", widthPx: 0 };
  for (let i = 0; i < 60; i++) {
    const fit = fits.at(-1)!;
    known = fullWidth(known, "a line", read(fit) / fit);
    const next = lineFit(known.widthPx, roomPx, isLevelled);
    if (!isOtherFit(next, fit, roomPx)) return fits;
    fits.push(next);
  }
  return fits;
}

const SIZE_PX = 40;
/** Letters whose advances are rounded to whole pixels at each size, as hinting does. */
const hinted = (advancesEm: number[]) => (fit: number) =>
  advancesEm.reduce((sum, em) => sum + Math.round(em * Math.round(SIZE_PX * fit)), 0);

describe("the fit of a line", () => {
  test("proportional widths: set once more at most", () => {
    expect(settle((fit) => 800 * fit, 400, false)).toEqual([1, 0.5]);
    expect(settle((fit) => 300 * fit, 400, false)).toEqual([1]);
    expect(settle((fit) => 300 * fit, 400, true)).toEqual([1, (0.82 * 400) / 300]);
    expect(settle(() => 0, 400, true)).toEqual([1]);
  });

  test("letters on whole pixels: it settles, and the line stays within its room", () => {
    for (let seed = 0; seed < 400; seed++) {
      const advances = Array.from(
        { length: 12 + (seed % 20) },
        (_, i) => 0.3 + (((seed + 1) * (i + 7) * 37) % 53) / 100,
      );
      const roomPx = 120 + ((seed * 29) % 500);
      for (const isLevelled of [false, true]) {
        const fits = settle(hinted(advances), roomPx, isLevelled);
        expect(fits.length).toBeLessThan(12);
        if (fits.at(-1)! > 0.2) expect(hinted(advances)(fits.at(-1)!)).toBeLessThanOrEqual(roomPx + 3);
      }
    }
  });

  test("a width read without that memory never settles", () => {
    const roomPx = 540;
    const read = (fit: number) => (fit > 0.55 ? 1000 : 950) * fit;
    expect(settle(read, roomPx, false)).toEqual([1, 0.54]);
    const next = (fit: number) => lineFit(read(fit) / fit, roomPx, false);
    expect(next(next(next(1)))).toBe(next(1));
    expect(isOtherFit(next(next(1)), next(1), roomPx)).toBe(true);
  });

  test("another line starts over", () => {
    const known = fullWidth({ of: "", widthPx: 0 }, "long", 900);
    expect(fullWidth(known, "long", 880)).toBe(known);
    expect(fullWidth(known, "short", 300)).toEqual({ of: "short", widthPx: 300 });
  });
});
