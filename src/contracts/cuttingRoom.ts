// A cutting room: a folder that an editing program watches, and what the program says of what lies in it.
import { z } from "zod";

/** How the program took a clip in: what it read in it, or why it did not. */
export const ClipReport = z.object({
  clipId: z.string().max(80),
  name: z.string().max(120),
  isTaken: z.boolean(),
  code: z.string().max(40).nullable().describe("why not, in one word"),
  message: z.string().max(400),
  kind: z.enum(["frames", "video", "picture"]).nullable(),
  widthPx: z.number().int().nullable(),
  heightPx: z.number().int().nullable(),
  frames: z.number().int().nullable(),
  fps: z.number().nullable(),
  durationMs: z.number().nullable(),
  hasAlpha: z.boolean().nullable(),
  codec: z.string().max(40).nullable(),
  missingFonts: z
    .array(z.string())
    .max(200)
    .describe("families of the clip's text that the program did not know when it was started"),
});
export type ClipReport = z.infer<typeof ClipReport>;

export const CuttingRoom = z.object({
  name: z.string().max(80),
  folder: z.string().max(1000).describe("where clips are laid"),
  fps: z.number().describe("of its project: clips of another rate are refused"),
  widthPx: z.number().int(),
  heightPx: z.number().int(),
  fonts: z.array(z.string()).max(5000).describe("families that it knew when it was started"),
  clips: z.array(ClipReport).max(200),
});
export type CuttingRoom = z.infer<typeof CuttingRoom>;
