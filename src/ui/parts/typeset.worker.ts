// Worker of the page: sets texts in a face of the library with the core's own typesetting, and writes what was set with a pen. It fetches
// the font by itself and keeps the faces it used last.
import { LRUCache } from "lru-cache";
import type { TypesetRequest } from "./typesetSvg";

export type TypesetReply = { id: number } & (
  { ok: true; svg: string } | { ok: false; code: "font-unreached" | "font-unread" | "nothing-drawn" }
);

const fonts = new LRUCache<string, Uint8Array>({ max: 12 });

async function fetchFont(address: string): Promise<Uint8Array | null> {
  const known = fonts.get(address);
  if (known) return known;
  try {
    const response = await fetch(address);
    if (!response.ok) return null;
    const font = new Uint8Array(await response.arrayBuffer());
    fonts.set(address, font);
    return font;
  } catch {
    return null;
  }
}

// Loaded beside: a module that waits for the shaper would miss what is asked before it is there.
const loaded = import("./typesetSvg");

async function answer(request: TypesetRequest): Promise<TypesetReply> {
  const { id } = request;
  const asked = await Promise.all(request.addresses.map(fetchFont));
  const read = asked.filter((font) => font !== null);
  if (read.length < asked.length) return { id, ok: false, code: "font-unreached" };
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
