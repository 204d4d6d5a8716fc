// A brief: one project's words, uses, size and colours. All fields that the interface edits and the checks read.
import { z } from "zod";
import { BriefId, StyleId } from "./ids";
import { Use } from "./traits";
import { LengthUnit } from "./units";

export const LINE_ROLES = ["title", "second", "heading", "text", "caption", "figures"] as const;
export const BriefLine = z.object({ text: z.string().max(400), role: z.enum(LINE_ROLES) });
export type BriefLine = z.infer<typeof BriefLine>;

export const LevelBy = z.enum(["point-size", "x-height", "capitals", "line-width"]);
export type LevelBy = z.infer<typeof LevelBy>;

const Colour = z.string().regex(/^#[0-9a-fA-F]{6}$/);
export const BriefFields = z.object({
  name: z.string().trim().min(1).max(120),
  client: z.string().max(120).default(""),
  note: z.string().max(4000).default(""),
  medium: z.string().max(120).default(""),
  lines: z.array(BriefLine).min(1).max(12),
  uses: z.array(Use).max(8).default([]),
  size: z.number().positive().max(20000).default(24),
  unit: LengthUnit.default("mm"),
  levelBy: LevelBy.default("x-height"),
  ink: Colour.default("#20262B"),
  paper: Colour.default("#F3EFE6"),
  wanted: z.string().max(200).default(""),
});
export type BriefFields = z.infer<typeof BriefFields>;

export const Kept = z.object({
  styleId: StyleId,
  role: z.string().max(60),
  note: z.string().max(2000),
  favourite: z.boolean(),
  place: z.number().int(),
  keptAt: z.string(),
});
export type Kept = z.infer<typeof Kept>;

export const Brief = BriefFields.extend({
  briefId: BriefId,
  createdAt: z.string(),
  changedAt: z.string(),
  kept: z.array(Kept),
  setAside: z.array(StyleId),
  picture: z.string().nullable().describe("digest of the picture that faces are set on, at /briefs/:id/picture"),
});
export type Brief = z.infer<typeof Brief>;

export const BriefCreate = BriefFields.partial().extend({ name: BriefFields.shape.name, copyOf: BriefId.optional() });
export type BriefCreate = z.infer<typeof BriefCreate>;
/** No defaults here: a field left out of a change stays as it was. */
export const BriefPatch = z
  .object({
    name: z.string().trim().min(1).max(120),
    client: z.string().max(120),
    note: z.string().max(4000),
    medium: z.string().max(120),
    lines: z.array(BriefLine).min(1).max(12),
    uses: z.array(Use).max(8),
    size: z.number().positive().max(20000),
    unit: LengthUnit,
    levelBy: LevelBy,
    ink: Colour,
    paper: Colour,
    wanted: z.string().max(200),
    deleted: z.boolean(),
  })
  .partial();
export type BriefPatch = z.infer<typeof BriefPatch>;

export const KeptPut = z.object({
  role: z.string().max(60).optional(),
  note: z.string().max(2000).optional(),
  favourite: z.boolean().optional(),
  place: z.number().int().min(0).optional(),
});
export type KeptPut = z.infer<typeof KeptPut>;

export const Check = z.object({
  check: z.enum(["characters", "use", "health"]),
  subject: z.string(),
  outcome: z.enum(["pass", "care", "fail"]),
  measured: z.string(),
  wanted: z.string(),
  reason: z.string(),
});
export type Check = z.infer<typeof Check>;
