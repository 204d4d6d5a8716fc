// What happens to a brief, as server-sent events (WHATWG HTML, "Server-sent events"): each says by whom and to which version.
import { refuse, succeed, type Outcome } from "@/contracts/errors";
import type { Db } from "../db/open";
import { hearBrief } from "../events/briefEvents";
import { findBrief } from "../queries/briefs";
import { FileAnswer } from "./answers";

const HEARTBEAT_MS = 15_000;

export function streamBriefEvents(db: Db, briefId: string, signal: AbortSignal): Outcome<FileAnswer> {
  const brief = findBrief(db, briefId);
  if (!brief) return refuse("not-found");
  const text = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (line: string) => controller.enqueue(text.encode(`${line}\n\n`));
      say(`event: version\ndata: ${JSON.stringify({ version: brief.version })}`);
      const stopHearing = hearBrief(briefId, (event) => say(`event: changed\ndata: ${JSON.stringify(event)}`));
      const timer = setInterval(() => say(":"), HEARTBEAT_MS);
      end = () => {
        stopHearing();
        clearInterval(timer);
        signal.removeEventListener("abort", close);
      };
      const close = () => {
        end();
        controller.close();
      };
      signal.addEventListener("abort", close);
    },
    cancel: () => end(),
  });
  const headers = { "cache-control": "no-store", "x-accel-buffering": "no" };
  return succeed(new FileAnswer(stream, "text/event-stream", { headers }));
}
