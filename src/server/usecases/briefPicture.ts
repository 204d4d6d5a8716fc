// The picture of a brief, on which faces can be set: taken in, given out, removed.
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import { MAX_BRIEF_PICTURE_BYTES } from "@/contracts/limits";
import type { Db } from "../db/open";
import { readStored, storeFile } from "../db/fileStore";
import { preparePictureInWorker } from "../workers/pool";
import { findBrief, findBriefPicture, putBriefPicture, removeBriefPicture } from "../queries/briefs";

export async function putPicture(
  db: Db,
  briefId: string,
  name: string,
  image: Uint8Array,
  signal?: AbortSignal,
): Promise<Outcome<{ picture: string }>> {
  if (!findBrief(db, briefId)) return refuse("not-found");
  if (!image.length) return refuse("picture-empty");
  if (image.length > MAX_BRIEF_PICTURE_BYTES) return refuse("picture-too-large");
  const ready = await preparePictureInWorker({ image }, signal);
  if (!ready.ok) return refuse(ready.code);
  const sha256 = storeFile(ready.jpeg);
  const { widthPx, heightPx } = ready;
  putBriefPicture(db, briefId, { sha256, widthPx, heightPx, name: name.slice(0, 200) }, new Date().toISOString());
  return succeed({ picture: sha256 });
}

export function readPicture(db: Db, briefId: string): Uint8Array | null {
  const known = findBriefPicture(db, briefId);
  return known && readStored(known.sha256);
}

export const removePicture = (db: Db, briefId: string): boolean => removeBriefPicture(db, briefId);
