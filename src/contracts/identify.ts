// What a picture is asked and what comes back.
import { z } from "zod";
import { FamilyId, StyleId } from "./ids";
import { Kind, Treatment } from "./traits";

export const PixelBox = z.object({
  x: z.number(),
  y: z.number(),
  width: z.number().positive(),
  height: z.number().positive(),
});
export type PixelBox = z.infer<typeof PixelBox>;
export const Corner = z.object({ x: z.number(), y: z.number() });
export type Corner = z.infer<typeof Corner>;

/** A line as a person has cut it: of which view of the picture, and its letters in the pixels of that view's strip. */
export const HandCut = z.object({
  reading: z.string().max(60),
  leanTan: z.number().min(-1).max(1),
  letters: z
    .array(z.object({ char: z.string().max(8), box: PixelBox }))
    .min(1)
    .max(120),
});
export type HandCut = z.infer<typeof HandCut>;

/** What a person takes for ink; all places in the picture's pixels. */
export const HandInk = z.object({
  letters: z
    .enum(["found", "dark", "light", "outlines"])
    .describe("what the letters are: what stands out, the dark, the light, what is enclosed by outlines"),
  letterAt: z.array(Corner).max(12).describe("places that show a colour of the letters; they go before `letters`"),
  groundAt: z.array(Corner).max(12).describe("places that show a colour that is none of the letters"),
  strokes: z
    .array(
      z.object({
        rubsOut: z.boolean(),
        radiusPx: z.number().positive().max(400),
        points: z.array(Corner).min(1).max(2000),
      }),
    )
    .max(200)
    .refine((strokes) => strokes.reduce((sum, s) => sum + s.points.length, 0) <= 8000, "at most 8,000 points")
    .describe("what was painted in and rubbed out, the later over the earlier"),
});
export type HandInk = z.infer<typeof HandInk>;

export const ReadLetter = z.object({ char: z.string(), box: PixelBox, confidence: z.number() });
export type ReadLetter = z.infer<typeof ReadLetter>;

/** Kept records come back from outside: a path is a path, and a picture is our own PNG, never an address. */
const SvgPath = z.string().regex(/^[MLHVCSQTAZmlhvcsqtaz\d\s,.eE+-]*$/, "an SVG path");
const PngUrl = z.string().regex(/^data:image\/png;base64,[A-Za-z0-9+/]*={0,2}$/, "a PNG as data URL");

export const IdentifyMatch = z.object({
  styleId: StyleId,
  familyId: FamilyId,
  family: z.string(),
  style: z.string(),
  score: z.number().min(0).max(1),
  chance: z.number().min(0).max(1),
  letters: z.array(z.object({ char: z.string(), agreement: z.number().min(0).max(1) })),
  coordinates: z.record(z.string(), z.number()).nullable().describe("setting of a variable font that comes nearest"),
  features: z
    .array(z.string())
    .default([])
    .describe(
      "OpenType tags of the features under which the face comes nearest, beside its own rules; smcp: its own small capitals",
    ),
  besideFirst: z
    .object({ isSameHere: z.boolean(), tellingLetter: z.string().nullable() })
    .nullable()
    .describe("whether the picture's letters tell it from the first match, and which letter would"),
  overlay: z
    .object({ path: SvgPath, widthPx: z.number(), heightPx: z.number() })
    .describe("the face's outline laid over the straightened strip, SVG path in strip pixels"),
});
export type IdentifyMatch = z.infer<typeof IdentifyMatch>;

/** A chance from which a face is said not to be in the libraries. */
export const PROBABLY_NOT_HERE = 0.5;

export const Identification = z.object({
  reading: z.object({ text: z.string(), confidence: z.number(), given: z.boolean(), letters: z.array(ReadLetter) }),
  matches: z.array(IdentifyMatch),
  notInLibraries: z.object({ chance: z.number() }),
  byLook: z
    .object({ kind: Kind.nullable(), treatments: z.array(Treatment), styleIds: z.array(StyleId) })
    .nullable()
    .default(null)
    .describe("where the face is probably not here: the matches with those first that look alike, and in what"),
  strip: z.object({
    png: PngUrl.describe("data URL of the straightened line, ink dark on light"),
    widthPx: z.number(),
    heightPx: z.number(),
    slopeDeg: z.number(),
    cut: z.enum(["letters", "whole-word"]),
    reading: z.string().describe("what was assumed to be ink"),
    // Identifications that were kept earlier do not say.
    taper: z
      .number()
      .default(0)
      .describe(
        "how the letters grow along the line where the first match lies, from its middle to either end: 0.1 = by a tenth",
      ),
    setAs: z.enum(["plain", "small-capitals"]).default("plain").describe("how the text was assumed to be set"),
    leanTan: z.number().describe("tangent of the lean that was assumed, as perspective gives it"),
  }),
  areas: z
    .array(PixelBox)
    .describe(
      "lines of lettering found in the whole picture, in its pixels, the heaviest first; none is looked for where one was framed",
    ),
  taken: PixelBox.nullable()
    .default(null)
    .describe("the line that was taken where none was framed and the picture as a whole is not its lettering"),
  compared: z.number(),
  tookMs: z.number(),
});
export type Identification = z.infer<typeof Identification>;

const NamedFace = z.object({ styleId: StyleId, familyId: FamilyId, family: z.string(), style: z.string() });
const Refusal = z.object({ code: z.string(), message: z.string(), details: z.unknown().optional() });

/** A line of JSON of an answer that is told step by step. */
export const IdentifyStep = z.discriminatedUnion("step", [
  z.object({
    step: z.literal("seen"),
    strip: z
      .object({ png: PngUrl, widthPx: z.number(), heightPx: z.number() })
      .describe("what is taken for ink at first; another reading of the picture may come nearer"),
  }),
  z.object({
    step: z.literal("nearer"),
    share: z.number().min(0).max(1).describe("of the way to the answer"),
    text: z.string(),
    nearest: z.array(NamedFace).describe("what comes nearest so far, the nearest first"),
  }),
  z.object({ step: z.literal("answered"), answer: Identification }),
  z.object({ step: z.literal("refused"), error: Refusal }),
]);
export type IdentifyStep = z.infer<typeof IdentifyStep>;

/** Lines of a picture that are set in one face. */
export const FaceGroup = z.object({
  lines: z.array(z.number()).describe("places of its lines among all that were found"),
  matches: z.array(NamedFace.extend({ score: z.number(), chance: z.number() })).describe("the likeliest first"),
  noneChance: z.number(),
});
export type FaceGroup = z.infer<typeof FaceGroup>;

/** A line of JSON of the answer to all lines of a picture. */
export const LayoutStep = z.discriminatedUnion("step", [
  z.object({ step: z.literal("lines"), areas: z.array(PixelBox) }),
  z.object({ step: z.literal("line"), at: z.number(), answer: Identification }),
  z.object({ step: z.literal("line refused"), at: z.number(), error: Refusal }),
  z.object({ step: z.literal("grouped"), groups: z.array(FaceGroup) }),
  z.object({ step: z.literal("refused"), error: Refusal }),
]);
export type LayoutStep = z.infer<typeof LayoutStep>;

/** A setting of a variable font in a query. */
const Setting = z
  .string()
  .max(400)
  .transform((text, context) => {
    try {
      return z.record(z.string().regex(/^[ -~]{4}$/), z.number()).parse(JSON.parse(text));
    } catch {
      context.addIssue("JSON: axis tag to value");
      return z.NEVER;
    }
  })
  .optional();
export const BesideQuery = z.object({
  other: StyleId,
  at: Setting.describe("JSON: the setting of a variable font, axis tag to value"),
  otherAt: Setting.describe("the same of the other"),
  letter: z.string().refine((v) => [...v].length === 1, "one character"),
});
const UnitBox = z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() });
/** Two faces in the letter that tells them apart, laid over each other. */
export const Beside = z.object({
  letter: z.string(),
  box: UnitBox.describe("around both, thousandths of an em, y down from the baseline"),
  paths: z
    .tuple([z.string(), z.string()])
    .describe("SVG paths of the style and of the other, at one height of letters"),
  place: UnitBox.describe("where they differ most"),
  where: z.string().describe("the same in words: top left, middle, bottom …"),
});
export type Beside = z.infer<typeof Beside>;
