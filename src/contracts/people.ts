// Asking people what a face is: questions put to a desk of other designers, and what they answered.
import { z } from "zod";
import { IdentificationId } from "./identifications";

export const QuestionId = z
  .string()
  .regex(/^q_[a-z0-9]{8,32}$/)
  .brand<"QuestionId">();
export type QuestionId = z.infer<typeof QuestionId>;

export const SHEET_KINDS = ["pdf", "png", "html"] as const;
export const SheetKind = z.enum(SHEET_KINDS);
export type SheetKind = z.infer<typeof SheetKind>;

export const PeopleAnswer = z.object({
  answerId: z.string(),
  by: z.string(),
  family: z.string(),
  style: z.string().nullable(),
  words: z.string().describe("what the person wrote beside the name"),
  at: z.string(),
});
export type PeopleAnswer = z.infer<typeof PeopleAnswer>;

const QUESTION_STATES = ["not-sent", "waiting", "closed", "withdrawn"] as const;
export const PeopleQuestion = z.object({
  questionId: QuestionId,
  identificationId: IdentificationId,
  askedAt: z.string(),
  state: z
    .enum(QUESTION_STATES)
    .describe("not-sent: the desk could not be reached; closed: the desk takes no more answers"),
  fault: z.string().nullable().describe("why it was not sent, or could not be asked after"),
  answers: z.array(PeopleAnswer),
});
export type PeopleQuestion = z.infer<typeof PeopleQuestion>;

export const PeopleState = z.object({
  hasDesk: z.boolean().describe("a desk is connected; without one the sheet can be sent by hand"),
  question: PeopleQuestion.nullable().describe("the latest that was not withdrawn"),
});
export type PeopleState = z.infer<typeof PeopleState>;

/** What a desk takes and gives, at its own address: POST /questions, GET and DELETE /questions/<id>. */
export const DeskQuestion = z.object({
  questionId: QuestionId,
  title: z.string().max(300),
  readAs: z.string().max(200),
  nearest: z.array(z.object({ family: z.string(), style: z.string(), agreement: z.number() })).max(20),
  sheet: z.object({ type: z.literal("application/pdf"), base64: z.string().max(20_000_000) }),
});
export type DeskQuestion = z.infer<typeof DeskQuestion>;
export const DeskReply = z.object({
  questionId: QuestionId,
  state: z.enum(["open", "closed"]),
  answers: z
    .array(
      z.object({
        answerId: z.string().max(80),
        by: z.string().max(120),
        family: z.string().max(200),
        style: z.string().max(120).nullable(),
        words: z.string().max(1000),
        at: z.string().max(40),
      }),
    )
    .max(100),
});
export type DeskReply = z.infer<typeof DeskReply>;
