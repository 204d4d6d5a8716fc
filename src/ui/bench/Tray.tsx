"use client";
// What is kept for this brief, set in its words, the name attached. Order is changed in Shortlist.
import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import type { Kept } from "@/contracts/brief";
import type { ShownItem } from "@/contracts/styles";
import { levelFactor } from "@/core/brief/level";
import { addressOf, queryOf } from "../parts/client";
import { CoreSample, type Ranges } from "../parts/CoreSample";
import { CareMark } from "../parts/CareMark";
import { Sample } from "../parts/Sample";
import { addressOfKept, sampleAt, writeSetting } from "../parts/sampleOf";
import { useBench } from "./BenchContext";
import { useActiveLine } from "./BriefStrip";
import { carryFace, useComparing } from "./comparing";
import { useDressing } from "./dressing";

export function useKept() {
  const { brief } = useBench();
  return useQuery({
    ...queryOf("listKept", { params: { id: brief.briefId } }),
    placeholderData: (before) => before,
  });
}

export function Tray() {
  const { brief } = useBench();
  const kept = useKept();
  const isLettering = useDressing() !== null;
  const items = new Map(kept.data?.items.map((i) => [i.styleId, i]));
  return (
    <aside className="flex min-h-0 flex-col border-l border-rule bg-chalk max-md:hidden" aria-label="Kept">
      <h2 className="head flex justify-between px-3.5 pt-3 pb-1">
        Kept <span className="num">{brief.kept.length}</span>
      </h2>
      <ul className="min-h-0 flex-1 overflow-y-auto px-3.5">
        {brief.kept.map((entry) => (
          <TrayItem key={entry.keptId} entry={entry} item={items.get(entry.styleId)} ranges={kept.data?.ranges ?? {}} />
        ))}
        {!brief.kept.length && (
          <li className="py-2 text-basalt">Nothing yet. On the wall, Space keeps the face in focus.</li>
        )}
      </ul>
      {isLettering && brief.kept.length > 0 && (
        <p className="px-3.5 py-2 text-[12px] text-basalt">A click sets the chosen line in a face.</p>
      )}
      {!isLettering && brief.kept.length > 0 && (
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

type ItemProps = { entry: Kept; item: ShownItem | undefined; ranges: Ranges };

function TrayItem({ entry, item, ranges }: ItemProps) {
  const { brief } = useBench();
  const [active] = useActiveLine();
  const dressing = useDressing();
  if (!item) return null;
  const { styleId, role, location, features } = entry;
  const name = `${item.family} ${item.style}`;
  const shown = (
    <>
      <Sample
        {...sampleAt(item, { location, features })}
        text={brief.lines[active]?.text || item.family}
        sizePx={20 * levelFactor(item.traits, brief.levelBy)}
      />
      <span className="flex justify-between gap-2 text-[12px] text-basalt">
        <span className="min-w-0">
          <span className="block truncate">{name}</span>
          <span className="block truncate empty:hidden">{writeSetting({ location, features })}</span>
        </span>
        <CareMark health={item.health} compact />
        {dressing ? (
          <span className="shrink-0 font-medium text-oxide">{dressing.wornBy(entry)}</span>
        ) : (
          <span className="shrink-0">{role}</span>
        )}
      </span>
    </>
  );
  return (
    <li
      className="group flex gap-2.5 border-b border-rule py-2.5"
      draggable
      onDragStart={(event) => carryFace(event, styleId)}
    >
      <CoreSample traits={item.traits} ranges={ranges} width={11} band={7} />
      <div className="min-w-0 flex-1">
        {dressing ? (
          <button
            type="button"
            aria-label={`Set the line in ${name}`}
            className="block w-full text-left"
            onClick={() => dressing.wear(entry)}
          >
            {shown}
          </button>
        ) : (
          <Link href={addressOfKept(brief.briefId, { styleId, location, features })} className="block">
            {shown}
          </Link>
        )}
      </div>
      <TrayButtons entry={entry} name={name} />
    </li>
  );
}

/** Into the comparison and out of it; out of what is kept. */
function TrayButtons({ entry: { keptId, styleId }, name }: { entry: Kept; name: string }) {
  const { letGo } = useBench();
  const comparing = useComparing();
  const isCompared = comparing.ids.includes(styleId);
  return (
    <div className="flex flex-col items-end gap-1">
      <button
        type="button"
        aria-label={`Compare ${name}`}
        aria-pressed={isCompared}
        title={isCompared ? "Remove from the comparison" : "Add to the comparison"}
        onClick={() => comparing.turn(styleId, name)}
        className={`grid h-6 w-6 place-items-center ${isCompared ? "" : "opacity-60 group-hover:opacity-100"}`}
      >
        <span aria-hidden className={`h-2.5 w-2.5 rounded-full border border-oxide ${isCompared ? "bg-oxide" : ""}`} />
      </button>
      <button
        type="button"
        aria-label={`Remove ${name}`}
        title="Remove from kept"
        onClick={() => letGo(keptId, name)}
        className="btn-quiet opacity-60 group-hover:opacity-100"
      >
        ×
      </button>
    </div>
  );
}
