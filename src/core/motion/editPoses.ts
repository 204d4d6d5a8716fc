// Edits of a document's poses. Each gives a new document, so that each is a step that can be undone.
import type { Block, LetteringDocument } from "@/contracts/lettering";
import { MOST_MS, type BlockPose, type Ease, type Pose, type PosedMotion, type Stagger } from "@/contracts/poses";
import { inOrder } from "./posesToTracks";

export const withMotion = (document: LetteringDocument, motion: PosedMotion | undefined): LetteringDocument => {
  const { motion: _, ...rest } = document;
  return motion ? { ...rest, motion } : rest;
};

const change = (document: LetteringDocument, by: Partial<PosedMotion>): LetteringDocument =>
  document.motion ? withMotion(document, { ...document.motion, ...by }) : document;

export const changePose = (document: LetteringDocument, id: string, by: Partial<Omit<Pose, "id">>): LetteringDocument =>
  change(document, { poses: document.motion?.poses.map((p) => (p.id === id ? { ...p, ...by } : p)) });

const PLAIN: BlockPose = { dxMm: 0, dyMm: 0, scale: 1, turnDeg: 0, opacity: 1 };

/** One block of a pose; what is undefined, or as the document has it anyway, is dropped. */
export function changeBlockPose(
  document: LetteringDocument,
  poseId: string,
  blockId: string,
  by: Partial<BlockPose>,
): LetteringDocument {
  const pose = document.motion?.poses.find((p) => p.id === poseId);
  if (!pose) return document;
  const merged = { ...pose.blocks[blockId], ...by };
  const kept = Object.entries(merged).filter(
    ([key, value]) => value !== undefined && PLAIN[key as keyof BlockPose] !== value && !isEmpty(value),
  );
  const { [blockId]: _, ...others } = pose.blocks;
  const own = Object.fromEntries(kept) as BlockPose;
  return changePose(document, poseId, { blocks: kept.length ? { ...others, [blockId]: own } : others });
}
const isEmpty = (value: unknown) => typeof value === "object" && value !== null && !Object.keys(value).length;

/** @param value - null: as the document has it. */
export function changeAxis(
  document: LetteringDocument,
  poseId: string,
  blockId: string,
  tag: string,
  value: number | null,
): LetteringDocument {
  const { [tag]: _, ...others } = document.motion?.poses.find((p) => p.id === poseId)?.blocks[blockId]?.axes ?? {};
  const axes = value === null ? others : { ...others, [tag]: value };
  return changeBlockPose(document, poseId, blockId, { axes });
}

const AFTER_MS = 1000;

/** A pose as the lettering stands in the chosen one, a second later, or half way to the next. @param id - its name in the document. */
export function addPose(document: LetteringDocument, afterId: string | null, id: string): LetteringDocument {
  const { motion } = document;
  if (!motion) return document;
  const poses = inOrder(motion.poses);
  const at = Math.max(0, afterId === null ? poses.length - 1 : poses.findIndex((p) => p.id === afterId));
  const [own, next] = [poses[at]!, poses[at + 1]];
  const timeMs = Math.min(MOST_MS, next ? Math.round((own.timeMs + next.timeMs) / 2) : own.timeMs + AFTER_MS);
  const pose: Pose = { ...own, id, name: `Pose ${poses.length + 1}`, timeMs };
  return change(document, {
    poses: [...poses.slice(0, at + 1), pose, ...poses.slice(at + 1)],
    durationMs: Math.max(motion.durationMs, timeMs),
  });
}

/** The last pose takes the motion with it. */
export function removePose(document: LetteringDocument, id: string): LetteringDocument {
  const left = document.motion?.poses.filter((p) => p.id !== id) ?? [];
  return left.length ? change(document, { poses: left }) : withMotion(document, undefined);
}

export const changeEase = (document: LetteringDocument, id: string, ease: Ease) => changePose(document, id, { ease });

/** Later poses go along, so that what lies between them stays as long. */
export function changeTime(document: LetteringDocument, id: string, timeMs: number): LetteringDocument {
  const { motion } = document;
  const own = motion?.poses.find((p) => p.id === id);
  if (!motion || !own) return document;
  const before = inOrder(motion.poses).filter((p) => p.timeMs < own.timeMs || (p.timeMs === own.timeMs && p !== own));
  const least = Math.max(0, ...before.filter((p) => p.id !== id).map((p) => p.timeMs));
  const to = Math.round(Math.max(least, Math.min(MOST_MS, timeMs)));
  const by = to - own.timeMs;
  const poses = motion.poses.map((p) => (p.id === id || p.timeMs > own.timeMs ? { ...p, timeMs: p.timeMs + by } : p));
  const last = Math.max(...poses.map((p) => p.timeMs));
  return change(document, { poses, durationMs: Math.max(last, motion.durationMs + by, 1) });
}

export const changeStagger = (document: LetteringDocument, stagger: Stagger | undefined): LetteringDocument =>
  putField(document, "stagger", stagger);

export const changeMask = (document: LetteringDocument, isMasked: boolean): LetteringDocument =>
  putField(document, "mask", isMasked ? "baseline" : undefined);

/** Leaves a field out where its value is undefined: documents are compared byte by byte. */
function putField<K extends "stagger" | "mask">(
  document: LetteringDocument,
  key: K,
  value: PosedMotion[K],
): LetteringDocument {
  const { motion } = document;
  if (!motion) return document;
  const { [key]: _, ...rest } = motion;
  return withMotion(document, (value === undefined ? rest : { ...rest, [key]: value }) as PosedMotion);
}

export const changeTiming = (
  document: LetteringDocument,
  by: Partial<Pick<PosedMotion, "durationMs" | "fps">>,
): LetteringDocument => change(document, by);

/** Frames by the proportions that screens have. */
export const RATIOS = ["16:9", "9:16", "1:1", "4:5"] as const;
export type Ratio = (typeof RATIOS)[number];
export const shareOf = (ratio: Ratio) => {
  const [width, height] = ratio.split(":").map(Number);
  return width! / height!;
};

/** The sheet in another proportion with its shorter side as it was, all blocks about its middle as before. */
export function changeRatio(document: LetteringDocument, ratio: Ratio): LetteringDocument {
  const { sheet } = document;
  const share = shareOf(ratio);
  const short = Math.min(sheet.widthMm, sheet.heightMm);
  const tenth = (v: number) => Math.round(v * 10) / 10;
  const [widthMm, heightMm] = share >= 1 ? [tenth(short * share), short] : [short, tenth(short / share)];
  const [dx, dy] = [(widthMm - sheet.widthMm) / 2, (heightMm - sheet.heightMm) / 2];
  const moved = (b: Block): Block => ({ ...b, at: { xMm: b.at.xMm + dx, yMm: b.at.yMm + dy } });
  return { ...document, sheet: { ...sheet, widthMm, heightMm }, blocks: document.blocks.map(moved) };
}
