"use client";
// What is kept for this brief, set in its words, the name attached. Order is changed in Shortlist.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import { levelFactor } from "@/core/brief/level";
import { addressOf, queryOf } from "../parts/client";
import { CoreSample } from "../parts/CoreSample";
import { CareMark } from "../parts/CareMark";
import { Sample } from "../parts/Sample";
import { addressOfKept, sampleAt, writeSetting } from "../parts/sampleOf";
import { useBench } from "./BenchContext";
import { useActiveLine } from "./BriefStrip";
import { carryFace, useComparing } from "./comparing";

export function useKept() {
  const { brief } = useBench();
  return useQuery({
    ...queryOf("listKept", { params: { id: brief.briefId } }),
    placeholderData: (before) => before,
  });
}

export function Tray() {
  const { brief, letGo } = useBench();
  const comparing = useComparing();
  const [active] = useActiveLine();
  const kept = useKept();
  const items = new Map(kept.data?.items.map((i) => [i.styleId, i]));
  return (
    <aside className="flex min-h-0 flex-col border-l border-rule bg-chalk max-md:hidden" aria-label="Kept">
      <h2 className="head flex justify-between px-3.5 pt-3 pb-1">
        Kept <span className="num">{brief.kept.length}</span>
      </h2>
      <ul className="min-h-0 flex-1 overflow-y-auto px-3.5">
        {brief.kept.map(({ keptId, styleId, role, location, features }) => {
          const item = items.get(styleId);
          if (!item) return null;
          return (
            <li
              key={keptId}
              className="group flex gap-2.5 border-b border-rule py-2.5"
              draggable
              onDragStart={(event) => carryFace(event, styleId)}
            >
              <CoreSample traits={item.traits} ranges={kept.data?.ranges ?? {}} width={11} band={7} />
              <div className="min-w-0 flex-1">
                <Link href={addressOfKept(brief.briefId, { styleId, location, features })} className="block">
                  <Sample
                    {...sampleAt(item, { location, features })}
                    text={brief.lines[active]?.text || item.family}
                    sizePx={20 * levelFactor(item.traits, brief.levelBy)}
                  />
                  <span className="flex justify-between gap-2 text-[12px] text-basalt">
                    <span className="min-w-0">
                      <span className="block truncate">
                        {item.family} {item.style}
                      </span>
                      <span className="block truncate empty:hidden">{writeSetting({ location, features })}</span>
                    </span>
                    <CareMark health={item.health} compact />
                    <span className="shrink-0">{role}</span>
                  </span>
                </Link>
              </div>
              <div className="flex flex-col items-end gap-1">
                <button
                  type="button"
                  aria-label={`Compare ${item.family} ${item.style}`}
                  aria-pressed={comparing.ids.includes(styleId)}
                  title={comparing.ids.includes(styleId) ? "Remove from the comparison" : "Add to the comparison"}
                  onClick={() => comparing.turn(styleId, `${item.family} ${item.style}`)}
                  className={`grid h-6 w-6 place-items-center ${comparing.ids.includes(styleId) ? "" : "opacity-60 group-hover:opacity-100"}`}
                >
                  <span
                    aria-hidden
                    className={`h-2.5 w-2.5 rounded-full border border-oxide ${comparing.ids.includes(styleId) ? "bg-oxide" : ""}`}
                  />
                </button>
                <button
                  type="button"
                  aria-label={`Remove ${item.family} ${item.style}`}
                  title="Remove from kept"
                  onClick={() => letGo(keptId, `${item.family} ${item.style}`)}
                  className="btn-quiet opacity-60 group-hover:opacity-100"
                >
                  ×
                </button>
              </div>
            </li>
          );
        })}
        {!brief.kept.length && (
          <li className="py-2 text-basalt">Nothing yet. On the wall, Space keeps the face in focus.</li>
        )}
      </ul>
      {brief.kept.length > 0 && (
        <div className="grid gap-2.5 p-3.5">
          <Link href={`/b/${brief.briefId}/shortlist`} className="btn">
            Order the shortlist
          </Link>
          <a href={addressOf("writeContactSheet", { params: { id: brief.briefId } })} className="btn btn-act">
            Contact sheet
          </a>
        </div>
      )}
    </aside>
  );
}
