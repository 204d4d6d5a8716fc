// What is put into a server when it starts: libraries to connect and briefs to begin with, from a file named by FOND_QUARRY_SEED.
import { z } from "zod";
import { BriefFields } from "./brief";

export const Seed = z.object({
  libraries: z
    .array(
      z.object({
        libraryId: z.string().regex(/^[a-z0-9-]{1,40}$/),
        name: z.string().min(1).max(80),
        kind: z.enum(["folder", "opds"]),
        address: z.string().min(1).max(2000),
      }),
    )
    .default([]),
  briefs: z.array(z.object({ briefId: z.string().regex(/^b_[a-z0-9-]{1,60}$/), fields: BriefFields })).default([]),
});
export type Seed = z.infer<typeof Seed>;
