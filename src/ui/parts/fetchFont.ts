// Fonts that a worker of the page fetches by itself; those used last are kept.
import { LRUCache } from "lru-cache";

const MAX_FONTS = 32;
const fonts = new LRUCache<string, Promise<Uint8Array>>({ max: MAX_FONTS });

/** Rejects when the font cannot be had; it is asked for again the next time. */
export function fetchFont(address: string): Promise<Uint8Array> {
  let font = fonts.get(address);
  if (!font) {
    font = fetch(address).then(async (response) => {
      if (!response.ok) throw new Error(`${address} answered ${response.status}`);
      return new Uint8Array(await response.arrayBuffer());
    });
    fonts.set(address, font);
    font.catch(() => fonts.delete(address));
  }
  return font;
}
