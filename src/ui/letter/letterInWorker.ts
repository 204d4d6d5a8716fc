// Asks the lettering worker.
import { makeAsker } from "../parts/askWorker";
import type { LetterAnswer, LetterTask } from "./letter.worker";

export const letterInWorker = makeAsker<LetterTask, LetterAnswer>(
  () => new Worker(new URL("./letter.worker.ts", import.meta.url), { type: "module" }),
  (id) => ({ id, isUnreached: true }),
);
