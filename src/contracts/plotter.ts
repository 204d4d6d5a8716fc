// A cutting plotter as it is asked over HTTP, and what it says of a file: what it would cut, in which order, how long that takes.
import { z } from "zod";

export const CUT_FORMATS = ["svg", "dxf", "hpgl"] as const;
export type CutFormat = (typeof CUT_FORMATS)[number];

export const Plotter = z.object({
  name: z.string().max(80),
  filmWidthMm: z.number().describe("across the roll: what is cut may be no higher than this"),
  mostLengthMm: z.number().describe("along the roll"),
});
export type Plotter = z.infer<typeof Plotter>;

const PlotCut = z.object({
  piece: z.number().int(),
  points: z.array(z.number()).max(40_000).describe("x, y in mm on the film, closed, from where the tool goes down"),
});

export const Plot = z.object({
  plotId: z.string().max(40),
  widthMm: z.number().describe("of the film that is used, along the roll"),
  heightMm: z.number(),
  cuts: z.array(PlotCut).max(20_000).describe("in the order in which they are cut"),
  pieces: z.number().int(),
  groups: z.number().int().describe("of pieces that were kept together"),
  movedPieces: z.number().int().describe("pieces that lie elsewhere to one another than in the file, to save film"),
  toolUps: z.number().int(),
  cutMm: z.number(),
  travelMm: z.number().describe("with the tool up"),
  seconds: z.number(),
});
export type Plot = z.infer<typeof Plot>;
