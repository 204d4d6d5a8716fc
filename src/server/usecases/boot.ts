// What happens once when the server starts: the database, the demo's libraries and briefs, the jobs that were under way.
import { PIPELINE_VERSION } from "@/contracts/pipeline";
import { DEMO_BRIEFS } from "../../../demo/briefs";
import { sweepStore } from "../db/fileStore";
import { getDb, type Db } from "../db/open";
import { addJob, resumeJobs } from "../jobs/queue";
import { DEMO_LIBRARY } from "../jobs/readDemoLibrary";
import { listDemoFonts } from "../libraries/demoPackages";
import { insertBrief, isBriefKnown } from "../queries/briefs";
import { listJobsIn } from "../queries/jobs";
import { findLibrary, putLibrary, updateLibrary } from "../queries/libraries";
import { countStyles, listOutdated, listReadPaths } from "../queries/styles";
import { getHeld } from "./findings";
import { getLanguages } from "./languages";
import { warmIdentify } from "./identify";
import { OWN_LIBRARY } from "./imports";
import { wakeLibraries } from "./libraries";

export function boot() {
  const db = getDb();
  const now = new Date().toISOString();
  sweepStore();
  putLibrary(db, OWN_LIBRARY.libraryId, OWN_LIBRARY.name, "own", now);
  if (process.env.FOND_QUARRY_DEMO === "1") {
    putLibrary(db, DEMO_LIBRARY.libraryId, DEMO_LIBRARY.name, "packages", now);
    for (const { briefId, fields } of DEMO_BRIEFS)
      if (!isBriefKnown(db, briefId)) insertBrief(db, briefId, fields, now);
    startDemoReading();
    connectStandIns(db);
  }
  startRereading(db);
  resumeJobs();
  wakeLibraries(db);
  // The first question finds its index ready.
  setTimeout(() => {
    getHeld(db);
    getLanguages();
  }, INDEX_AFTER_MS).unref();
  // Not at once: the first page comes first. Not while fonts are read: the index would be out of date at once.
  setTimeout(() => {
    const isSmall = countStyles(db).styles <= WARM_UP_MOST_STYLES;
    if (isSmall && !listJobsIn(db, "waiting", "running").length) warmIdentify(db);
  }, WARM_UP_AFTER_MS).unref();
}

/** The stand-in libraries of the demo, where the process that serves them was started. One that was taken away stays away. */
function connectStandIns(db: Db) {
  const base = process.env.FOND_QUARRY_STANDINS;
  if (!base) return;
  for (const { libraryId, name, path } of STAND_INS) {
    const known = findLibrary(db, libraryId);
    if (known?.state === "removed") continue;
    const url = `${base}/${path}/opds.json`;
    putLibrary(db, libraryId, name, "opds", new Date().toISOString(), url);
    // The port may be another one than last time.
    if (known && known.url !== url) updateLibrary(db, libraryId, { url, cursor: null });
  }
}
const STAND_INS = [
  { libraryId: "tidewrack-commons", name: "Tidewrack Commons", path: "commons" },
  { libraryId: "ropewalk-lane", name: "Ropewalk Lane", path: "ropewalk" },
  { libraryId: "halyard-and-lens", name: "Halyard & Lens", path: "halyard" },
];

const WARM_UP_AFTER_MS = 4000;
const INDEX_AFTER_MS = 50;
/** A larger index of signatures is loaded when a picture first comes: it takes 5 KB a style. */
const WARM_UP_MOST_STYLES = 20_000;

/** Styles of other libraries that an older version measured are measured again, from their stored files. */
function startRereading(db: Db) {
  if (listJobsIn(db, "waiting", "running").some((j) => j.kind === "reread")) return;
  const waiting = listOutdated(db, PIPELINE_VERSION, DEMO_LIBRARY.libraryId).length;
  if (waiting) addJob("reread", `Measure ${waiting} styles anew`, {});
}

/** Starts the reading job unless all is read or one is under way. A cancelled one is started anew at the next start. */
export function startDemoReading() {
  const db = getDb();
  if (listJobsIn(db, "waiting", "running").some((j) => j.kind === "read-library")) return;
  const all = listDemoFonts(process.cwd());
  const read = new Set(listReadPaths(db, DEMO_LIBRARY.libraryId, PIPELINE_VERSION));
  if (all.some((f) => !read.has(f.source))) addJob("read-library", `Read ${DEMO_LIBRARY.name.toLowerCase()}`, {});
}
