// Folders that are libraries are synced again a little after something in them changed. Watched from the jobs' process: a large or slow
// folder holds up no request.
import { watch, type FSWatcher } from "node:fs";
import { readdir } from "node:fs/promises";
import { join } from "node:path";
import type { Db } from "../db/open";
import { listLibraries } from "../queries/libraries";
import { startSync } from "../usecases/libraries";

const SETTLE_MS = 1500;
/** Folders watched of one library: beyond, changes show at the next sync. */
const MAX_FOLDERS = 300;

const watched = new Map<string, FSWatcher[]>();

/** Watches what is connected and not watched yet, and leaves what is no longer connected. */
export function watchFolders(db: Db) {
  const connected = listLibraries(db).filter((l) => l.kind === "folder" && l.state === "connected" && l.url);
  for (const [id, watchers] of watched)
    if (!connected.some((l) => l.libraryId === id)) {
      for (const w of watchers) w.close();
      watched.delete(id);
    }
  for (const { libraryId, url } of connected) {
    if (watched.has(libraryId)) continue;
    const watchers: FSWatcher[] = [];
    watched.set(libraryId, watchers);
    let timer: NodeJS.Timeout | undefined;
    const changed = () => {
      clearTimeout(timer);
      timer = setTimeout(() => startSync(db, libraryId), SETTLE_MS);
    };
    void watchTree(url!, watchers, changed);
  }
}

async function watchTree(root: string, watchers: FSWatcher[], changed: () => void) {
  const waiting = [root];
  while (waiting.length && watchers.length < MAX_FOLDERS) {
    const folder = waiting.shift()!;
    try {
      const watcher = watch(folder, changed);
      watcher.on("error", () => watcher.close());
      watchers.push(watcher);
      for (const entry of await readdir(folder, { withFileTypes: true }))
        if (entry.isDirectory() && !entry.name.startsWith(".")) waiting.push(join(folder, entry.name));
    } catch {
      // A folder that cannot be read is not watched: the sync says so.
    }
  }
}
