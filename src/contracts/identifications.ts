// Identifications that are kept with a brief, and what other people say of them.
import { z } from "zod";
import { BriefId, StyleId } from "./ids";
import { Corner, Identification, PixelBox } from "./identify";

export const IdentificationId = z
  .string()
  .regex(/^d_[a-z0-9]{8,32}$/)
  .brand<"IdentificationId">();
export type IdentificationId = z.infer<typeof IdentificationId>;

/** How a picture was framed and read, and what came of it. */
export const IdentificationState = z.object({
  frame: PixelBox.nullable(),
  corners: z.array(Corner).length(4).nullable(),
  text: z.string().max(200),
  isTyped: z.boolean(),
  result: Identification,
});
export type IdentificationState = z.infer<typeof IdentificationState>;

/** What a person said of the picture; `styleId`: the face of the libraries that the words name. */
export const PersonsAnswer = z.object({
  by: z.string(),
  at: z.string(),
  says: z.string(),
  face: z.string().nullable(),
  styleId: StyleId.nullable(),
});
export type PersonsAnswer = z.infer<typeof PersonsAnswer>;

export const Asked = z.object({
  at: z.string(),
  note: z.string(),
  state: z.enum(["waiting", "answered", "unreachable"]),
  answers: z.array(PersonsAnswer),
});
export type Asked = z.infer<typeof Asked>;

export const IdentificationSummary = z.object({
  identificationId: IdentificationId,
  name: z.string(),
  text: z.string(),
  savedAt: z.string(),
  first: z.object({ family: z.string(), style: z.string(), chance: z.number() }).nullable(),
  noneChance: z.number(),
  asked: Asked.nullable(),
});
export type IdentificationSummary = z.infer<typeof IdentificationSummary>;

export const SavedIdentification = IdentificationSummary.extend({
  briefId: BriefId,
  type: z.string(),
  state: IdentificationState,
});
export type SavedIdentification = z.infer<typeof SavedIdentification>;
