// Finding a face by questions on its letters: what is answered, what is asked next.
import { z } from "zod";
import { FamilyId, StyleId } from "./ids";

/** The answer of somebody who cannot tell: the question is not asked again and says nothing. */
export const CANNOT_TELL = "cannot-tell";

export const DescribeRequest = z.object({
  answers: z
    .array(z.object({ questionId: z.string().max(40), answerId: z.string().max(40) }))
    .max(60)
    .default([]),
  limit: z.number().int().min(1).max(40).default(12),
});
export type DescribeRequest = z.infer<typeof DescribeRequest>;

export const AskedQuestion = z.object({
  questionId: z.string(),
  text: z.string(),
  letters: z.string().describe("letters whose shape is asked about"),
  answers: z.array(
    z.object({
      answerId: z.string(),
      label: z.string(),
      exampleStyleId: StyleId.nullable().describe("a style whose letters show the answer"),
    }),
  ),
});
export type AskedQuestion = z.infer<typeof AskedQuestion>;

export const Described = z.object({
  next: AskedQuestion.optional(),
  /** What was answered, with the words of question and answer. */
  given: z.array(z.object({ questionId: z.string(), answerId: z.string(), text: z.string(), label: z.string() })),
  remaining: z.number().describe("families that are still likely"),
  matches: z.array(
    z.object({
      styleId: StyleId,
      familyId: FamilyId,
      family: z.string(),
      style: z.string(),
      chance: z.number().min(0).max(1),
    }),
  ),
});
export type Described = z.infer<typeof Described>;
