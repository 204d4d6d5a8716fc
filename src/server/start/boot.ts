// What happens once when the server starts: the data folder is taken and looked at, what its seed names is put in, the jobs'
// process is started. A folder that cannot be used does not stop the server: it says what is wrong, and takes the folder when it can.
import { FaultError, sentenceOf } from "@/contracts/errors";
import { preparePasscodes } from "../access/sessions";
import { faultOfDisk } from "../db/diskFaults";
import { sweepIncoming, sweepStore } from "../db/fileStore";
import { lockDataFolder } from "../db/lock";
import { getDb, isSound, type Db } from "../db/open";
import { finishReading } from "../jobs/finishReading";
import { PART_COPIES } from "../jobs/partCopies";
import { addJob } from "../queue/queue";
import { superviseJobs } from "../jobs/supervise";
import { listJobsIn } from "../queries/jobs";
import { findMeta } from "../queries/records";
import { putLibrary } from "../queries/libraries";
import { countStyles } from "../queries/styles";
import { bootFault, setBootFault } from "../db/bootFault";
import { getHeld } from "../usecases/findings";
import { getLanguages } from "../usecases/languages";
import { warmIdentify } from "../usecases/identify";
import { OWN_LIBRARY } from "../usecases/imports";
import { wakeLibraries } from "../usecases/libraries";
import { plantSeed } from "./plantSeed";

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
  if (process.env.FOND_QUARRY_SEED) plantSeed(db, process.env.FOND_QUARRY_SEED, now);
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

const WARM_UP_AFTER_MS = 4000;
const INDEX_AFTER_MS = 50;
/** A larger index of signatures is loaded when a picture first comes: it takes 5 KB a style. */
const WARM_UP_MOST_STYLES = 20_000;

/** What a new version owes old data: copies that were merged are parted, styles that an older pipeline read are read again. */
function startOnce(db: Db) {
  const under = new Set(listJobsIn(db, "waiting", "running").map((j) => j.kind));
  if (findMeta(db, PART_COPIES) === "waiting" && !under.has("part-copies"))
    addJob("part-copies", "Tell renamed copies apart", {});
  finishReading(db);
}
