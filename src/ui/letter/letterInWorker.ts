// Asks the lettering worker, or a second one of the same kind for what takes long and nobody waits for.
import { makeAsker } from "../parts/askWorker";
import type { LetterAnswer, LetterTask } from "./letter.worker";

const makeOne = () =>
  makeAsker<LetterTask, LetterAnswer>(
    () => new Worker(new URL("./letter.worker.ts", import.meta.url), { type: "module" }),
    (id) => ({ id, isUnreached: true }),
  );

export const letterInWorker = makeOne();
export const letterBeside = makeOne();
