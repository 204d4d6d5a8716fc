// Where unsaved changes wait while a page is away: the browser's storage, one place for each tab. A tab takes over what another one left
// behind when it was closed.
import { makeId } from "./makeId";
import type { Save } from "./saves";

type Left = { at: number; saves: Save[] };
const keyOf = (briefId: string, tab: string) => `unsaved ${briefId} ${tab}`;
/** A tab that lives says so every few seconds. */
export const SIGN_OF_LIFE_MS = 3_000;
const LEFT_AFTER_MS = 10_000;

/** The id of this tab: the same after a reload. */
export function tabId(): string {
  let id = sessionStorage.getItem("tab");
  if (!id) sessionStorage.setItem("tab", (id = makeId(3)));
  return id;
}

export function openStore(briefId: string, tab: string) {
  return {
    read(): Save[] {
      const prefix = keyOf(briefId, "");
      const own = readLeft(keyOf(briefId, tab));
      const others = Object.keys(localStorage)
        .filter((k) => k.startsWith(prefix) && k !== keyOf(briefId, tab))
        .flatMap((k) => {
          const left = readLeft(k);
          if (!left || Date.now() - left.at < LEFT_AFTER_MS) return [];
          localStorage.removeItem(k);
          return left.saves;
        });
      return [...others, ...(own?.saves ?? [])];
    },
    write(saves: Save[]) {
      if (!saves.length) localStorage.removeItem(keyOf(briefId, tab));
      else put(keyOf(briefId, tab), { at: Date.now(), saves });
    },
  };
}

/** What this tab had not saved yet when its page was left or loaded again. */
export const readWaiting = (briefId: string): readonly Save[] =>
  typeof localStorage === "undefined" ? [] : (readLeft(keyOf(briefId, tabId()))?.saves ?? []);

/** Storage that is full or forbidden keeps nothing over a reload; what waits stays in the page. */
function put(key: string, left: Left) {
  try {
    localStorage.setItem(key, JSON.stringify(left));
  } catch {
    localStorage.removeItem(key);
  }
}

function readLeft(key: string): Left | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") as Left | null;
  } catch {
    return null;
  }
}
