// What is measured of a style, and the words for kinds, treatments, uses and verdicts. Names are those of the HTTP interface.
import { z } from "zod";

export const KINDS = [
  "sans",
  "serif",
  "slab",
  "script",
  "handwritten",
  "blackletter",
  "monospaced",
  "display",
  "picture",
] as const;
export const Kind = z.enum(KINDS);
export type Kind = z.infer<typeof Kind>;

export const TREATMENTS = [
  "stencil",
  "inline",
  "outline",
  "shadow",
  "rough",
  "pixel",
  "dotted",
  "drips",
  "swash",
  "rounded",
  "layered",
] as const;
export const Treatment = z.enum(TREATMENTS);
export type Treatment = z.infer<typeof Treatment>;

export const USES = ["private", "client-print", "goods-for-sale", "web", "video", "app", "cutting", "logo"] as const;
export const Use = z.enum(USES);
export type Use = z.infer<typeof Use>;

/** From most to least permissive: a brief with several uses gets the last of theirs. */
export const VERDICTS = [
  "cleared",
  "cleared-with-credit",
  "buy-first",
  "ask-maker",
  "not-for-this-use",
  "unread",
] as const;
export const Verdict = z.enum(VERDICTS);
export type Verdict = z.infer<typeof Verdict>;

const measured = z.number().nullable();
export const Traits = z.object({
  stemEm: measured,
  weight: measured,
  contrast: measured,
  widthEm: measured,
  width: measured,
  xHeightEm: measured,
  capHeightEm: measured,
  ascenderEm: measured,
  descenderEm: measured,
  slantDeg: measured,
  serif: measured,
  serifThickness: measured.describe("thickness of the serif / stem: a hairline is near 0.2, a slab near 1"),
  serifForm: z.enum(["bracketed", "slab", "hairline", "wedge"]).nullable().describe("how serifs leave the stem"),
  barEm: measured.describe("thickness of horizontal strokes / em"),
  roundness: measured,
  stressDeg: measured.describe(
    "lean of the line through the thinnest places of o and O, positive to the left; 0 upright",
  ),
  roundEnds: measured.describe("the same for ends of strokes alone"),
  roundJoins: measured.describe("the same for joins of strokes alone"),
  roughness: measured,
  connected: measured,
  aperture: measured.describe("opening of c, e and C / their height"),
  storeysA: z.union([z.literal(1), z.literal(2)]).nullable(),
  storeysG: z.union([z.literal(1), z.literal(2)]).nullable(),
  evenness: measured.describe("0–1: how even the grey of set words is"),
  gapEm: measured.describe("narrowest white inside letters / em"),
  legibleFromPx: measured.describe("size from which the narrowest gap is a pixel wide and the x-height six pixels"),
  bodyEm: measured
    .optional()
    .describe("height of the middle letter, of a face without Latin, Greek or Cyrillic letters / em"),
  monospaced: z.boolean(),
  figures: z.object({
    height: z.enum(["lining", "old-style"]).nullable(),
    spacing: z.enum(["tabular", "proportional"]).nullable(),
  }),
  cases: z.enum(["both", "capitals-only", "small-capitals"]).nullable(),
  picture: z.boolean(),
});
export type Traits = z.infer<typeof Traits>;

/** Number traits that can be sieved and sorted by, in the order of the sieve. */
export const SIEVE_TRAITS = [
  "weight",
  "width",
  "contrast",
  "xHeightEm",
  "slantDeg",
  "roundness",
  "stemEm",
  "barEm",
  "capHeightEm",
  "ascenderEm",
  "descenderEm",
  "widthEm",
  "serif",
  "serifThickness",
  "stressDeg",
  "roundEnds",
  "roundJoins",
  "roughness",
  "connected",
  "aperture",
  "evenness",
  "gapEm",
  "legibleFromPx",
] as const satisfies (keyof Traits)[];
/** From this lean on a style counts as slanted. */
export const SLANTED_FROM_DEG = 3.5;

export type SieveTrait = (typeof SIEVE_TRAITS)[number];

/** Of a style that is on the wall and not measured yet. */
export const NO_TRAITS: Traits = Traits.parse({
  ...Object.fromEntries(Object.keys(Traits.shape).map((trait) => [trait, null])),
  monospaced: false,
  figures: { height: null, spacing: null },
  picture: false,
});

/** Beside the traits: how sure each is (0–1), why one could not be measured, and what the axes of a variable font reach. */
export const MeasureNotes = z.object({
  confidence: z.record(z.string(), z.number()),
  absent: z.record(z.string(), z.string()),
  reach: z.record(z.string(), z.tuple([z.number(), z.number()])),
  axes: z.array(
    z.object({
      tag: z.string(),
      at: z.number(),
      traits: z.record(z.string(), z.number().nullable()),
    }),
  ),
});
export type MeasureNotes = z.infer<typeof MeasureNotes>;
export const NO_NOTES: MeasureNotes = { confidence: {}, absent: {}, reach: {}, axes: [] };
/** Why a style that was just read has no measures. */
export const NOT_YET: MeasureNotes = {
  ...NO_NOTES,
  absent: Object.fromEntries(Object.keys(Traits.shape).map((trait) => [trait, "Not measured yet."])),
};

/** A guess with the confidence (0–1) and the words it rests on. */
const Guess = <T extends z.ZodType>(value: T) =>
  z.object({ value, confidence: z.number().min(0).max(1), because: z.string() });
export const KindGuess = Guess(Kind);
export type KindGuess = z.infer<typeof KindGuess>;
export const TreatmentGuess = Guess(Treatment);
export type TreatmentGuess = z.infer<typeof TreatmentGuess>;

/** Classes of Vox-ATypI, and the usual parts of its lineals. */
export const VOX = [
  "humanist",
  "garalde",
  "transitional",
  "didone",
  "mechanistic",
  "incised",
  "script",
  "manual",
  "blackletter",
  "grotesque",
  "neo-grotesque",
  "geometric",
  "humanist-lineal",
] as const;
export const VoxGuess = Guess(z.enum(VOX));
export type VoxGuess = z.infer<typeof VoxGuess>;

/** A word for mood, period or occasion, measured or added by the user. */
export const MoodGuess = Guess(z.string()).extend({ group: z.enum(["mood", "period", "occasion"]) });
export type MoodGuess = z.infer<typeof MoodGuess>;

export const Axis = z.object({
  tag: z.string(),
  name: z.string(),
  min: z.number(),
  default: z.number(),
  max: z.number(),
  hidden: z.boolean().optional(),
});
export type Axis = z.infer<typeof Axis>;

export const Fault = z.object({
  code: z.string(),
  table: z.string(),
  meaning: z.string(),
  weight: z.enum(["care", "note"]).optional().describe("a note does not make a font usable with care only"),
});
export type Fault = z.infer<typeof Fault>;
export const Health = z.object({ degree: z.enum(["fine", "with-care", "refused"]), faults: z.array(Fault) });
export type Health = z.infer<typeof Health>;

/** Inclusive code point ranges, ascending, not touching: [[0x20, 0x7e], …]. */
export type CodePointRanges = [number, number][];
export const CodePointRanges = z.array(z.tuple([z.number(), z.number()]));
