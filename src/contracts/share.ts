// Faces shown to a client by a link, and what the client answers.
import { z } from "zod";
import { BriefId, StyleId } from "./ids";

export const ShareId = z
  .string()
  .regex(/^h_[a-z0-9]{8,32}$/)
  .brand<"ShareId">();
export type ShareId = z.infer<typeof ShareId>;

/** More faces than anybody looks at. */
export const SHARED_AT_MOST = 60;
const MAX_DAYS = 365;

export const ShareCreate = z.object({
  styleIds: z.array(StyleId).min(1).max(SHARED_AT_MOST).optional().describe("absent: what is kept"),
  mayComment: z.boolean(),
  days: z.number().int().min(1).max(MAX_DAYS).describe("after these the link ends by itself"),
});
export type ShareCreate = z.infer<typeof ShareCreate>;

/** What comes back from the page of the client. */
export const ShareAnswerPost = z.object({
  name: z.string().trim().min(1).max(80),
  styleId: StyleId,
  chosen: z.boolean().optional(),
  comment: z.string().trim().max(2000).optional(),
});
export type ShareAnswerPost = z.infer<typeof ShareAnswerPost>;

export const ShareAnswer = z.object({
  name: z.string(),
  styleId: StyleId,
  chosen: z.boolean().optional(),
  comment: z.string().optional(),
  at: z.string(),
});
export type ShareAnswer = z.infer<typeof ShareAnswer>;

export const Share = z.object({
  shareId: ShareId,
  briefId: BriefId,
  url: z.string().describe("the page for the client: it needs nothing else of the application"),
  styleIds: z.array(StyleId),
  mayComment: z.boolean(),
  createdAt: z.string(),
  expiresAt: z.string(),
  isOpen: z.boolean(),
  answers: z.array(ShareAnswer).describe("the first first"),
});
export type Share = z.infer<typeof Share>;
