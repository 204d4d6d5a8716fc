// Web fonts made of kept faces, as they are asked for.
import { z } from "zod";
import { JobId, StyleId } from "./ids";
import { Verdict } from "./traits";

const WEB_FORMATS = ["woff2", "woff"] as const;

export const WebkitCharacters = z.union([
  z.literal("brief").describe("all lines of the brief, and the characters it wants"),
  z.literal("all"),
  z.strictObject({ language: z.string().regex(/^[a-z]{2,3}(-[A-Z][a-z]{3})?$/) }).describe("a language of CLDR"),
  z.strictObject({ text: z.string().min(1).max(20_000) }),
]);
export type WebkitCharacters = z.infer<typeof WebkitCharacters>;

/** Languages that are offered to choose from; a script may ask for any that CLDR has. */
export const OFFERED_LANGUAGES =
  "ar bg ca cs cy da de el en eo es et eu fi fr ga he hi hr hu id is it lt lv mt nb nl pl pt ro ru sk sl sq sr sv sw tr uk vi".split(
    " ",
  );

export const WebkitRequest = z.object({
  styleIds: z.array(StyleId).min(1).max(200),
  characters: WebkitCharacters.default("brief"),
  formats: z.array(z.enum(WEB_FORMATS)).min(1).max(2).default(["woff2"]),
  hold: z
    .boolean()
    .default(false)
    .describe("variable fonts are held at the place where they are kept; else they stay variable"),
});
export type WebkitRequest = z.infer<typeof WebkitRequest>;

/** Which faces may become web fonts, and by which sentence the others may not. */
export const WebkitPlan = z.object({
  faces: z.array(
    z.object({
      styleId: StyleId,
      name: z.string(),
      verdict: Verdict.describe("for the web"),
      refusal: z.string().nullable().describe("why it is left out; null: it goes in"),
      quote: z.string().nullable().describe("the sentence of its terms that this rests on"),
    }),
  ),
});
export type WebkitPlan = z.infer<typeof WebkitPlan>;

export const WebkitStarted = z.object({ jobId: JobId });
