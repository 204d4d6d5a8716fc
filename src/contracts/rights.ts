// The rights record of a style: what it rests on, and the verdict for each use with the sentences quoted.
import { z } from "zod";
import { Use, Verdict } from "./traits";

export const Quote = z.object({ text: z.string(), source: z.string(), place: z.string() });
export type Quote = z.infer<typeof Quote>;

export const Evidence = z.object({
  kind: z.enum(["receipt", "licence-file", "readme", "name-table", "fs-type", "library", "user"]),
  source: z.string(),
  date: z.string(),
  text: z.string(),
  note: z.string().optional().describe("what the user says of it"),
  evidenceId: z.string().optional().describe("only of what the user added: what can be taken back"),
});
export type Evidence = z.infer<typeof Evidence>;

export const Rights = z.object({
  spdx: z.string().optional(),
  verdicts: z.record(Use, z.object({ verdict: Verdict, quotes: z.array(Quote) })),
  evidence: z.array(Evidence),
  contradictions: z
    .array(
      z.object({
        use: Use,
        held: Verdict,
        others: z.array(z.object({ verdict: Verdict, quotes: z.array(Quote) })),
      }),
    )
    .optional()
    .describe("uses of which texts say different things; the stricter holds"),
});
export type Rights = z.infer<typeof Rights>;
