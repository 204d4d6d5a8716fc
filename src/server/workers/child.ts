// Program of every child process of a pool: loads one worker entry and does what it is sent, one request at a time.
import { pathToFileURL } from "node:url";
import { watchOwnProcess } from "./watch";

export type ParentMessage = { id: number; name: string; request: unknown } | { cancel: number };
export type ChildMessage =
  | { id: number; step: unknown }
  | { id: number; ok: true; reply: unknown }
  | { id: number; ok: false; code: "let-go" | "reader-failed"; detail: string; isBroken: boolean };
type Entry = Record<string, (request: unknown, signal: AbortSignal, tell: (step: unknown) => void) => unknown>;

/** Once the heap of a wasm module is broken, whatever comes next in the same process may be wrong. */
const isBroken = (error: unknown) =>
  error instanceof WebAssembly.RuntimeError || error instanceof RangeError || /out of memory/i.test(String(error));

const [, , file, memoryMb] = process.argv;
watchOwnProcess(Number(memoryMb));
const entry = import(pathToFileURL(file!).href) as Promise<Entry>;
const running = new Map<number, AbortController>();
const say = (reply: ChildMessage) => process.send!(reply);
process.on("disconnect", () => process.kill(process.pid, "SIGKILL"));
process.on("message", (message: ParentMessage) => {
  if ("cancel" in message) running.get(message.cancel)?.abort();
  else void serve(message);
});

async function serve({ id, name, request }: Exclude<ParentMessage, { cancel: number }>) {
  const stop = new AbortController();
  running.set(id, stop);
  try {
    say({ id, ok: true, reply: await (await entry)[name]!(request, stop.signal, (step) => say({ id, step })) });
  } catch (error) {
    const code = stop.signal.aborted ? "let-go" : "reader-failed";
    say({ id, ok: false, code, detail: String((error as Error).message), isBroken: isBroken(error) });
  } finally {
    running.delete(id);
  }
}
