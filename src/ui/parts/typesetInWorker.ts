// Asks the page's typesetting worker, which is started with the first text and started again when it breaks.
import type { TypesetReply } from "./typeset.worker";
import type { TypesetRequest } from "./typesetSvg";

type Asked = (reply: TypesetReply) => void;
let worker: Worker | null = null;
let count = 0;
const asked = new Map<number, Asked>();

function start(): Worker {
  const started = new Worker(new URL("./typeset.worker.ts", import.meta.url), { type: "module" });
  started.addEventListener("message", ({ data }: MessageEvent<TypesetReply>) => {
    asked.get(data.id)?.(data);
    asked.delete(data.id);
  });
  started.addEventListener("error", () => {
    started.terminate();
    worker = null;
    for (const [id, reply] of asked) reply({ id, ok: false, code: "font-unread" });
    asked.clear();
  });
  return started;
}

export function typesetInWorker(request: Omit<TypesetRequest, "id">): Promise<TypesetReply> {
  worker ??= start();
  const id = ++count;
  return new Promise((resolve) => {
    asked.set(id, resolve);
    worker!.postMessage({ ...request, id } satisfies TypesetRequest);
  });
}
