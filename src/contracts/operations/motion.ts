// Motions of letterings: written as pictures, film or code in the background; handed to the cutting room that is connected.
import { z } from "zod";
import { InkColour } from "../colours";
import { ClipReport, CuttingRoom } from "../cuttingRoom";
import { BriefId, JobId } from "../ids";
import { LetteringDocument } from "../lettering";
import { Motion, MOTION_FORMATS, MOST_VIDEO_PX } from "../motion";
import { operations } from "./operation";

export const MotionRequest = z.object({
  document: LetteringDocument,
  motion: Motion.optional().describe("absent: what the document's poses say"),
  format: z.enum(MOTION_FORMATS),
  widthPx: z
    .number()
    .int()
    .min(16)
    .max(MOST_VIDEO_PX)
    .describe("the height follows from the sheet; odd sizes are rounded up to even"),
  ground: InkColour.nullable().optional().describe("null: none; absent: the sheet's"),
  briefId: BriefId.optional().describe("whose paper MP4 stands on where it has no ground"),
  repeats: z.boolean().optional().describe("APNG, GIF, SVG and CSS begin again at their end; absent: they play once"),
});
export type MotionRequest = z.infer<typeof MotionRequest>;

/** Moments side by side: a strip of pictures, as they are sent to somebody who decides. */
export const StripRequest = z.object({
  document: LetteringDocument,
  motion: Motion.optional(),
  moments: z.number().int().min(1).max(24).default(8),
  widthPx: z.number().int().min(16).max(1920).default(320).describe("of one moment"),
  ground: InkColour.nullable().optional(),
});
export type StripRequest = z.infer<typeof StripRequest>;

const FormatsHere = z.object({
  formats: z.array(
    z.object({
      format: z.enum(MOTION_FORMATS),
      isHere: z.boolean(),
      why: z.string().nullable().describe("why this machine cannot write it"),
    }),
  ),
});
export type FormatsHere = z.infer<typeof FormatsHere>;

export const MOTION_OPERATIONS = operations({
  startMotion: {
    method: "post",
    path: "/motion",
    summary: "Write a motion: its file is at /jobs/{id}/file when the job is done",
    access: "editor",
    body: MotionRequest,
    output: z.object({ jobId: JobId }),
    status: 202,
    changes: ["jobs"],
  },
  listMotionFormats: {
    method: "get",
    path: "/motion/formats",
    summary: "What motions can be written as on this machine",
    access: "reader",
    output: FormatsHere,
  },
  writeMotionStrip: {
    method: "post",
    path: "/motion/strip",
    summary: "Moments of a motion side by side, as PNG",
    access: "reader",
    body: StripRequest,
    file: ["image/png"],
    reads: ["styles"],
  },
  getCuttingRoom: {
    method: "get",
    path: "/cutting-room",
    summary: "The cutting room that is connected, and what it has taken in",
    access: "reader",
    output: z.object({ cuttingRoom: CuttingRoom.nullable().describe("null where none is connected") }),
  },
  handToCuttingRoom: {
    method: "post",
    path: "/cutting-room/clips",
    summary: "Lay the file of a motion's job into the cutting room's folder, and hear how it was taken in",
    access: "editor",
    body: z.object({ jobId: JobId, name: z.string().trim().min(1).max(80) }),
    output: ClipReport,
    status: 201,
  },
});
