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
  cameWith: z.string().optional().describe("archive, folder or catalogue entry that it lay in, with its library"),
  isCut: z.boolean().optional().describe("longer, or one of more texts, than is read: it clears nothing by itself"),
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
        decidedBy: z.string().optional().describe("source of the text that decided"),
        why: z.string().optional().describe("why that one decided, as a sentence"),
      }),
    )
    .optional()
    .describe("uses of which texts say different things; the stricter holds"),
  sameLetters: z
    .array(z.object({ styleId: z.string(), name: z.string(), maker: z.string().nullable(), says: z.string() }))
    .optional()
    .describe("styles whose letters are the same, under other names, makers or terms, and what that means"),
  notes: z
    .array(z.object({ says: z.string(), quotes: z.array(Quote) }))
    .optional()
    .describe("what the terms mean beyond the verdicts"),
  isUnreadable: z
    .boolean()
    .optional()
    .describe("reading its texts took too long: they are kept, nothing is known of them"),
});
export type Rights = z.infer<typeof Rights>;
