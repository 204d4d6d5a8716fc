// Faces opened from the file store, for whoever compares letters.
import type { FaceLoader } from "@/core/identify/registration/fit";
import { FaultError } from "@/contracts/errors";
import { cacheFaces } from "@/core/identify/identifyLine";
import { openFace } from "@/core/outlines/openFace";
import { readStored } from "../db/fileStore";

/** By the hash of its file: what was opened stays open when the index grows, as it does all through an import. */
const openStored = cacheFaces((sha256, coordinates) => openFace(readStored(sha256), coordinates ?? {}));

/** Styles whose file is lost, each told once. */
const told = new Set<string>();

/** @param sfnts - id of a style → sha256 of its stored file. */
export const loadStored =
  (sfnts: ReadonlyMap<string, string>): FaceLoader =>
  (styleId, coordinates) => {
    const sha256 = sfnts.get(styleId);
    try {
      return sha256 ? openStored(sha256, coordinates) : null;
    } catch (error) {
      // A face whose file is lost is left out; the others are compared.
      if (!(error instanceof FaultError)) throw error;
      if (!told.has(styleId)) console.error(`${styleId}: ${error.code}`);
      told.add(styleId);
      return null;
    }
  };
