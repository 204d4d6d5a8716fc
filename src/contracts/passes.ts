// A pass: one way through many faces, each kept, set aside or left; saved searches; tags.
import { z } from "zod";
import { BriefId, StyleId } from "./ids";

export const PassId = z
  .string()
  .regex(/^p_[a-z0-9]{8,32}$/)
  .brand<"PassId">();
export type PassId = z.infer<typeof PassId>;

const MARKS = ["kept", "aside", "left"] as const;
export const Mark = z.object({ place: z.number().int().min(0), styleId: StyleId, mark: z.enum(MARKS) });
export type Mark = z.infer<typeof Mark>;

export const PassSummary = z.object({
  passId: PassId,
  briefId: BriefId,
  title: z.string(),
  question: z.string(),
  total: z.number(),
  done: z.number(),
  kept: z.number(),
  aside: z.number(),
  begunAt: z.string(),
  endedAt: z.string().nullable(),
});
export type PassSummary = z.infer<typeof PassSummary>;

export const Pass = PassSummary.extend({
  styleIds: z.array(StyleId),
  marks: z.array(Mark),
  next: z.number().describe("the first place without a mark; the total when all have one"),
});
export type Pass = z.infer<typeof Pass>;

/** The next place without a mark, from one on and then from the beginning; the total when there is none. */
export function nextUnmarked(marked: { has: (place: number) => boolean }, from: number, total: number): number {
  for (let k = 0; k < total; k++) {
    const place = (from + k) % total;
    if (!marked.has(place)) return place;
  }
  return total;
}

/** `question`: query string of GET /styles that finds the faces. */
export const PassBegin = z.object({ question: z.string().max(2000), title: z.string().trim().min(1).max(200) });
export type PassBegin = z.infer<typeof PassBegin>;
export const MarkPut = z.object({ mark: z.enum(MARKS) });
export const PassPatch = z.object({ ended: z.boolean() });

export const SavedSearch = z.object({
  searchId: z.string(),
  name: z.string(),
  address: z.string(),
  savedAt: z.string(),
});
export type SavedSearch = z.infer<typeof SavedSearch>;
export const SavedSearchAdd = z.object({
  name: z.string().trim().min(1).max(80),
  address: z.string().max(2000),
  searchId: z
    .string()
    .regex(/^q_[0-9a-f]{12}$/)
    .optional()
    .describe("of one that was removed, to bring it back under its id"),
});

/** holds null takes back what was said. */
export const TagPut = z.object({
  tag: z
    .string()
    .trim()
    .toLowerCase()
    .min(2)
    .max(40)
    .regex(/^[^,;~]+$/),
  holds: z.boolean().nullable(),
});
