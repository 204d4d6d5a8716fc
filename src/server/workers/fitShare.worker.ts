// Worker entry: the second pair of hands of identify.worker. It does the shares of a question that it is sent, over the same index.
import { parentPort } from "node:worker_threads";
import { runTask, type Task, type ReplyTo } from "@/core/identify/executor";
import type { FaceLoader } from "@/core/identify/registration/fit";
import { SignatureIndex, type SharedSignatures } from "@/core/descriptors/extractDescriptors";
import { relieve } from "./relieve";
import { loadStored, type StoredFiles } from "./loadStored";

export type ShareRequest = { signatures: SharedSignatures; files: StoredFiles } | { id: number; task: Task };
export type ShareReply = { id: number } & ({ ok: true; reply: ReplyTo<Task> } | { ok: false; detail: string });

let held: { index: SignatureIndex; load: FaceLoader } | null = null;

parentPort?.on("message", (request: ShareRequest) => {
  if ("signatures" in request) {
    held = { index: SignatureIndex.from(request.signatures), load: loadStored(request.files) };
    return;
  }
  const { id, task } = request;
  const say = (reply: ShareReply) => parentPort!.postMessage(reply);
  try {
    say({ id, ok: true, reply: runTask(task, held!.index, held!.load) });
  } catch (error) {
    say({ id, ok: false, detail: String((error as Error).message) });
  }
  // Beside the first thread's part of the question.
  void relieve();
});
