// Motions to begin with: how letters come, stand and go, in parts of the em, so that they suit letters of any size.
import type { Block, LetteringDocument } from "@/contracts/lettering";
import type { BlockPose, Ease, Pose, PosedMotion, Stagger } from "@/contracts/poses";
import { withMotion } from "./editPoses";

/** What a motion is made for: the em of each block, and the range of its weight axis where it has one. */
export type MotionSetting = { emMm: number; weights: { min: number; max: number } | null };
export type MotionLook = {
  name: string;
  arrives: (setting: MotionSetting) => BlockPose;
  leaves: (setting: MotionSetting) => BlockPose;
  comes: { ms: number; ease: Ease };
  goes: { ms: number; ease: Ease };
  stagger?: Stagger;
  mask?: "baseline";
};

export const MOTION_LOOKS: readonly MotionLook[] = [
  {
    name: "Fades",
    arrives: () => ({ opacity: 0 }),
    leaves: () => ({ opacity: 0 }),
    comes: { ms: 600, ease: "out" },
    goes: { ms: 500, ease: "in" },
  },
  {
    name: "Rises from the line",
    arrives: ({ emMm }) => ({ dyMm: 1.3 * emMm }),
    leaves: ({ emMm }) => ({ dyMm: 1.3 * emMm }),
    comes: { ms: 700, ease: [0.16, 1, 0.3, 1] },
    goes: { ms: 450, ease: [0.7, 0, 0.84, 0] },
    stagger: { unit: "letter", order: "first", stepMs: 35 },
    mask: "baseline",
  },
  {
    name: "Fog lifts",
    arrives: () => ({ opacity: 0, trackingEm: 0.5 }),
    leaves: () => ({ opacity: 0, trackingEm: 0.12 }),
    comes: { ms: 1600, ease: "out" },
    goes: { ms: 900, ease: "in" },
  },
  {
    name: "Lamp is lit",
    arrives: ({ weights }) => ({ opacity: 0, ...(weights && { axes: { wght: weights.min } }) }),
    leaves: ({ weights }) => ({ opacity: 0, ...(weights && { axes: { wght: weights.min } }) }),
    comes: { ms: 1100, ease: [0.3, 0, 0.1, 1] },
    goes: { ms: 700, ease: "in" },
    stagger: { unit: "letter", order: "middle", stepMs: 50 },
  },
  {
    name: "Washed in by word",
    arrives: ({ emMm }) => ({ opacity: 0, dxMm: -1.2 * emMm }),
    leaves: ({ emMm }) => ({ opacity: 0, dxMm: 1.2 * emMm }),
    comes: { ms: 800, ease: "out" },
    goes: { ms: 600, ease: "in" },
    stagger: { unit: "word", order: "first", stepMs: 160 },
  },
  {
    name: "Buoy",
    arrives: () => ({ opacity: 0, scale: 0.4, turnDeg: -12 }),
    leaves: () => ({ opacity: 0, scale: 0.8 }),
    comes: { ms: 700, ease: [0.3, 1.6, 0.5, 1] },
    goes: { ms: 400, ease: "in" },
    stagger: { unit: "letter", order: "shuffled", stepMs: 30 },
  },
];

/** How long a motion stands before it goes, where nothing else is said. */
const STANDS_MS = 2000;

/** @param settingOf - of a block. @returns the document with the look's three poses; its rate, if it had one, stays. */
export function startMotion(
  document: LetteringDocument,
  look: MotionLook,
  settingOf: (block: Block) => MotionSetting,
  standsMs = STANDS_MS,
): LetteringDocument {
  const { comes, goes, stagger, mask } = look;
  const posed = (poseOf: (setting: MotionSetting) => BlockPose) =>
    Object.fromEntries(document.blocks.map((b) => [b.id, poseOf(settingOf(b))]));
  const leavesAt = comes.ms + standsMs;
  const poses: Pose[] = [
    { id: "p_arrives", name: "Arrives", timeMs: 0, ease: comes.ease, blocks: posed(look.arrives) },
    { id: "p_stands", name: "Stands", timeMs: comes.ms, ease: "hold", blocks: {} },
    { id: "p_leaves", name: "Begins to leave", timeMs: leavesAt, ease: goes.ease, blocks: {} },
    { id: "p_gone", name: "Gone", timeMs: leavesAt + goes.ms, ease: "hold", blocks: posed(look.leaves) },
  ];
  const motion: PosedMotion = {
    durationMs: leavesAt + goes.ms + lastMs(document, stagger),
    fps: document.motion?.fps ?? 25,
    poses,
    ...(stagger && { stagger }),
    ...(mask && { mask }),
  };
  return withMotion(document, motion);
}

/** How late the last letter can be. */
function lastMs({ blocks }: LetteringDocument, stagger: Stagger | undefined): number {
  if (!stagger) return 0;
  const most = Math.max(
    ...blocks.map((b) =>
      stagger.unit === "letter" ? b.text.length : b.text.split(stagger.unit === "word" ? /\s+/ : "\n").length,
    ),
  );
  return Math.ceil((stagger.stepMs * (stagger.order === "middle" ? most / 2 : most)) / 100) * 100;
}
