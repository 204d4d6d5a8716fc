// Long work: jobs and imports, as they are polled.
import { z } from "zod";
import { ImportId, JobId, StyleId } from "./ids";

export const JOB_STATES = ["waiting", "running", "done", "failed", "cancelled"] as const;
export const Job = z.object({
  jobId: JobId,
  kind: z.enum(["read-library", "reread", "import", "sync-library", "buy", "handover"]),
  title: z.string(),
  state: z.enum(JOB_STATES),
  done: z.number(),
  total: z.number(),
  rate: z.number().nullable().describe("items a second over the last stretch; null until known"),
  secondsLeft: z.number().nullable(),
  failed: z.number(),
  message: z.string().nullable(),
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
});
export type HandoverOptions = z.infer<typeof HandoverOptions>;
