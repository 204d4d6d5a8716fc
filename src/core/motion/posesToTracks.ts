// Poses → tracks: of every block, what some pose changes, with a key per pose. What a pose leaves out is as the document has it.
import type { Block, LetteringDocument } from "@/contracts/lettering";
import type { Key, Motion, PerLetter, Track } from "@/contracts/motion";
import type { BlockPose, Pose, PosedMotion } from "@/contracts/poses";
import { solidOf } from "../letter/fills";

/** What of a pose becomes a track by itself, and its value in a pose. */
const READS: Record<
  string,
  { isSet: (pose: BlockPose) => boolean; valueOf: (block: Block, pose: BlockPose) => number }
> = {
  xMm: { isSet: (p) => p.dxMm !== undefined, valueOf: (b, p) => b.at.xMm + (p.dxMm ?? 0) },
  yMm: { isSet: (p) => p.dyMm !== undefined, valueOf: (b, p) => b.at.yMm + (p.dyMm ?? 0) },
  scale: { isSet: (p) => p.scale !== undefined, valueOf: (_, p) => p.scale ?? 1 },
  turnDeg: { isSet: (p) => p.turnDeg !== undefined, valueOf: (b, p) => (b.turnDeg ?? 0) + (p.turnDeg ?? 0) },
  opacity: { isSet: (p) => p.opacity !== undefined, valueOf: (_, p) => p.opacity ?? 1 },
  trackingEm: {
    isSet: (p) => p.trackingEm !== undefined,
    valueOf: (b, p) => p.trackingEm ?? b.trackingEm ?? 0,
  },
};

const NOTHING: BlockPose = {};
const poseOf = (pose: Pose, block: Block): BlockPose => pose.blocks[block.id] ?? NOTHING;

/**
 * @param defaultOf - where an axis stands that the block does not set: the face's default.
 * @returns poses by their times; those of one time in their order.
 */
export function posesToTracks(
  { blocks }: LetteringDocument,
  { durationMs, fps, poses, stagger, mask }: PosedMotion,
  defaultOf: (block: Block, tag: string) => number,
): Motion {
  const ordered = inOrder(poses);
  const perLetter: PerLetter | undefined = stagger && {
    staggerMs: stagger.stepMs,
    order: stagger.order,
    unit: stagger.unit,
    about: "letter",
  };
  const tracks = blocks.flatMap((block): Track[] => {
    const track = (property: string, valueOf: (pose: BlockPose) => number | string): Track => ({
      target: block.id,
      property,
      keys: ordered.map((pose): Key => ({ timeMs: pose.timeMs, value: valueOf(poseOf(pose, block)), ease: pose.ease })),
      ...(perLetter && { perLetter }),
    });
    const isSome = (isSet: (pose: BlockPose) => boolean) => ordered.some((pose) => isSet(poseOf(pose, block)));
    const numbers = Object.entries(READS).flatMap(([property, { isSet, valueOf }]) =>
      isSome(isSet) ? [track(property, (pose) => valueOf(block, pose))] : [],
    );
    const tags = [...new Set(ordered.flatMap((pose) => Object.keys(poseOf(pose, block).axes ?? {})))];
    const axes = tags.map((tag) =>
      track(`axis:${tag}`, (pose) => pose.axes?.[tag] ?? block.coordinates?.[tag] ?? defaultOf(block, tag)),
    );
    const fill = isSome((pose) => pose.fill !== undefined)
      ? [track("fill", (pose) => pose.fill ?? solidOf(block.fill))]
      : [];
    return [...numbers, ...axes, ...fill];
  });
  return { durationMs, fps, tracks, ...(mask && { masks: blocks.map((b) => b.id) }) };
}

export const inOrder = (poses: readonly Pose[]): Pose[] => [...poses].sort((a, b) => a.timeMs - b.timeMs);
