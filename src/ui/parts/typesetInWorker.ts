// Asks the page's typesetting worker.
import { makeAsker } from "./askWorker";
import type { TypesetReply } from "./typeset.worker";
import type { TypesetRequest } from "./typesetSvg";

export const typesetInWorker = makeAsker<Omit<TypesetRequest, "id">, TypesetReply>(
  () => new Worker(new URL("./typeset.worker.ts", import.meta.url), { type: "module" }),
  (id) => ({ id, ok: false, code: "font-unread" }),
);
