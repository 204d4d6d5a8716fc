// Starts one of our own programs as a child with a line to it. Not `fork`: bundlers take its argument for a module of theirs.
import { spawn, type ChildProcess } from "node:child_process";

/** @param args - of the program. @param options - of Node, before it. */
export function forkNode(program: string, args: string[] = [], options: string[] = []): ChildProcess {
  return spawn(process.execPath, [...options, program, ...args], {
    serialization: "advanced",
    stdio: ["ignore", "inherit", "inherit", "ipc"],
    env: { ...process.env, NODE_OPTIONS: "", UV_THREADPOOL_SIZE: "2" },
  });
}
