// Identifications that are kept with a brief.
import { z } from "zod";
import { BriefId } from "./ids";
import { Corner, HandInk, Identification, PixelBox } from "./identify";

export const IdentificationId = z
  .string()
  .regex(/^d_[a-z0-9]{8,32}$/)
  .brand<"IdentificationId">();
export type IdentificationId = z.infer<typeof IdentificationId>;

/** How a picture was framed and read, and what came of it. */
export const IdentificationState = z.object({
  frame: PixelBox.nullable(),
  corners: z.array(Corner).length(4).nullable(),
  baseline: z.array(Corner).length(3).nullable().default(null),
  ink: HandInk.nullable().default(null),
  text: z.string().max(200),
  isTyped: z.boolean(),
  result: Identification,
});
export type IdentificationState = z.infer<typeof IdentificationState>;

export const IdentificationSummary = z.object({
  identificationId: IdentificationId,
  name: z.string(),
  text: z.string(),
  savedAt: z.string(),
  first: z.object({ family: z.string(), style: z.string(), chance: z.number() }).nullable(),
  noneChance: z.number(),
});
export type IdentificationSummary = z.infer<typeof IdentificationSummary>;

export const SavedIdentification = IdentificationSummary.extend({
  briefId: BriefId,
  type: z.string(),
  state: IdentificationState,
});
export type SavedIdentification = z.infer<typeof SavedIdentification>;
