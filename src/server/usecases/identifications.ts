// Keeping identifications with a brief, and giving them back as they were.
import { randomBytes } from "node:crypto";
import type { IdentificationState, IdentificationSummary, SavedIdentification } from "@/contracts/identifications";
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { Db } from "../db/open";
import { readStored, storeFile } from "../db/fileStore";
import { preparePictureInWorker } from "../workers/pool";
import { findBrief } from "../queries/briefs";
import {
  findIdentification,
  insertIdentification,
  listIdentifications,
  setIdentificationRemoved,
  type StoredIdentification,
} from "../queries/identifications";
import { MAX_PICTURE_BYTES } from "@/contracts/limits";

/** Pictures are given back as what they came, if that is a picture of pixels: nothing that a browser would run. */
const TYPES = ["image/png", "image/jpeg", "image/webp", "image/gif", "image/tiff", "image/avif"];

const toSummary = ({
  sha256: _sha256,
  state: _state,
  briefId: _briefId,
  type: _type,
  ...summary
}: StoredIdentification): IdentificationSummary => summary;
const toSaved = ({ sha256: _sha256, ...saved }: StoredIdentification): SavedIdentification => saved;

export async function saveIdentification(
  db: Db,
  briefId: string,
  picture: { name: string; type: string; bytes: Uint8Array },
  state: IdentificationState,
  signal?: AbortSignal,
): Promise<Outcome<SavedIdentification>> {
  if (!findBrief(db, briefId)) return refuse("not-found");
  if (!picture.bytes.length) return refuse("picture-empty");
  if (picture.bytes.length > MAX_PICTURE_BYTES) return refuse("picture-too-large");
  // What is no picture is not kept as one: its question sheet would fail later.
  const seen = await preparePictureInWorker({ image: picture.bytes }, signal);
  if (!seen.ok) return refuse(seen.code, `${picture.name}: ${refuse(seen.code).message}`);
  const id = `d_${randomBytes(8).toString("hex")}`;
  const sha256 = storeFile(picture.bytes);
  const type = TYPES.includes(picture.type) ? picture.type : "application/octet-stream";
  const name = picture.name.slice(0, 200) || "picture";
  insertIdentification(db, { id, briefId, name, sha256, type, state, at: new Date().toISOString() });
  return succeed(toSaved(findIdentification(db, briefId, id)!));
}

export const listSavedIdentifications = (db: Db, briefId: string): IdentificationSummary[] =>
  listIdentifications(db, briefId).map(toSummary);

export function getIdentification(db: Db, briefId: string, id: string): SavedIdentification | null {
  const found = findIdentification(db, briefId, id);
  return found && toSaved(found);
}

export function readIdentifiedPicture(db: Db, briefId: string, id: string): { bytes: Uint8Array; type: string } | null {
  const found = findIdentification(db, briefId, id);
  return found && { bytes: readStored(found.sha256), type: found.type };
}

/** Removed or brought back. */
export const removeIdentification = (db: Db, briefId: string, id: string, isRemoved: boolean): boolean =>
  setIdentificationRemoved(db, briefId, id, isRemoved ? new Date().toISOString() : null);
