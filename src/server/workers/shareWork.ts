// An executor of two: this thread and a second one, to which all is given that this one does not wait for. What the second cannot do, this one does too.
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import { runTask, type Executor, type Task, type ReplyTo } from "@/core/identify/executor";
import type { FaceLoader } from "@/core/identify/registration/fit";
import type { SignatureIndex } from "@/core/descriptors/extractDescriptors";
import type { StoredFiles } from "./loadStored";
import type { ShareReply, ShareRequest } from "./fitShare.worker";

const MEMORY_MB = 1024;

/** The second thread: started when it is first needed, and again after it has ended. */
class WorkerPeer {
  private worker: Worker | null = null;
  private waiting = new Map<number, (reply: ReplyTo<Task> | null) => void>();
  private count = 0;
  private version = -1;
  constructor(private readonly file: string) {}

  /** @returns null when the thread ended or failed over it. */
  do<J extends Task>(task: J, index: SignatureIndex, files: StoredFiles, version: number) {
    const worker = (this.worker ??= this.start());
    if (this.version !== version) {
      this.version = version;
      worker.postMessage({ signatures: index.share(), files } satisfies ShareRequest);
    }
    const id = this.count++;
    worker.postMessage({ id, task } satisfies ShareRequest);
    return new Promise<ReplyTo<J> | null>((resolve) =>
      this.waiting.set(id, resolve as (reply: ReplyTo<Task> | null) => void),
    );
  }

  private start(): Worker {
    const worker = new Worker(this.file, {
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
    });
    worker.on("message", (reply: ShareReply) => {
      if (!reply.ok) console.error("identify, second thread:", reply.detail);
      this.waiting.get(reply.id)?.(reply.ok ? reply.reply : null);
      this.waiting.delete(reply.id);
    });
    worker.on("error", (error) => console.error("identify, second thread:", error.message));
    worker.on("exit", () => {
      this.worker = null;
      this.version = -1;
      for (const resolve of this.waiting.values()) resolve(null);
      this.waiting.clear();
    });
    // After the listeners, which would hold the process again: an idle second thread holds nothing up.
    worker.unref();
    return worker;
  }
}

/** One for each program of it; there is only one but in tests. */
const seconds = new Map<string, WorkerPeer>();

/**
 * @param version - of the index: another one is sent to the second thread.
 * @param file - the program of the second thread.
 */
export function sharedExecutor(
  index: SignatureIndex,
  load: FaceLoader,
  files: StoredFiles,
  version: number,
  file = join(process.cwd(), "dist-workers", "fitShare.worker.mjs"),
): Executor {
  let second = seconds.get(file);
  if (!second) seconds.set(file, (second = new WorkerPeer(file)));
  const ask = <J extends Task>(task: J) => second.do(task, index, files, version);
  const orHere = async <J extends Task>(task: J, asked: Promise<ReplyTo<J> | null>) =>
    (await asked) ?? runTask(task, index, load);
  return async <J extends Task>(tasks: J[], aside = false) => {
    if (aside) return Promise.all(tasks.map((task) => orHere(task, ask(task))));
    const [mine, theirs] = tasks;
    if (!mine || !theirs) return tasks.map((task) => runTask(task, index, load));
    const asked = ask(theirs);
    // Should this share fail, the other one is not begun here.
    const own = runTask(mine, index, load);
    return [own, await orHere(theirs, asked)];
  };
}
