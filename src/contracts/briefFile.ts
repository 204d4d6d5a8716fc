// A brief as one JSON file: what it says, what is kept and paired, what was decided. Faces go by their names and the digests of their files,
// so that another installation finds its own.
import { z } from "zod";
import { Brief, BriefFields, Kept } from "./brief";
import { Decision } from "./compare";

const FaceRef = z.object({
  family: z.string().max(200),
  style: z.string().max(200),
  sha256: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .describe("of the file of the font"),
});
export type FaceRef = z.infer<typeof FaceRef>;

export const BriefFile = z.object({
  format: z.literal("fond-quarry-brief"),
  version: z.literal(1),
  writtenAt: z.string().max(40),
  brief: BriefFields.omit({ pairs: true }),
  kept: z
    .array(
      Kept.pick({ location: true, features: true, role: true, group: true, note: true, favourite: true }).extend({
        face: FaceRef,
      }),
    )
    .max(2000),
  pairs: z
    .array(
      z.object({
        faces: z.tuple([
          z.object({ face: FaceRef, role: z.string().max(60) }),
          z.object({ face: FaceRef, role: z.string().max(60) }),
        ]),
        sizeRatio: z.number().positive().max(100),
        note: z.string().max(400).default(""),
      }),
    )
    .max(60)
    .default([]),
  decisions: z.array(Decision).max(500).default([]),
});
export type BriefFile = z.infer<typeof BriefFile>;

/** A brief that was made of a file, and the faces of it that are not in the libraries here. */
export const BriefRead = z.object({ brief: Brief, notHere: z.array(z.string()) });
export type BriefRead = z.infer<typeof BriefRead>;
