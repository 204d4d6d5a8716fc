// A thread that watches its own process from beside: code that hangs, or is native, cannot be asked. It kills the process when the
// parent is gone or memory runs over.
import { Worker } from "node:worker_threads";

const LOOK_MS = 40;
/** Small and self-contained, so that it runs from any bundle. */
const PROGRAM = `
const { workerData: { memoryBytes, parent, everyMs } } = require("node:worker_threads");
setInterval(() => {
  if (process.ppid !== parent || process.memoryUsage.rss() > memoryBytes) process.kill(process.pid, "SIGKILL");
}, everyMs);`;

/** @param memoryMb - resident memory that this process may hold, script heap and native together. */
export function watchOwnProcess(memoryMb: number) {
  const workerData = { memoryBytes: memoryMb * 1024 * 1024, parent: process.ppid, everyMs: LOOK_MS };
  new Worker(PROGRAM, { eval: true, workerData }).unref();
}
