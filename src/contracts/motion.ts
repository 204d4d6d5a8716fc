// A motion: values of a lettering's blocks over time, and what it is written as. Poses (poses.ts) are one way to say it.
import { z } from "zod";
import { InkColour } from "./colours";
import { BlockId } from "./ids";
import { Ease, MOST_MS, STAGGER_ORDERS, STAGGER_UNITS } from "./poses";

/** Place, scale, turn, opacity, tracking, fill, or an axis by its tag. */
const Property = z.string().regex(/^(?:opacity|xMm|yMm|scale|turnDeg|trackingEm|fill|axis:[ -~]{4})$/);

const Key = z.object({
  timeMs: z.number().min(0).max(MOST_MS),
  value: z.union([z.number().min(-36_000).max(36_000), InkColour]),
  ease: Ease.optional().describe("of the way to the next key; absent: linear"),
});
export type Key = z.infer<typeof Key>;

export const PerLetter = z.object({
  staggerMs: z.number().min(0).max(10_000),
  order: z.enum(STAGGER_ORDERS),
  unit: z.enum(STAGGER_UNITS).optional().describe("absent: letter"),
  about: z.enum(["block", "letter"]).optional().describe("what scale and turn are about; absent: the block's place"),
});
export type PerLetter = z.infer<typeof PerLetter>;

export const SHEET = "sheet";
export const Track = z
  .object({
    target: z.union([z.literal(SHEET), BlockId]),
    property: Property,
    keys: z.array(Key).min(1).max(2000),
    perLetter: PerLetter.optional(),
  })
  .refine(
    ({ property, keys }) => keys.every(({ value }) => (typeof value === "string") === (property === "fill")),
    "a colour for fill, a number for all others",
  );
export type Track = z.infer<typeof Track>;

export const Motion = z.object({
  durationMs: z.number().min(1).max(MOST_MS),
  fps: z.number().min(1).max(120),
  tracks: z.array(Track).max(400),
  masks: z.array(BlockId).max(60).optional().describe("blocks that show above the baseline they have at rest only"),
});
export type Motion = z.infer<typeof Motion>;

export const MOTION_FORMATS = ["apng", "png-frames", "webm", "mp4", "gif", "lottie", "svg", "css"] as const;
export type MotionFormat = (typeof MOTION_FORMATS)[number];

/** As large as video is made. */
export const MOST_VIDEO_PX = 3840;
/** Frames of one file: ten minutes at sixty a second are cut into several. */
export const MOST_FRAMES = 20_000;

/** What a motion is written as: media type and file extension. */
export const MOTION_FILES = {
  apng: { type: "image/apng", extension: "apng" },
  "png-frames": { type: "application/zip", extension: "zip" },
  webm: { type: "video/webm", extension: "webm" },
  mp4: { type: "video/mp4", extension: "mp4" },
  gif: { type: "image/gif", extension: "gif" },
  lottie: { type: "application/json", extension: "json" },
  svg: { type: "image/svg+xml", extension: "svg" },
  css: { type: "application/zip", extension: "zip" },
} as const satisfies Record<MotionFormat, { type: string; extension: string }>;
