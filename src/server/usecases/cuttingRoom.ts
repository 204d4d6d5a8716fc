// The cutting room that is connected: what it holds, and a finished motion laid into its folder.
import { existsSync } from "node:fs";
import type { ClipReport, CuttingRoom } from "@/contracts/cuttingRoom";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { MOTION_FILES } from "@/contracts/motion";
import { NamesOnce } from "@/core/write/fileNames";
import type { Db } from "../db/open";
import { askCuttingRoom, cuttingRoomUrl, layIntoFolder, tellOfClip } from "../libraries/cuttingRoom";
import { findJob } from "../queries/jobs";
import { findStyle } from "../queries/styles";
import type { MotionPayload } from "../queue/payloads";

export async function findCuttingRoom(signal?: AbortSignal): Promise<Outcome<{ cuttingRoom: CuttingRoom | null }>> {
  const url = cuttingRoomUrl();
  if (!url) return succeed({ cuttingRoom: null });
  const room = await askCuttingRoom(url, signal);
  return room.ok ? succeed({ cuttingRoom: room.value }) : room;
}

export async function handToCuttingRoom(
  db: Db,
  { jobId, name }: { jobId: string; name: string },
  signal?: AbortSignal,
): Promise<Outcome<ClipReport>> {
  const url = cuttingRoomUrl();
  if (!url) return refuse("no-cutting-room");
  const job = findJob(db, jobId);
  if (job?.kind !== "motion" || job.state !== "done" || !job.filePath || !existsSync(job.filePath))
    return refuse("job-gone");
  const { format, document } = JSON.parse(job.payload) as MotionPayload;
  const room = await askCuttingRoom(url, signal);
  if (!room.ok) return room;
  const isFrames = format === "png-frames";
  const clip = `${new NamesOnce().take(name)}${isFrames ? "" : `.${MOTION_FILES[format].extension}`}`;
  const laid = await layIntoFolder(room.value.folder, job.filePath, clip, isFrames);
  if (!laid.ok) return laid;
  const families = document.blocks.flatMap((b) => findStyle(db, b.styleId)?.family ?? []);
  return tellOfClip(url, clip, [...new Set(families)], signal);
}
