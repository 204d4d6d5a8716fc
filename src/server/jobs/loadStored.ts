// Faces opened from the file store, for whoever compares letters.
import type { FaceLoader } from "@/core/identify/fit";
import { openFace } from "@/core/outlines/openFace";
import { readStored } from "../db/fileStore";

/** @param sfnts - id of a style → sha256 of its stored file. */
export const loadStored =
  (sfnts: ReadonlyMap<string, string>): FaceLoader =>
  (styleId, coordinates) => {
    const sha = sfnts.get(styleId);
    return sha ? openFace(readStored(sha), coordinates ?? {}) : null;
  };
