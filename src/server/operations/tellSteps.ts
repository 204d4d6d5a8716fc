// Work that is told while it goes on: lines of JSON, one a step, the last of them the answer or why there is none.
import { sentenceOf, type Outcome } from "@/contracts/errors";
import { FileAnswer } from "./answers";

type Refused = { step: "refused"; error: { code: string; message: string; details?: unknown } };
/** @param gone - aborts when nobody reads any more. */
type Work<Told, Value> = (gone: AbortSignal, tell: (step: Told) => void) => Promise<Outcome<Value>>;

/** @param lastOf - the last step, which holds what came of the work. */
export function tellSteps<Told, Value>(
  work: Work<Told, Value>,
  lastOf: (value: Value) => object,
  signal: AbortSignal,
): FileAnswer {
  const stop = new AbortController();
  const text = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (step: unknown) => {
        if (!stop.signal.aborted) controller.enqueue(text.encode(`${JSON.stringify(step)}\n`));
      };
      signal.addEventListener("abort", () => stop.abort(), { once: true });
      const end = (step: object) => {
        say(step);
        if (!stop.signal.aborted) controller.close();
      };
      // Not awaited: what is told meanwhile is sent as it comes.
      void work(stop.signal, say).then(
        (outcome) => end(outcome.ok ? lastOf(outcome.value) : refusedBy(outcome)),
        (error: unknown) => {
          console.error("told in steps:", error);
          end({ step: "refused", error: { code: "internal", message: sentenceOf("internal") } } satisfies Refused);
        },
      );
    },
    cancel: () => stop.abort(),
  });
  return new FileAnswer(stream, "application/x-ndjson", {
    headers: { "cache-control": "no-store, no-transform", "x-accel-buffering": "no" },
  });
}

const refusedBy = ({ code, message, details }: Extract<Outcome<never>, { ok: false }>): Refused => ({
  step: "refused",
  error: { code, message, ...(details !== undefined && { details }) },
});
