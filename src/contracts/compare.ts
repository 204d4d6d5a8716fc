// Faces beside each other, faces that go together, and an order from choices between two.
import { z } from "zod";
import { Brief, LevelBy } from "./brief";
import { BriefId, FamilyId, StyleId } from "./ids";
import { Traits, Verdict } from "./traits";

export const COMPARED_AT_MOST = 8;

const DistinctStyles = (least: number, most: number) =>
  z
    .array(StyleId)
    .min(least)
    .max(most)
    .refine((ids) => new Set(ids).size === ids.length, "each style once");

export const CompareRequest = z.object({
  styleIds: DistinctStyles(2, COMPARED_AT_MOST),
  briefId: BriefId.optional(),
  text: z.string().min(1).max(400).optional().describe("absent: the brief's first line"),
  levelBy: LevelBy.optional(),
});
export type CompareRequest = z.infer<typeof CompareRequest>;

const TraitDifference = z.object({
  trait: z.string().describe("a key of traits"),
  unit: z.string(),
  values: z.array(z.number().nullable()).describe("one per face, in the unit"),
  steps: z.number().describe("between the least and the most, in steps that a reader sees"),
  says: z.string(),
  face: z.number().int().describe("place of the face that the sentence is about"),
  shownIn: z.string().describe("letters in which it shows; empty: in the whole word"),
  subject: z.string().describe("differences of one subject are told once"),
});
export const Comparison = z.object({
  text: z.string(),
  faces: z.array(
    z.object({
      styleId: StyleId,
      familyId: FamilyId,
      family: z.string(),
      style: z.string(),
      traits: Traits,
      lineWidthEm: z
        .number()
        .nullable()
        .describe("sum of the shaped advances / em, at the axis defaults; null of a face that is not bought yet"),
      lineWidthMm: z.number().optional().describe("at the brief's size, matched as the brief says"),
      missing: z.array(z.string()),
      verdict: Verdict,
      bold: StyleId.nullable().describe("the bolder style of its family, of the same slope; null where it has none"),
      italic: StyleId.nullable().describe("the style of its family of the same weight and the other slope"),
    }),
  ),
  differences: z.array(TraitDifference).describe("most steps first"),
  same: z.array(z.string()).describe("traits in which no difference is seen"),
  letters: z
    .array(z.object({ char: z.string(), difference: z.number() }))
    .describe("0–1, the letter that tells the faces apart first"),
});
export type Comparison = z.infer<typeof Comparison>;

export const PairRole = z.enum(["heading", "text", "caption"]);
export type PairRole = z.infer<typeof PairRole>;
export const PairWay = z.enum(["family", "likeness", "contrast", "period"]);
export type PairWay = z.infer<typeof PairWay>;
export const PairRequest = z.object({
  styleId: StyleId,
  role: PairRole.describe("the wanted role; the style has another"),
  by: PairWay.optional(),
  limit: z.number().int().min(1).max(60).default(12),
  briefId: BriefId.optional(),
});
export type PairRequest = z.infer<typeof PairRequest>;
export const Companion = z.object({
  styleId: StyleId,
  familyId: FamilyId,
  family: z.string(),
  style: z.string(),
  score: z.number().min(0).max(1),
  by: PairWay,
  reasons: z.array(
    z.object({
      aspect: z.string().describe("a key of traits, or another word"),
      a: z.number(),
      b: z.number(),
      unit: z.string().optional(),
      says: z.string(),
      good: z.number().describe("0 speaks against the pair, 1 for it"),
    }),
  ),
  proposal: z.object({
    sizeRatio: z.number().describe("size of this face / size of the other"),
    weight: z.number().optional().describe("of its family, as grey as the other"),
    leadingEm: z.number().optional(),
  }),
  verdict: Verdict,
  missing: z.array(z.string()),
});
export type Companion = z.infer<typeof Companion>;
export const CompanionList = z.object({ items: z.array(Companion) });
export type CompanionList = z.infer<typeof CompanionList>;

/** Roles of a page that is set in one family, largest first. */
export const SYSTEM_ROLES = ["title", "heading", "lead", "text", "caption"] as const;
export type SystemRole = (typeof SYSTEM_ROLES)[number];
/** even: every role as grey as the text; strong: headings are darker. */
export const SystemContrast = z.enum(["even", "strong"]);
export type SystemContrast = z.infer<typeof SystemContrast>;
export const SystemRequest = z.object({
  styleId: StyleId.describe("what the text is set in; of a light or bold style, the regular one of its family"),
  ratio: z.number().min(1.05).max(2).default(1.25).describe("between two steps of the scale"),
  contrast: SystemContrast.default("strong"),
});
export type SystemRequest = z.infer<typeof SystemRequest>;
export const TypeSystem = z.object({
  family: z.string(),
  steps: z.array(
    z.object({
      role: z.enum(SYSTEM_ROLES),
      styleId: StyleId,
      style: z.string(),
      location: z.record(z.string(), z.number()).describe("on its axes; empty: at its defaults"),
      weight: z.number(),
      sizeRatio: z.number().describe("size beside the text's"),
      leadingEm: z.number(),
      grey: z.number().describe("share of a letter's width that its stem takes"),
      wantedGrey: z.number(),
    }),
  ),
});
export type TypeSystem = z.infer<typeof TypeSystem>;

export const RoundId = z
  .string()
  .regex(/^r_[a-z0-9]{8,32}$/)
  .brand<"RoundId">();
export type RoundId = z.infer<typeof RoundId>;
/** Ordering more than this two by two would take longer than anybody stays. */
export const RANKED_AT_MOST = 40;
export const RoundBegin = z.object({
  styleIds: DistinctStyles(2, RANKED_AT_MOST).optional().describe("absent: what is kept"),
  text: z.string().min(1).max(400).optional(),
});
export type RoundBegin = z.infer<typeof RoundBegin>;
export const RoundChoice = z.object({
  left: StyleId,
  right: StyleId,
  chosen: StyleId.nullable().describe("null: neither is better"),
});
export type RoundChoice = z.infer<typeof RoundChoice>;
export const Round = z.object({
  roundId: RoundId,
  briefId: BriefId,
  text: z.string(),
  styleIds: z.array(StyleId),
  pair: z
    .object({ left: StyleId, right: StyleId })
    .nullable()
    .describe("null: more questions would not change the order"),
  asked: z.number().int(),
  expectedLeft: z.number().int(),
  ranking: z
    .array(
      z.object({
        styleId: StyleId,
        strength: z.number().describe("share of the others that it is preferred to"),
        low: z.number().describe("low–high: 90 % interval of the strength"),
        high: z.number(),
        firstPlace: z.number().int().describe("firstPlace–lastPlace: the same interval as places, 1 is the best"),
        lastPlace: z.number().int(),
      }),
    )
    .describe("strongest first"),
  reasons: z
    .array(z.object({ trait: z.string(), correlation: z.number(), says: z.string() }))
    .describe("what was preferred, by the measures"),
});
export type Round = z.infer<typeof Round>;

/** What was decided for a brief: when, by whom, and why. */
export const Decision = z.object({ at: z.string(), by: z.string(), says: z.string() });
export type Decision = z.infer<typeof Decision>;
/** What of an order is written into the shortlist. */
export const RoundTaken = z.object({ brief: Brief, says: z.string() });
export type RoundTaken = z.infer<typeof RoundTaken>;
