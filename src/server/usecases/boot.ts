// What happens once when the server starts: the data folder is taken and looked at, the demo's libraries and briefs are put in, the jobs'
// process is started. A folder that cannot be used does not stop the server: it says what is wrong, and takes the folder when it can.
import { FaultError, sentenceOf } from "@/contracts/errors";
import { PIPELINE_VERSION } from "@/contracts/pipeline";
import { DEMO_BRIEFS } from "../../../demo/briefs";
import { preparePasscodes } from "../access/sessions";
import { faultOfDisk } from "../db/diskFaults";
import { sweepIncoming, sweepStore } from "../db/fileStore";
import { lockDataFolder } from "../db/lock";
import { getDb, isSound, type Db } from "../db/open";
import { PART_COPIES } from "../jobs/partCopies";
import { addJob } from "../jobs/queue";
import { DEMO_LIBRARY } from "../jobs/readDemoLibrary";
import { superviseJobs } from "../jobs/supervise";
import { listDemoFonts } from "../libraries/demoPackages";
import { insertBrief, isBriefKnown } from "../queries/briefs";
import { listJobsIn } from "../queries/jobs";
import { findMeta } from "../queries/records";
import { findLibrary, putLibrary, updateLibrary } from "../queries/libraries";
import { countStyles, listOutdated, listReadPaths } from "../queries/styles";
import { bootFault, setBootFault } from "./bootFault";
import { getHeld } from "./findings";
import { getLanguages } from "./languages";
import { warmIdentify } from "./identify";
import { OWN_LIBRARY } from "./imports";
import { wakeLibraries } from "./libraries";

const AGAIN_AFTER_MS = 3000;

export function boot() {
  try {
    start();
    setBootFault(null);
  } catch (error) {
    const code = error instanceof FaultError ? error.code : faultOfDisk(error);
    if (!code) throw error;
    if (bootFault() !== code) console.error(`Fond Quarry cannot use its data folder. ${sentenceOf(code)}`);
    setBootFault(code);
    setTimeout(boot, AGAIN_AFTER_MS);
  }
}

function start() {
  lockDataFolder();
  const db = getDb();
  if (!isSound(db)) throw new FaultError("data-damaged");
  const now = new Date().toISOString();
  const passcodes = preparePasscodes();
  if (passcodes) process.stdout.write(`${tellPasscodes(passcodes)}\n`);
  sweepStore();
  sweepIncoming(new Set(listJobsIn(db, "waiting", "running", "failed").map((j) => j.jobId)));
  putLibrary(db, OWN_LIBRARY.libraryId, OWN_LIBRARY.name, "own", now);
  superviseJobs();
  if (process.env.FOND_QUARRY_DEMO === "1") {
    putLibrary(db, DEMO_LIBRARY.libraryId, DEMO_LIBRARY.name, "packages", now);
    for (const { briefId, fields } of DEMO_BRIEFS)
      if (!isBriefKnown(db, briefId)) insertBrief(db, briefId, fields, now);
    startDemoReading();
    connectStandIns(db);
  }
  startOnce(db);
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

const tellPasscodes = (p: Record<string, string>) =>
  [
    "",
    "Others can reach this server, so it asks for a passcode. These are told this once; the owner can change them under /access:",
    `  reader  ${p.reader}   looks, searches, compares`,
    `  editor  ${p.editor}   changes briefs and imports fonts`,
    `  owner   ${p.owner}   connects folders and catalogues, changes passcodes`,
    "",
  ].join("\n");

/** The stand-in libraries of the demo, where the process that serves them was started. One that was removed stays removed. */
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

/** What a new version owes old data: copies that were merged are parted, styles that an older pipeline read are read again. */
function startOnce(db: Db) {
  const under = new Set(listJobsIn(db, "waiting", "running").map((j) => j.kind));
  if (findMeta(db, PART_COPIES) === "waiting" && !under.has("part-copies"))
    addJob("part-copies", "Tell renamed copies apart", {});
  const outdated = listOutdated(db, PIPELINE_VERSION, DEMO_LIBRARY.libraryId).length;
  if (outdated && !under.has("reread")) addJob("reread", `Measure ${outdated} styles again`, {});
}

/** Starts the reading job unless all is read or one is under way. A cancelled one is started again at the next start. */
function startDemoReading() {
  const db = getDb();
  if (listJobsIn(db, "waiting", "running").some((j) => j.kind === "read-library")) return;
  const all = listDemoFonts(process.cwd());
  const read = new Set(listReadPaths(db, DEMO_LIBRARY.libraryId, PIPELINE_VERSION));
  if (all.some((f) => !read.has(f.source))) addJob("read-library", `Read ${DEMO_LIBRARY.name.toLowerCase()}`, {});
}
