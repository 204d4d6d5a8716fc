// Long work: jobs and imports, as they are polled.
import { z } from "zod";
import { ImportId, JobId, StyleId } from "./ids";
import { Verdict } from "./traits";

const JOB_STATES = ["waiting", "running", "done", "failed", "cancelled"] as const;
export const Job = z.object({
  jobId: JobId,
  kind: z.enum(["reread", "part-copies", "import", "sync-library", "buy", "handover", "webkit", "motion"]),
  title: z.string(),
  state: z.enum(JOB_STATES),
  done: z.number(),
  total: z.number(),
  rate: z.number().nullable().describe("items a second over the last stretch; null until known"),
  secondsLeft: z.number().nullable(),
  failed: z.number(),
  message: z.string().nullable(),
  code: z.string().nullable().describe("why it failed, as a code"),
  createdAt: z.string(),
  briefId: z.string().nullable(),
  hasFile: z.boolean(),
});
export type Job = z.infer<typeof Job>;

export const ImportItem = z.object({
  name: z.string(),
  path: z.string(),
  outcome: z.enum(["added", "already-there", "refused", "ignored"]),
  code: z.string().optional(),
  reason: z.string().optional(),
  styleId: StyleId.optional(),
});
export type ImportItem = z.infer<typeof ImportItem>;

export const ImportReport = z.object({
  importId: ImportId,
  state: z.enum(["running", "done", "failed", "cancelled"]),
  done: z.number(),
  total: z.number(),
  items: z.array(ImportItem),
});
export type ImportReport = z.infer<typeof ImportReport>;

export const Health = z.object({
  status: z.literal("ok"),
  version: z.string(),
  styles: z.number(),
  families: z.number(),
  jobsWaiting: z.number(),
});

export const HandoverOptions = z.object({
  styleIds: z.array(StyleId).optional(),
  fonts: z.boolean().default(true),
  web: z.boolean().default(true),
  licences: z.boolean().default(true),
  contactSheet: z.boolean().default(true),
  responsibleFor: z
    .array(StyleId)
    .default([])
    .describe("faces that are not cleared and go in all the same: whoever asks answers for them"),
});
export type HandoverOptions = z.infer<typeof HandoverOptions>;

const HandoverFace = z.object({ styleId: StyleId, name: z.string(), verdict: Verdict, hasWebFile: z.boolean() });
export const HandoverPlan = z.object({
  cleared: z.array(HandoverFace),
  toAnswerFor: z.array(HandoverFace).describe("here, not cleared: they go in when somebody answers for them"),
  notOwned: z.array(HandoverFace),
});
export type HandoverPlan = z.infer<typeof HandoverPlan>;
