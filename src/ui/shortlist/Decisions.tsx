"use client";
import { useQuery } from "@tanstack/react-query";
import { useBench } from "../bench/BenchContext";
import { queryOf } from "../parts/client";

/** What was decided for the brief, by whom and why: it goes along in the hand-over. */
export function Decisions() {
  const { brief } = useBench();
  const log = useQuery(queryOf("listDecisions", { params: { id: brief.briefId } }));
  const list = log.data?.decisions ?? [];
  if (!list.length) return null;
  return (
    <section className="mt-10 max-w-[1080px]" data-decisions>
      <h2 className="border-b-2 border-slate pb-2 text-[16px] font-bold">Decisions</h2>
      <ol>
        {list.map((decision, i) => (
          <li key={i} className="flex gap-4 border-b border-rule py-2">
            <time className="num w-32 shrink-0 text-basalt" dateTime={decision.at}>
              {new Date(decision.at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}
            </time>
            <span>
              {decision.by.endsWith("(client)") && (
                <span className="font-semibold">{decision.by.replace(" (client)", "")}: </span>
              )}
              {decision.says}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}
