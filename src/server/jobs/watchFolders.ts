// Folders that are libraries are synced again a little after something in them changed. Watched from the jobs' process: a large or slow
// folder holds up no request.
import { subscribe, type AsyncSubscription } from "@parcel/watcher";
import type { Db } from "../db/open";
import { listLibraries } from "../queries/libraries";
import { startSync } from "../usecases/libraries";

const SETTLE_MS = 1500;
/** A folder that could not be watched (gone, or too many for this system) is tried again no sooner: its changes show at the next sync. */
const RETRY_MS = 10 * 60_000;

type Watched = { subscription: Promise<AsyncSubscription | null>; failedAt: number };
const watched = new Map<string, Watched>();

/** Watches what is connected and not watched yet, and leaves what is no longer connected. */
export function watchFolders(db: Db) {
  const connected = listLibraries(db).filter((l) => l.kind === "folder" && l.state === "connected" && l.url);
  for (const [id, { subscription }] of watched)
    if (!connected.some((l) => l.libraryId === id)) {
      void subscription.then((s) => s?.unsubscribe());
      watched.delete(id);
    }
  for (const { libraryId, url } of connected) {
    const known = watched.get(libraryId);
    if (!known || Date.now() - known.failedAt > RETRY_MS)
      watched.set(
        libraryId,
        watchFolder(url!, () => startSync(db, libraryId)),
      );
  }
}

function watchFolder(folder: string, changed: () => void): Watched {
  let timer: NodeJS.Timeout | undefined;
  const entry: Watched = { failedAt: Infinity, subscription: Promise.resolve(null) };
  const settle = (error: Error | null) => {
    if (error) entry.failedAt = Date.now();
    clearTimeout(timer);
    timer = setTimeout(changed, SETTLE_MS);
  };
  entry.subscription = subscribe(folder, settle, { ignore: ["**/.*", "**/.*/**"] }).catch(() => {
    entry.failedAt = Date.now();
    return null;
  });
  return entry;
}
