// Faces opened from the file store, for whoever compares letters.
import type { FaceLoader } from "@/core/identify/registration/fit";
import { FaultError } from "@/contracts/errors";
import { cacheFaces } from "@/core/identify/identifyLine";
import { joinMovingParts, joinParts } from "@/core/outlines/joinParts";
import { openFace, openMovingFace, type MovingFace } from "@/core/outlines/openFace";
import { readStored } from "../db/fileStore";

/** The files of each style, by their sha256: the main one first, its other parts where they are needed. */
export type StoredFiles = ReadonlyMap<string, readonly string[]>;

/** By the hashes of its files: what was opened stays open when the index grows, as it does all through an import. */
const openStored = cacheFaces((files, coordinates) =>
  joinParts(files.split(" ").map((sha256) => openFace(readStored(sha256), coordinates ?? {}))),
);

/** Styles whose file is lost, each told once. */
const told = new Set<string>();

/** A face whose file is lost is left out; the others are compared. */
function openKnown<T>(stored: StoredFiles, styleId: string, open: (files: readonly string[]) => T): T | null {
  const files = stored.get(styleId);
  try {
    return files ? open(files) : null;
  } catch (error) {
    if (!(error instanceof FaultError)) throw error;
    if (!told.has(styleId)) console.error(`${styleId}: ${error.code}`);
    told.add(styleId);
    return null;
  }
}

export const loadStored =
  (stored: StoredFiles): FaceLoader =>
  (styleId, coordinates) =>
    openKnown(stored, styleId, (files) => openStored(files.join(" "), coordinates));

/** A face whose axes move, of all its parts. */
export const openMovingStored = (stored: StoredFiles, styleId: string): MovingFace | null =>
  openKnown(stored, styleId, (files) => joinMovingParts(files.map((sha256) => openMovingFace(readStored(sha256)))));
