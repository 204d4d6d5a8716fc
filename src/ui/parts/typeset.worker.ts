// Worker of the page: sets texts in a face of the library with the core's own typesetting, and writes what was set with a pen. It fetches
// the fonts by itself.
import { fetchFont } from "./fetchFont";
import type { TypesetRequest } from "./typesetSvg";

export type TypesetReply = { id: number } & (
  | { ok: true; svg: string }
  | { ok: false; code: "font-unreached" | "font-unread" | "nothing-drawn" }
);

// Loaded beside: a module that waits for the shaper would miss what is asked before it is there.
const loaded = import("./typesetSvg");

async function answer(request: TypesetRequest): Promise<TypesetReply> {
  const { id } = request;
  const read = await Promise.all(request.addresses.map(fetchFont)).catch(() => null);
  if (!read) return { id, ok: false, code: "font-unreached" };
  const { typesetSvg } = await loaded;
  try {
    const svg = typesetSvg(read, request);
    return svg ? { id, ok: true, svg } : { id, ok: false, code: "nothing-drawn" };
  } catch {
    return { id, ok: false, code: "font-unread" };
  }
}

self.addEventListener("message", (event: MessageEvent<TypesetRequest>) => {
  void answer(event.data).then((reply) => self.postMessage(reply));
});
