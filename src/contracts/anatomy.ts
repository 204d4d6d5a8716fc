// A style's own letters with their parts named: where each part lies, in font units.
import { z } from "zod";

export const AnatomyMark = z.object({
  term: z.string(),
  /** Where the part lies, font units, y up. */
  x: z.number(),
  y: z.number(),
  says: z.string().describe("what the part is, and what was measured of it"),
});
export type AnatomyMark = z.infer<typeof AnatomyMark>;

export const Anatomy = z.object({
  unitsPerEm: z.number(),
  lines: z.array(z.object({ term: z.string(), y: z.number() })).describe("heights that run through all letters"),
  letters: z.array(
    z.object({
      char: z.string(),
      path: z.string().describe("SVG path in font units, y down"),
      advance: z.number(),
      bounds: z.object({ xMin: z.number(), yMin: z.number(), xMax: z.number(), yMax: z.number() }),
      marks: z.array(AnatomyMark),
    }),
  ),
});
export type Anatomy = z.infer<typeof Anatomy>;
