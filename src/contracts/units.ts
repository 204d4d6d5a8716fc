// Lengths people type: millimetres, inches, CSS pixels, points. One file converts between them.
import { z } from "zod";

export const LengthUnit = z.enum(["mm", "in", "px", "pt"]);
export type LengthUnit = z.infer<typeof LengthUnit>;

const MM_PER: Record<LengthUnit, number> = { mm: 1, in: 25.4, px: 25.4 / 96, pt: 25.4 / 72 };

/**
 * Converts a length between units.
 * @param value - finite number in `from`. @param from - its unit. @param to - wanted unit.
 * @returns the length in `to`; 96 px and 72 pt to the inch (CSS Values 4, section 6.2).
 * @example convertLength(1, "in", "mm") // 25.4
 */
export function convertLength(value: number, from: LengthUnit, to: LengthUnit): number {
  return from === to ? value : (value * MM_PER[from]) / MM_PER[to];
}

/** Writes a length with the digits that are meant: whole px and pt, one decimal for mm, two for inches. */
export function writeLength(value: number, unit: LengthUnit): string {
  const digits = unit === "in" ? 2 : unit === "mm" ? 1 : 0;
  return `${Number(value.toFixed(digits))} ${unit}`;
}
