// Faces opened from the file store, for whoever compares letters.
import type { FaceLoader } from "@/core/identify/registration/fit";
import { FaultError } from "@/contracts/errors";
import { openFace } from "@/core/outlines/openFace";
import { readStored } from "../db/fileStore";

/** @param sfnts - id of a style → sha256 of its stored file. */
export const loadStored =
  (sfnts: ReadonlyMap<string, string>): FaceLoader =>
  (styleId, coordinates) => {
    const sha = sfnts.get(styleId);
    try {
      return sha ? openFace(readStored(sha), coordinates ?? {}) : null;
    } catch (error) {
      // A face whose file is lost is left out; the others are compared.
      if (!(error instanceof FaultError)) throw error;
      console.error(`${styleId}: ${error.code}`);
      return null;
    }
  };
