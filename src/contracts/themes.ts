// What a theme is told in, and what was said here of words: how much of each look they have.
import { z } from "zod";
import { StyleId } from "./ids";

/** Looks of letters, in the order of the table of looks. */
export const LOOK_NAMES = [
  "book serif",
  "old-style serif",
  "bookish roughness",
  "sharp contrast",
  "fine contrast",
  "inscription",
  "slab",
  "heavy slab",
  "woodtype",
  "typewriter",
  "monospaced",
  "pixel",
  "plain sans",
  "geometric sans",
  "thin sans",
  "round sans",
  "fat and round",
  "tall and heavy",
  "wide",
  "engineered",
  "deco",
  "formal script",
  "brush script",
  "pen hand",
  "marker hand",
  "sketched",
  "comic",
  "broken letters",
  "stencil",
  "sign lines",
  "worn",
  "dripping",
  "poster",
  "leaning fast",
] as const;
export type LookName = (typeof LOOK_NAMES)[number];

/** How much of each look, 0–1; looks that are absent stay as they were read. */
export const ThemeLooks = z.partialRecord(z.enum(LOOK_NAMES), z.number().min(0).max(1));
export type ThemeLooks = z.infer<typeof ThemeLooks>;

export const ThemeCorrection = z.object({ phrase: z.string(), looks: ThemeLooks, changedAt: z.string() });
export type ThemeCorrection = z.infer<typeof ThemeCorrection>;

/** Looks as they are to be, or a face whose looks come in. */
export const ThemePut = z.union([z.strictObject({ looks: ThemeLooks }), z.strictObject({ like: StyleId })]);
export type ThemePut = z.infer<typeof ThemePut>;
