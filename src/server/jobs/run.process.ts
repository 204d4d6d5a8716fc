// Program of the jobs' process: imports, syncs, purchases, hand-overs and readings are done here, beside the server. It tells the
// server that it lives; one that hangs is killed there and started again.
import { getDb } from "../db/open";
import { yieldReaders } from "../workers/pool";
import { watchOwnProcess } from "../workers/watch";
import { buyFonts } from "./buyFonts";
import { handOver } from "./handOver";
import { importFiles } from "./importFiles";
import { makeWebkit } from "./makeWebkit";
import { clearMotionFolders, renderMotion } from "./renderMotion";
import { partCopies } from "./partCopies";
import { findJob } from "../queries/jobs";
import { startQueue, stopJob, wakeQueue, type JobsMessage } from "../queue/queue";
import { rereadStyles } from "./finishReading";
import { syncLibrary } from "./syncLibrary";
import { watchFolders } from "./watchFolders";

const BEAT_MS = 500;
const MEMORY_MB = 1536;

watchOwnProcess(MEMORY_MB);
process.on("disconnect", () => process.kill(process.pid, "SIGKILL"));
setInterval(() => process.send?.("beat"), BEAT_MS);
process.on("message", (message: JobsMessage) => {
  if ("cancel" in message) return stopJob(message.cancel);
  if ("yields" in message) return yieldReaders(message.yields);
  if ("close" in message) {
    getDb().close();
    process.exit(0);
  }
  wakeQueue();
  watchFolders(getDb());
});
startQueue({
  reread: rereadStyles,
  "part-copies": partCopies,
  import: importFiles,
  "sync-library": syncLibrary,
  buy: buyFonts,
  handover: handOver,
  webkit: makeWebkit,
  motion: renderMotion,
});
clearMotionFolders((jobId) => ["waiting", "running"].includes(findJob(getDb(), jobId)?.state ?? ""));
watchFolders(getDb());
