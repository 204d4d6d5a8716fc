// What the lettering worker does with a motion: draws its moments, and tells what a viewer would trip over.
import { LRUCache } from "lru-cache";
import type { Block, LetteringDocument } from "@/contracts/lettering";
import type { Motion } from "@/contracts/motion";
import { flattenOutline, type Affine, type Bounds, type Outline } from "@/core/geometry/outline";
import { solidOf } from "@/core/letter/fills";
import type { Paint } from "@/core/letter/paintLettering";
import { findThinStrokes } from "@/core/letter/thinStrokes";
import { unitePolygons } from "@/core/geometry/polygons";
import { boundsOfGroup, drawFrame, newFrameMemory, type FrameGroup, type FrameMemory } from "@/core/motion/drawFrame";
import { posesToTracks } from "@/core/motion/posesToTracks";
import { READ_FROM } from "@/core/motion/contrastOver";
import type { MovingFace } from "@/core/outlines/openFace";
import type { LayoutFault } from "@/core/letter/layoutLettering";

/** `outline`: number of a path that came with this answer or one before. `box`: of its ink on the sheet, mm. */
export type DrawnPart = { outline: number; paint: Paint; blurMm: number };
export type DrawnGroup = {
  blockId: string;
  by: Affine;
  opacity: number;
  clip: Float64Array | null;
  parts: DrawnPart[];
  box: Bounds | null;
};
export type DrawnMoment = { timeMs: number; groups: DrawnGroup[] };
/** A path by its number, as the canvas draws it: written as text it would have to be read again, sixty times a second. */
export type DrawnPath = [number: number, outline: Outline];
export type Moments = { ok: true; moments: DrawnMoment[]; paths: DrawnPath[] } | LayoutFault;

type Opened = { memory: FrameMemory; document: LetteringDocument; motion: Motion };
/** The motion at work, and the same as its poses are drawn. */
const MOST_OPEN = 4;
const opened = new LRUCache<string, Opened>({ max: MOST_OPEN });
const numbers = new WeakMap<Outline, number>();
let count = 0;

/** Its own name for a document, so that what was worked out for it is used again. */
function openMotion(document: LetteringDocument, faceOf: (block: Block) => MovingFace): Opened {
  const key = JSON.stringify(document);
  let known = opened.get(key);
  if (!known) {
    const poses = document.motion ?? { durationMs: 1, fps: 25, poses: [] };
    const defaultOf = (block: Block, tag: string) => faceOf(block).defaultOf(tag);
    known = { document, motion: posesToTracks(document, poses, defaultOf), memory: newFrameMemory() };
    opened.set(key, known);
  }
  return known;
}

/** @param sent - numbers of paths that the page has; those of this answer are added. */
export function drawMoments(
  asked: LetteringDocument,
  timesMs: readonly number[],
  faceOf: (block: Block) => MovingFace,
  sent: Set<number>,
): Moments {
  const { document, motion, memory } = openMotion(asked, faceOf);
  const paths: DrawnPath[] = [];
  const numberOf = (outline: Outline): number => {
    let number = numbers.get(outline);
    if (number === undefined) numbers.set(outline, (number = ++count));
    if (!sent.has(number)) {
      sent.add(number);
      paths.push([number, outline]);
    }
    return number;
  };
  const moments: DrawnMoment[] = [];
  for (const timeMs of timesMs) {
    const frame = drawFrame(document, motion, timeMs, faceOf, memory);
    if (!frame.ok) return frame;
    moments.push({ timeMs, groups: frame.groups.map((group) => describeGroup(group, numberOf)) });
  }
  return { ok: true, moments, paths };
}

function describeGroup(group: FrameGroup, numberOf: (outline: Outline) => number): DrawnGroup {
  const { blockId, by, opacity, clip, parts } = group;
  return {
    ...{ blockId, by, opacity, clip, box: boundsOfGroup(group) },
    parts: parts.map(({ outline, paint, blurMm }) => ({ outline: numberOf(outline), paint, blurMm })),
  };
}

/** A colour of letters at a moment, how strongly they show, and where. */
export type InkSample = { timeMs: number; colour: string; opacity: number; box: Bounds };
/** `standsMs`: how long all letters can be read at once. `thinnest`: mm on the sheet; null where no stroke is narrow. */
export type MotionTold = { samples: InkSample[]; standsMs: number; thinnest: { mm: number; timeMs: number } | null };

const SAMPLES = 40;
const THIN_SAMPLES = 4;

/** @param lookMm - strokes that are wider are not looked for. */
export function tellMotion(
  asked: LetteringDocument,
  faceOf: (block: Block) => MovingFace,
  lookMm: number,
): MotionTold | null {
  const { document, motion, memory } = openMotion(asked, faceOf);
  const told: MotionTold = { samples: [], standsMs: 0, thinnest: null };
  const fills = new Map(document.blocks.map((b) => [b.id, solidOf(b.fill)]));
  for (let i = 0; i <= SAMPLES; i++) {
    const timeMs = (motion.durationMs * i) / SAMPLES;
    const frame = drawFrame(document, motion, timeMs, faceOf, memory);
    if (!frame.ok) return null;
    const seen = frame.groups.flatMap((group) => {
      const box = group.opacity >= READ_FROM ? boundsOfGroup(group) : null;
      return box && isOnSheet(box, group.clip, document) ? [{ group, box }] : [];
    });
    if (seen.length === frame.groups.length && seen.length && i < SAMPLES) told.standsMs += motion.durationMs / SAMPLES;
    for (const { group, box } of seen) {
      const colour = group.state.fill ?? fills.get(group.blockId)!;
      told.samples.push({ timeMs, colour, opacity: group.opacity, box });
    }
    if (i % Math.ceil(SAMPLES / THIN_SAMPLES) === 0)
      lookThin(
        told,
        seen.map((s) => s.group),
        timeMs,
        lookMm,
      );
  }
  return told;
}

function isOnSheet(box: Bounds, clip: Float64Array | null, { sheet }: LetteringDocument): boolean {
  const edge = clip ? Math.max(clip[5]!, clip[7]!) : sheet.heightMm;
  return box.xMax > 0 && box.xMin < sheet.widthMm && box.yMin >= -1 && box.yMax <= Math.min(sheet.heightMm, edge) + 1;
}

function lookThin(told: MotionTold, groups: readonly FrameGroup[], timeMs: number, lookMm: number) {
  for (const { parts, by } of groups) {
    const scale = Math.hypot(by.a, by.b) || 1;
    for (const part of parts.filter((p) => p.role === "fill")) {
      const { thinnestMm } = findThinStrokes(unitePolygons([flattenOutline(part.outline, 0.02)]), 0, lookMm / scale);
      const mm = thinnestMm === null ? null : thinnestMm * scale;
      if (mm !== null && (!told.thinnest || mm < told.thinnest.mm)) told.thinnest = { mm, timeMs };
    }
  }
}
