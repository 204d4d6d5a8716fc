// Motions: checked before they are begun, written by a job; a strip of moments at once.
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { JobId } from "@/contracts/ids";
import type { Block, LetteringDocument } from "@/contracts/lettering";
import { MOST_FRAMES, MOTION_FORMATS, type Motion, type MotionFormat } from "@/contracts/motion";
import type { FormatsHere, MotionRequest, StripRequest } from "@/contracts/operations/motion";
import { countFrames, frameSize } from "@/core/motion/frames";
import { posesToTracks } from "@/core/motion/posesToTracks";
import type { Db } from "../db/open";
import { findBrief } from "../queries/briefs";
import { findStyle } from "../queries/styles";
import { addJob } from "../queue/queue";
import type { MotionPayload } from "../queue/payloads";
import { askLettering, askMotion } from "../workers/pool";
import { prepareDocument } from "./letterings";
import { refusalForWeb } from "./webkit";

/** Of a brief that was never given a colour. */
const PAPER = "#f3efe6";
/** What is kept in one file frame by frame, or code by code: longer ones no program opens. */
const MOST_BAKED = 3000;

const isBaked = (format: MotionFormat) => format === "lottie" || format === "svg" || format === "css";

/** What a motion says, in tracks. */
function motionOf(db: Db, document: LetteringDocument, motion: Motion | undefined): Outcome<Motion> {
  if (motion) return succeed(motion);
  if (!document.motion) return refuse("nothing-moves");
  const defaultOf = (block: Block, tag: string) =>
    findStyle(db, block.styleId)?.axes.find((a) => a.tag === tag)?.default ?? 0;
  return succeed(posesToTracks(document, document.motion, defaultOf));
}

/** Everything that can be known before the first frame is: faces, letters, curves, lengths. */
async function prepareMotion(
  db: Db,
  document: LetteringDocument,
  asked: Motion | undefined,
  signal?: AbortSignal,
): Promise<Outcome<{ motion: Motion; fonts: Record<string, string[]> }>> {
  const motion = motionOf(db, document, asked);
  if (!motion.ok) return motion;
  const fonts = prepareDocument(db, document);
  if (!fonts.ok) return fonts;
  const known = new Set(["sheet", ...document.blocks.map((b) => b.id)]);
  const stranger = motion.value.tracks.find((t) => !known.has(t.target));
  if (stranger) return refuse("bad-request", `No block of the document is called ${stranger.target}.`);
  const laid = await askLettering({ what: "canBeDrawn", document, fonts: fonts.value }, signal);
  return laid.ok ? succeed({ motion: motion.value, fonts: fonts.value }) : laid;
}

export async function startMotion(
  db: Db,
  request: MotionRequest,
  signal?: AbortSignal,
): Promise<Outcome<{ jobId: JobId }>> {
  const { document, format, briefId, repeats = false } = request;
  const brief = briefId ? findBrief(db, briefId) : null;
  if (briefId && !brief) return refuse("not-found");
  const prepared = await prepareMotion(db, document, request.motion, signal);
  if (!prepared.ok) return prepared;
  const { motion } = prepared.value;
  const frames = countFrames(motion);
  const most = isBaked(format) ? MOST_BAKED : MOST_FRAMES;
  if (frames > most)
    return refuse(
      "motion-too-long",
      `The motion has ${frames} frames; ${most} go into one file. Shorten it, or lower the rate.`,
    );
  if (format === "css") {
    const refused = refuseForWeb(db, document);
    if (refused) return refused;
  }
  const ground = request.ground === undefined ? document.sheet.ground : request.ground;
  const paper = format === "mp4" ? (brief?.paper.toLowerCase() ?? PAPER) : null;
  const payload: MotionPayload = {
    ...{ document, motion, format, repeats, briefId: briefId ?? null },
    ...frameSize(document.sheet, request.widthPx),
    ground: ground ?? paper,
    title: document.blocks
      .map((b) => b.text.replace(/\s+/g, " "))
      .join(" / ")
      .slice(0, 120),
  };
  return succeed({ jobId: addJob("motion", `${NAMES[format]} of “${payload.title}”`, payload, briefId ?? null) });
}

const NAMES: Record<MotionFormat, string> = {
  apng: "Animated PNG",
  "png-frames": "Frames",
  webm: "WebM",
  mp4: "MP4",
  gif: "GIF",
  lottie: "Lottie",
  svg: "Animated SVG",
  css: "CSS",
};

/** Live text takes its font along: its terms must clear it for the web. */
function refuseForWeb(db: Db, { blocks }: LetteringDocument) {
  const records = [...new Set(blocks.map((b) => b.styleId))].flatMap((id) => findStyle(db, id) ?? []);
  const refused = records.map((record) => ({ record, ...refusalForWeb(record) })).filter((r) => r.says !== null);
  if (!refused.length) return null;
  const said = refused.map((r) => `${r.record.family} ${r.record.style}: ${r.says}${r.quote ? ` “${r.quote}”` : ""}`);
  return refuse("not-for-web", `${said.join(" ")} SVG and Lottie take outlines instead of the font.`);
}

/** Video needs an encoder that runs here; all else is plain code. */
export async function listMotionFormats(): Promise<Outcome<FormatsHere>> {
  const can = await askMotion({ what: "canEncode" });
  const here = can.ok ? can.value : { webm: false, mp4: false };
  return succeed({
    formats: MOTION_FORMATS.map((format) => {
      const isHere = format === "webm" || format === "mp4" ? here[format] : true;
      return {
        format,
        isHere,
        why: isHere ? null : "No encoder for it runs on this machine. Frames with alpha can be written instead.",
      };
    }),
  });
}

export async function writeMotionStrip(
  db: Db,
  request: StripRequest,
  signal?: AbortSignal,
): Promise<Outcome<Uint8Array>> {
  const { document, moments, widthPx } = request;
  const prepared = await prepareMotion(db, document, request.motion, signal);
  if (!prepared.ok) return prepared;
  const { motion, fonts } = prepared.value;
  const ground = request.ground === undefined ? document.sheet.ground : request.ground;
  const times = Array.from({ length: moments }, (_, i) => (moments > 1 ? (motion.durationMs * i) / (moments - 1) : 0));
  return askMotion(
    { what: "strip", document, motion, fonts, ...frameSize(document.sheet, widthPx), ground, times },
    signal,
  );
}
