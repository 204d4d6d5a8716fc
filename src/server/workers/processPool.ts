// A pool of child processes for work on strangers' bytes. A thread is not enough: native code outlives a thread that is ended, and
// its memory counts to the server. A process is killed whole. Waiting in line costs no time limit, and the line has an end.
import type { ChildProcess } from "node:child_process";
import { readFileSync } from "node:fs";
import type { ChildMessage, ParentMessage } from "./child";
import { forkNode } from "./forkNode";

/** Why there is no reply. "let-go": the asker has gone. */
export type EndCode = "busy" | "let-go" | "took-too-long" | "too-much-memory" | "reader-failed";
export type Ran<T> = { ok: true; value: T } | { ok: false; code: EndCode; detail: string; place?: number };

export type PoolOptions = {
  /** The child's program: dist-workers/child.mjs. */
  program: string;
  /** The worker entry that it loads. */
  entry: string;
  processes: number;
  /** Memory of one process, script heap and native together. Beyond it the process is killed. */
  memoryMb: number;
  /** How many may wait; beyond it the answer is "busy". */
  line?: number;
  /** An idle process ends after so long. */
  idleMs?: number;
  /** How far its processes stand back behind others of the machine; as what somebody waits for when left out. */
  niceness?: number;
  /** Of its processes, beside our own. */
  env?: Record<string, string>;
};
/**
 * @property canWait - others go before it, however long it has waited.
 * @property isComputing - it never waits for anything: its limit is time of the processor, where the system tells it, so that work on a
 *   busy machine is not given up for what others do. It has four times as long by the clock.
 */
export type RunOptions = {
  timeoutMs: number;
  signal?: AbortSignal;
  name?: string;
  canWait?: boolean;
  isComputing?: boolean;
  /** Is told what the work says of itself before it is done. */
  onStep?: (step: unknown) => void;
};

type Task = {
  id: number;
  request: unknown;
  options: RunOptions;
  resolve: (ran: Ran<never>) => void;
  forget: () => void;
};
type Child = {
  process: ChildProcess;
  task: Task | null;
  timer?: NodeJS.Timeout;
  idle?: NodeJS.Timeout;
  /** Why we killed it; undefined when it ended by itself. */
  killedFor?: Exclude<EndCode, "busy">;
};

/** How long a task may go on after its asker has gone: it is asked to stop, then killed. */
const GRACE_MS = 1_000;
/** By the clock, computing may take this many times its limit of processor time. */
const MAX_WALL_FACTOR = 4;
const MIN_LEFT_MS = 20;
/** Ticks of /proc/<pid>/stat a second (USER_HZ). */
const TICKS_A_SECOND = 100;

/** Processor time that a process has used so far; null where the system does not tell. */
function cpuTimeMs(pid: number): number | null {
  try {
    // After the name, which may hold anything: state is the first field, utime and stime the twelfth and thirteenth (proc_pid_stat(5)).
    const fields = readFileSync(`/proc/${pid}/stat`, "latin1").split(") ").pop()!.split(" ");
    return ((Number(fields[11]) + Number(fields[12])) * 1000) / TICKS_A_SECOND;
  } catch {
    return null;
  }
}

export class ProcessPool {
  private readonly children = new Set<Child>();
  private readonly waiting: Task[] = [];
  private count = 0;
  private atOnce = Infinity;
  constructor(private readonly options: PoolOptions) {}

  /** Takes up no more than so many tasks at a time: for a while in which others need the machine. What runs goes on. */
  limitAtOnce(tasks: number) {
    this.atOnce = tasks;
    this.next();
  }

  /** How many wait in line. */
  get inLine(): number {
    return this.waiting.length;
  }

  /**
   * Runs one request in a process of the pool. Its limit of time begins when a process takes it up.
   * @param request - structured-cloneable; bytes are copied.
   * @returns the reply, or the code of why there is none. Never throws.
   */
  run<Request, Reply>(request: Request, options: RunOptions): Promise<Ran<Reply>> {
    return new Promise((resolve) => {
      if (options.signal?.aborted) return resolve({ ok: false, code: "let-go", detail: "The asker has gone." });
      const place = this.waiting.length + 1;
      if (!this.hasFree() && this.waiting.length >= (this.options.line ?? Infinity))
        return resolve({ ok: false, code: "busy", detail: `${place} are waiting already.`, place });
      const onAbort = () => this.letGo(task);
      const task: Task = {
        id: ++this.count,
        request,
        options,
        resolve: resolve,
        forget: () => options.signal?.removeEventListener("abort", onAbort),
      };
      options.signal?.addEventListener("abort", onAbort, { once: true });
      const firstOfPatient = options.canWait ? -1 : this.waiting.findIndex((t) => t.options.canWait);
      this.waiting.splice(firstOfPatient < 0 ? this.waiting.length : firstOfPatient, 0, task);
      this.next();
    });
  }

  /** Kills every process; what runs or waits is let go. */
  close() {
    for (const task of this.waiting.splice(0))
      settle(task, { ok: false, code: "let-go", detail: "The pool is closed." });
    for (const child of this.children) this.kill(child, "let-go");
  }

  private get busy() {
    return [...this.children].filter((c) => c.task).length;
  }

  private findIdle() {
    return [...this.children].find((c) => !c.task && !c.killedFor);
  }

  private hasFree() {
    return this.busy < this.atOnce && (this.children.size < this.options.processes || this.findIdle() !== undefined);
  }

  private next() {
    while (this.waiting.length && this.hasFree()) this.give(this.findIdle() ?? this.start(), this.waiting.shift()!);
  }

  private give(child: Child, task: Task) {
    clearTimeout(child.idle);
    child.task = task;
    child.process.ref();
    child.process.channel?.ref();
    this.limit(child, task.options);
    const message: ParentMessage = { id: task.id, name: task.options.name ?? "default", request: task.request };
    child.process.send(message, (error) => {
      if (error) this.kill(child, "reader-failed");
    });
  }

  private limit(child: Child, { timeoutMs, isComputing }: RunOptions) {
    const begunMs = isComputing ? cpuTimeMs(child.process.pid!) : null;
    const endsAt = performance.now() + MAX_WALL_FACTOR * timeoutMs;
    const look = () => {
      const nowMs = begunMs === null ? null : cpuTimeMs(child.process.pid!);
      const leftMs = nowMs === null ? 0 : Math.min(timeoutMs - (nowMs - begunMs!), endsAt - performance.now());
      if (leftMs < MIN_LEFT_MS) this.kill(child, "took-too-long");
      else child.timer = setTimeout(look, leftMs);
    };
    child.timer = setTimeout(look, timeoutMs);
  }

  private start(): Child {
    const { program, entry, memoryMb, niceness, env } = this.options;
    const nodeOptions = [`--max-old-space-size=${memoryMb}`];
    const child: Child = {
      process: forkNode(program, [entry, String(memoryMb)], { nodeOptions, niceness, env }),
      task: null,
    };
    this.children.add(child);
    child.process.on("message", (message: ChildMessage) => this.onReply(child, message));
    child.process.on("error", (error) => this.onEnd(child, error.message));
    child.process.on("exit", (code, signal) => this.onEnd(child, `ended with ${signal ?? code}`, signal));
    return child;
  }

  private onReply(child: Child, message: ChildMessage) {
    const { task } = child;
    if (!task || task.id !== message.id || child.killedFor) return;
    if ("step" in message) return task.options.onStep?.(message.step);
    clearTimeout(child.timer);
    child.task = null;
    if (message.ok) settle(task, { ok: true, value: message.reply as never });
    else settle(task, { ok: false, code: message.code, detail: message.detail });
    if (!message.ok && message.isBroken) this.kill(child, "reader-failed");
    else this.rest(child);
    this.next();
  }

  /** An idle process holds nothing up, and ends after a while. */
  private rest(child: Child) {
    child.process.unref();
    child.process.channel?.unref();
    child.idle = setTimeout(() => this.kill(child, "let-go"), this.options.idleMs ?? 60_000);
    child.idle.unref();
  }

  private onEnd(child: Child, detail: string, signal?: NodeJS.Signals | null) {
    if (!this.children.delete(child)) return;
    clearTimeout(child.timer);
    clearTimeout(child.idle);
    // Nobody but the child's own watch kills it without our having said so: it used too much memory. V8 aborts for the same reason.
    const code =
      child.killedFor ?? (signal === "SIGKILL" || signal === "SIGABRT" ? "too-much-memory" : "reader-failed");
    if (child.task) settle(child.task, { ok: false, code, detail });
    child.task = null;
    this.next();
  }

  private letGo(task: Task) {
    const at = this.waiting.indexOf(task);
    if (at >= 0) {
      this.waiting.splice(at, 1);
      return settle(task, { ok: false, code: "let-go", detail: "The asker has gone." });
    }
    const child = [...this.children].find((c) => c.task === task);
    if (!child) return;
    child.process.send({ cancel: task.id } satisfies ParentMessage, () => {});
    const timer = setTimeout(() => {
      if (child.task === task) this.kill(child, "let-go");
    }, GRACE_MS);
    timer.unref();
  }

  private kill(child: Child, reason: NonNullable<Child["killedFor"]>) {
    child.killedFor ??= reason;
    child.process.kill("SIGKILL");
  }
}

function settle(task: Task, ran: Ran<never>) {
  task.forget();
  task.resolve(ran);
}
