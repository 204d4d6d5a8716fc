// What the handlers of jobs are given, by kind, as the queue keeps it.
import type { LetteringDocument } from "@/contracts/lettering";
import type { Motion, MotionFormat } from "@/contracts/motion";

/** Files that were uploaded, and where they lie until they are read. */
export type ImportPayload = { libraryId: string; folder: string; files: { name: string; saved: string }[] };
export type SyncPayload = { libraryId: string };

/** A motion that is written; its faces are found again when it is. */
export type MotionPayload = {
  document: LetteringDocument;
  motion: Motion;
  format: MotionFormat;
  widthPx: number;
  heightPx: number;
  ground: string | null;
  repeats: boolean;
  title: string;
  briefId: string | null;
};
