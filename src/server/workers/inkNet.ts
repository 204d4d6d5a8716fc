// The net that sees ink, run by ONNX Runtime's WebAssembly. Opened once a process, at its first question or before.
import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { env, InferenceSession, Tensor } from "onnxruntime-web";
import type { InkNet } from "@/core/picture/learnedInk";

/** Weights that scripts/fit/ink fitted. */
const WEIGHTS = join(process.cwd(), "src/core/picture/ink.onnx");

let session: Promise<InferenceSession> | null = null;

export async function warmInkNet(): Promise<void> {
  // One thread: others do the shares of the same question.
  env.wasm.numThreads = 1;
  session ??= readFile(WEIGHTS).then((bytes) => InferenceSession.create(bytes, { executionProviders: ["wasm"] }));
  await session;
}

export const inkNet: InkNet = async (planes, widthPx, heightPx) => {
  await warmInkNet();
  const picture = new Tensor("float32", planes, [1, 3, heightPx, widthPx]);
  const { ink } = await (await session!).run({ picture });
  return (ink!.data as Float32Array).map((v) => 1 / (1 + Math.exp(-v)));
};
