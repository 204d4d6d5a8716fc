// The picture of a brief, on which faces can be set: taken in, given out, removed.
import type { FaultCode } from "@/contracts/errors";
import type { Db } from "../db/open";
import { readStored, storeFile } from "../db/fileStore";
import { preparePictureInWorker } from "../jobs/pool";
import { findBrief, findBriefPicture, putBriefPicture, removeBriefPicture } from "../queries/briefs";

export const MOST_BYTES = 60e6;

type Outcome = { ok: true; picture: string } | { ok: false; code: FaultCode; message?: string };

export async function putPicture(
  db: Db,
  briefId: string,
  name: string,
  image: Uint8Array,
  signal?: AbortSignal,
): Promise<Outcome> {
  if (!findBrief(db, briefId)) return { ok: false, code: "not-found" };
  if (!image.length) return { ok: false, code: "picture-empty" };
  if (image.length > MOST_BYTES) return { ok: false, code: "picture-too-large" };
  const ready = await preparePictureInWorker({ image }, signal);
  if (!ready.ok) return { ok: false, code: ready.code };
  const sha256 = storeFile(ready.jpeg);
  const { widthPx, heightPx } = ready;
  putBriefPicture(db, briefId, { sha256, widthPx, heightPx, name: name.slice(0, 200) }, new Date().toISOString());
  return { ok: true, picture: sha256 };
}

export function readPicture(db: Db, briefId: string): Uint8Array | null {
  const known = findBriefPicture(db, briefId);
  return known && readStored(known.sha256);
}

export const removePicture = (db: Db, briefId: string): boolean => removeBriefPicture(db, briefId);
