// Puts libraries and briefs in that a file names. What is there already stays as it is; a library that was removed stays removed.
import { readFileSync } from "node:fs";
import { Seed } from "@/contracts/seed";
import type { Db } from "../db/open";
import { insertBrief, isBriefKnown } from "../queries/briefs";
import { findLibrary, putLibrary, updateLibrary } from "../queries/libraries";

/** @param file - JSON of a seed. @throws when it is no seed: whoever wrote it has made a mistake. */
export function plantSeed(db: Db, file: string, now: string) {
  const { libraries, briefs } = Seed.parse(JSON.parse(readFileSync(file, "utf8")));
  for (const { briefId, fields } of briefs) if (!isBriefKnown(db, briefId)) insertBrief(db, briefId, fields, now);
  for (const { libraryId, name, kind, address } of libraries) {
    const known = findLibrary(db, libraryId);
    if (known?.state === "removed") continue;
    putLibrary(db, libraryId, name, kind, now, address);
    // Its port or folder may be another one than last time.
    if (known && known.url !== address) updateLibrary(db, libraryId, { url: address, cursor: null, syncedAt: null });
  }
}
