// Poses: how a lettering stands at some moments of its motion. What lies between two of them follows from the first one's easing.
import { z } from "zod";
import { InkColour } from "./colours";
import { BlockId } from "./ids";

const Share = z.number().min(0).max(1);
const EASE_NAMES = ["linear", "in", "out", "in-out", "hold"] as const;
/** The way from one key to the next: a name as in CSS, hold, or the two handles of a cubic Bézier curve from 0, 0 to 1, 1. */
export const Ease = z.union([
  z.enum(EASE_NAMES),
  z.tuple([Share, z.number().min(-5).max(5), Share, z.number().min(-5).max(5)]),
]);
export type Ease = z.infer<typeof Ease>;

export const MOST_MS = 600_000;
const TimeMs = z.number().min(0).max(MOST_MS);
export const FRAME_RATES = [23.976, 24, 25, 29.97, 30, 50, 60] as const;

const Mm = z.number().min(-20_000).max(20_000);
const TrackingEm = z.number().min(-1).max(10);
const Scale = z.number().min(0).max(100);
const TurnDeg = z.number().min(-36_000).max(36_000);
/** How one block stands in a pose; what is absent is as the document has it. */
export const BlockPose = z.object({
  dxMm: Mm.optional().describe("from its own place"),
  dyMm: Mm.optional(),
  scale: Scale.optional(),
  turnDeg: TurnDeg.optional().describe("added to its own"),
  opacity: Share.optional(),
  trackingEm: TrackingEm.optional(),
  axes: z.record(z.string().regex(/^[ -~]{4}$/), z.number()).optional(),
  fill: InkColour.optional(),
});
export type BlockPose = z.infer<typeof BlockPose>;

export const Pose = z.object({
  id: z.string().regex(/^p_[a-z0-9]{1,16}$/),
  name: z.string().max(40),
  timeMs: TimeMs,
  ease: Ease.describe("of the way to the next pose"),
  blocks: z.record(BlockId, BlockPose),
});
export type Pose = z.infer<typeof Pose>;

export const STAGGER_ORDERS = ["first", "last", "middle", "shuffled"] as const;
export const STAGGER_UNITS = ["letter", "word", "line"] as const;
/** Parts of a block run one after another. */
export const Stagger = z.object({
  unit: z.enum(STAGGER_UNITS),
  order: z.enum(STAGGER_ORDERS),
  stepMs: z.number().min(0).max(10_000),
});
export type Stagger = z.infer<typeof Stagger>;

export const PosedMotion = z.object({
  durationMs: z.number().min(1).max(MOST_MS),
  fps: z.number().min(1).max(120),
  poses: z.array(Pose).min(1).max(40),
  stagger: Stagger.optional(),
  mask: z.literal("baseline").optional().describe("letters show above the baseline they have at rest only"),
});
export type PosedMotion = z.infer<typeof PosedMotion>;
