// The server's end of the jobs' process: starts it, listens for its beat, kills one that hangs, counts its ends against the jobs that
// ran, and starts it again.
import type { ChildProcess } from "node:child_process";
import { join } from "node:path";
import { getDb } from "../db/open";
import { forkNode } from "../workers/forkNode";
import { countCrash } from "../queries/jobs";
import { tellQueue, type JobsMessage } from "../queue/queue";

type Supervision = {
  /** No beat for so long: it hangs. Longer than any step that is meant to block. */
  hangsAfterMs?: number;
  program?: string;
};
const HANGS_AFTER_MS = 20_000;
const LOOK_MS = 1_000;
const AGAIN_AFTER_MS = 300;
const LONGEST_PAUSE_MS = 30_000;

const shared = globalThis as unknown as { fondQuarryJobs?: { close: () => void } };

/** Starts the jobs' process unless it runs. What ran when this server ended counts as an end of the program. */
export function superviseJobs({ hangsAfterMs = HANGS_AFTER_MS, program }: Supervision = {}) {
  if (shared.fondQuarryJobs) return;
  let child: ChildProcess | null = null;
  let lastBeat = 0;
  let pauseMs = AGAIN_AFTER_MS;
  let isClosing = false;
  countCrash(getDb());
  const tell = (message: JobsMessage) => child?.connected && child.send(message, () => {});
  const start = () => {
    if (isClosing) return;
    lastBeat = Date.now();
    child = forkNode(program ?? join(process.cwd(), "dist-workers", "run.process.mjs"));
    child.on("message", () => {
      lastBeat = Date.now();
      pauseMs = AGAIN_AFTER_MS;
    });
    child.on("error", (error) => console.error("jobs' process:", error.message));
    child.on("exit", (code, signal) => {
      child = null;
      if (isClosing) return;
      console.error(`The jobs' process ended (${signal ?? code}); it is started again.`);
      try {
        countCrash(getDb());
      } catch (error) {
        console.error("jobs' process:", error);
      }
      setTimeout(start, pauseMs).unref();
      // One that ends at once is not started in a rush.
      pauseMs = Math.min(pauseMs * 2, LONGEST_PAUSE_MS);
    });
    child.unref();
    child.channel?.unref();
  };
  setInterval(() => {
    if (child && Date.now() - lastBeat > hangsAfterMs) child.kill("SIGKILL");
  }, LOOK_MS).unref();
  tellQueue(tell);
  shared.fondQuarryJobs = {
    close: () => {
      isClosing = true;
      child?.kill("SIGKILL");
    },
  };
  start();
}
