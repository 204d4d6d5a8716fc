// Starts one of our own programs as a child with a line to it. Not `fork`: bundlers take its argument for a module of theirs.
import { spawn, type ChildProcess } from "node:child_process";
import { setPriority } from "node:os";

/** Behind the server itself, which only answers; before what runs in the background: somebody waits for it. */
const WAITED_FOR = 5;
/** Behind all else: searches stay quick while files are read. */
export const IN_BACKGROUND = 10;

/** @property nodeOptions - before the program. @property env - beside our own. */
type ForkOptions = { nodeOptions?: string[]; niceness?: number; env?: Record<string, string> };

/** @param args - of the program. */
export function forkNode(program: string, args: string[] = [], options: ForkOptions = {}): ChildProcess {
  const { nodeOptions = [], niceness = WAITED_FOR, env } = options;
  const child = spawn(process.execPath, [...nodeOptions, program, ...args], {
    serialization: "advanced",
    stdio: ["ignore", "inherit", "inherit", "ipc"],
    env: { ...process.env, NODE_OPTIONS: "", UV_THREADPOOL_SIZE: "2", ...env },
  });
  if (child.pid !== undefined)
    try {
      setPriority(child.pid, niceness);
    } catch {
      // It has ended already, or the system does not let us.
    }
  return child;
}
