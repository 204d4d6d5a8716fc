// What happens to a brief, as server-sent events (WHATWG HTML, "Server-sent events"): each says by whom and to which version.
import { refusal, route } from "@/app/api/respond";
import { getDb } from "@/server/db/open";
import { hearBrief } from "@/server/events/briefEvents";
import { findBrief } from "@/server/queries/briefs";

export const dynamic = "force-dynamic";
const SIGN_OF_LIFE_MS = 15_000;

export const GET = route<{ id: string }>((request, { id }) => {
  const brief = findBrief(getDb(), id);
  if (!brief) return refusal("not-found");
  const text = new TextEncoder();
  let end = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (line: string) => controller.enqueue(text.encode(`${line}\n\n`));
      say(`event: version\ndata: ${JSON.stringify({ version: brief.version })}`);
      const deaf = hearBrief(id, (event) => say(`event: changed\ndata: ${JSON.stringify(event)}`));
      const timer = setInterval(() => say(":"), SIGN_OF_LIFE_MS);
      end = () => {
        deaf();
        clearInterval(timer);
        request.signal.removeEventListener("abort", close);
      };
      const close = () => {
        end();
        controller.close();
      };
      request.signal.addEventListener("abort", close);
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { "content-type": "text/event-stream", "cache-control": "no-store", "x-accel-buffering": "no" },
  });
});
